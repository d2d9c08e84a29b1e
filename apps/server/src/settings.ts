import { availableParallelism } from 'node:os';
import { isLoopback } from './access/hosts';

/** What the environment says, read in one place. */
export interface Settings {
  host: string;
  /** Further names that people use for it: behind a proxy, in a studio's network. */
  hosts: string[];
  /** Asked of everybody, where others can reach it. */
  password?: string;
  port: number;
  databaseUrl: string;
  /** bytes of a request's body */
  bodyLimit: number;
  /** worker threads for batches */
  threads: number;
}

/** @throws Error naming the variable that is missing or wrong */
export function settings(env: NodeJS.ProcessEnv = process.env): Settings {
  const databaseUrl = env.DATABASE_URL;
  if (!databaseUrl) throw new Error('DATABASE_URL must be set to the address of a PostgreSQL database');
  const port = Number(env.PORT ?? 4600);
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new Error(`PORT must be a whole number from 0 to 65535: it is ${env.PORT}`);
  const threads = Number(env.THREADS ?? Math.max(1, Math.min(16, availableParallelism())));
  if (!Number.isInteger(threads) || threads < 1 || threads > 64)
    throw new Error(`THREADS must be a whole number from 1 to 64: it is ${env.THREADS}`);
  const host = env.HOST || '127.0.0.1';
  const password = env.INSIDIA_PASSWORD || undefined;
  const hosts = (env.INSIDIA_HOSTS ?? '').split(/[\s,]+/).filter(Boolean);
  return { host, hosts, password, port, databaseUrl, bodyLimit: 8 * 1024 * 1024, threads };
}

/** @throws Error where others could reach what has no password */
export function checkReach({ host, password }: Settings): void {
  if (!isLoopback(host) && !password)
    throw new Error(`HOST is ${host}, where others can reach it: set INSIDIA_PASSWORD too, or leave HOST at 127.0.0.1`);
}
