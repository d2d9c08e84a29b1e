/** Every visual drawn over numbers that nobody expects: it comes to an end, and none of its places is a gap. */
import { describe, expect, test } from '@jest/globals';
import {
  CLOCKS,
  type Attack,
  type EncounterReadout,
  EncounterWork,
  type Unit,
  density,
  estimate,
  linear,
  parseProject,
  roundUp,
  rulerOf,
} from '@insidia/core';
import * as fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { ReactElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { ApproachChart } from './ApproachChart';
import { BeatStrip } from './BeatStrip';
import { CellPicture } from './CellPicture';
import { Distribution } from './Distribution';
import { Histogram } from './Histogram';
import { PacingChart } from './PacingChart';
import { PressureRibbon } from './PressureRibbon';
import { ReachStrip } from './ReachStrip';
import { StateArcs } from './StateArcs';
import { WaveTimeline } from './WaveTimeline';

const demo = parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../demo/verdance.insidia.json'), 'utf8')));
const clipper = demo.units.find(({ id }) => id === 'clipper')!;
const none = () => undefined;
const cases = { numRuns: 60, seed: 20261127 };

function sound(element: ReactElement): void {
  const markup = renderToStaticMarkup(element);
  expect(markup).not.toMatch(/NaN|undefined|Infinity(?! )/);
  expect(markup.length).toBeLessThan(400_000);
}

const measured = fc.oneof(fc.constantFrom(0, 10.9, 10.899999999999999, 1e-12, 1e12, 1), fc.double({ min: 0, max: 1e9, noNaN: true }));
/** Runs: none, one, all alike, all but alike, some that never came to it. */
const samples = fc.oneof(
  fc.constant<number[]>([]),
  fc.constant([10.899999999999999, 10.9, 10.9]),
  measured.map((value) => [value]),
  fc.tuple(measured, fc.integer({ min: 2, max: 200 })).map(([value, n]) => new Array<number>(n).fill(value)),
  fc.array(fc.oneof(measured, fc.constantFrom(Infinity, NaN)), { maxLength: 60 }),
);
const maybe = fc.option(measured, { nil: undefined });

describe('drawn over awkward numbers', () => {
  test('a histogram, with and without its band and its value on paper', () => {
    fc.assert(
      fc.property(samples, maybe, maybe, maybe, (values, low, high, paper) => {
        const words = (value: number) => (Number.isFinite(value) ? value.toPrecision(3) : 'never');
        sound(
          <Histogram
            values={values}
            estimate={estimate(values, 'median')}
            statistic="median"
            band={low === undefined && high === undefined ? undefined : { low, high }}
            number={words}
            tick={words}
            unit="s"
            paper={paper}
            width={320}
            theme="light"
            onEdge={none}
          />,
        );
      }),
      cases,
    );
  });

  test('a share of runs lies between none and all, whatever came of them', () => {
    for (const values of [[1, 1, 1], [0], [0, 1, 1]]) {
      const told: number[] = [];
      const tick = (value: number) => {
        told.push(value);
        return String(value);
      };
      sound(
        <Histogram
          values={values}
          estimate={estimate(values, 'share')}
          statistic="share"
          number={String}
          tick={tick}
          unit="%"
          width={320}
          theme="light"
        />,
      );
      expect([Math.min(...told), Math.max(...told)]).toEqual([0, 1]);
    }
  });

  test('a distribution against what it was', () => {
    fc.assert(
      fc.property(samples, fc.option(samples, { nil: undefined }), (now, before) => {
        const { value, low, high } = estimate(now, 'median');
        const [from, to] = rulerOf(now);
        expect(density(now, from, to).every((y) => y >= 0)).toBe(true);
        sound(
          <Distribution
            label="Time-to-kill"
            unit="s"
            now={now}
            before={before}
            median={value}
            interval={{ low: Number.isFinite(low) ? low : 0, high: Number.isFinite(high) ? high : 1 }}
            medianBefore={before && estimate(before, 'median').value}
            width={300}
            theme="light"
          />,
        );
      }),
      cases,
    );
  });

  test('a cell of the board', () => {
    fc.assert(
      fc.property(samples, maybe, maybe, (values, low, high) => {
        const [from, to] = rulerOf([...values, low, high], 0.08);
        const cell = { values, estimate: estimate(values, 'median'), share: false, from, to, width: 108, height: 30 };
        sound(<CellPicture {...cell} band={{ low, high }} verdict="undecided" />);
      }),
      cases,
    );
  });

  test('a curve over the clock', () => {
    fc.assert(
      fc.property(fc.array(maybe, { maxLength: 20 }), measured, measured, (median, until, top) => {
        const times = median.map((_, i) => (i * until) / 20);
        const curve = { times, going: times, p10: median, p25: median, median, p75: median, p90: median };
        sound(
          <PacingChart
            label="Pressure"
            curve={curve}
            waves={[]}
            lulls={[{ from: 0, to: until }]}
            intended={{
              points: [
                { at: 0, value: top },
                { at: until + 1, value: 0 },
              ] as never,
              tolerance: top,
            }}
            until={until}
            top={roundUp(top)}
            width={600}
            height={110}
            named
            onPoints={none}
          />,
        );
      }),
      cases,
    );
  });

  test('an approach: nobody comes, one is there at once, one never closes', () => {
    fc.assert(
      fc.property(fc.array(fc.array(measured, { maxLength: 30 }), { maxLength: 4 }), measured, (gaps, length) => {
        const lines = gaps.map((own, unit) => ({
          unit,
          kind: 'clipper',
          times: own.map((_, i) => (i * length) / 30),
          gaps: own,
          windups: [{ from: 0, to: length, attack: 0 }],
          actives: [],
          marks: [],
        }));
        for (const clock of CLOCKS)
          sound(<ApproachChart approach={{ seed: 1, clock, groundless: false, length, lines }} unit={clipper} radii={0.8} width={300} />);
      }),
      cases,
    );
  });

  const beats = fc
    .record({
      windup: measured,
      active: measured,
      every: fc.option(
        measured.map((n) => n + 0.001),
        { nil: undefined },
      ),
      recovery: measured,
      cooldown: measured,
    })
    .map((beat) =>
      Object.fromEntries(Object.entries(beat).map(([key, value]) => [key, value === undefined ? undefined : Math.min(value, 600)])),
    );
  test('a beat of nothing, of a millionth, of ten minutes', () => {
    fc.assert(
      fc.property(beats, (beat) => {
        const own = structuredClone(clipper.attacks[0]) as Attack;
        Object.assign(own.beat, beat, { every: beat.every && Math.max(beat.every, (beat.active ?? 0) / 500) });
        sound(<BeatStrip attack={own} unit={{ ...clipper, attacks: [own] } as Unit} onDrag={none} />);
      }),
      cases,
    );
  });

  test('reaches of nothing, all alike, of half a kilometre', () => {
    fc.assert(
      fc.property(measured, measured, measured, fc.array(measured, { maxLength: 20 }), (min, max, sight, time) => {
        const own = structuredClone(clipper);
        const within = (value: number) => Math.min(value, 500);
        for (const attack of own.attacks) attack.range = { min: within(Math.min(min, max)), max: within(Math.max(min, max)) };
        Object.assign(own.senses, { sight: within(sight), lose: within(sight) });
        sound(<ReachStrip unit={own} radii={0.8} timeAtGap={time} onDrag={none} onSelect={none} />);
      }),
      cases,
    );
  });

  test('ways between states that are never taken, or always', () => {
    const { states } = demo.units.find(({ id }) => id === 'head-gardener')!;
    fc.assert(
      fc.property(measured, (perLife) => {
        const taken = states.map((state) => state.leaves.map((_, to) => ({ to, perLife })));
        sound(<StateArcs states={states} taken={taken} row={28} width={80} />);
        sound(<StateArcs states={[]} row={28} width={80} />);
      }),
      cases,
    );
  });

  const encounter = demo.encounters.find(({ id }) => id === 'evening-shift')!;
  const work = new EncounterWork(demo, { kind: 'encounter', id: encounter.id, tier: 'bloom', skill: 'regular' }, 1);
  work.advance(1);
  const one: EncounterReadout = work.result();

  test('the pressure of one run, of none, of too much', () => {
    fc.assert(
      fc.property(measured, measured, (most, until) => {
        const column = one.times.map((_, i) => (i % 7 ? most : undefined));
        const readout = {
          ...one,
          until,
          p10: column,
          median: column,
          p90: column,
          pressure: one.pressure.map((own) => ({ ...own, mean: column })),
        };
        const x = linear(0, until, 40, 600);
        const props = { x, width: 640, colourOf: () => 'green' as never, nameOf: (type: string) => type };
        sound(<PressureRibbon readout={readout} {...props} />);
        sound(
          <PressureRibbon
            readout={{ ...readout, times: [], p10: [], median: [], p90: [], pressure: [], waves: [], lulls: [] }}
            {...props}
          />,
        );
      }),
      cases,
    );
  });

  test('waves without runs, with one, that end where they begin', () => {
    fc.assert(
      fc.property(measured, (until) => {
        const props = {
          encounter,
          x: linear(0, until, 40, 600),
          width: 640,
          until,
          heads: new Map(),
          startSentence: () => 'at once',
          warned: new Set<string>(),
          onSelect: none,
          onDelay: none,
          onMove: none,
        };
        sound(<WaveTimeline {...props} readout={undefined} />);
        sound(<WaveTimeline {...props} readout={one} />);
      }),
      cases,
    );
  });
});
