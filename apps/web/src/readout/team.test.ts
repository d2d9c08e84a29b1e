import { describe, expect, test } from '@jest/globals';
import type { HelperRequest, StripeAnswer } from './protocol';
import { type Hand, Team, threads } from './team';

const work = { project: {}, scenario: { kind: 'duel', id: 'any' }, firstSeed: 1 } as unknown as NonNullable<HelperRequest['work']>;

/** A helper that notes what it is asked, and answers when it is told to. */
class Noting implements Hand {
  readonly asked: HelperRequest[] = [];
  onmessage: Hand['onmessage'] = null;
  postMessage(request: HelperRequest): void {
    this.asked.push(request);
  }
  get stripes() {
    return this.asked.flatMap(({ stripe }) => (stripe ? [stripe.seed] : []));
  }
  answer(seed: number, ticket = this.asked.at(-1)!.ticket): void {
    this.onmessage!({ data: { ticket, seed, part: { of: seed } } } as unknown as MessageEvent<StripeAnswer>);
  }
}

const stripes = (most: number) => {
  let seed = 1;
  return () => (seed > most ? undefined : { seed: (seed += 10) - 10, runs: 10 });
};

describe('a team', () => {
  test('has a thread a core, two at least and eight at most', () => {
    expect([1, 2, 4, 64].map(threads)).toEqual([2, 2, 4, 8]);
  });

  test('hands each helper two stripes, and the next to whoever is back', () => {
    const helpers = [new Noting(), new Noting()];
    const team = new Team(helpers);
    team.begin(work, stripes(60), 2);
    expect(helpers.map((one) => one.stripes)).toEqual([
      [1, 21],
      [11, 31],
    ]);
    helpers[1].answer(11);
    helpers[1].answer(31);
    expect(helpers[1].stripes).toEqual([11, 31, 41, 51]);
    helpers[0].answer(1);
    expect(helpers[0].stripes).toEqual([1, 21]); // nothing is left to hand out
    expect(team.take(11)).toEqual({ of: 11 });
    expect(team.take(11)).toBeUndefined();
  });

  test('asks no more helpers than it may', () => {
    const helpers = [new Noting(), new Noting()];
    new Team(helpers).begin(work, stripes(60), 1);
    expect(helpers.map(({ asked }) => asked.length)).toEqual([3, 0]);
  });

  test('drops what comes back of work that is over', () => {
    const helpers = [new Noting()];
    const team = new Team(helpers);
    team.begin(work, stripes(60), 1);
    const old = helpers[0].asked[0].ticket;
    team.begin(work, stripes(60), 1);
    helpers[0].answer(1, old);
    expect(team.take(1)).toBeUndefined();
    helpers[0].answer(1);
    expect(team.take(1)).toEqual({ of: 1 });
    team.end();
    expect(helpers[0].asked.at(-1)).toEqual({ ticket: helpers[0].asked.at(-2)!.ticket + 1 });
  });
});
