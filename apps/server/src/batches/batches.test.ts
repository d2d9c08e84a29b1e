import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import {
  Batch,
  CURVES,
  type Scenario,
  Curves,
  causesOf,
  scenarioKey,
  columnOf,
  digestNumber,
  compileScenario,
  duelScenario,
  look,
  parseProject,
  projectWithRounds,
} from '@insidia/core';
import { MikroORM, PostgreSqlDriver } from '@mikro-orm/postgresql';
import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { type TestServer, newDatabase, startServer } from '../testing';

const ROOT = join(__dirname, '../../../..');
const demo = () => parseProject(JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8')));
let database: string;
let server: TestServer;
let orm: MikroORM;
let port: number;

const freePort = () =>
  new Promise<number>((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port: free } = probe.address() as { port: number };
      probe.close(() => done(free));
    });
  });

beforeAll(async () => {
  database = await newDatabase();
  port = await freePort();
  server = await startServer(database, port);
  orm = await MikroORM.init({ driver: PostgreSqlDriver, clientUrl: database, entities: [], discovery: { warnWhenNoEntities: false } });
});
afterAll(async () => {
  await orm?.close(true);
  await server?.stop();
});

const sql = <T>(query: string, values: unknown[] = []) => orm.em.fork().getConnection().execute(query, values, 'all') as Promise<T[]>;
const call = async (method: string, path: string, body?: unknown, headers: Record<string, string> = {}) => {
  const response = await fetch(`${server.address}/api/projects/${path}`, {
    method,
    headers: { ...(body !== undefined && { 'Content-Type': 'application/json' }), ...headers },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  const text = await response.text();
  return { status: response.status, body: text ? JSON.parse(text) : undefined, etag: response.headers.get('etag') };
};
let made = 0;
/** A project of its own: numbers that nobody else has, so that nothing is known of it yet. */
async function project(change: (document: any) => void = () => {}) {
  const document = demo() as any;
  document.id = document.name = `batch-${++made}`;
  for (const unit of document.units) unit.health.max += made / 1000;
  change(document);
  const { status } = await fetch(`${server.address}/api/projects`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(document),
  });
  expect(status).toBe(201);
  return parseProject(document);
}
const duel = (id: string, tier = 'bloom'): string => scenarioKey({ kind: 'duel', id, tier, skill: 'regular' });
const fight = (id: string, tier = 'bloom'): string => scenarioKey({ kind: 'encounter', id, tier, skill: 'regular' });

/** Resolves once nothing of a project waits to be run: by its stream of events, to the end. */
async function finished(id: string): Promise<{ done: number; wanted: number }[][]> {
  const seen: { done: number; wanted: number }[][] = [];
  const stop = new AbortController();
  const response = await fetch(`${server.address}/api/projects/${id}/batches/events`, {
    headers: { Accept: 'text/event-stream' },
    signal: stop.signal,
  });
  let text = '';
  for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>) {
    text += Buffer.from(chunk).toString();
    const events = [...text.matchAll(/data: (.*)\n\n/g)].map(([, data]) => JSON.parse(data));
    text = text.slice(text.lastIndexOf('\n\n') + 2);
    seen.push(...events);
    if (events.length && !events[events.length - 1].length) break;
  }
  stop.abort();
  return seen;
}
const read = async (id: string, cells: { cell: string; columns: string[] }[]) => (await call('POST', `${id}/cells/read`, { cells })).body;
/** What the core makes of the same cell, in one go in a process of its own. */
function undisturbed(
  document: object,
  cell: Scenario,
  runs: number,
): { digests: string[]; columns: Record<string, unknown[]>; curve: Record<string, unknown> } {
  const program = `
    const core = require('@insidia/core');
    const { document, cell, runs } = JSON.parse(require('fs').readFileSync(0, 'utf8'));
    const compiled = core.compileScenario(core.parseProject(document), cell);
    const curves = new core.Curves(compiled);
    const batch = new core.Batch(compiled, 1, runs, curves.watch, (run) => curves.add(run));
    batch.advance(runs);
    const { digests, columns } = core.sampleOf(compiled, batch.rows);
    const plain = (values) => Array.from(values, (v) => (v === Infinity ? 'Infinity' : v === v ? v : null));
    const curve = Object.fromEntries(core.CURVES.map((name) => [name, curves.curve(name)]));
    console.log(JSON.stringify({ digests, columns: Object.fromEntries(Object.entries(columns).map(([k, v]) => [k, plain(v)])), curve }));`;
  const input = JSON.stringify({ document, cell, runs });
  return JSON.parse(execFileSync(process.execPath, ['-e', program], { input, cwd: ROOT, encoding: 'utf8', maxBuffer: 1e9 }));
}

describe('batches', () => {
  test('are what the core runs, to the last bit; progress comes as events; the curve too', async () => {
    const document = await project();
    const cells = [duel('clipper'), duel('mulcher'), fight('first-bell')];
    const asked = await call('POST', `${document.id}/batches`, { cells: cells.map((cell) => ({ cell, runs: 200 })) });
    expect(asked.status).toBe(202);
    expect(asked.body.map(({ cell }: { cell: string }) => cell)).toEqual(cells);
    const seen = await finished(document.id);
    expect(seen[0].reduce((sum, { wanted }) => sum + wanted, 0)).toBe(600);
    const column = columnOf('timeToKill', 'enemy', 'mulcher');
    const [, mulcher] = await read(
      document.id,
      cells.map((cell) => ({ cell, columns: [column, 'dose'] })),
    );
    const { columns } = undisturbed(document, { kind: 'duel', id: 'mulcher', tier: 'bloom', skill: 'regular' }, 200);
    expect(mulcher).toMatchObject({
      runs: 200,
      values: { [column]: columns[column], dose: columns.dose },
    });
    const own = undisturbed(document, { kind: 'encounter', id: 'first-bell', tier: 'bloom', skill: 'regular' }, 200);
    for (const name of CURVES) {
      const { body } = await call('GET', `${document.id}/cells/curve?of=${name}&cell=${encodeURIComponent(cells[2])}`);
      expect(body).toEqual({ runs: 200, curve: own.curve[name] });
    }
    const { status, body } = await call('GET', `${document.id}/cells/curve?of=mood&cell=${encodeURIComponent(cells[2])}`);
    expect([status, body.detail]).toEqual([400, `of must be one of ${CURVES.join(', ')}: it is mood`]);
  });

  test('what is known is not run again: asked again, asked by a copy of the project, or under another name; more runs add to it', async () => {
    const document = await project();
    const ask = (id: string, runs: number) => call('POST', `${id}/batches`, { cells: [{ cell: duel('thistlejack'), runs }] });
    const [{ batch }] = (await ask(document.id, 100)).body;
    await finished(document.id);
    const before = await sql<{ number: number; done_at: Date }>('select number, done_at from shard where batch = ? order by number', [
      batch,
    ]);
    expect(before).toHaveLength(2);
    expect((await ask(document.id, 100)).body).toEqual([{ cell: duel('thistlejack'), batch }]);
    expect((await call('GET', `${document.id}/batches`)).body).toEqual([]);
    const copy = {
      ...document,
      id: `${document.id}-copy`,
      name: 'copy',
      units: document.units.map((unit) => ({ ...unit, name: `${unit.name} x` })),
    };
    await fetch(`${server.address}/api/projects`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(copy),
    });
    expect((await ask(copy.id, 100)).body[0].batch).toBe(batch);
    expect((await call('GET', `${copy.id}/batches`)).body).toEqual([]);
    await ask(copy.id, 170);
    await finished(copy.id);
    const after = await sql<{ number: number; done_at: Date }>('select number, done_at from shard where batch = ? order by number', [
      batch,
    ]);
    expect(after).toHaveLength(4);
    expect(after.slice(0, 2)).toEqual(before);
  });

  test('an edit makes exactly the cells stale that it changes; a new name makes none', async () => {
    const document = await project();
    const cells = [duel('clipper'), duel('mulcher'), duel('clipper', 'blight'), fight('first-bell'), fight('cellar-beat')];
    await call('POST', `${document.id}/batches`, { cells: cells.map((cell) => ({ cell, runs: 50 })) });
    await finished(document.id);
    const stale = async () =>
      (
        await read(
          document.id,
          cells.map((cell) => ({ cell, columns: ['dose'] })),
        )
      ).map((one: any) => (one.runs ? 'fresh' : one.stale ? 'stale' : 'none'));
    expect(await stale()).toEqual(['fresh', 'fresh', 'fresh', 'fresh', 'fresh']);
    const patch = (path: string, value: unknown, revision: number) =>
      call('PATCH', `${document.id}`, [{ op: 'replace', path, value }], { 'If-Match': `"${revision}"` });
    expect((await patch('/units/clipper/name', 'Snipper', 1)).status).toBe(200);
    expect(await stale()).toEqual(['fresh', 'fresh', 'fresh', 'fresh', 'fresh']);
    expect((await patch('/units/mulcher/health/max', 99, 2)).status).toBe(200);
    expect(await stale()).toEqual(['fresh', 'stale', 'fresh', 'fresh', 'fresh']);
    expect((await patch('/tiers/blight/tweaks/0/value', 3, 3)).status).toBe(200);
    expect(await stale()).toEqual(['fresh', 'stale', 'stale', 'fresh', 'fresh']);
    const history = await call('GET', `${document.id}/cells/history?cell=${encodeURIComponent(cells[1])}&column=dose`);
    expect(history.body).toMatchObject([{ revision: 1, runs: 50 }]);
  });

  test('cancelling keeps what has been run and takes back the rest', async () => {
    const document = await project();
    await call('POST', `${document.id}/batches`, { cells: [{ cell: fight('first-bell'), runs: 5000 }] });
    const response = await fetch(`${server.address}/api/projects/${document.id}/batches/events`, {
      headers: { Accept: 'text/event-stream' },
    });
    for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>)
      if (/"done":[1-9]/.test(Buffer.from(chunk).toString())) break;
    expect((await call('DELETE', `${document.id}/batches`)).status).toBe(204);
    // What is being run at that moment is still finished.
    await finished(document.id);
    const [{ runs }] = await read(document.id, [{ cell: fight('first-bell'), columns: [] }]);
    expect(runs).toBeGreaterThan(0);
    expect(runs).toBeLessThan(5000);
  });

  test('“until the interval is narrower than …”: it looks after 100, 200, 400 runs and stops at the first that is enough', async () => {
    const document = await project();
    const column = columnOf('timeToKill', 'enemy', 'mulcher');
    const until = { column, statistic: 'median' as const, narrower: 0.03, cap: 3200 };
    await call('POST', `${document.id}/batches`, { cells: [{ cell: duel('mulcher'), runs: 100, until }] });
    await finished(document.id);
    const [{ runs, values }] = await read(document.id, [{ cell: duel('mulcher'), columns: [column] }]);
    const numbers = values[column].map((value: number | string | null) => (value === null ? NaN : Number(value)));
    expect(runs).toBeGreaterThan(100);
    expect(look(numbers, until).enough).toBe(true);
    for (let before = 100; before < runs; before *= 2) expect(look(numbers.slice(0, before), until).enough).toBe(false);
    const refused = await call('POST', `${document.id}/batches`, {
      cells: [{ cell: duel('mulcher'), runs: 100, until: { ...until, statistic: 'most' } }],
    });
    expect(refused).toMatchObject({ status: 400 });
  });

  test('a cell that is not there is refused by name, and read as such', async () => {
    const document = await project();
    const wrong = scenarioKey({ kind: 'duel', id: 'moth' });
    expect(await call('POST', `${document.id}/batches`, { cells: [{ cell: wrong, runs: 50 }] })).toMatchObject({
      status: 400,
      body: { detail: expect.stringContaining('moth') },
    });
    expect(await call('POST', `${document.id}/batches`, { cells: [] })).toMatchObject({ status: 400 });
    expect((await read(document.id, [{ cell: wrong, columns: [] }]))[0]).toMatchObject({
      runs: 0,
      trouble: expect.stringContaining('moth'),
    });
  });
});

test('fights that take turns are batches like any other: what the core runs of them, to the last bit', async () => {
  const document = await project((one) => Object.assign(one, inTurns(one, 'first-bell')));
  const cell = { kind: 'encounter', id: 'first-bell', tier: 'bloom', skill: 'regular' } as const;
  await call('POST', `${document.id}/batches`, { cells: [{ cell: scenarioKey(cell), runs: 200 }] });
  await finished(document.id);
  const names = [columnOf('timeToKill', 'enemy', 'clipper'), columnOf('reach', 'enemy', 'clipper'), 'dose', 'engagedMean'];
  const [own] = await read(document.id, [{ cell: scenarioKey(cell), columns: names }]);
  const { columns, curve } = undisturbed(document, cell, 200);
  for (const name of names.slice(0, 3)) expect(own.values[name]).toEqual(columns[name]);
  expect(own.values[names[0]].every((rounds: number | string) => rounds === 'Infinity' || Number.isInteger(rounds))).toBe(true);
  const { body } = await call('GET', `${document.id}/cells/curve?of=pressure&cell=${encodeURIComponent(scenarioKey(cell))}`);
  expect(body).toEqual({ runs: 200, curve: curve.pressure });
});

/** A document in which an encounter takes turns. */
const inTurns = (document: object, encounter: string) =>
  projectWithRounds(parseProject(document as never), encounter, { round: 2, cell: 1 });

describe('what is made of batches', () => {
  test('causes: what leaving out a wave or a kind does to a stretch, as the core works it out of the same seeds', async () => {
    const document = await project();
    const cell: Scenario = { kind: 'encounter', id: 'cellar-beat', tier: 'bloom', skill: 'regular' };
    const [first] = document.encounters.find(({ id }) => id === 'cellar-beat')!.waves;
    const without = [`wave:${first.id}`, 'unit:briar-hound'];
    const asked = { cell: scenarioKey(cell), from: 0, to: 30, without };
    expect((await call('POST', `${document.id}/cells/causes`, asked)).body).toEqual([]);
    const cells = [cell, ...without.map((one) => ({ ...cell, without: one }))];
    await call('POST', `${document.id}/batches`, { cells: cells.map((one) => ({ cell: scenarioKey(one), runs: 50 })) });
    await finished(document.id);
    const found = (await call('POST', `${document.id}/cells/causes`, asked)).body;
    const rows = cells.map((one) => {
      const compiled = compileScenario(document, one);
      const curves = new Curves(compiled);
      new Batch(compiled, 1, 50, curves.watch, (run) => curves.add(run)).advance(50);
      return { times: curves.times, rows: curves.rows.pressure };
    });
    const [all, ...others] = rows;
    const wanted = causesOf(
      all.times,
      all.rows,
      others.map((one, i) => ({ without: without[i], rows: one.rows })),
      asked,
    );
    expect(found).toEqual(wanted);
    expect(found).toHaveLength(2);
    const { status, body } = await call('POST', `${document.id}/cells/causes`, { ...asked, without: ['wave:ninth'] });
    expect([status, body.detail]).toEqual([400, expect.stringContaining('there is no wave "ninth" in Cellar Beat')]);
  });

  test('a duel that is set up otherwise is a batch of its own; the usual one is the board’s', async () => {
    const document = await project();
    const usual = scenarioKey(
      duelScenario(document, { tier: 'bloom', skill: 'regular' }, { enemy: 'clipper', against: 'warden', copies: 1 }),
    );
    expect(usual).toBe(duel('clipper'));
    const three: Scenario = { kind: 'duel', id: 'clipper', tier: 'bloom', skill: 'regular', duel: { copies: 3, distance: 4 } };
    await call('POST', `${document.id}/batches`, { cells: [{ cell: scenarioKey(three), runs: 50 }] });
    await finished(document.id);
    const [found] = await read(document.id, [{ cell: scenarioKey(three), columns: ['dose'] }]);
    expect(found.values.dose).toEqual(undisturbed(document, three, 50).columns.dose);
  });

  test('the report is a page of what has been run; a measure, a skill and a number of players that are none are refused by name', async () => {
    const document = await project();
    await call('POST', `${document.id}/batches`, { cells: [{ cell: fight('first-bell'), runs: 50 }] });
    await finished(document.id);
    const page = await fetch(`${server.address}/api/projects/${document.id}/report?skill=regular&measure=won`);
    expect(page.headers.get('content-type')).toContain('text/html');
    const html = await page.text();
    expect(html).toContain('50 runs a cell');
    expect(html.match(/<figure>/g)).toHaveLength(1);
    for (const [query, detail] of [
      ['measure=joy', 'measure must be one of'],
      ['skill=godlike', 'there is no skill "godlike"'],
      ['players=9', 'players must be a whole number from 1 to 8: it is 9'],
    ]) {
      const refused = await call('GET', `${document.id}/report?${query}`);
      expect([refused.status, refused.body.detail]).toEqual([400, expect.stringContaining(detail)]);
    }
  });
});

describe('whatever happens', () => {
  test('killed at five instants, the batch goes on where it was and ends the same, to the last bit', async () => {
    const document = await project();
    const cells = [duel('briar-hound'), fight('first-bell')];
    const [, { batch }] = (await call('POST', `${document.id}/batches`, { cells: cells.map((cell) => ({ cell, runs: 1500 })) })).body;
    let known: { number: number; done_at: Date }[] = [];
    let hit: { batch: string; number: number }[] = [];
    for (let kill = 0; kill < 5; kill++) {
      const before = known.length;
      // An instant after something has been done, wherever the next shard is by then. A shard that has met three deaths of its
      // process is given up: those that met the last one end first.
      const hurt = async () =>
        (await sql<{ batch: string; number: number }>('select batch, number from shard where done_at is null and tries > 0')).filter(
          (one) => hit.some(({ batch: own, number }) => own === one.batch && number === one.number),
        );
      while ((known.length === before || (await hurt()).length) && (await call('GET', `${document.id}/batches`)).body.length)
        known = await sql('select number, done_at from shard where batch = ? and done_at is not null order by done_at', [batch]);
      hit = await sql('select batch, number from shard where done_at is null and owner is not null');
      const ended = once(server.process, 'exit');
      server.process.kill('SIGKILL');
      await ended;
      server = await startServer(database, port);
      const still = await sql<{ number: number; done_at: Date }>(
        'select number, done_at from shard where batch = ? and done_at is not null',
        [batch],
      );
      for (const one of known) expect(still).toContainEqual(one);
    }
    await finished(document.id);
    const column = columnOf('timeToKill', 'enemy', 'briar-hound');
    const [hound, bell] = await read(
      document.id,
      cells.map((cell) => ({ cell, columns: [column, 'peakPressureShare', 'longestWithoutLull'] })),
    );
    const houndAlone = undisturbed(document, { kind: 'duel', id: 'briar-hound', tier: 'bloom', skill: 'regular' }, 1500);
    const bellAlone = undisturbed(document, { kind: 'encounter', id: 'first-bell', tier: 'bloom', skill: 'regular' }, 1500);
    expect(hound.values[column]).toEqual(houndAlone.columns[column]);
    expect(bell.values.peakPressureShare).toEqual(bellAlone.columns.peakPressureShare);
    const digests = await sql<{ digests: string[] }>('select digests from shard where batch = ? order by number', [batch]);
    expect(digests.flatMap(({ digests: own }) => own)).toEqual(bellAlone.digests);
  });

  test('numbers are turned in a cell as if they were written; digests tell whether a fight went otherwise', async () => {
    const document = await project();
    const plain: Scenario = { kind: 'duel', id: 'clipper', tier: 'bloom', skill: 'regular', duel: { copies: 3 } };
    const turned = (path: string, value: number) => ({ ...plain, turned: [{ path, op: '=' as const, value }] });
    const [health, hearing] = [turned('/units/clipper/health/max', 31), turned('/units/clipper/senses/hearing', 2)];
    const cells = [plain, health, hearing].map(scenarioKey);
    await call('POST', `${document.id}/batches`, { cells: cells.map((cell) => ({ cell, runs: 50 })) });
    await finished(document.id);
    const found = await read(
      document.id,
      cells.map((cell) => ({ cell, columns: ['won', 'digest'] })),
    );
    const alone = undisturbed(document, health, 50);
    expect(found[1].values.won).toEqual(alone.columns.won);
    expect(found[1].values.digest).toEqual(alone.digests.map(digestNumber));
    expect(found[2].values.digest).toEqual(found[0].values.digest);
    expect(found[1].values.digest).not.toEqual(found[0].values.digest);
    const nowhere = scenarioKey({ ...plain, turned: [{ path: '/units/nobody/health/max', op: '=', value: 3 }] });
    // What leads nowhere changes nothing: it is the same batch.
    const asked = await call('POST', `${document.id}/batches`, { cells: [{ cell: nowhere, runs: 50 }] });
    expect(asked.status).toBe(202);
    expect((await read(document.id, [{ cell: nowhere, columns: ['won'] }]))[0].values.won).toEqual(found[0].values.won);
    const long = await call('POST', `${document.id}/batches`, { cells: [{ cell: `${cells[0]}|${'x'.repeat(2100)}`, runs: 50 }] });
    expect(long.status).toBe(400);
    const odd = await call('POST', `${document.id}/batches`, { cells: [{ cell: `duel|clipper||||||%5B`, runs: 50 }] });
    expect(odd.status).toBe(400);
  });

  test('another process takes shards of the same queue; the sum is the same', async () => {
    const document = await project();
    const worker: ChildProcess = spawn(process.execPath, [join(ROOT, 'apps/server/dist/worker-main.js')], {
      env: { ...process.env, DATABASE_URL: database, LOG_LEVEL: 'fatal', THREADS: '1' },
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    await once(worker, 'message');
    try {
      const [{ batch }] = (await call('POST', `${document.id}/batches`, { cells: [{ cell: fight('cellar-beat'), runs: 250 }] })).body;
      await finished(document.id);
      const rows = await sql<{ owner: string; digests: string[] }>('select owner, digests from shard where batch = ? order by number', [
        batch,
      ]);
      expect(new Set(rows.map(({ owner }) => owner)).size).toBe(2);
      const { digests } = undisturbed(document, { kind: 'encounter', id: 'cellar-beat', tier: 'bloom', skill: 'regular' }, 250);
      expect(rows.flatMap((row) => row.digests)).toEqual(digests);
    } finally {
      const ended = once(worker, 'exit');
      worker.kill('SIGTERM');
      expect((await ended)[0]).toBe(0);
    }
  });
});
