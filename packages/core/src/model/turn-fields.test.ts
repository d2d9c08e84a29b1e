/** A form in turns shows what has a say and nothing else: whatever else is written there, the fight is the same to the bit. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { compile } from '../engine/compile';
import { Runner } from '../engine/run';
import { arbitraryRounds } from '../testing/arbitrary-rounds';
import { demoProject } from '../testing/demo';
import { inTurns } from '../testing/rounds';
import { blank } from './blank';
import type { Project } from './project';
import { AttackRounds, type StateRounds, UnitRounds } from './rounds';
import { attackTurnFields, stateTurnFields, unitTurnFields } from './turn-fields';
import { projectWithRounds } from './turning-rounds';

/** Every number that no form shows is another, and so is every word of a unit. */
function otherwiseUnseen(project: Project, by: number): Project {
  const copy = structuredClone(project);
  const change = (object: object | undefined, all: object, shown: readonly string[]) => {
    if (!object) return;
    for (const field of Object.keys(all)) {
      const values = object as Record<string, unknown>;
      const value = values[field] ?? (all as Record<string, unknown>)[field];
      if (!shown.includes(field) && typeof value === 'number') values[field] = value + by;
    }
  };
  for (const unit of copy.units) {
    change(unit.rounds, blank(UnitRounds), unitTurnFields(unit));
    for (const attack of unit.attacks) change(attack.rounds, blank(AttackRounds), attackTurnFields(attack));
    for (const state of unit.states) {
      state.rounds ??= {} as StateRounds;
      change(state.rounds, { moves: 0, stopAt: 0, near: 0, far: 0, radius: 0 }, stateTurnFields(state));
    }
  }
  return copy;
}

const digestOf = (project: Project, encounter: string, seed: number) => new Runner(compile(project, { encounter })).run(seed).digest;

test('what is not shown changes no generated fight', () => {
  fc.assert(
    fc.property(arbitraryRounds, fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 1, max: 3 }), (sketch, seed, by) => {
      const project = inTurns(sketch, true);
      expect(digestOf(otherwiseUnseen(project, by), 'fight', seed)).toBe(digestOf(project, 'fight', seed));
    }),
    { numRuns: 60 },
  );
});

test.each(demoProject().encounters.map(({ id }) => id))('nor %s of the demo in turns', (id) => {
  const project = projectWithRounds(demoProject(), id, { round: 2, cell: 1 });
  for (const seed of [1, 2, 3]) expect(digestOf(otherwiseUnseen(project, 2), id, seed)).toBe(digestOf(project, id, seed));
});

describe('what comes and goes with a part', () => {
  const part = {};
  test('of a unit', () => {
    const plain = unitTurnFields({ onDeath: { revivals: 0 } } as never);
    const all = unitTurnFields({ shield: part, energy: part, stagger: part, onDeath: { revivals: 1 } } as never);
    expect(all.filter((field) => !plain.includes(field))).toEqual([
      'shieldRegen',
      'shieldDelay',
      'energyRegen',
      'staggerWindow',
      'staggers',
      'steady',
      'revivableFor',
    ]);
    // Together they are all of its numbers and words.
    const { reactions: _, senses: __, plays: ___, ...rest } = blank(UnitRounds) as UnitRounds;
    expect([...all].sort()).toEqual(Object.keys(rest).sort());
  });

  test('of an attack: one that helps or calls does not lunge', () => {
    const attack = (delivery: string, rest = {}) => attackTurnFields({ delivery, ...rest } as never);
    for (const delivery of ['melee', 'hitscan', 'projectile', 'area']) expect(attack(delivery)).toContain('lunge');
    for (const delivery of ['self', 'support', 'summon', 'contact']) expect(attack(delivery)).not.toContain('lunge');
    const every = new Set(['charges', 'area', 'next', 'summon'].flatMap((kind) => attack('melee', { [kind]: part, rounds: { hits: 2 } })));
    expect([...every].sort()).toEqual(Object.keys(blank(AttackRounds)).sort());
    expect(attack('melee', { rounds: { hits: 1 } })).not.toContain('perTarget');
  });

  test('of a state', () => {
    expect(stateTurnFields({ does: 'hold' })).toEqual(['moves']);
    expect(stateTurnFields({ does: 'approach' })).toEqual(['moves', 'stopAt']);
    expect(stateTurnFields({ does: 'band' })).toEqual(['moves', 'near', 'far']);
    expect(stateTurnFields({ does: 'search' })).toEqual(['moves', 'stopAt']);
    expect(stateTurnFields({ does: 'wander' })).toEqual(['moves', 'radius']);
  });
});
