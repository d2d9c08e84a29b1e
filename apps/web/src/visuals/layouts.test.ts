/** Names on plans and on clocks: none is written over another, over a sign or over a bar, whatever is drawn. */
import { describe, expect, test } from '@jest/globals';
import { type Arena, type EncounterReadout, type Project, linear, parseProject } from '@insidia/core';
import * as fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type Box, boxOf, clearPlaces, wideAs } from './labels';
import { planScale, scaleBar } from './plan';
import { PARTY_STARTS, partyStartsAt, planLabels } from './planLabels';
import { GROUP_LINE, WAVES_TOP, waveRows } from './waveRows';

const projectOf = (name: string): Project =>
  parseProject(JSON.parse(readFileSync(join(__dirname, `../../../../demo/${name}.insidia.json`), 'utf8')));
const [verdance, archive] = ['verdance', 'archive'].map(projectOf);

const meet = (a: Box, b: Box) => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

function clearOfEachOther(boxes: readonly Box[]): void {
  for (const [i, box] of boxes.entries()) for (const other of boxes.slice(i + 1)) expect(meet(box, other)).toBe(false);
}

describe('places that are clear', () => {
  test('the first place is taken that is free; where none is, the words are left out', () => {
    const at = (x: number, y: number) => ({ x, y, anchor: 'start' as const });
    const room = { left: 0, right: 100, top: 0, bottom: 40 };
    const two = { words: 'ab', places: [at(10, 20), at(10, 35)] };
    expect(clearPlaces([two, two, two], [], room)).toEqual([at(10, 20), at(10, 35), undefined]);
    // Taken beforehand, or not wholly within.
    expect(clearPlaces([two], [{ left: 0, right: 11, top: 15, bottom: 16 }], room)).toEqual([at(10, 35)]);
    expect(clearPlaces([{ words: 'ab', places: [at(95, 20), at(10, 5), at(10, 39), at(-1, 20)] }], [], room)).toEqual([undefined]);
    // Side by side is not over one another.
    expect(clearPlaces([two, { words: 'ab', places: [at(10 + wideAs('ab'), 20)] }], [], room)[1]).toBeDefined();
  });

  test('a box lies about the foot of its words as they are anchored', () => {
    const box = (anchor: 'start' | 'middle' | 'end') => boxOf('four', { x: 50, y: 30, anchor }, 5);
    expect(box('start')).toEqual({ left: 50, right: 70, top: 21, bottom: 33 });
    expect(box('middle')).toEqual({ left: 40, right: 60, top: 21, bottom: 33 });
    expect(box('end')).toEqual({ left: 30, right: 50, top: 21, bottom: 33 });
  });
});

describe('names on a plan', () => {
  const boxesOf = (arena: Arena, wide: number, high: number, used?: ReadonlySet<string>) =>
    planLabels(arena, planScale(arena, wide, high), wide, high, used).map((label) => ({ ...boxOf(label.words, label), key: label.key }));

  test('of every arena of both demos, however small it is drawn: none over another, over a sign, or beyond the plan', () => {
    for (const arena of [...verdance.arenas, ...archive.arenas])
      for (const [wide, high] of [
        [380, 260],
        [120, 90],
        [900, 700],
        [24, 24],
      ]) {
        const plan = planScale(arena, wide, high);
        const boxes = boxesOf(arena, wide, high);
        const bar = scaleBar(arena, plan);
        clearOfEachOther([...boxes, boxOf(PARTY_STARTS, partyStartsAt(arena, plan))]);
        for (const box of boxes) {
          expect([box.left >= 0, box.right <= wide, box.top >= 0, box.bottom <= high]).toEqual([true, true, true, true]);
          expect(meet(box, { left: bar.left, right: bar.right, top: bar.y - 16, bottom: bar.y + 3 })).toBe(false);
          if (!/^(spawn|point)/.test(box.key))
            for (const { corners } of arena.walls) {
              const [across, down] = [corners.map(({ x }) => plan.x(x)), corners.map(({ y }) => plan.y(y))];
              const wall = { left: Math.min(...across), right: Math.max(...across), top: Math.min(...down), bottom: Math.max(...down) };
              expect(meet(box, wall)).toBe(false);
            }
          for (const { x, y, radius } of arena.points) {
            const out = Math.SQRT2 * Math.max(4, radius * plan.scale) - 0.01;
            expect(meet(box, { left: plan.x(x) - out, right: plan.x(x) + out, top: plan.y(y) - out, bottom: plan.y(y) + out })).toBe(false);
          }
          for (const point of arena.spawnPoints)
            expect(
              box.left < plan.x(point.x) && plan.x(point.x) < box.right && box.top < plan.y(point.y) && plan.y(point.y) < box.bottom,
            ).toBe(false);
        }
      }
  });

  test('where there is room each has its name; where two compete the spawn point in use has it', () => {
    const stacks = archive.arenas.find(({ id }) => id === 'stacks')!;
    expect(boxesOf(stacks, 3000, 2400)).toHaveLength(
      stacks.walls.length + stacks.zones.length + stacks.points.length + stacks.spawnPoints.length + stacks.ground.length,
    );
    const arena = {
      ...stacks,
      width: 12,
      depth: 12,
      walls: [],
      zones: [],
      ground: [],
      points: [],
      partyStart: { x: -900, y: -900, facing: 0 },
    };
    const long = 'a name as long as the plan is wide';
    arena.spawnPoints = ['one', 'two'].map((id, i) => ({ ...stacks.spawnPoints[0], id, name: long, x: 0, y: i / 1000, scatter: 0 }));
    const wide = wideAs(long) + 24;
    // Above and below the sign there is room for one each: for a third there is none.
    arena.spawnPoints.push({ ...arena.spawnPoints[0], id: 'three' });
    for (const id of ['one', 'two', 'three']) {
      const names = boxesOf(arena, wide, 300, new Set([id]));
      expect(names).toHaveLength(2);
      expect(names[0].key).toBe(`spawn ${id}`);
    }
  });

  test('over generated arenas', () => {
    const place = { x: fc.integer({ min: -10, max: 10 }), y: fc.integer({ min: -6, max: 6 }) };
    const named = fc.record({ ...place, name: fc.string({ maxLength: 30 }), id: fc.uuid() });
    fc.assert(
      fc.property(
        fc.array(named, { maxLength: 12 }),
        fc.array(named, { maxLength: 12 }),
        fc.array(named, { maxLength: 12 }),
        fc.integer({ min: 20, max: 900 }),
        (spawnPoints, points, shapes, wide) => {
          const corners = ({ x, y }: { x: number; y: number }) => [
            { x, y },
            { x: x + 2, y },
            { x, y: y + 1 },
          ];
          const arena = {
            ...verdance.arenas[0],
            width: 24,
            depth: 16,
            spawnPoints: spawnPoints.map((one) => ({ ...one, scatter: 1 })),
            points: points.map((one) => ({ ...one, radius: 0.5 })),
            walls: shapes.map((one) => ({ ...one, height: 2, corners: corners(one) })),
            zones: shapes.map((one) => ({ ...one, corners: corners({ x: -one.x, y: one.y }) })),
            ground: [],
          } as unknown as Arena;
          clearOfEachOther(boxesOf(arena, wide, 300));
        },
      ),
    );
  });
});

describe('waves on the clock', () => {
  const room = { width: 660, until: 100, x: linear(0, 100, 150, 650) };
  const span = (median: number) => ({ p10: median, median, p90: median });
  const { encounters, units } = verdance;
  const heads = new Map(units.map((one) => [one.id, one]));

  /** Each group from one instant to another; `to` undefined: it lives on. */
  const read = (waves: (typeof encounters)[number]['waves'], from: number, to: number | undefined, timeout = 0) =>
    ({
      waves: waves.map(({ id, groups }) => ({
        id,
        started: span(from),
        triggers: { start: 1 - timeout, timeout, event: 0 },
        groups: groups.map((group) => ({
          id: group.id,
          first: span(from),
          last: to === undefined ? undefined : span(to),
          count: group.count.max,
        })),
      })),
    }) as unknown as EncounterReadout;

  test('words that have no room beside their bar stand on a line of their own, and what follows moves down', () => {
    for (const encounter of encounters)
      for (const [from, to, under] of [
        [0, undefined, true],
        [0, 5, false],
        [95, undefined, false],
      ] as const) {
        const rows = waveRows(encounter, read(encounter.waves, from, to), heads, room);
        const lines = rows.flatMap(({ groups }) => groups.flatMap(({ y, says }) => (says.under ? [y, says.y] : [y])));
        for (const [i, line] of lines.entries()) if (i > 0) expect(line - lines[i - 1]).toBeGreaterThanOrEqual(GROUP_LINE);
        for (const [i, row] of rows.entries()) {
          expect(row.top).toBe(i === 0 ? WAVES_TOP : rows[i - 1].bottom + 6);
          for (const { y, says, bar } of row.groups) {
            expect(bar).toBeDefined();
            expect([says.under, says.y - y]).toEqual([under, under ? GROUP_LINE : 0]);
            expect(y + GROUP_LINE).toBeLessThanOrEqual(row.bottom);
            expect(says.y + GROUP_LINE).toBeLessThanOrEqual(row.bottom);
          }
        }
      }
  });

  test('what brought a wave besides its start stands at its foot, under every bar', () => {
    for (const encounter of encounters)
      for (const row of waveRows(encounter, read(encounter.waves, 5, 10, 0.123), heads, room)) {
        expect(row.besides).toBe('timeout 12 %');
        const last = row.groups[row.groups.length - 1];
        expect(row.bottom + 1 - 8).toBeGreaterThanOrEqual(last.y + 10);
      }
  });

  test('what never came says so once there are runs, and has no bar', () => {
    const [encounter] = encounters;
    const never = { waves: encounter.waves.map(({ id }) => ({ id, groups: [] })) } as unknown as EncounterReadout;
    for (const row of waveRows(encounter, never, heads, room).flatMap(({ groups }) => groups)) {
      expect(row.bar).toBeUndefined();
      expect(row.said).toMatch(/, never came$/);
    }
    for (const row of waveRows(encounter, undefined, heads, room).flatMap(({ groups }) => groups)) expect(row.said).not.toMatch(/never/);
  });

  test('in turns the times of a wave are rounds', () => {
    const encounter = archive.encounters.find(({ waves }) => waves.some(({ rounds }) => rounds?.at))!;
    for (const { wave, w } of waveRows(encounter, undefined, heads, room)) {
      expect([wave.at, wave.delay]).toEqual([encounter.waves[w].rounds?.at ?? 1, encounter.waves[w].rounds?.delay ?? 0]);
    }
    for (const { wave, w } of waveRows(encounters[0], undefined, heads, room)) expect(wave).toBe(encounters[0].waves[w]);
  });
});
