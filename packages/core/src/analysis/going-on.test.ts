import { describe, expect, test } from '@jest/globals';
import { demoProject } from '../testing/demo';
import { Band } from '../model/brief';
import { DuelWork } from './readout';
import { EncounterWork } from './encounter-readout';
import { endsOfTiers, toldBy, toldEnough } from './going-on';
import type { Scenario } from './scenario';
import { nextLook } from '../measures/enough';

const BELL: Scenario = { kind: 'encounter', id: 'first-bell' };

/** Values that stand in for a measure's. */
const as = (values: number[]) => Float64Array.from(values);
const spread = (n: number, low: number, high: number) => Array.from({ length: n }, (_, i) => low + ((high - low) * i) / (n - 1));

describe('what a readout tells', () => {
  test('is read from the rows: a share of an encounter, medians of a duel', () => {
    const project = demoProject();
    const work = new EncounterWork(project, BELL, 1);
    work.advance(6);
    const told = toldBy(BELL, work.compiled, work.rows);
    expect(told.map(({ measure }) => measure)).toEqual(['won', 'length', 'peakPressureShare', 'longestWithoutLull']);
    expect(Array.from(told[1].values)).toEqual(work.rows.map(({ length }) => length));
    const duel: Scenario = { kind: 'duel', id: 'clipper' };
    const other = new DuelWork(project, duel, 1);
    other.advance(4);
    expect(Array.from(toldBy(duel, other.compiled, other.rows)[0].values)).toEqual(other.result().values.timeToKill);
  });

  test('the ends of the tiers are the lowest and the highest of a project that has several', () => {
    const project = demoProject();
    expect(endsOfTiers(project, BELL).map(({ tier }) => tier)).toEqual([project.tiers[0].id, project.tiers.at(-1)!.id]);
    expect(endsOfTiers({ ...project, tiers: project.tiers.slice(0, 1) }, BELL)).toEqual([]);
  });

  test('looks come at 50, 100, 200 …', () => {
    expect([0, 49, 50, 99, 100, 150, 800].map((runs) => nextLook(runs, 50))).toEqual([50, 50, 100, 100, 200, 200, 1600]);
  });
});

describe('enough', () => {
  const project = { ...demoProject(), brief: { ...demoProject().brief!, bands: [] as Band[] } };
  const told = (length: number[]) => [{ measure: 'length' as const, statistic: 'median' as const, column: 'length', values: as(length) }];
  const enough = (length: number[], across: number[][], bands: Partial<Band>[] = []) => {
    const given = bands.map((band) => Object.assign(new Band(), { scope: 'encounter', of: 'first-bell', measure: 'length', ...band }));
    return toldEnough(
      { ...project, brief: { ...project.brief, bands: given } },
      BELL,
      told(length),
      across.map((end) => told(end)),
    );
  };

  // 400 values evenly from 90 to 110: the 99.5 % interval of the median lies 28 or 29 ranks to each side, some 2.9 wide.
  const values = spread(400, 90, 110);
  test('is an interval narrower than a tenth of what lies between the ends of the tiers', () => {
    expect(enough(values, [[80], [120]])).toBe(true); // a tenth of 40
    expect(enough(values, [[90], [115]])).toBe(false); // of 25: 2.5, and 2 % of 100 is 2
  });

  test('tiers that make no difference ask for 2 % of the value, none at all for 5 %', () => {
    expect(enough(spread(400, 97, 103), [[100], [100]])).toBe(true);
    expect(enough(values, [[100], [100]])).toBe(false);
    expect(enough(values, [])).toBe(true);
    expect(enough(spread(400, 80, 120), [])).toBe(false);
  });

  test('or one that is clear of the edges of every goal that speaks of it', () => {
    const wide = spread(100, 60, 140);
    expect(enough(wide, [[100], [100]])).toBe(false);
    expect(enough(wide, [[100], [100]], [{ low: 150 }])).toBe(true);
    expect(enough(wide, [[100], [100]], [{ low: 150 }, { low: 101 }])).toBe(false);
    // A goal of another encounter says nothing of this one.
    expect(enough(wide, [[100], [100]], [{ low: 150, of: 'evening-shift' }])).toBe(false);
  });

  test('survivors from end to end, and what no run has, are as clear as it gets', () => {
    const all = (value: number) => new Array<number>(50).fill(value);
    expect(enough(all(Infinity), [])).toBe(true);
    expect(enough(all(NaN), [])).toBe(true);
    expect(enough([...all(Infinity), ...all(3)], [])).toBe(false);
  });
});
