import { describe, expect, test } from '@jest/globals';
import { demoProject } from '../testing/demo';
import { scenarioKey, scenarioOf, type Scenario } from './scenario';
import { compileScenario } from './compile-scenario';
import { writtenUnit } from '../model/effective';
import { parseProject } from '../model/validate';
import { placesOfTurn, turnedProject, turnsKey, turnsOf } from '../model/turn';

const project = demoProject();
const healthOf = (of: typeof project, id: string) => writtenUnit(of, id).health.max;

describe('a turn', () => {
  test('sets a number where it is written; the document handed in stays as it is', () => {
    const now = turnedProject(project, [{ path: '/units/clipper/health/max', op: '=', value: 31 }]);
    expect(healthOf(now, 'clipper')).toBe(31);
    expect(healthOf(project, 'clipper')).toBe(22);
    expect(parseProject(structuredClone(now))).toEqual(now);
  });

  test('reaches variants through what they are of, and is theirs alone where it names them', () => {
    const variant = project.variants.find(({ basedOn }) => basedOn === 'clipper')!;
    const before = healthOf(project, variant.id);
    const own = turnedProject(project, [{ path: `/units/${variant.id}/health/max`, op: '=', value: before + 5 }]);
    expect(healthOf(own, variant.id)).toBe(before + 5);
    expect(healthOf(own, 'clipper')).toBe(22);
    const base = turnedProject(project, [{ path: '/units/clipper/movement/run', op: '=', value: 5 }]);
    expect(writtenUnit(base, variant.id).movement.run / writtenUnit(project, variant.id).movement.run).toBeCloseTo(5 / 7, 12);
  });

  test('multiplies a kind of number of everybody of a role, to four digits', () => {
    const role = project.units.find(({ id }) => id === 'clipper')!.role;
    const turn = { path: '/units/*/attacks/*/beat/cooldown', role, op: '×', value: 1.37 } as const;
    const places = placesOfTurn(project, turn);
    expect(places.length).toBeGreaterThan(0);
    expect(new Set(places.map(({ unit }) => project.units.find(({ id }) => id === unit)!.role))).toEqual(new Set([role]));
    const now = turnedProject(project, [turn]);
    expect(writtenUnit(now, 'clipper').attacks[0].beat.cooldown).toBe(2.192); // 1.6 × 1.37
  });

  test('takes words and yes-or-no as they are, numbers within their field, whole where they are counts', () => {
    const [word] = placesOfTurn(project, { path: '/units/clipper/attacks/bite/hits/limit', op: '=', value: 2.4 });
    expect(word.after).toBe(2);
    expect(placesOfTurn(project, { path: '/units/clipper/health/max', op: '=', value: -3 })[0].after).toBeGreaterThan(0);
    expect(placesOfTurn(project, { path: '/units/clipper/health/max', op: '=', value: 'many' })).toEqual([]);
    expect(placesOfTurn(project, { path: '/units/nobody/health/max', op: '=', value: 3 })).toEqual([]);
    expect(turnedProject(project, [{ path: '/units/nobody/health/max', op: '=', value: 3 }])).toEqual(project);
  });

  test('takes the number beside it along, rather than pass it', () => {
    const now = turnedProject(project, [{ path: '/units/thistlejack/attacks/quill/range/min', op: '=', value: 60 }]);
    const { range } = writtenUnit(now, 'thistlejack').attacks.find(({ id }) => id === 'quill')!;
    expect(range.min).toBeLessThanOrEqual(range.max);
  });

  test('turns numbers of encounters and tweaks of tiers as well, several in one list one after the other', () => {
    const shift = project.encounters.find(({ id }) => id === 'evening-shift')!;
    const tier = project.tiers.find(({ tweaks }) => tweaks.length > 0)!;
    const now = turnedProject(project, [
      { path: `/encounters/evening-shift/waves/${shift.waves[1].id}/delay`, op: '=', value: 9 },
      { path: '/encounters/evening-shift/limit', op: '×', value: 2 },
      { path: `/tiers/${tier.id}/tweaks/0/value`, op: '=', value: 1.75 },
    ]);
    const turned = now.encounters.find(({ id }) => id === 'evening-shift')!;
    expect(turned.waves[1].delay).toBe(9);
    expect(turned.limit).toBe(shift.limit * 2);
    expect(now.tiers.find(({ id }) => id === tier.id)!.tweaks[0].value).toBe(1.75);
  });
});

describe('in the key of a scenario', () => {
  test('turns come back as they were, with whatever else the key has', () => {
    const turned = [
      { path: '/units/*/health/max', role: 'swarm|er', op: '×' as const, value: 1.1 },
      { path: '/units/clipper/attacks/bite/beat/cooldown', op: '=' as const, value: 1.75 },
    ];
    expect(turnsOf(turnsKey(turned))).toEqual(turned);
    const cells: Scenario[] = [
      { kind: 'duel', id: 'clipper', skill: 'regular', duel: { copies: 6 }, turned },
      { kind: 'encounter', id: 'evening-shift', tier: 'bloom', turned },
      { kind: 'encounter', id: 'evening-shift', without: 'wave:first', turned },
    ];
    for (const cell of cells) expect(scenarioOf(scenarioKey(cell))).toEqual(cell);
    expect(scenarioKey({ ...cells[0], turned: [] })).toBe(
      scenarioKey({ kind: 'duel', id: 'clipper', skill: 'regular', duel: { copies: 6 } }),
    );
  });

  test('what is compiled is what would be compiled of the document with the number written in it', () => {
    const cell: Scenario = { kind: 'encounter', id: 'evening-shift', tier: 'bloom', skill: 'regular' };
    const turned = [{ path: '/units/clipper/health/max', op: '=' as const, value: 27 }];
    const written = structuredClone(project);
    written.units.find(({ id }) => id === 'clipper')!.health.max = 27;
    expect(compileScenario(project, { ...cell, turned })).toEqual(compileScenario(written, cell));
  });
});
