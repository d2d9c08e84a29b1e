import { describe, expect, test } from '@jest/globals';
import { demoProject } from '../testing/demo';
import { blank } from '../model/blank';
import { Dash } from '../model/attack';
import { answersOnPaper } from './answers';
import { attackSentence } from './attack-sentence';

const unit = (id: string) => demoProject().units.find((one) => one.id === id)!;
const attack = (id: string, attackId: string) => unit(id).attacks.find((one) => one.id === attackId)!;
const say = (id: string, attackId: string) =>
  attackSentence(attack(id, attackId), (other) => demoProject().units.find((one) => one.id === other)?.name ?? other);

test.each([
  [
    'thistlejack',
    'quill-fan',
    'winds up 0.55 s, looses three shots over 0.3 s at 2–6 m, 4 ± 1 hp each, then recovers 0.35 s and rests 2.4 s',
  ],
  [
    'thistlejack',
    'kick',
    'winds up 0.3 s, strikes within 1.4 m in an arc of 80°, 8 ± 2 hp, then recovers 0.4 s and may come again 1.2 s after its start',
  ],
  [
    'sapwright',
    'raise',
    'winds up 0.8 s, helps a fallen friend within 9 m, raises with 60 % of full health, then recovers 0.4 s and may come again 3.8 s after its start; costs 18 energy',
  ],
  [
    'head-gardener',
    'call',
    'winds up 1.2 s, calls two Clipper, at most 4 at one time, then recovers 0.6 s and may come again 14 s after its start',
  ],
  [
    'head-gardener',
    'sweep',
    'winds up 0.75 s, bursts, once to each, for 0.2 s in a cone of 3.8 m and 180° about itself, begun within 3 m, 18 ± 3 hp, knocks back 2 m, then recovers 0.8 s and rests 2.6 s',
  ],
  [
    'head-gardener',
    'roots',
    'winds up 0.5 s, bursts in a circle of 2.4 m at a marked point, 0.55 s after the mark, begun within 14 m, 15 ± 2 hp, slows by 40 % for 1.5 s, then recovers 0.5 s and may come again 4.5 s after its start',
  ],
])('%s %s reads aloud', (id, attackId, sentence) => {
  if (attackId === 'sweep') expect(say(id, attackId)).toBe(sentence.replace('bursts, once to each, for 0.2 s', 'bursts'));
  else expect(say(id, attackId)).toBe(sentence);
});

describe('answers on paper', () => {
  test('the slam: 0.34 s of reaction out of its wind-up; a dodge takes none of what is left', () => {
    const mulcher = unit('mulcher');
    const slam = mulcher.attacks[0];
    const paper = answersOnPaper(slam, mulcher, unit('warden'), 1)!;
    expect(paper.announced).toBeCloseTo(slam.beat.windup, 9);
    expect(paper.left).toBeCloseTo(slam.beat.windup - 0.34, 9);
    const dodge = paper.answers.find(({ kind }) => kind === 'dodge')!;
    expect(dodge).toMatchObject({ needs: 0, fits: true });
  });

  test('stepping out of a circle: its radius less the way between middle and edge, and a quarter of the own body, at a run', () => {
    const gardener = unit('head-gardener');
    const sweep = gardener.attacks.find(({ id }) => id === 'sweep')!;
    const paper = answersOnPaper(sweep, gardener, unit('warden'), 1)!;
    // Radius 3.8 − (body 1.2 + gap 1) + 0.25 × 0.4 = 1.7 m at 4.4 m/s.
    expect(paper.answers.find(({ kind }) => kind === 'stepOut')!.needs).toBeCloseTo(1.7 / 4.4, 9);
  });

  test('what does not work against it says so, and a hit before the reaction leaves no time', () => {
    const hound = unit('briar-hound');
    const second = hound.attacks[1];
    const paper = answersOnPaper(second, hound, unit('warden'))!;
    expect(paper.left).toBeLessThan(0);
    expect(paper.answers.map(({ kind, fits, why }) => [kind, fits, why])).toEqual([
      ['dodge', false, 'the hit comes first'],
      ['stepOut', false, 'the hit comes first'],
      ['breakLine', false, 'does not work against it'],
      ['interrupt', false, 'does not work against it'],
    ]);
    expect(answersOnPaper(second, hound, unit('clipper'))).toBeUndefined();
  });
});

test.each([
  [{ hurts: 'no' }, 'winds up 0.3 s, meanwhile goes up to 3 m towards its target at 10 m/s, strikes within 1.4 m in an arc of 80°'],
  [
    { hurts: 'way', stops: true, after: 0.1 },
    'meanwhile after 0.1 s goes up to 3 m towards its target at 10 m/s and strikes the first it meets, 8 ± 2 hp',
  ],
  [
    { hurts: 'end', way: 'ahead', during: 'active' },
    'while active goes up to 3 m straight ahead at 10 m/s, where that ends strikes within 1.4 m',
  ],
] as const)('a movement is read aloud with its attack: %j', (dash, sentence) => {
  expect(attackSentence({ ...attack('thistlejack', 'kick'), dash: { ...blank(Dash), ...dash } })).toContain(sentence);
});

test('a step that protects nobody fits on paper where it carries far enough, in its own time', () => {
  const [kick, jack, warden] = [attack('thistlejack', 'kick'), unit('thistlejack'), unit('warden')];
  const step = (distance: number) => {
    const answer = { ...warden.player!.answers.find(({ kind }) => kind === 'dodge')!, protects: false, distance, window: 0.2 };
    const victim = { ...warden, player: { ...warden.player!, answers: [answer] } };
    return answersOnPaper({ ...kick, answers: ['dodge'] }, jack, victim, 1)!.answers[0];
  };
  expect(step(3).needs).toBe(0.2);
  expect(step(0.1)).toMatchObject({ needs: Infinity, fits: false, why: 'does not carry it far enough' });
});
