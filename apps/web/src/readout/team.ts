/** The helpers of the readout's worker: each is handed stripes of seeds to run, the next as soon as one is back. */
import type { Project } from '@insidia/core';
import type { HelperRequest, StripeAnswer } from './protocol';

/** Stripes that each helper has at most: one to run and one to go on with at once. */
const AHEAD = 2;

/** Threads that run: one for each core, the one that gathers among them; at least two, at most eight. */
export const threads = (cores: number): number => Math.max(2, Math.min(8, cores));

/** What is asked of a helper of the team. */
export type Hand = { postMessage: (request: HelperRequest) => void; onmessage: ((event: MessageEvent<StripeAnswer>) => void) | null };

export class Team {
  private ticket = 0;
  private readonly back = new Map<number, StripeAnswer['part']>();
  private next: (() => HelperRequest['stripe']) | undefined;
  private readonly out: number[];
  private helping = 0;

  constructor(private readonly helpers: readonly Hand[]) {
    this.out = helpers.map(() => 0);
    helpers.forEach((helper, i) => {
      helper.onmessage = ({ data }) => {
        if (data.ticket !== this.ticket) return;
        this.out[i]--;
        this.back.set(data.seed, data.part);
        this.hand(i);
      };
    });
  }

  /**
   * From now on helpers run this.
   * @param next the seeds of the next stripe; none: no more are wanted
   * @param helping how many of them
   */
  begin(work: NonNullable<HelperRequest['work']>, next: () => HelperRequest['stripe'], helping: number): void {
    this.end();
    this.next = next;
    this.helping = Math.min(helping, this.helpers.length);
    for (let i = 0; i < this.helping; i++) this.helpers[i].postMessage({ ticket: this.ticket, work });
    for (let ahead = 0; ahead < AHEAD; ahead++) for (let i = 0; i < this.helping; i++) this.hand(i);
  }

  /** What has come back of the stripe that begins with a seed; each is handed out once. */
  take(seed: number): StripeAnswer['part'] | undefined {
    const part = this.back.get(seed);
    this.back.delete(seed);
    return part;
  }

  /** What they run is not wanted any more. */
  end(): void {
    if (!this.next) return;
    this.ticket++;
    for (let i = 0; i < this.helping; i++) this.helpers[i].postMessage({ ticket: this.ticket });
    this.next = undefined;
    this.back.clear();
    this.out.fill(0);
  }

  /** Fights of a project to train with, until something is asked. */
  train(project: Project): void {
    for (const helper of this.helpers) helper.postMessage({ ticket: this.ticket, train: project });
  }

  private hand(helper: number): void {
    const stripe = this.out[helper] < AHEAD ? this.next?.() : undefined;
    if (!stripe) return;
    this.out[helper]++;
    this.helpers[helper].postMessage({ ticket: this.ticket, stripe });
  }
}
