/** Conducts a job in a thread: tells what is to be run, takes what came of it, and thinks in between. */
import { type AskedRuns, type NoFight, type WorkStep, joined, partsOf } from '@insidia/core';
import { once } from 'node:events';
import type { MessagePort } from 'node:worker_threads';
import { type JobSource, jobWork } from './work';

/** A step, parted. */
export type Told = Omit<WorkStep, 'asks'> & { parts: WorkStep['asks'][] };

/** What a job came to. */
export async function conduct({ source, port }: { source: JobSource; port: MessagePort }): Promise<unknown> {
  const work = jobWork(source);
  let step = work.next();
  while (!step.done) {
    const { asks, ...told } = step.value;
    const parts = partsOf(asks);
    const message: Told = { ...told, parts: parts.map(({ asks: own }) => own) };
    port.postMessage(message);
    const [came] = (await once(port, 'message')) as [(AskedRuns | NoFight)[][]];
    step = work.next(joined(asks, parts, came));
  }
  port.close();
  return step.value;
}
