import { describe, expect, test } from '@jest/globals';
import { type Unit, parseProject, density, broken, linear, roundUp, ticks } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { beatSentence, layoutBeat, overTimeTicks } from './beat';
import { comings } from './comings';
import { beside, lines, Roomy, stacked, wideAs } from './labels';
import { breakAt, reachOf } from './reach';

const unit = (id: string): Unit =>
  parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../demo/verdance.insidia.json'), 'utf8'))).units.find(
    (each) => each.id === id,
  )!;

describe('rulers', () => {
  test('a place leads back to its value, on one scale and on a broken one', () => {
    for (const scale of [linear(0, 8, 10, 410), broken(2, 20, 10, 410, 0.6, 12)]) {
      for (const value of [0, 0.5, 1.9, 2.5, 8]) expect(scale.invert(scale(value))).toBeCloseTo(value, 9);
    }
    const scale = broken(2, 20, 0, 400, 0.5, 12);
    expect(scale.invert(198)).toBe(2); // within the gap nothing lies
    expect(scale(2.0001)).toBeGreaterThan(scale(2));
  });

  test('ticks are round and within', () => {
    expect(ticks(0, 4, 4)).toEqual([0, 1, 2, 3, 4]);
    expect(ticks(0, 0.7, 4)).toEqual([0, 0.2, 0.4, 0.6]);
    expect(ticks(5, 5, 4)).toEqual([5]);
    expect([roundUp(3.2), roundUp(0.07), roundUp(4), roundUp(0)]).toEqual([4, 0.08, 4, 1]);
  });
});

describe('beat strip', () => {
  test('the quill fan: hits at 0.55, 0.65, 0.75; next start when the cooldown from its end is over', () => {
    const thistlejack = unit('thistlejack');
    const beat = layoutBeat(thistlejack.attacks[1], thistlejack);
    expect(beat.hits.map((time) => Math.round(time * 100) / 100)).toEqual([0.55, 0.65, 0.75]);
    expect(beat).toMatchObject({ recoveryEnd: expect.closeTo(1.2), cooldownFrom: expect.closeTo(1.2), nextStart: expect.closeTo(3.6) });
    expect(beatSentence(thistlejack.attacks[1], thistlejack)).toBe('3 shots, 0.1 s apart, aim fixed when the wind-up starts');
  });

  test('a cooldown shorter than the swing does not bring the next start forward; the pause comes after', () => {
    const clipper = unit('clipper');
    const quick = { ...clipper.attacks[0], beat: { ...clipper.attacks[0].beat, cooldown: 0.2 } };
    expect(layoutBeat(quick, clipper).nextStart).toBeCloseTo(0.45 + 0.4 + 0.3 + 0.1, 12);
  });
});

test('damage over time ticks up to and including its end', () => {
  const attack = unit('clipper').attacks[0];
  const overTime = { amount: 3, every: 0.8, for: 4, stacking: 'refresh' as const };
  expect(overTimeTicks({ ...attack, effects: { overTime } }).map((time) => Math.round(time * 10) / 10)).toEqual([0.8, 1.6, 2.4, 3.2, 4]);
  expect(overTimeTicks(attack)).toEqual([]);
});

describe('reach strip', () => {
  test('what nothing reaches is found between the attacks', () => {
    expect(reachOf(unit('thistlejack')).gaps).toEqual([{ from: 1.4, to: 2 }]);
    expect(reachOf(unit('clipper'))).toMatchObject({ gaps: [], stops: [{ at: expect.closeTo(0.81), own: false }] });
  });

  test('stopping farther away than anything reaches is found', () => {
    const mulcher = unit('mulcher');
    mulcher.states[0].stopAt = 4;
    expect(reachOf(mulcher).outOfReach).toEqual({ state: 'Trudge', stops: 4, reaches: 3 });
    expect(reachOf(unit('mulcher')).outOfReach).toBeUndefined();
  });

  test('the ruler breaks only where the near part would be too small', () => {
    expect(breakAt(reachOf(unit('clipper')), 25)).toBe(2);
    expect(breakAt(reachOf(unit('thistlejack')), 20)).toBeUndefined();
  });
});

test('a density is even for nothing, holds the mass of a sample and ignores survivors', () => {
  expect(density([], 0, 1)).toEqual(new Array(64).fill(0));
  const values = Array.from({ length: 500 }, (_, i) => 3 + ((i * 61) % 100) / 50);
  const curve = density([...values, Infinity], 0, 8, 200);
  expect((curve.reduce((a, b) => a + b, 0) * 8) / 199).toBeCloseTo(1, 1);
});

describe('labels', () => {
  test('of bands stand at their lower edges, above one another where these meet, and only within their band', () => {
    expect(stacked([{ high: 0, low: 100 }])).toEqual([96]);
    expect(
      stacked([
        { high: 0, low: 100 },
        { high: 40, low: 100 },
        { high: 85, low: 98 },
      ]),
    ).toEqual([84, 96, undefined]); // the narrow third has no room beside the other two
    expect(stacked([{ high: 93, low: 100 }])).toEqual([undefined]);
  });

  test('that would lie over an earlier one are not given a place', () => {
    const roomy = new Roomy(40, 12);
    expect([roomy.take(100, 50), roomy.take(130, 45), roomy.take(130, 62), roomy.take(141, 50)]).toEqual([true, false, true, true]);
  });
});

describe('beside a bar', () => {
  test('a label stands behind it, before it where there is no room behind, under its end where there is none at all; never over the names', () => {
    const place = (from: number, to: number, words: string) => beside({ from, to }, wideAs(words), 150, 700);
    expect(place(200, 300, '6 Clipper')).toEqual({ sign: 303, text: 317, anchor: 'start', under: false });
    expect(place(600, 690, '6 Clipper')).toEqual({ sign: 586, text: 583, anchor: 'end', under: false });
    const squeezed = place(160, 690, '5–12 from a pool of 3');
    expect([squeezed.anchor, squeezed.under]).toEqual(['start', true]);
    for (const [from, to] of [
      [150, 700],
      [150, 690],
      [160, 650],
      [400, 640],
      [690, 700],
    ])
      for (const words of ['1 a', '5–12 from a pool of 3', 'x'.repeat(60)]) {
        const { anchor, text } = place(from, to, words);
        const left = anchor === 'start' ? text : text - wideAs(words);
        expect([left >= 150, anchor === 'start' ? text + wideAs(words) <= 700 : text <= 700]).toEqual([true, true]);
      }
  });
});

describe('who comes when, before any run', () => {
  const group = (more: object) => ({ count: { min: 2, max: 2 }, rule: 'inTurn', at: ['a', 'b'], spacing: 0, ...more });
  const wave = (more: object, ...groups: object[]) => ({ start: 'defeated', at: 0, delay: 0, groups, ...more }) as never;

  test('units in turn at their points, apart by their spacing, all at each; waves one after another, by the clock, again', () => {
    const turn = comings([wave({}, group({ count: { min: 3, max: 3 }, spacing: 1 }))], ['a', 'b']);
    expect(turn.dots).toEqual([
      { at: 0, row: 0, beside: 0 },
      { at: 1, row: 1, beside: 0 },
      { at: 2, row: 0, beside: 0 },
    ]);
    expect(comings([wave({}, group({ rule: 'each' }))], ['a', 'b']).dots.map(({ row, beside: place }) => [row, place])).toEqual([
      [0, 0],
      [0, 1],
      [1, 0],
      [1, 1],
    ]);
    expect(
      comings([wave({ delay: 2 }, group({})), wave({}, group({})), wave({ start: 'clock', at: 30 }, group({}))], ['a']).starts,
    ).toEqual([2, 7, 30]);
    const again = comings([wave({ repeat: { times: 3, when: 'every', every: 12, pause: 9 } }, group({}))], ['a']);
    expect([again.starts, again.until]).toEqual([[0, 12, 24], 36]);
    expect(comings([wave({ repeat: { times: 2, when: 'defeated', pause: 3 } }, group({}))], ['a']).starts).toEqual([0, 8]);
    expect(comings([], ['a'])).toEqual({ dots: [], starts: [], until: 0 });
  });
});

test('labels that would touch stand on lines of their own, the first that is free', () => {
  const label = (from: number, to: number) => ({ from, to });
  expect(lines([label(0, 50), label(60, 100), label(40, 70), label(90, 120), label(101, 130)])).toEqual([0, 0, 1, 1, 2]);
  expect(lines([label(0, 50), label(52, 80)])).toEqual([0, 1]);
  expect(lines([])).toEqual([]);
});
