import type { ReadoutWork } from '@insidia/core';

/** ms of running between two looks at the messages that may have come. */
const PORTION_MS = 20;
/** Runs between two looks at the clock. */
const STEP = 5;

const { port1, port2 } = new MessageChannel();
/** Lets messages that have come be heard. */
export function breathe(): Promise<void> {
  return new Promise((done) => {
    port1.onmessage = () => done();
    port2.postMessage(0);
  });
}

/**
 * Works until so many runs are done; false when it was overtaken by something newer.
 * @param between called at each look, with the runs done so far
 */
export async function inPortions(work: ReadoutWork, runs: number, overtaken: () => boolean, between?: () => void): Promise<boolean> {
  while (work.count < runs) {
    const began = performance.now();
    while (work.count < runs && performance.now() - began < PORTION_MS) work.advance(Math.min(STEP, runs - work.count));
    await breathe();
    if (overtaken()) return false;
    if (work.count < runs) between?.();
  }
  return true;
}
