import { describe, expect, test } from '@jest/globals';
import type { Shown } from '../analysis/board';
import type { Curve } from '../measures/curves';
import { type BandMeasure, goalIn, isTold } from '../measures/list';
import { estimate } from '../measures/verdict';
import { demoProject } from '../testing/demo';
import { boardPicture, stylesPicture } from './board-picture';
import { type CellPictureOptions, cellPicture, rowRuler } from './cell-picture';
import { goalName, goalPlace, goalSentence, isMissed } from './goal-sentences';
import { numberOf, plainOf, quantityOf, told, unitOf, untold, wantedWords } from './goal-words';
import { clockTime, fixed, shown } from './numbers';
import { pacingPicture, pacingScales } from './pacing-picture';
import { clockTicks, linear } from './scale';
import { type Shape, circle, escaped, path, svgOf, text } from './shape';

describe('numbers', () => {
  test('as read: no noise of binary fractions, a true minus, no end that was not given', () => {
    expect([shown(0.1 + 0.2), shown(-1.5), shown(2.0004), shown(Infinity), shown(-Infinity)]).toEqual(['0.3', '−1.5', '2', '∞', '−∞']);
    expect([fixed(-0.25, 1), fixed(3, 2), fixed(NaN, 1), fixed(Infinity, 1)]).toEqual(['−0.3', '3.00', '—', '∞']);
  });
  test('a clock carries: 59.96 s is a minute, not sixty seconds', () => {
    expect([clockTime(5), clockTime(65), clockTime(59.96, 1), clockTime(59.96), clockTime(65.25, 2)]).toEqual([
      '0:05',
      '1:05',
      '1:00.0',
      '1:00',
      '1:05.25',
    ]);
  });
  test('of measures: percent where it is told so, a clock from ninety seconds on, never for a survivor, a dash for nothing', () => {
    expect(unitOf('peakPressureShare')).toBe('%/s');
    expect(unitOf('won')).toBe('%');
    expect([told('won', 0.5), untold('won', 50), told('length', 5)]).toEqual([50, 0.5, 5]);
    expect([numberOf('length', 96.4), numberOf('length', 12.34), numberOf('length', 1.234), numberOf('won', 0.381)]).toEqual([
      '1:36',
      '12.3',
      '1.23',
      '38.1',
    ]);
    expect([numberOf('timeToKill', Infinity), numberOf('timeToKill', NaN), numberOf('dose', 0)]).toEqual(['never', '—', '0']);
    expect([quantityOf('timeToKill', 6.8), quantityOf('timeToKill', Infinity), quantityOf('length', 96.4)]).toEqual([
      '6.80 s',
      'never',
      '1:36',
    ]);
    expect([plainOf('timeToKill', 4.5), plainOf('won', 0.25)]).toEqual(['4.5', '25']);
    expect(wantedWords('timeToKill', { low: 4.5, high: 7 })).toBe('wanted 4.5–7');
    expect(wantedWords('won', { high: 0.9 })).toBe('wanted at most 90');
    expect(wantedWords('won', { low: 0.6 })).toBe('wanted at least 60');
  });
  test('a clock’s ticks are whole steps that people count in', () => {
    expect(clockTicks(60, 8)).toEqual([0, 10, 20, 30, 40, 50, 60]);
    expect(clockTicks(100, 4)).toEqual([0, 30, 60, 90]);
  });
});

test('where a fight takes turns rounds are counted, and harm is told a round', () => {
  expect(['timeToKill', 'length', 'peakPressureShare', 'won'].map((measure) => unitOf(measure as BandMeasure, 'rounds'))).toEqual([
    'rounds',
    'rounds',
    '%/round',
    '%',
  ]);
  expect([numberOf('timeToKill', 4, 'rounds'), numberOf('timeToKill', 96, 'rounds'), numberOf('length', 3.5, 'rounds')]).toEqual([
    '4',
    '96',
    '3.50',
  ]);
  expect(quantityOf('timeToKill', 4, 'rounds')).toBe('4 rounds');
  expect(goalIn('timeToKill', 'rounds').label).toBe('rounds-to-kill');
  expect([
    isTold('unanswerable', 'rounds'),
    isTold('unanswerable', 'continuous'),
    isTold('reach', 'rounds'),
    isTold('reach', 'continuous'),
  ]).toEqual([false, true, true, false]);
});

describe('goals in words', () => {
  const project = demoProject();
  const band = { id: 'a', measure: 'timeToKill', scope: 'unit', of: 'clipper', statistic: 'median', low: 1, high: 2 } as const;
  const cell = { kind: 'duel', id: 'clipper', tier: 'bloom', skill: 'regular' } as const;
  const goal = {
    band,
    cell,
    column: 'type clipper timeToKill',
    of: 'clipper',
    clock: 'continuous',
    runs: 10,
    verdict: 'undecided',
  } as const;

  test('of whom, where, and at what', () => {
    expect(goalName(project, goal)).toBe('time-to-kill of Clipper, Bloom, regular');
    expect(goalPlace(project, { cell: { kind: 'encounter', id: 'evening-shift', tier: 'bloom' }, of: 'two' })).toBe(
      'Wave 2 in Evening Shift, Bloom',
    );
    expect(goalPlace(project, { cell: { kind: 'encounter', id: 'evening-shift' }, of: 'evening-shift' })).toBe('Evening Shift');
  });
  test('what it is, what is wanted, and how it stands', () => {
    const judged = {
      ...goal,
      judgement: { estimate: { value: 1.5, low: 0.9, high: 1.9, n: 10 }, verdict: 'undecided', p: 0.2, more: 600 },
    } as const;
    expect(goalSentence(judged)).toBe('median 1.5 s (0.9 to 1.9), wanted 1–2: undecided; about 600 more runs would decide');
    expect(goalSentence({ ...judged, verdict: 'missedLow', band: { ...band, low: undefined } })).toBe(
      'median 1.5 s (0.9 to 1.9), wanted at most 2: missed low',
    );
    const never = { estimate: { value: Infinity, low: 3, high: Infinity, n: 10 }, verdict: 'missedHigh', p: 0, more: 0 } as const;
    expect(goalSentence({ ...goal, verdict: 'missedHigh', judgement: never })).toBe('median never (3 to never), wanted 1–2: missed high');
    expect(goalSentence(goal)).toBe('not measured');
    const share = { ...band, measure: 'won', statistic: 'share', low: undefined, high: 0.6 } as const;
    const won = { estimate: { value: 0.48, low: 0.41234, high: 0.00088317, n: 10 }, verdict: 'met', p: 0, more: 0 } as const;
    expect(goalSentence({ ...goal, band: share, verdict: 'met', judgement: won })).toBe('48 % (41.2 to 0.0883), wanted at most 60: met');
    expect([isMissed({ verdict: 'missedLow' }), isMissed({ verdict: 'missedHigh' }), isMissed({ verdict: 'undecided' })]).toEqual([
      true,
      true,
      false,
    ]);
  });
});

describe('shapes', () => {
  test('are written as SVG with short numbers and safe text; what is absent is left out', () => {
    expect(svgOf([circle(1 / 3, 2, 3, { fill: 'var(--ink)', stroke: undefined })])).toBe(
      '<circle cx="0.33" cy="2" r="3" fill="var(--ink)"/>',
    );
    expect(svgOf([text(1, 2, 'a < b & "c"', { class: 't3' })])).toBe('<text x="1" y="2" class="t3">a &lt; b &amp; &quot;c&quot;</text>');
    expect(svgOf([path('M0 0', { 'stroke-dasharray': undefined })])).toBe('<path d="M0 0" fill="none"/>');
    expect(escaped('<>&"')).toBe('&lt;&gt;&amp;&quot;');
  });
});

describe('a cell', () => {
  const values = Array.from({ length: 100 }, (_, i) => 4 + i / 50);
  const draw = (more: Partial<CellPictureOptions> = {}) =>
    cellPicture({ values, estimate: estimate(values, 'median'), share: false, from: 0, to: 10, width: 104, height: 30, ...more });
  const last = (shapes: readonly Shape[]) => shapes[shapes.length - 1];

  test('the bracket is the band: it begins and ends where the ruler has its edges; one edge alone stays open', () => {
    const both = draw({ band: { low: 2, high: 8 }, verdict: 'met' });
    expect(both[0]).toMatchObject({ tag: 'rect', attrs: { x: 22, width: 60 } });
    expect(both.filter(({ attrs }) => attrs.stroke === 'var(--band-edge)').map(({ attrs }) => attrs.d)).toEqual([
      'M25 2.5 H22 V26',
      'M79 2.5 H82 V26',
    ]);
    const open = draw({ band: { low: 2 }, verdict: 'met' });
    expect(open[0].attrs).toMatchObject({ x: 22, width: 80 });
    expect(open.filter(({ attrs }) => attrs.stroke === 'var(--band-edge)')).toHaveLength(1);
    expect(draw().some(({ tag }) => tag === 'rect')).toBe(false);
  });

  test('the mark tells the verdict by shape: in the bracket, a point to the left, one to the right, a diamond', () => {
    const value = estimate(values, 'median').value;
    const x = linear(0, 10, 2, 102)(value);
    expect(last(draw({ verdict: 'met' }))).toMatchObject({ tag: 'circle', attrs: { cx: x } });
    expect(last(draw({ verdict: 'missedLow' })).attrs.d).toBe(`M${x + 3} 22.5 v7 l-6 -3.5z`);
    expect(last(draw({ verdict: 'missedHigh' })).attrs.d).toBe(`M${x - 3} 22.5 v7 l6 -3.5z`);
    expect(last(draw({ verdict: 'undecided' })).attrs).toMatchObject({ stroke: 'var(--open)' });
  });

  test('only a miss is red, only what is undecided is dotted', () => {
    const colours = (shapes: readonly Shape[]) => JSON.stringify(shapes);
    expect(colours(draw({ verdict: 'met' }))).not.toContain('--miss');
    expect(colours(draw({ verdict: 'undecided' }))).not.toContain('--miss');
    expect(colours(draw({ verdict: 'missedHigh' }))).toContain('--miss');
    expect(colours(draw({ verdict: 'undecided' }))).toContain('stroke-dasharray');
    expect(colours(draw({ verdict: 'met' }))).not.toContain('stroke-dasharray');
  });

  test('a share has its interval and no shape; a survivor stands at the far end; nothing measured has no mark', () => {
    const won = values.map((_, i) => (i < 50 ? 1 : 0));
    const share = draw({ values: won, estimate: estimate(won, 'share'), share: true, from: 0, to: 1 });
    expect(share.filter(({ attrs }) => attrs['stroke-width'] === 3)).toHaveLength(1);
    expect(share.some(({ attrs }) => attrs.fill === 'var(--dist)')).toBe(false);
    const never = draw({ estimate: { value: Infinity, low: 3, high: Infinity, n: 3 } });
    expect(last(never).attrs.d).toContain('l6 -3.5z');
    const none = draw({ values: [], estimate: estimate([], 'median') });
    expect(last(none).attrs.stroke).toBe('var(--rule)');
  });

  test('a row’s ruler holds all bands, and all values but the outermost; for shares it is 0 to 1', () => {
    expect(rowRuler([values], [{ high: 9 }], false)).toEqual({ from: expect.closeTo(3.63, 1), to: expect.closeTo(9.4, 1) });
    expect(rowRuler([[1, 2, Infinity]], [undefined], false).to).toBeLessThan(3);
    expect(rowRuler([[0.2]], [], true)).toEqual({ from: 0, to: 1 });
    expect(rowRuler([[], undefined], [], false)).toEqual({ from: 0, to: 1 });
    expect(rowRuler([[0, 0, 0]], [], false)).toEqual({ from: 0, to: 0.08 });
  });
});

describe('a board', () => {
  const row = (id: string) => ({
    subject: 'enemy' as const,
    clock: 'continuous' as const,
    id,
    name: id === 'long' ? 'A name of somebody that is longer than any room' : id,
  });
  const cell = (values: number[], more: Partial<Shown> = {}): Shown => ({
    key: 'k',
    cell: { kind: 'duel', id: 'a' },
    clock: 'continuous',
    values,
    runs: values.length,
    stale: false,
    estimate: estimate(values, 'median'),
    statistic: 'median',
    ...more,
  });
  const columns = [
    { key: 'bloom', name: 'Bloom & more', number: 1, at: {} },
    { key: 'blight', name: 'Blight', number: 2, at: {} },
  ];

  test('every row and column by name, what has not been run said so, verdicts drawn, stale ones named', () => {
    const rows = [row('long'), row('b')];
    const cells = [
      [
        cell([1, 2, 3], { verdict: 'met', band: { id: 'x', measure: 'timeToKill', scope: 'enemies', statistic: 'median', low: 1 } }),
        cell([]),
      ],
      [cell([4, 5, 6], { stale: true, verdict: 'met' }), cell([7])],
    ];
    const { svg, height } = boardPicture({ rows, columns, cells, measure: 'timeToKill', width: 600 });
    expect(height).toBe(26 + 2 * 34 + 1);
    expect(svg).toContain('A name of somebody that…');
    expect(svg).toContain('1  Bloom &amp; more');
    expect(svg.match(/not run/g)).toHaveLength(1);
    expect(svg.match(/>stale</g)).toHaveLength(1);
    expect(svg.match(/var\(--met\)/g)).toHaveLength(2); // the bracket and the mark of the one verdict
    expect(svg).toContain('>2.00<');
  });

  test('across styles: a mark each, the least and the most joined; a survivor at the far end; none without values', () => {
    const styles = [1, 3, Infinity].map((value, i) => ({ id: String(i), name: String(i), value }));
    const shapes = stylesPicture({ styles }, { from: 0, to: 4, width: 108 });
    expect(shapes[0].attrs.d).toBe('M29 15 H104');
    expect(shapes.slice(1).map(({ attrs }) => attrs.cx)).toEqual([29, 79, 104]);
    expect(stylesPicture({ styles: [{ id: 'a', name: 'a', value: NaN }] }, { from: 0, to: 1, width: 100 })).toEqual([]);
  });
});

describe('a curve over the clock', () => {
  const times = Array.from({ length: 240 }, (_, bin) => (bin + 1) / 2);
  const level = (value: number, last = 240) => times.map((_, bin) => (bin < last ? value : undefined));
  const curve: Curve = {
    times,
    going: times.map(() => 10),
    p10: level(0.01),
    p25: level(0.02),
    median: level(0.03, 120),
    p75: level(0.04),
    p90: level(0.05),
  };
  const options = { curve, percent: true, waves: [], lulls: [], until: 100, top: 0.1, width: 540, height: 120, named: true };

  test('the median is drawn as far as half of the runs last, and where it lies on the rulers', () => {
    const { x, y } = pacingScales(options);
    const median = pacingPicture(options).find(({ attrs }) => attrs.stroke === 'var(--ink)')!;
    const points = String(median.attrs.d).slice(1).split(' L');
    expect(points).toHaveLength(120);
    expect(points[0]).toBe(`${x(0.5).toFixed(1)} ${y(0.03).toFixed(1)}`);
    expect(points.at(-1)).toBe(`${x(60).toFixed(1)} ${y(0.03).toFixed(1)}`);
  });

  test('waves that came are marked, by name only where names are wanted; one after the ruler’s end is not', () => {
    const waves = [
      { id: 'a', name: 'First', started: 0 },
      { id: 'b', name: 'Second', started: 30 },
      { id: 'c', name: 'Third' },
      { id: 'd', name: 'Late', started: 130 },
    ];
    const words = (named: boolean) => pacingPicture({ ...options, waves, named }).flatMap(({ text: own }) => own ?? []);
    expect(words(true)).toEqual(expect.arrayContaining(['First', 'Second']));
    expect(words(true)).not.toContain('Late');
    expect(words(false)).not.toContain('First');
    // A name ends where the next wave begins.
    const close = [
      { id: 'a', name: 'A long name of a wave', started: 10 },
      { id: 'b', name: 'Second', started: 22 },
      { id: 'c', name: 'Third', started: 23 },
    ];
    const fit = pacingPicture({ ...options, waves: close }).flatMap(({ text: own, attrs }) => (attrs.class === 't3 halo' ? [own] : []));
    expect(fit).toEqual(['A long na…', 'Third']);
  });

  test('lulls are shaded as far as the ruler goes; the intended curve has its tolerance and stays within the picture', () => {
    const lulls = [
      { from: 10, to: 20 },
      { from: 90, to: 120 },
      { from: 110, to: 118 },
    ];
    const { x } = pacingScales(options);
    const shaded = pacingPicture({ ...options, lulls }).filter(({ attrs }) => attrs.fill === 'var(--well)');
    expect(shaded.map(({ attrs }) => [attrs.x, attrs.width])).toEqual([
      [x(10), x(20) - x(10)],
      [x(90), x(100) - x(90)],
    ]);
    const points = [
      { at: 0, value: 0.05 },
      { at: 200, value: 0.3 },
    ];
    const drawn = pacingPicture({ ...options, intended: { points, tolerance: 0.01 } });
    const ys = drawn
      .filter(({ attrs }) => attrs.fill === 'var(--band)' || attrs['stroke-dasharray'] === '5 3')
      .flatMap(({ attrs }) =>
        [...String(attrs.d).matchAll(/[ML]?([\d.-]+) ([\d.-]+)/g)].map(([, left, top]) => [Number(left), Number(top)]),
      );
    expect(ys.length).toBeGreaterThan(20);
    for (const [left, top] of ys) {
      expect(left).toBeLessThanOrEqual(534 + 1e-9);
      expect(top).toBeGreaterThanOrEqual(14 - 1e-9);
      expect(top).toBeLessThanOrEqual(104 + 1e-9);
    }
  });

  test('shares are told in percent on the ruler, counts as they are', () => {
    const ruler = (percent: boolean, top: number) =>
      pacingPicture({ ...options, percent, top }).flatMap(({ text: own, attrs }) => (attrs['text-anchor'] === 'end' ? [own] : []));
    expect(ruler(true, 0.1)).toEqual(['0', '5', '10']);
    expect(ruler(false, 4)).toEqual(['0', '1', '2', '3', '4']);
  });
});
