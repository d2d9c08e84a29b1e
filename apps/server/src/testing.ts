/** A server of its own on a database of its own, over HTTP, for tests. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const ROOT = join(__dirname, '../../..');

export interface TestServer {
  address: string;
  process: ReturnType<typeof spawn>;
  stop: () => Promise<void>;
}

/** Starts PostgreSQL through the project's script; the address of it. */
export async function startDatabase(): Promise<{ url: string; stop: () => Promise<void> }> {
  const home = mkdtempSync(join(tmpdir(), 'insidia-db-'));
  const child = spawn(process.execPath, [join(ROOT, 'scripts/postgres.mjs'), home, '--fast'], { stdio: ['pipe', 'pipe', 'inherit'] });
  const [line] = (await once(child.stdout, 'data')) as [Buffer];
  return {
    url: line.toString().trim(),
    stop: async () => {
      const ended = once(child, 'exit');
      child.stdin.end();
      await ended;
      rmSync(home, { recursive: true, force: true });
    },
  };
}

export async function startServer(databaseUrl: string, port: number): Promise<TestServer> {
  const child = spawn(process.execPath, [join(ROOT, 'apps/server/dist/main.js')], {
    env: { ...process.env, DATABASE_URL: databaseUrl, PORT: String(port), LOG_LEVEL: 'fatal' },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  await Promise.race([
    once(child, 'message'),
    once(child, 'exit').then(() => Promise.reject(new Error('the server ended before it listened'))),
  ]);
  return {
    address: `http://127.0.0.1:${port}`,
    process: child,
    stop: async () => {
      if (child.exitCode !== null || child.signalCode !== null) return;
      const ended = once(child, 'exit');
      child.kill('SIGTERM');
      await ended;
    },
  };
}
