/** Batches as the server runs them: two workers against one, and ten thousand runs of one encounter. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { startInstance } from '../instance.mjs';
import { runningPostgres } from '../postgres.mjs';
import { ROOT } from '../system.mjs';
import { peakMemory } from './memory.mjs';

const JSON_HEADERS = { 'Content-Type': 'application/json', Connection: 'close' };
const post = (url, body) => fetch(url, { method: 'POST', headers: JSON_HEADERS, body: JSON.stringify(body) });

/** A copy of the demo whose numbers differ a little: what is known of another is not known of it, and it runs as long. */
async function freshProject(address, number) {
  const document = JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8'));
  document.id = document.name = `fresh-${number}`;
  for (const unit of document.units) unit.health.max += number * 1e-6;
  await post(`${address}/api/projects`, document);
  return document.id;
}

/** s from asking until everything is done. */
async function batchTime(address, project, cells) {
  const start = process.hrtime.bigint();
  await post(`${address}/api/projects/${project}/batches`, { cells });
  for (;;) {
    const left = await (await fetch(`${address}/api/projects/${project}/batches`, { headers: { Connection: 'close' } })).json();
    if (!left.length) return Number(process.hrtime.bigint() - start) / 1e9;
    await new Promise((then) => setTimeout(then, 50));
  }
}

const shift = [{ cell: 'encounter|evening-shift|bloom|regular||', runs: 600 }];

/** A server with one thread, alone and with a worker process of one thread beside it, in turn. */
export async function twoWorkers() {
  const instance = await startInstance({ env: { THREADS: '1' } });
  const url = runningPostgres(instance.home);
  const [alone, helped] = [[], []];
  await batchTime(instance.address, await freshProject(instance.address, 1), shift);
  for (let round = 0; round < 3; round++) {
    alone.push(await batchTime(instance.address, await freshProject(instance.address, 10 + round), shift));
    const worker = spawn(process.execPath, [join(ROOT, 'apps/server/dist/worker-main.js')], {
      env: { ...process.env, DATABASE_URL: url, THREADS: '1', LOG_LEVEL: 'fatal' },
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    await once(worker, 'message');
    // Its first batch warms its compiler up.
    await batchTime(instance.address, await freshProject(instance.address, 20 + round), shift);
    helped.push(await batchTime(instance.address, await freshProject(instance.address, 30 + round), shift));
    worker.kill('SIGTERM');
    await once(worker, 'exit');
  }
  await instance.stop();
  const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
  return { ratio: median(alone) / median(helped), alone: median(alone), helped: median(helped) };
}

/** So many runs of Evening Shift: how long, what the server holds at most, and how long its figures take to read. */
export async function manyRuns(runs) {
  const instance = await startInstance();
  const { address } = instance;
  const cell = 'encounter|evening-shift|bloom|regular||';
  const seconds = await batchTime(address, 'verdance', [{ cell, runs }]);
  const timed = async (act) => {
    const start = process.hrtime.bigint();
    await (await act()).arrayBuffer();
    return Number(process.hrtime.bigint() - start) / 1e6;
  };
  const read = await timed(() => post(`${address}/api/projects/verdance/cells/read`, { cells: [{ cell, columns: ['won', 'length'] }] }));
  const curve = await timed(() => fetch(`${address}/api/projects/verdance/cells/curve?cell=${encodeURIComponent(cell)}`));
  const megabytes = peakMemory(instance.process.pid, 'main.js');
  await instance.stop();
  return { runs, seconds, megabytes, read, curve };
}
