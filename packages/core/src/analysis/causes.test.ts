import { describe, expect, test } from '@jest/globals';
import { Batch } from './batch';
import { CURVE_BINS, Curves } from '../measures/curves';
import type { Encounter } from '../model/encounter';
import { demoProject } from '../testing/demo';
import { leaveOut, partsOf } from '../engine/without';
import { causesOf, meanWithin, suspectsOf } from './causes';
import { type Scenario, scenarioKey, scenarioOf } from './scenario';
import { compileScenario } from './compile-scenario';

const evening = (): Encounter => demoProject().encounters.find(({ id }) => id === 'evening-shift')!;
const rowsOf = (cell: Scenario, runs: number) => {
  const compiled = compileScenario(demoProject(), cell);
  const curves = new Curves(compiled);
  new Batch(compiled, 1, runs, curves.watch, (run) => curves.add(run)).advance(runs);
  return { times: curves.times, rows: curves.rows.pressure };
};

describe('leaving out', () => {
  test('a wave still comes, but brings nobody; a kind is missing from groups and pools, and the wave keeps its others', () => {
    const whole = evening();
    const [wave] = whole.waves;
    const without = leaveOut(whole, `wave:${wave.id}`);
    expect(without.waves.map(({ id }) => id)).toEqual(whole.waves.map(({ id }) => id));
    expect(without.waves[0].groups).toEqual([]);
    expect(without.waves.slice(1)).toEqual(whole.waves.slice(1));
    for (const id of partsOf(whole).units) {
      const left = partsOf(leaveOut(whole, `unit:${id}`)).units;
      expect(left).toEqual(partsOf(whole).units.filter((one) => one !== id));
    }
    expect(whole).toEqual(evening());
  });

  test('what there is not is refused by name', () => {
    expect(() => leaveOut(evening(), 'wave:ninth')).toThrow('there is no wave "ninth" in Evening Shift');
    expect(() => leaveOut(evening(), 'attack:bite')).toThrow(
      'what is left out must be wave:ID, wave:ID+SECONDS or unit:ID: it is attack:bite',
    );
    for (const wrong of ['', '-1', '3601', 'soon', 'NaN'])
      expect(() => leaveOut(evening(), `wave:${evening().waves[0].id}+${wrong}`)).toThrow(
        `the seconds that pass for ${evening().waves[0].id} must be from 0 to 3600: they are ${wrong}`,
      );
    expect(() => leaveOut(evening(), 'unit:clipper+3')).toThrow('what is left out must be');
  });

  test('the cell of it has a key of its own, and the waves after it still come', () => {
    const cell: Scenario = { kind: 'encounter', id: 'evening-shift', tier: 'seedling', skill: 'regular', without: 'wave:wave-3' };
    const known = evening().waves.map(({ id }) => id);
    const own = { ...cell, without: `wave:${known[2]}` };
    expect(scenarioOf(scenarioKey(own))).toEqual(own);
    const batch = new Batch(compileScenario(demoProject(), { ...own, tier: 'bloom' }), 1, 6);
    batch.advance(6);
    // What waits for the empty wave's end does not wait in vain.
    expect(batch.summary().waves.map(({ came }) => came)).toEqual([6, 6, 6, 6, 6]);
  });
});

describe('the time of a wave that is left out', () => {
  test('passes all the same for those that wait for its defeat, and for nobody else', () => {
    const whole = evening();
    const [first] = whole.waves;
    const waits = whole.waves.filter(({ start, after }, i) => start === 'defeated' && (after ?? whole.waves[i - 1].id) === first.id);
    expect(waits.length).toBeGreaterThan(0);
    const passed = leaveOut(whole, `wave:${first.id}+12.5`);
    whole.waves.forEach((wave, i) => expect(passed.waves[i].delay).toBe(wave.delay + (waits.includes(wave) ? 12.5 : 0)));
    const came = (without?: string) => {
      const batch = new Batch(
        compileScenario(demoProject(), { kind: 'encounter', id: 'evening-shift', ...(without && { without }) }),
        1,
        10,
      );
      batch.advance(10);
      return batch.summary().waves[1].started!.median;
    };
    expect(came(`wave:${first.id}+12.5`)).toBeCloseTo(came(`wave:${first.id}`) + 12.5, 6);
    expect(came(`wave:${first.id}`)).toBeLessThan(came());
  });

  test('the likeliest stand first: the wave that came last before the window, then the others; kinds by the wave that brings them', () => {
    const whole = evening();
    const ids = whole.waves.map(({ id }) => id);
    const came = (wave: string) => [0, 15, 30, 42, undefined][ids.indexOf(wave)];
    const names = (from: number, to: number, passes = false) =>
      suspectsOf(demoProject(), whole, { from, to }, came, passes).map(({ without }) => without);
    expect(names(30, 38).slice(0, 5)).toEqual([ids[2], ids[1], ids[0], ids[3], ids[4]].map((id) => `wave:${id}`));
    expect(
      names(30, 38)
        .filter((one) => one.startsWith('unit'))
        .sort(),
    ).toEqual(
      partsOf(whole)
        .units.map((id) => `unit:${id}`)
        .sort(),
    );
    const kinds = names(30, 38).filter((one) => one.startsWith('unit'));
    expect(partsOf({ waves: [whole.waves[2]] }).units.map((id) => `unit:${id}`)).toContain(kinds[0]);
    // The second waits for the first and came 15 s after it, 4 of which it waits besides.
    expect(whole.waves[1].delay).toBe(4);
    expect(names(30, 38, true)).toContain(`wave:${ids[0]}+11`);
    // Nothing waits for the last.
    expect(names(30, 38, true)).toContain(`wave:${ids[4]}`);
  });
});

describe('causes', () => {
  test('the mean of a curve within a window, worked by hand; a window with no bin has none', () => {
    const times = Float64Array.from({ length: CURVE_BINS }, (_, bin) => bin + 1);
    const row = Float64Array.from({ length: CURVE_BINS }, (_, bin) => bin);
    // Bins that end at 3, 4 and 5 s hold 2, 3 and 4.
    expect(meanWithin(times, row, { from: 2, to: 5 })).toBe(3);
    expect(meanWithin(times, row, { from: 5.1, to: 5.9 })).toBeNaN();
  });

  test('what relieves most comes first, by the seeds that both have been run on', () => {
    const times = Float64Array.from({ length: CURVE_BINS }, (_, bin) => bin + 1);
    const level = (value: number) => new Float64Array(CURVE_BINS).fill(value);
    const all = [level(4), level(6), level(8)];
    const others = [
      { without: 'unit:a', rows: [level(3), level(6)] },
      { without: 'unit:b', rows: [level(1), level(2), level(3)] },
      { without: 'unit:c', rows: [level(5)] },
    ];
    const found = causesOf(times, all, others, { from: 0, to: 10 });
    expect(found.map(({ without, runs, before, after }) => [without, runs, before, after])).toEqual([
      ['unit:b', 3, 6, 2],
      ['unit:a', 2, 5, 4.5],
    ]);
    expect(found[0].change.difference).toBe(-4);
    // One seed tells nothing of chance: it is left out.
  });

  test('of Evening Shift’s first half minute the Mulchers are a cause, the wave that comes later is not', () => {
    const project = demoProject();
    const suspects = suspectsOf(project, evening(), { from: 0, to: 30 }, () => 0);
    expect(suspects.filter(({ without }) => without.startsWith('wave:'))).toHaveLength(evening().waves.length);
    const cell: Scenario = { kind: 'encounter', id: 'evening-shift', tier: 'bloom', skill: 'regular' };
    const { times, rows } = rowsOf(cell, 12);
    const last = evening().waves.at(-1)!;
    const others = [`wave:${last.id}`, 'unit:mulcher'].map((without) => ({ without, rows: rowsOf({ ...cell, without }, 12).rows }));
    // The last wave comes at about a minute: before it, leaving it out changes nothing at all; the Mulchers of the second are there.
    const found = causesOf(times, rows, others, { from: 5, to: 30 });
    expect(found.map(({ without }) => without)).toEqual(['unit:mulcher', `wave:${last.id}`]);
    expect(found[0].after).toBeLessThan(found[0].before);
    expect(found[1].change).toEqual({ difference: 0, low: 0, high: 0 });
  });
});
