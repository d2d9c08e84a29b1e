import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { estimate } from '../measures/verdict';
import { cellPicture, rowRuler } from './cell-picture';
import { density } from './density';
import { pacingPicture } from './pacing-picture';
import { binned, broken, clockTicks, isPoint, linear, roundUp, rulerOf, ticks } from './scale';
import { svgOf } from './shape';

/** What runs come to: almost all alike, tiny, huge, none, one, never. */
const awkward = fc.oneof(
  fc.constantFrom(
    0,
    -0,
    1,
    10.9,
    10.899999999999999,
    10.9 + 2e-15,
    1e-300,
    5e-324,
    1e300,
    Number.MAX_VALUE,
    -1e300,
    NaN,
    Infinity,
    -Infinity,
    0.1 + 0.2,
    0.3,
  ),
  fc.double(),
  fc.double({ min: 10.8999999999, max: 10.9000000001 }),
);
const samples = fc.oneof(
  fc.array(awkward, { maxLength: 12 }),
  fc.tuple(awkward, fc.integer({ min: 1, max: 30 })).map(([value, n]) => new Array<number>(n).fill(value)),
  fc.constant([10.899999999999999, 10.9, 10.9, 10.9]),
);
const cases = { numRuns: 400 };

describe('a ruler over whatever runs come to', () => {
  test('goes from one finite value to a greater one', () => {
    fc.assert(
      fc.property(samples, fc.constantFrom(0, 0.06, 0.12), (values, pad) => {
        const [from, to] = rulerOf(values, pad);
        expect(Number.isFinite(from) && Number.isFinite(to) && to >= from).toBe(true);
        if (values.every((value) => !(value < 0))) expect(from).toBeGreaterThanOrEqual(0);
      }),
      cases,
    );
    expect(rulerOf([])).toEqual([0, 1]);
    expect(rulerOf([undefined, NaN, Infinity])).toEqual([0, 1]);
    expect(rulerOf([10, 20], 0.1)).toEqual([9, 21]);
    expect(rulerOf([5], 0.1)).toEqual([4.5, 5.5]);
  });

  test('places every value, there and back, and what never came beyond its end', () => {
    fc.assert(
      fc.property(awkward, awkward, awkward, (from, to, value) => {
        const x = linear(from, to, 10, 210);
        expect(Number.isNaN(x(value))).toBe(Number.isNaN(value));
        expect(Number.isFinite(x.invert(110))).toBe(true);
      }),
      cases,
    );
    expect([linear(0, 4, 0, 100)(Infinity), linear(0, 4, 100, 0)(Infinity), linear(0, 4, 0, 100)(-Infinity)]).toEqual([
      Infinity,
      -Infinity,
      -Infinity,
    ]);
  });

  test('has a handful of ticks within it, ascending, each once: 10.899999999999999 to 10.9 as much as any', () => {
    fc.assert(
      fc.property(awkward, awkward, fc.integer({ min: 1, max: 40 }), (from, to, about) => {
        const marks = ticks(from, to, about);
        expect(marks.length).toBeLessThanOrEqual(3 * about + 2);
        expect(new Set(marks).size).toBe(marks.length);
        for (let i = 1; i < marks.length; i++) expect(marks[i]).toBeGreaterThan(marks[i - 1]);
        if (Number.isFinite(from) && Number.isFinite(to) && !isPoint(from, to))
          for (const mark of marks) {
            expect(mark).toBeGreaterThanOrEqual(from - (to - from) * 1e-9);
            expect(mark).toBeLessThanOrEqual(to + (to - from) * 1e-9);
          }
      }),
      cases,
    );
    expect(ticks(10.899999999999999, 10.9, 4)).toHaveLength(1);
    expect(ticks(...rulerOf([10.899999999999999, 10.9], 0.12), 4).length).toBeGreaterThan(2);
    expect([ticks(NaN, 1, 4), ticks(0, Infinity, 4), ticks(5, 5, 4)]).toEqual([[], [0], [5]]);
  });

  test('a clock has whole steps, however long it runs', () => {
    fc.assert(
      fc.property(awkward, fc.integer({ min: 1, max: 20 }), (until, about) => {
        expect(clockTicks(until, about).length).toBeLessThanOrEqual(3 * about + 2);
      }),
      cases,
    );
    expect(clockTicks(90, 8)).toEqual([0, 15, 30, 45, 60, 75, 90]);
  });

  test('its round end is at or above the value, and not far above it', () => {
    fc.assert(
      fc.property(awkward, (value) => {
        const end = roundUp(value);
        expect(Number.isFinite(end) && end > 0).toBe(true);
        if (value > 1e-15 && value < 1e15) expect(end / value).toBeLessThan(1.51);
        if (value > 0 && value < 1e15) expect(end).toBeGreaterThanOrEqual(value * (1 - 1e-9));
      }),
      cases,
    );
  });

  test('its parts count every finite value within it once', () => {
    fc.assert(
      fc.property(samples, fc.integer({ min: 1, max: 40 }), (values, parts) => {
        const [from, to] = rulerOf(values);
        const counts = binned(values, from, to, parts);
        expect(counts).toHaveLength(parts);
        const within = values.filter((value) => Number.isFinite(value) && Math.abs(value) <= 1e15);
        if (values.every((value) => !Number.isFinite(value) || Math.abs(value) < 1e15))
          expect(counts.reduce((a, b) => a + b, 0)).toBe(within.length);
      }),
      cases,
    );
    expect(binned([0, 1, 1.5, 9.99, 10, NaN, Infinity], 0, 10, 10)).toEqual([1, 2, 0, 0, 0, 0, 0, 0, 0, 2]);
  });

  test('in two pieces too', () => {
    fc.assert(
      fc.property(awkward, awkward, awkward, (at, to, value) => {
        const x = broken(at, to, 10, 410, 0.6, 12);
        expect(Number.isNaN(x(value))).toBe(Number.isNaN(value));
      }),
      cases,
    );
  });
});

describe('pictures over whatever runs come to have no gap in their numbers', () => {
  const sound = (markup: string) => {
    expect(markup).not.toMatch(/NaN|undefined/);
    expect(markup.length).toBeLessThan(200_000);
  };

  test('a cell with its band, at every verdict', () => {
    fc.assert(
      fc.property(
        samples,
        fc.option(awkward, { nil: undefined }),
        fc.option(awkward, { nil: undefined }),
        fc.constantFrom('met', 'missedLow', 'missedHigh', 'undecided', undefined),
        fc.boolean(),
        (values, low, high, verdict, share) => {
          const band = { low, high };
          const { from, to } = rowRuler([values], [band], share);
          sound(
            svgOf(
              cellPicture({
                values,
                estimate: estimate(values, 'median'),
                share,
                band: Number.isNaN(low) || Number.isNaN(high) ? undefined : band,
                verdict: verdict as never,
                from,
                to,
                width: 104,
                height: 30,
              }),
            ),
          );
        },
      ),
      cases,
    );
  });

  test('a smooth picture', () => {
    fc.assert(
      fc.property(samples, (values) => {
        const [from, to] = rulerOf(values, 0.12);
        for (const y of density(values, from, to)) expect(y).toBeGreaterThanOrEqual(0);
      }),
      cases,
    );
    // Each place by itself, kernel by kernel, of Silverman's width: what one place owes to the one before it adds no error.
    fc.assert(
      fc.property(fc.array(fc.double({ min: -50, max: 200, noNaN: true }), { minLength: 2, maxLength: 300 }), (values) => {
        const [from, to] = rulerOf(values, 0.12);
        const n = values.length;
        const mean = values.reduce((a, b) => a + b, 0) / n;
        const sd = Math.sqrt(values.reduce((a, b) => a + (b - mean) ** 2, 0) / n);
        const sorted = [...values].sort((a, b) => a - b);
        const spread = (sorted[Math.floor(0.75 * (n - 1))] - sorted[Math.floor(0.25 * (n - 1))]) / 1.34;
        const width = Math.max(0.9 * (spread > 0 ? Math.min(sd, spread) : sd) * n ** -0.2, (to - from) / 60, 1e-9);
        density(values, from, to).forEach((y, i) => {
          const x = from + ((to - from) * i) / 63;
          // Four widths away a kernel ends; whether it does just there is rounding.
          const sum = (reach: number) =>
            values.reduce((all, value) => all + (Math.abs(x - value) < reach * width ? Math.exp(-0.5 * ((x - value) / width) ** 2) : 0), 0);
          expect(y * n * width * 2.5066).toBeGreaterThan(sum(3.9999999) - 1e-9);
          expect(y * n * width * 2.5066).toBeLessThan(sum(4.0000001) + 1e-9);
        });
      }),
      { numRuns: 200 },
    );
  });

  test('a curve over the clock', () => {
    const bins = fc.array(
      fc.option(fc.oneof(fc.double({ min: 0, max: 1e6, noNaN: true }), fc.constantFrom(0, 1e-300)), { nil: undefined }),
      { maxLength: 12 },
    );
    fc.assert(
      fc.property(bins, awkward, awkward, (median, until, top) => {
        const times = median.map((_, i) => i + 1);
        const curve = { times, going: times, p10: median, p25: median, median, p75: median, p90: median };
        sound(
          svgOf(
            pacingPicture({
              curve,
              waves: [{ id: 'a', name: 'A', started: 1 }] as never,
              lulls: [{ from: 0, to: 1 }],
              until,
              top: roundUp(top),
              width: 300,
              height: 100,
              named: true,
            }),
          ),
        );
      }),
      cases,
    );
  });
});
