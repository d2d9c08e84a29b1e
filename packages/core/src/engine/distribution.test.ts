import { describe, expect, test } from '@jest/globals';
import { Batch } from '../analysis/batch';
import { compiled, compiledTrusted, dummy, eventsOf, unit } from '../testing/builders';
import { draw } from './time/chance';
import { Runner } from './run';
import { cosine, sine } from './body/rotation';

describe('in distribution, with stated seeds', () => {
  test('12: instant lines with accuracy p and k hits to kill: shots are negative binomial with mean k / p', () => {
    // p = 0.4, k = 5: mean 12.5, variance k (1 − p) / p² = 18.75. Over 4,000 seeds the mean errs by sd / √4000 = 0.068;
    // four of these are allowed.
    const p = 0.4;
    const k = 5;
    const gunner = unit({
      id: 'gunner',
      attacks: [
        { id: 'shot', delivery: 'hitscan', beat: { cooldown: 0.1 }, aim: { near: p, far: p }, effects: { damage: { amount: 20 } } },
      ],
    });
    const runner = new Runner(compiled({ party: [dummy('target', 100)], enemies: [{ unit: gunner }], limit: 600 }));
    const shots: number[] = [];
    for (let seed = 0; seed < 4000; seed++) shots.push(eventsOf(runner.run(seed).log, 'start').length);
    const mean = shots.reduce((a, b) => a + b, 0) / shots.length;
    const variance = shots.reduce((a, b) => a + (b - mean) ** 2, 0) / shots.length;
    expect(Math.abs(mean - k / p)).toBeLessThan(4 * 0.068);
    expect(Math.abs(variance / 18.75 - 1)).toBeLessThan(0.12);
    expect(Math.min(...shots)).toBe(k);
  });

  test('13: a priority of 50 / 30 / 20, all usable at each draw: chi-square', () => {
    const attack = (id: string, weight: number) => ({
      id,
      weight,
      beat: { cooldown: 0.05, recovery: 0.1 },
      effects: { damage: { amount: 0 } },
    });
    const chooser = unit({ id: 'chooser', attacks: [attack('a', 50), attack('b', 30), attack('c', 20)] });
    const counts = [0, 0, 0];
    const runner = new Runner(compiled({ party: [dummy('target', 100)], enemies: [{ unit: chooser }], limit: 200 }));
    for (let seed = 1; seed <= 5; seed++) for (const { what } of eventsOf(runner.run(seed).log, 'start')) counts[what]++;
    const n = counts.reduce((a, b) => a + b, 0);
    const square = [0.5, 0.3, 0.2].reduce((sum, share, i) => sum + (counts[i] - share * n) ** 2 / (share * n), 0);
    expect(n).toBeGreaterThan(9000);
    expect(square).toBeLessThan(13.8); // two degrees of freedom, 0.1 %
  });

  test('14: a mirror match is won equally often by both sides, draws apart', () => {
    const body = { health: { max: 60 }, movement: { walk: 2, run: 4 }, states: [{ id: 's', name: 's', does: 'approach' }] };
    const attack = {
      id: 'blow',
      range: { min: 0, max: 1.5 },
      beat: { windup: 0.2, cooldown: 0.7 },
      aim: { near: 0.7, far: 0.7 },
      effects: { damage: { amount: 8, spread: 3 } },
    };
    const left = unit({ id: 'left', side: 'party', ...body, attacks: [attack] });
    const right = unit({ id: 'right', ...body, attacks: [attack] });
    const runner = new Runner(compiled({ party: [left], enemies: [{ unit: right, x: 5 }], partyAt: { x: -5, y: 0 }, limit: 120 }));
    let [wins, losses] = [0, 0];
    for (let seed = 0; seed < 4000; seed++) {
      const { outcome, log } = runner.run(seed);
      if (eventsOf(log, 'death').length === 2) continue; // both fell at one instant: a draw
      if (outcome === 'cleared') wins++;
      else if (outcome === 'partyDown') losses++;
    }
    // A difference of wins and losses errs by √n.
    expect(Math.abs(wins - losses)).toBeLessThan(3.3 * Math.sqrt(wins + losses));
    expect(wins + losses).toBeGreaterThan(3000);
  });
});

/** Units left when it is over, on average; and their health, in units of the full health of one. */
function survivors(sketch: Parameters<typeof compiledTrusted>[0], fullHealth: number, seeds: number): { units: number; health: number } {
  const runner = new Runner(compiledTrusted(sketch));
  let units = 0;
  let health = 0;
  for (let seed = 0; seed < seeds; seed++) {
    const { log } = runner.run(seed);
    const spawned = eventsOf(log, 'spawn').length;
    units += spawned - eventsOf(log, 'death').length;
    health += spawned - eventsOf(log, 'hit').reduce((sum, { a }) => sum + a, 0) / fullHealth;
  }
  return { units: units / seeds, health: health / seeds };
}

describe('laws of attrition', () => {
  test('15: focused fire leaves √(a² − b²) of the stronger side, within 5 %', () => {
    // Lanchester (1916): each side's losses are as the other's numbers. 20 hits to kill; everybody shoots at the weakest.
    const soldier = (id: string, side: string) =>
      unit({
        id,
        side,
        health: { max: 200 },
        targeting: { criteria: [{ by: 'lowestHealth' }], reconsider: 0, commitment: 0 },
        attacks: [
          {
            id: 'shot',
            delivery: 'hitscan',
            range: { min: 0, max: 150 },
            beat: { cooldown: 1, initialDelay: { min: 0, max: 1 } },
            effects: { damage: { amount: 10 } },
          },
        ],
      });
    const sketch = {
      party: Array.from({ length: 24 }, () => soldier('left', 'party')),
      enemies: [{ unit: soldier('right', 'enemy'), count: 30, x: 40, scatter: 15 }],
      limit: 400,
    };
    const left = survivors(sketch, 200, 12).units;
    expect(Math.abs(left / Math.sqrt(30 * 30 - 24 * 24) - 1)).toBeLessThan(0.05);
  });

  test('15: blow by blow in a corridor one body wide it leaves a − b', () => {
    const brawler = (id: string, side: string) =>
      unit({
        id,
        side,
        health: { max: 100 },
        body: { radius: 0.9 },
        movement: { walk: 3, run: 3 },
        states: [{ id: 's', name: 's', does: 'approach' }],
        attacks: [
          {
            id: 'blow',
            range: { min: 0, max: 0.6 },
            arc: 60,
            beat: { cooldown: 0.5, initialDelay: { min: 0, max: 0.5 } },
            aim: { near: 0.7, far: 0.7 },
            effects: { damage: { amount: 8, spread: 4 } },
          },
        ],
      });
    // The members file out of the wall they were lined up along: the corridor is as wide as one of them.
    const sketch = {
      party: Array.from({ length: 4 }, () => brawler('left', 'party')),
      partyAt: { x: -20, y: 0, facing: 90 },
      enemies: [{ unit: brawler('right', 'enemy'), count: 9, x: 16, scatter: 14 }],
      width: 70,
      depth: 2,
      limit: 600,
    };
    // The last winner is half dead on average, so health is counted, not heads. One duel's outcome errs by a fifth of a life.
    expect(Math.abs(survivors(sketch, 100, 120).health - 5)).toBeLessThan(0.25);
  });
});

test('16: mean time-to-kill and dose at steps of 0.05 and 0.0125 s, 2,000 seeds: the difference lies within ± 2 %', () => {
  const guard = unit({
    id: 'warden',
    side: 'party',
    health: { max: 300 },
    movement: { walk: 2, run: 3, turnRate: 360 },
    senses: { sight: 40, lose: 60, interval: 0.1, reaction: { mean: 0.3, spread: 0.1 } },
    states: [{ id: 's', name: 's', does: 'hold' }],
    attacks: [
      {
        id: 'bolt',
        delivery: 'hitscan',
        range: { min: 0, max: 14 },
        facing: 20,
        beat: { windup: 0.1, cooldown: 0.4, moving: 'slow' },
        aim: { near: 0.95, far: 0.6 },
        effects: { damage: { amount: 6, spread: 2 } },
      },
    ],
  });
  const brute = unit({
    id: 'mulcher',
    health: { max: 130 },
    movement: { walk: 2, run: 5, acceleration: 9, turnRate: 240 },
    senses: { sight: 30, angle: 200, lose: 60, interval: 0.2, reaction: { mean: 0.5, spread: 0.2 } },
    states: [{ id: 's', name: 's', does: 'approach' }],
    attacks: [
      {
        id: 'blow',
        range: { min: 0, max: 2 },
        arc: 120,
        facing: 40,
        beat: { windup: 0.4, recovery: 0.3, cooldown: 1.2, moving: 'slow' },
        aim: { near: 0.9, far: 0.8 },
        effects: { damage: { amount: 9, spread: 3 } },
      },
    ],
  });
  const measured = (stepSeconds: number) => {
    const sketch = { party: [guard], enemies: [{ unit: brute, x: 9, group: { alerted: false } }], width: 80, depth: 80, limit: 40 };
    const batch = new Batch(compiled(sketch, stepSeconds), 1, 2000);
    batch.advance(2000);
    return { timeToKill: batch.rows.map((row) => row.kinds[1].timeToKill), dose: batch.rows.map(({ dose }) => dose) };
  };
  const coarse = measured(0.05);
  const fine = measured(0.0125);
  for (const key of ['timeToKill', 'dose'] as const) {
    // The same seeds: the difference seed by seed has the narrower interval.
    const differences = coarse[key].map((value, i) => value - fine[key][i]);
    const mean = differences.reduce((a, b) => a + b, 0) / 2000;
    const half = (1.96 * Math.sqrt(differences.reduce((a, b) => a + (b - mean) ** 2, 0))) / 2000;
    const of = fine[key].reduce((a, b) => a + b, 0) / 2000;
    expect(Math.abs(mean) + half).toBeLessThan(0.02 * of);
  }
});

describe('chance', () => {
  test.each([
    ['along n', (i: number) => draw(7, 12345, 3, i)],
    ['along seeds', (i: number) => draw(i, 12345, 3, 0)],
    ['along keys', (i: number) => draw(7, i, 3, 0)],
  ])('is even %s', (_, at) => {
    const bins = new Array<number>(20).fill(0);
    const n = 100_000;
    let serial = 0;
    for (let i = 0; i < n; i++) {
      bins[Math.floor(at(i) * 20)]++;
      serial += (at(i) - 0.5) * (at(i + 1) - 0.5);
    }
    const square = bins.reduce((sum, count) => sum + (count - n / 20) ** 2 / (n / 20), 0);
    expect(square).toBeLessThan(43.8); // 19 degrees of freedom, 0.1 %
    expect(Math.abs(serial / n / (1 / 12))).toBeLessThan(0.012); // no correlation with the next
  });
});

test('sine and cosine agree with the platform to 4e-15 and are exact at multiples of 90°', () => {
  for (let degrees = -720; degrees <= 720; degrees += 0.37) {
    expect(Math.abs(cosine(degrees) - Math.cos((degrees * Math.PI) / 180))).toBeLessThan(4e-15);
    expect(Math.abs(sine(degrees) - Math.sin((degrees * Math.PI) / 180))).toBeLessThan(4e-15);
  }
  expect([0, 90, 180, 270, 360].map(cosine).map((x) => x + 0)).toEqual([1, 0, -1, 0, 1]);
});
