/** A whole Insidia of its own for tools and tests: the start command in a folder and on a port nobody else uses. */
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort } from './postgres.mjs';
import { ROOT } from './system.mjs';

/** @returns {Promise<{address: string, home: string, process: import('node:child_process').ChildProcess, stop: (more?: {keep?: boolean}) => Promise<number | null>}>} */
export async function startInstance({ root = ROOT, home = mkdtempSync(join(tmpdir(), 'insidia-')), port, env = {} } = {}) {
  const chosen = port ?? (await freePort());
  const child = spawn(process.execPath, [join(root, 'scripts/start.mjs')], {
    cwd: root,
    env: { ...process.env, ...env, INSIDIA_HOME: home, PORT: String(chosen) },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  const address = await new Promise((done, fail) => {
    const hear = (chunk) => {
      said += chunk;
      const found = /Insidia is at (\S+)/.exec(said);
      if (found) done(found[1]);
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.once('exit', (code) => fail(new Error(`the start command ended with ${code}: ${said.trim()}`)));
  });
  const stop = ({ keep = false } = {}) =>
    new Promise((done) => {
      const ended = (code) => {
        if (!keep) rmSync(home, { recursive: true, force: true });
        done(code);
      };
      if (child.exitCode !== null || child.signalCode !== null) return ended(child.exitCode);
      child.once('exit', ended);
      child.kill('SIGINT');
    });
  return { address, home, port: chosen, process: child, stop };
}

function threadsOf(pid) {
  try {
    return readdirSync(`/proc/${pid}/task`);
  } catch {
    return [];
  }
}

/** kill -9 of the start command, the server and the database, as a power cut would. */
export async function killInstance({ process: start, home }) {
  const pids = readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number);
  const about = (pid, file) => {
    try {
      return readFileSync(`/proc/${pid}/${file}`, 'utf8');
    } catch {
      return '';
    }
  };
  const parent = (pid) => Number(/\) \S (\d+)/.exec(about(pid, 'stat'))?.[1]);
  const family = pids.filter((pid) => parent(pid) === start.pid || about(pid, 'cmdline').includes(join(home, 'postgres')));
  const backends = pids.filter((pid) => family.includes(parent(pid)));
  const ended = new Promise((done) => start.once('exit', done));
  const killed = [start.pid, ...family, ...backends];
  for (const pid of killed) {
    try {
      process.kill(pid, 'SIGKILL');
    } catch {
      /* gone already */
    }
  }
  await ended;
  // On a busy machine the others take their time to die, and hold the port until then: any thread of theirs, which may outlive the
  // first. Of one that nobody buries only its entry is left.
  const lives = (pid) => threadsOf(pid).some((thread) => /\) [^ZX] /.test(about(pid, `task/${thread}/stat`)));
  while (killed.some(lives)) await new Promise((done) => setTimeout(done, 20));
}
