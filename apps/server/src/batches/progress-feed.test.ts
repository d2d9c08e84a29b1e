import { expect, test } from '@jest/globals';
import { firstValueFrom, take, toArray } from 'rxjs';
import { ProgressFeed } from './progress-feed';
import type { Shards } from './shards';

test('tells of what began and ended between two looks, and of nothing twice', async () => {
  const running = { batch: 'b', cell: 'duel|clipper||||', done: 50, wanted: 100 };
  const looks = [
    { found: [], finished: 0 },
    { found: [], finished: 0 },
    // Two shards came and went: nothing is under way, as before.
    { found: [], finished: 2 },
    { found: [], finished: 2 },
    { found: [running], finished: 3 },
    { found: [], finished: 4 },
  ];
  let looked = 0;
  const at = () => looks[Math.min(looked, looks.length - 1)];
  const shards = {
    progress: () => Promise.resolve(at().found),
    // Asked after the progress of the same look.
    finished: () => Promise.resolve(looks[Math.min(looked++, looks.length - 1)].finished),
  };
  const told = await firstValueFrom(new ProgressFeed(shards as unknown as Shards).of('any').pipe(take(4), toArray()));
  expect(told).toEqual([[], [], [running], []]);
});
