/** What fits on paper is what is tried in a fight, and nothing else. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { VERDICT } from '../record/log';
import { announced, announcerOf, beats, facingEachOther, reader } from '../testing/arbitrary-announced';
import { casesOf, ofCases } from '../testing/cases';
import { eventsOf, fought, sketched } from '../testing/builders';
import { parseProject } from '../model/validate';
import { answersOnPaper } from './answers';

/** s: whoever steps out sets out with the next step. */
const STEP = 0.05;

const hook = {
  id: 'hook',
  weight: 0,
  range: { min: 0, max: 60 },
  arc: 360,
  delivery: 'hitscan',
  beat: { windup: 0.2, cooldown: 0.1 },
  effects: { stagger: { for: 0.1 } },
};
const answers = fc.oneof(
  fc.constant({ id: 'step', kind: 'stepOut' }),
  fc.constant({ id: 'interrupt', kind: 'interrupt' }),
  fc.constant({ id: 'dodge', kind: 'dodge', window: 0.3, distance: 0, cooldown: 0 }),
  fc.constant({ id: 'block', kind: 'block', window: 0.3, reduces: 1 }),
  fc
    .record({ window: fc.integer({ min: 1, max: 6 }), distance: fc.integer({ min: 1, max: 6 }) })
    .map(({ window, distance }) => ({ id: 'aside', kind: 'dodge', protects: false, window: window / 10, distance, cooldown: 0 })),
);

test('an answer is tried in a fight just where it fits on paper, but for the step that the fight goes by', () => {
  const told = { fits: 0, not: 0 };
  fc.assert(
    fc.property(
      announced,
      beats,
      answers,
      fc.integer({ min: 1, max: 12 }),
      fc.integer({ min: 1, max: 60 }),
      fc.integer({ min: 2, max: 8 }),
      (attack, beat, answer, x, reaction, run) => {
        const warden = reader(reaction / 100 + 0.003, [answer], {
          movement: { walk: 0, run },
          ...(answer.kind === 'interrupt' && { attacks: [hook] }),
        });
        const sketch = facingEachOther(warden, announcerOf(attack, { ...beat, cooldown: 99 }), x);
        const { units } = parseProject(sketched(sketch));
        const [victim, attacker] = ['warden', 'mulcher'].map((id) => units.find((one) => one.id === id)!);
        const gap = x - victim.body.radius - attacker.body.radius;
        if (attack.kind === 'melee' && gap > 3) return;
        const paper = answersOnPaper(attacker.attacks[0], attacker, victim, gap)!;
        const [{ fits, needs, kind }] = paper.answers;
        const time = kind === 'interrupt' ? paper.left - paper.underWay : paper.left;
        if (Math.abs(time - needs) <= STEP + 1e-6) return;
        const [given] = eventsOf(fought(sketch).log, 'answer');
        if (kind === 'interrupt' && !fits && given === undefined) return;
        expect([given?.b === VERDICT.tried, JSON.stringify(answer)]).toEqual([fits, JSON.stringify(answer)]);
        told[fits ? 'fits' : 'not']++;
      },
    ),
    { numRuns: casesOf(500) },
  );
  expect(Math.min(told.fits, told.not)).toBeGreaterThan(ofCases(50, 500));
});

test('what stays with its target until it strikes is not stepped out of, and is said to be', () => {
  const warden = reader(0.1, [{ id: 'step', kind: 'stepOut' }], { movement: { walk: 0, run: 5 } });
  const why = (delay: number) => {
    const lob = { kind: 'area' as const, active: 0, delivery: 'area', area: { about: 'target', radius: 2, delay } };
    const { units } = parseProject(sketched(facingEachOther(warden, announcerOf(lob, { windup: 1, recovery: 0, cooldown: 99 }), 4)));
    const [victim, attacker] = ['warden', 'mulcher'].map((id) => units.find((one) => one.id === id)!);
    const [{ fits, why: told }] = answersOnPaper(attacker.attacks[0], attacker, victim, 3)!.answers;
    return [fits, told];
  };
  expect(why(0)).toEqual([false, 'moving does not help']);
  expect(why(1)).toEqual([true, undefined]);
});

test('whoever stands beyond a reach has no more to go than the room it keeps', () => {
  const warden = reader(0.1, [{ id: 'step', kind: 'stepOut' }], { movement: { walk: 0, run: 5 } });
  const blow = { kind: 'melee' as const, active: 0, delivery: 'melee', range: { min: 0, max: 3 } };
  const { units } = parseProject(sketched(facingEachOther(warden, announcerOf(blow, { windup: 1, recovery: 0, cooldown: 99 }), 4)));
  const [victim, attacker] = ['warden', 'mulcher'].map((id) => units.find((one) => one.id === id)!);
  const needs = (gap: number) => answersOnPaper(attacker.attacks[0], attacker, victim, gap)!.answers[0].needs;
  const spare = victim.body.radius / 4;
  expect(needs(2)).toBeCloseTo((1 + spare) / 5, 9);
  expect(needs(3.5)).toBeCloseTo(spare / 5, 9);
});
