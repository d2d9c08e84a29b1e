/** Events in words, with their numbers. */
import { clockOf, withUnit } from '../record/clock';
import { type Doing, doingWords, turnUseWords } from '../record/doing';
import { type Outcome, outcomeWords } from '../record/outcome';
import { answersAs } from '../model/answer-kind';
import { EFFECTS, EFFECT_NAMES, type EffectEvent } from '../model/effects/list';
import { brief as n, hitTold } from '../model/effects/parts';
import type { TraceEvent } from './trace';

const MISSES: Record<string, string> = {
  reach: 'out of reach',
  arc: 'outside its arc',
  aim: 'its aim was off',
  flown: 'it flew past',
  dodged: 'it was dodged',
  wall: 'a wall was in the way',
  warded: 'it was blocked',
  gone: 'nobody was there any more',
};
const BREAKS: Record<string, string> = {
  targetDied: 'its target is gone',
  stagger: 'it was staggered',
  hit: 'a hit broke it off',
  answer: 'it had to get out of the way',
  state: 'it turned to something else',
  noTarget: 'it has no target',
  wall: 'it ran into a wall',
};
/** Nothing is said of one that went its way. */
const DASH_ENDS: Record<string, string> = { wall: ': a wall stops it', body: ': a body stops it', cut: ': it is cut short' };
const VERDICTS: Record<string, string> = {
  notSeen: 'it did not see it coming',
  mistake: 'a mistake',
  tooLate: 'too late',
  cooldown: 'its answers were on cooldown',
  nowhere: 'nowhere to go',
  none: 'nothing works against it',
  tried: 'tried',
  worked: 'it worked',
};
const REACTS = { dodge: 'dodges', guard: 'guards against', counter: 'strikes back at' };
const ORDINALS = new Intl.PluralRules('en', { type: 'ordinal' });
const ANSWER_WORDS: Record<string, string> = { ...answersAs('verb'), none: 'gives no answer' };
const CAPS: Record<string, string> = { waits: 'waits', leftOut: 'left out', lost: 'lost' };
const GONES: Record<string, string> = {
  home: 'is home and leaves for good',
  farAway: 'strays too far and leaves',
  replaced: 'makes room for another',
  bledOut: 'bleeds out',
};

const CRUSHED = hitTold('crushes');

/** Events that tell of an effect, by the effect. */
const OF_EFFECTS = new Map(EFFECT_NAMES.map((name) => [EFFECTS[name].event.name, EFFECTS[name].event.told]));

/** "12.40 s: Mulcher 1 begins Slam against Warden at 1.8 m."; "Round 3: … at 2 cells." */
export function sentenceOf(event: TraceEvent): string {
  return `${event.round === undefined ? `${event.time.toFixed(2)} s` : `Round ${event.round}`}: ${tell(event)}.`;
}

function tell({
  event,
  round,
  name = 'somebody',
  otherName = 'nobody',
  what = '',
  cause = 'none',
  answer = 'none',
  traits,
  values = {},
}: TraceEvent): string {
  const clock = clockOf({ rounds: round });
  const distance = (value: number | undefined, digits = 1) => withUnit(clock, n(value, digits), 'm');
  const ofEffect = OF_EFFECTS.get(event);
  if (ofEffect) return ofEffect({ name, otherName, what, values, clock });
  switch (event as Exclude<typeof event, EffectEvent>) {
    case 'spawn':
      return `${name}${traits ? ` (${traits.join(', ')})` : ''} appears at ${n(values.x)}, ${n(values.y)}`;
    case 'notice':
      return `${name} is alert`;
    case 'lose':
      return `${name} has lost its foes`;
    case 'target':
      return `${name} goes for ${otherName}`;
    case 'state':
      return `${name} turns to ${what}`;
    case 'start':
      // Without ground there is no distance to tell.
      return `${name} begins ${what} against ${otherName}${clock === 'rounds' && !values.distance ? '' : ` at ${distance(values.distance, 2)}`}`;
    case 'miss':
      return `${what} of ${name} misses${otherName === 'nobody' ? '' : ` ${otherName}`}: ${MISSES[cause] ?? cause}`;
    case 'crush':
      return CRUSHED({ name, otherName, what, values, clock });
    case 'blocked':
      return `${what} of ${name} does nothing: ${otherName} can’t be hurt just now`;
    case 'shot':
      return `${name} launches ${what} at ${otherName}`;
    case 'death':
      return `${name} dies${otherName === 'nobody' ? '' : ` by ${what || 'the hand'} of ${otherName}`}`;
    case 'down':
      return `${name} goes down by ${what} of ${otherName}`;
    case 'interrupted':
      return `${name} breaks off ${what}: ${BREAKS[cause] ?? cause}`;
    case 'doing':
      return `${name} ${doingWords(what as Doing)}`;
    case 'noPlace':
      return `no place for ${what}`;
    case 'capped':
      return `too many live: ${what} ${CAPS[cause] ?? cause}`;
    case 'end':
      return outcomeWords(what as Outcome).told;
    case 'wave':
      return `${what} starts${values.coming ? ` for the ${nth(values.coming + 1)} time` : ''}`;
    case 'gone':
      return `${name} ${GONES[what] ?? what}`;
    case 'gate':
      return `a health gate of ${name} ${cause === 'passed' ? 'passed without its state' : 'stopped damage'}`;
    case 'flag':
      return `the flag ${what} ${cause}`;
    case 'counter':
      return `${what} is ${n(values.value)}${name ? `, by ${name}` : ''}`;
    case 'score':
      return `${what} gives ${n(values.score)} points`;
    case 'stopped':
      return `${what} is stopped for good${values.dropped ? `: ${n(values.dropped, 0)} of it will not come` : ''}`;
    case 'dash':
      return clock === 'rounds'
        ? `${name} lunges ${distance(values.metres)} with ${what}`
        : `${name} sets out with ${what}: ${n(values.metres)} m at ${n(values.speed)} m/s`;
    case 'dashed':
      return `${name} has gone ${n(values.metres)} m with ${what}${DASH_ENDS[cause] ?? ''}`;
    case 'leash':
      return `${name} is ${distance(values.distance)} from home and turns back`;
    case 'home':
      return `${name} is home`;
    case 'answer':
      return `${what} of ${otherName} comes at ${name}: ${answered(answer, cause)}${margin(values.margin)}`;
    case 'exposed':
      return `${what} of ${name} reached ${otherName}: ${answered(answer, cause)}${margin(values.margin)}`;
    case 'happening':
      return what;
    case 'turn':
      return `${name} has had its turn: it ${turnUseWords(what as Doing)}${values.moved ? `, ${distance(values.moved)} gone` : ''}${values.reached === 0 ? ', nobody could be struck' : ''}`;
    case 'reaction':
      return `${name} ${REACTS[what as keyof typeof REACTS]} ${otherName}`;
  }
}

/** "2nd", "3rd", "11th", "22nd" */
function nth(count: number): string {
  const ending = ({ one: 'st', two: 'nd', few: 'rd' } as Record<string, string>)[ORDINALS.select(count)] ?? 'th';
  return `${n(count, 0)}${ending}`;
}

function answered(answer: string, verdict: string): string {
  return verdict === 'tried' ? ANSWER_WORDS[answer] : `${ANSWER_WORDS[answer] ?? answer}, ${VERDICTS[verdict] ?? verdict}`;
}

function margin(value: number | undefined): string {
  if (value === undefined) return '';
  return value < 0 ? ` (${n(0 - value, 2)} s too little time)` : ` (${n(value, 2)} s to spare)`;
}
