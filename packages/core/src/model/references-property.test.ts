import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { compile } from '../engine/compile';
import { run } from '../engine/run';
import { arbitraryRounds } from '../testing/arbitrary-rounds';
import { casesOf } from '../testing/cases';
import { arbitraryWildFight } from '../testing/arbitrary-wild';
import { inTurns } from '../testing/rounds';
import { projectTrusted } from '../testing/builders';
import { demoProject } from '../testing/demo';
import { classFields } from './field';
import { pointerOf } from './pointer';
import { Project } from './project';
import { type Target, renamed, targetsOf, usesOf, without } from './references';
import { parseProject } from './validate';
import { eachObject, idsIn, kindsOf } from './walk';

const cases = { numRuns: Math.ceil(casesOf(250) / 30) };
const sound = (project: Project) => parseProject(JSON.parse(JSON.stringify(project)));

function problemsOf(project: Project): unknown[] {
  try {
    sound(project);
    return [];
  } catch (error) {
    return [(error as { problems?: unknown }).problems ?? String(error)];
  }
}

/** Pointers to every reference in a document that holds an id of the kind, wherever it looks. */
function speaking(project: Project, { kind, id }: Target): string[] {
  const found: string[] = [];
  eachObject(Project, project, [], { project }, (type, object, at) => {
    for (const [field, reference] of classFields(type)!.references)
      if (kindsOf(reference, object).includes(kind) && idsIn(object[field]).includes(id)) found.push(pointerOf(...at, field));
  });
  return found;
}

/** A generated fight with everything around it that can speak of its parts. */
function surrounded(fight: Project): Project {
  const [warden, , clipper] = fight.units;
  const attack = clipper.attacks[0].id;
  const mentions = { attack: `/attacks/${attack}/range/max`, wave: '/waves/w2/delay' };
  return sound({
    ...fight,
    variants: [
      {
        id: 'elder',
        name: 'Elder',
        basedOn: clipper.id,
        changes: [
          { op: 'replace', path: `/attacks/${attack}/name`, value: 'Old' },
          { op: 'replace', path: '/traits', value: ['sharp'] },
        ],
        tweaks: [{ path: mentions.attack, op: '×', value: 2 }],
      },
    ],
    traits: [...fight.traits, { id: 'sharp', name: 'Sharp', tweaks: [{ path: mentions.attack, op: '×', value: 2 }] }],
    tiers: [
      {
        id: 'hard',
        name: 'Hard',
        traits: [{ trait: 'sharp', scope: 'unit', of: 'elder' }],
        tweaks: [
          { scope: 'unit', of: clipper.id, path: mentions.attack, op: '×', value: 1.1 },
          { scope: 'unit', of: 'elder', path: mentions.attack, op: '×', value: 1.1 },
          { scope: 'encounter', path: mentions.wave, op: '+', value: 1 },
        ],
      },
    ],
    skills: [{ id: 'novice', name: 'Novice', tweaks: [{ scope: 'unit', of: warden.id, path: '/health/max', op: '×', value: 0.9 }] }],
    accepted: [{ id: 'a', rule: 'r', path: `/units/${clipper.id}/attacks/${attack}`, cause: 'c', reason: 'why' }],
    brief: {
      bands: [
        { id: 'b1', measure: 'span', scope: 'wave', of: 'w2', encounter: 'fight', tier: 'hard', statistic: 'median', low: 1 },
        { id: 'b2', measure: 'timeToKill', scope: 'unit', of: 'elder', skill: 'novice', statistic: 'median', low: 1 },
      ],
      curves: [{ id: 'c', encounter: 'fight', tier: 'hard', tolerance: 0.01, points: [] }],
    },
    tuning: {
      questions: [
        {
          id: 'q1',
          name: 'Of the fight',
          fight: 'encounter',
          of: 'fight',
          at: [{ tier: 'hard' }, { skill: 'novice' }],
          goals: [
            { measure: 'span', scope: 'wave', of: 'w2', statistic: 'median', low: 1 },
            { measure: 'timeToKill', scope: 'unit', of: 'elder', statistic: 'median' },
          ],
          dials: [
            { scope: 'unit', of: 'elder', path: mentions.attack, op: '=' },
            { scope: 'enemies', path: mentions.attack, op: '×', low: 0.5, high: 2 },
            { scope: 'encounter', of: 'fight', path: mentions.wave, op: '=' },
            { scope: 'tier', of: 'hard', path: '/tweaks/0/value', op: '=' },
            { scope: 'trait', of: 'sharp', path: '/tweaks/0/value', op: '=' },
            { scope: 'variant', of: 'elder', path: '/tweaks/0/value', op: '=' },
          ],
        },
        { id: 'q2', name: 'Of a duel', fight: 'duel', of: clipper.id, copies: 3, dials: [] },
      ],
    },
  } as unknown as Project);
}

/** A few of each kind: each is judged over the whole document. */
function someOf(project: Project): Target[] {
  const all = targetsOf(project);
  return all.filter(({ kind }, i) => all.slice(0, i).filter((one) => one.kind === kind).length < 4);
}

function takesOutAll(project: Project): void {
  for (const target of someOf(project)) {
    const label = JSON.stringify(target);
    const uses = usesOf(project, target);
    if (uses.some(({ goes }) => !goes)) continue;
    const left = without(project, target);
    expect([label, targetsOf(left).filter((one) => one.kind === target.kind && one.id === target.id && one.in === target.in)]).toEqual([
      label,
      [],
    ]);
    // Where the same id is somebody else's too, it may still be spoken of.
    if (target.in === undefined) expect([label, speaking(left, target)]).toEqual([label, []]);
    expect([label, problemsOf(left)]).toEqual([label, []]);
    expect(JSON.stringify([left.tiers, left.tuning])).not.toContain(target.kind === 'wave' ? `/waves/${target.id}/` : '\u0000');
  }
}

function renamesAll(project: Project, digest: (project: Project) => string): void {
  const before = digest(project);
  for (const target of someOf(project)) {
    const id = `${target.id.slice(0, 40)}-again`;
    const other = sound(renamed(project, target, id));
    const label = JSON.stringify(target);
    const back = renamed(other, { ...target, id }, target.id);
    expect([label, JSON.stringify(back) === JSON.stringify(project)]).toEqual([label, true]);
    expect([label, usesOf(other, { ...target, id }).length]).toEqual([label, usesOf(project, target).length]);
    // Chance is drawn by a wave's id; what units say of slots, counters, points and zones holds for every encounter and arena.
    if (!['encounter', 'wave', 'slots', 'counter', 'point', 'zone'].includes(target.kind))
      expect([label, digest(other)]).toEqual([label, before]);
  }
}

const fightOf = (project: Project) => run(compile(project, { encounter: 'fight' }), 1).digest;

describe('whatever a document holds', () => {
  test('anything that nothing holds back can be taken out, and nothing is left that speaks of it', () => {
    takesOutAll(demoProject());
    fc.assert(
      fc.property(arbitraryWildFight, (sketch) => takesOutAll(surrounded(projectTrusted(sketch)))),
      cases,
    );
    fc.assert(
      fc.property(arbitraryRounds, (sketch) => takesOutAll(sound(inTurns(sketch, true)))),
      cases,
    );
  });

  test('anything can have another id: the fight stays the same, and the old id brings the old document back', () => {
    renamesAll(demoProject(), (project) => run(compile(project, { encounter: 'first-bell' }), 1).digest);
    fc.assert(
      fc.property(arbitraryWildFight, (sketch) => renamesAll(surrounded(projectTrusted(sketch)), fightOf)),
      cases,
    );
    fc.assert(
      fc.property(arbitraryRounds, (sketch) => renamesAll(sound(inTurns(sketch, true)), fightOf)),
      cases,
    );
  });
});
