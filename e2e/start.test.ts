import { afterEach, expect, test } from '@jest/globals';
import { execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
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
(process.getuid?.() === 0 ? test : test.skip)(
  'a full disk is one sentence',
  async () => {
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
  },
  60_000,
);

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
