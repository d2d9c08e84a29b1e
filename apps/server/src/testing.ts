/** A server of its own on a database of its own, over HTTP, for tests. */
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { join } from 'node:path';

const ROOT = join(__dirname, '../../..');

export interface TestServer {
  address: string;
  process: ReturnType<typeof spawn>;
  /** Resolves when the process is gone. */
  ended: Promise<unknown>;
  database: string;
  sql: (query: string) => Promise<unknown[]>;
  stop: () => Promise<void>;
}

export const freePort = async (): Promise<number> => {
  const { freePort: free } = (await import('../../../scripts/postgres.mjs' as string)) as { freePort: () => Promise<number> };
  return free();
};

/** An empty database of its own; its address. */
export async function newDatabase(): Promise<string> {
  const { createDatabase } = (await import('../../../scripts/postgres.mjs' as string)) as {
    createDatabase: (url: string, name: string) => Promise<string>;
  };
  return createDatabase(process.env.INSIDIA_TEST_DATABASE!, `server-${randomUUID()}`);
}

export async function startServer(databaseUrl: string, port: number, env: Record<string, string> = {}): Promise<TestServer> {
  const child = spawn(process.execPath, [join(ROOT, 'apps/server/dist/main.js')], {
    env: { ...process.env, DATABASE_URL: databaseUrl, PORT: String(port), LOG_LEVEL: 'fatal', ...env },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  // Whoever asks a server that is gone hears only that nobody answers; why it went is said here.
  child.once('exit', (code, signal) => {
    if (code || (signal && !['SIGTERM', 'SIGKILL'].includes(signal))) console.error(`the server ended with ${code ?? signal}`);
  });
  await Promise.race([
    once(child, 'message'),
    once(child, 'exit').then(() => Promise.reject(new Error('the server ended before it listened'))),
  ]);
  return {
    address: `http://127.0.0.1:${port}`,
    process: child,
    ended: once(child, 'exit'),
    database: databaseUrl,
    sql: async (query) => {
      const { default: pg } = await import('pg' as string);
      const client = new pg.Client({ connectionString: databaseUrl });
      await client.connect();
      return client
        .query(query)
        .then(({ rows }: { rows: unknown[] }) => rows)
        .finally(() => client.end());
    },
    stop: async () => {
      if (child.exitCode !== null || child.signalCode !== null) return;
      const ended = once(child, 'exit');
      child.kill('SIGTERM');
      await ended;
    },
  };
}
