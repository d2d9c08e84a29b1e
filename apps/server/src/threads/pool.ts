/**
 * Pools of threads. What is stopped before its end is stopped by ending its thread, at whatever it is doing. Where that is
 * loading an ES module with `require`, Node 20 ends the whole process; so nothing that threads load may be one (see its test).
 */
import { join } from 'node:path';
import { Piscina } from 'piscina';

/** ms that a thread is kept with nothing to do: a new one is slow until the compiler has seen the engine. */
const KEPT_MS = 600_000;

/** What threads run: a file, and one of its tasks. Named, it is found without asking the loader of ES modules. */
export const THREAD_FILES = {
  tasks: { filename: join(__dirname, 'tasks.js'), name: 'warm' },
  conduct: { filename: join(__dirname, '../jobs/conduct.js'), name: 'conduct' },
} as const;

/** Threads that begin as they are needed. */
export function poolOf<T = unknown, R = unknown>(file: keyof typeof THREAD_FILES, most: number): Piscina<T, R> {
  return new Piscina<T, R>({ ...THREAD_FILES[file], minThreads: 0, maxThreads: most, idleTimeout: KEPT_MS });
}
