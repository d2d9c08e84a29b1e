import type { ReadoutWork } from '@insidia/core';

/** Runs between two looks at the messages that may have come. */
const PORTION = 20;

const { port1, port2 } = new MessageChannel();
function breathe(): Promise<void> {
  return new Promise((done) => {
    port1.onmessage = () => done();
    port2.postMessage(0);
  });
}

/** Works until so many runs are done; false when it was overtaken by something newer. */
export async function inPortions(work: ReadoutWork, runs: number, overtaken: () => boolean): Promise<boolean> {
  while (work.count < runs) {
    work.advance(Math.min(PORTION, runs - work.count));
    await breathe();
    if (overtaken()) return false;
  }
  return true;
}
