import { afterEach, expect, test } from '@jest/globals';
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROOT, startInstance } from './support/world';

const homes: string[] = [];
const newHome = () => {
  homes.push(mkdtempSync(join(tmpdir(), 'insidia-')));
  return homes[homes.length - 1];
};
afterEach(() => homes.splice(0).forEach((home) => rmSync(home, { recursive: true, force: true })));

/** The start command as a user sees it fail. */
async function failing(env: Record<string, string>): Promise<{ code: number; said: string }> {
  const child = spawn(process.execPath, [join(ROOT, 'scripts/start.mjs')], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  let said = '';
  child.stderr.on('data', (chunk) => (said += chunk));
  const [code] = (await once(child, 'close')) as [number];
  return { code, said: said.trim() };
}

test('a taken port is one sentence, and leaves nothing behind', async () => {
  const taken = createServer().listen(0, '127.0.0.1');
  await once(taken, 'listening');
  const { port } = taken.address() as { port: number };
  const home = newHome();
  expect(await failing({ PORT: String(port), INSIDIA_HOME: home })).toEqual({
    code: 1,
    said: `insidia: port ${port} is taken; set PORT to another one`,
  });
  expect(readdirSync(home)).toEqual([]);
  taken.close();
});

test('after a kill the port is waited for, while what was killed is dying still', async () => {
  const home = newHome();
  const lock = join(home, 'start.pid');
  // No process has so high a number.
  const gone = '4194305';
  writeFileSync(lock, gone);
  const dying = createServer().listen(0, '127.0.0.1');
  await once(dying, 'listening');
  const begun = startInstance({ home, port: (dying.address() as { port: number }).port });
  while (readFileSync(lock, 'utf8') === gone) await new Promise((done) => setTimeout(done, 20));
  dying.close();
  const instance = await begun;
  expect((await fetch(instance.address, { headers: { Connection: 'close' } })).status).toBe(200);
  await instance.stop();
});

test('a Node that keeps what it has compiled does so for the command line, the server and its threads', async () => {
  const home = newHome();
  const stub = join(home, 'stub.cjs');
  // Says that it was asked, whether or not this Node can; what it was told to use where it is by environment.
  writeFileSync(
    stub,
    `require('node:module').enableCompileCache = () => console.log('kept');\nif (process.argv[1]?.endsWith('server/dist/main.js')) require('node:fs').writeFileSync(${JSON.stringify(join(home, 'told'))}, process.env.NODE_COMPILE_CACHE);`,
  );
  const { stdout } = spawnSync(process.execPath, ['-r', stub, join(ROOT, 'apps/cli/bin/insidia.js'), '--version'], { encoding: 'utf8' });
  expect(stdout).toMatch(/^kept\n\d+\.\d+\.\d+/);
  const instance = await startInstance({ home: newHome(), env: { NODE_OPTIONS: `--require ${stub}` } });
  expect(readFileSync(join(home, 'told'), 'utf8')).toMatch(/^\/.+/);
  await instance.stop();
});

test('a port that is none is one sentence', async () => {
  expect(await failing({ PORT: 'west', INSIDIA_HOME: newHome() })).toEqual({
    code: 1,
    said: 'insidia: PORT must be a whole number from 1 to 65535: it is west',
  });
});

test('a folder that can’t be made is one sentence', async () => {
  expect((await failing({ INSIDIA_HOME: '/etc/passwd/insidia' })).said).toMatch(/^insidia: \/etc\/passwd\/insidia can't be used: /);
});

// Only root may mount a small file system to fill.
(process.getuid?.() === 0 ? test : test.skip)('a full disk is one sentence', async () => {
  const home = newHome();
  execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=20m', 'tmpfs', home]);
  try {
    expect(await failing({ INSIDIA_HOME: home })).toEqual({
      code: 1,
      said: expect.stringMatching(/^insidia: the disk is full: \S+ needs 150 MB and has \d+ MB$/),
    });
    expect(existsSync(join(home, 'start.pid'))).toBe(false);
  } finally {
    execFileSync('umount', [home]);
  }
});

test('Ctrl-C stops everything: no process, no lock; a second start in the same folder meanwhile is refused', async () => {
  const home = newHome();
  const instance = await startInstance({ home });
  const second = await failing({ INSIDIA_HOME: home, PORT: '0' + (instance.port + 1) });
  expect(second.said).toBe(
    `insidia: Insidia is running already (process ${instance.process.pid}); stop it first, or set INSIDIA_HOME to another folder`,
  );
  expect(await instance.stop({ keep: true })).toBe(0);
  expect(existsSync(join(home, 'start.pid'))).toBe(false);
  expect(existsSync(join(home, 'postgres/postmaster.pid'))).toBe(false);
  await expect(fetch(instance.address)).rejects.toThrow();
});

test('a start after kill -9 of everything works', async () => {
  const home = newHome();
  const { killInstance } = (await import('../scripts/instance.mjs' as string)) as { killInstance: (i: object) => Promise<void> };
  await killInstance(await startInstance({ home }));
  const again = await startInstance({ home });
  expect((await fetch(`${again.address}/api/projects/verdance`)).status).toBe(200);
  await again.stop({ keep: true });
});

test('a start after kill -9 of the start command alone takes over what it left running', async () => {
  const home = newHome();
  const instance = await startInstance({ home });
  const ended = once(instance.process, 'exit');
  instance.process.kill('SIGKILL');
  await ended;
  const again = await startInstance({ home });
  expect((await fetch(`${again.address}/api/projects/verdance`)).status).toBe(200);
  expect(await again.stop({ keep: true })).toBe(0);
});

test('a database that is killed is brought back, and a save made after it is kept; a backup is restored into an empty folder', async () => {
  const home = newHome();
  const instance = await startInstance({ home });
  const pid = Number(readFileSync(join(home, 'postgres/postmaster.pid'), 'utf8').split('\n')[0]);
  const health = async () => (await fetch(`${instance.address}/api/health`)).status;
  expect(await health()).toBe(200);
  process.kill(pid, 'SIGKILL');
  const told = new Set<number>();
  for (let back = false; !back;) {
    const status = await health();
    told.add(status);
    back = status === 200 && Number(readPid(home)) !== pid;
  }
  for (const one of told) expect([200, 503]).toContain(one);
  const { headers } = await fetch(`${instance.address}/api/projects/verdance`);
  const saved = await fetch(`${instance.address}/api/projects/verdance`, {
    method: 'PATCH',
    headers: { 'Content-Type': 'application/json', 'If-Match': headers.get('etag')! },
    body: JSON.stringify([{ op: 'replace', path: '/units/clipper/health/max', value: 29 }]),
  });
  expect(saved.status).toBe(200);

  const file = join(newHome(), 'all.backup');
  const insidia = (what: string, where: string, more: Record<string, string> = {}) =>
    spawnSync(process.execPath, [join(ROOT, 'scripts/backup.mjs'), what, file], {
      encoding: 'utf8',
      env: { ...process.env, DATABASE_URL: '', INSIDIA_HOME: where, ...more },
    });
  expect(insidia('backup', home).stdout).toContain('has everything that is kept');
  expect(insidia('backup', home).stderr.trim()).toBe(`insidia: ${file} is there already; choose another name`);
  expect(insidia('restore', home).stderr).toContain('that Insidia is not empty: it has 2 projects');
  expect(await instance.stop({ keep: true })).toBe(0);
  const empty = newHome();
  expect(insidia('restore', empty).stdout).toContain('is restored');
  const again = await startInstance({ home: empty });
  const restored = (await (await fetch(`${again.address}/api/projects/verdance`)).json()) as any;
  expect(restored.units.find(({ id }: any) => id === 'clipper').health.max).toBe(29);
  const { revisions } = (await (await fetch(`${again.address}/api/projects/verdance/revisions`)).json()) as any;
  expect(revisions.map(({ number }: any) => number)).toEqual([2, 1]);
  await again.stop({ keep: true });
});

/** The process that answers, of a start command's. */
const serverOf = ({ process: start }: { process: { pid?: number } }) =>
  readFileSync(`/proc/${start.pid}/task/${start.pid}/children`, 'utf8')
    .split(' ')
    .filter(Boolean)
    .find((pid) => {
      // One that ends just now has no entry any more.
      try {
        return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('apps/server/dist/main.js');
      } catch {
        return false;
      }
    });

test('a server that is killed is brought back, three times, and the batch it was running goes on to its end; then it is said, and all ends', async () => {
  const home = newHome();
  const instance = await startInstance({ home });
  let said = '';
  instance.process.stderr!.on('data', (chunk) => (said += chunk));
  const call = async (method: string, path: string, body?: unknown) => {
    const headers = { 'Content-Type': 'application/json' };
    for (;;) {
      const response = await fetch(`${instance.address}/api/projects/verdance/${path}`, {
        method,
        headers,
        body: body && JSON.stringify(body),
      } as RequestInit).catch(() => undefined);
      // Between two servers nobody answers.
      if (response) return (await response.json()) as any;
    }
  };
  const cell = 'encounter|first-bell|bloom|regular||';
  await call('POST', 'batches', { cells: [{ cell, runs: 200 }] });
  let killed: string | undefined;
  for (let kill = 0; kill < 3; kill++) {
    let pid = serverOf(instance);
    while (!pid || pid === killed) pid = serverOf(instance);
    await call('GET', 'batches');
    process.kill(Number((killed = pid)), 'SIGKILL');
  }
  while ((await call('GET', 'batches')).length);
  const [{ runs, values }] = await call('POST', 'cells/read', { cells: [{ cell, columns: ['dose'] }] });
  expect([runs, values.dose.length]).toEqual([200, 200]);
  expect(said).toMatch(/brought back \(3 of 3\)/);
  const ended = once(instance.process, 'exit');
  process.kill(Number(serverOf(instance)), 'SIGKILL');
  expect(await ended).toEqual([1, null]);
  expect(said).toContain('insidia: the server ended 4 times; start again, everything saved is kept');
  expect(existsSync(join(home, 'postgres/postmaster.pid'))).toBe(false);
});

const readPid = (home: string) => {
  try {
    return readFileSync(join(home, 'postgres/postmaster.pid'), 'utf8').split('\n')[0];
  } catch {
    return '0';
  }
};

test('an address that others can reach, without a password, is one sentence', async () => {
  expect(await failing({ HOST: '0.0.0.0', INSIDIA_PASSWORD: '', INSIDIA_HOME: newHome() })).toEqual({
    code: 1,
    said: 'insidia: HOST is 0.0.0.0, where others can reach it: set INSIDIA_PASSWORD too, or leave HOST at 127.0.0.1',
  });
});
