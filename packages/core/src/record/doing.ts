/** What a unit is about: attacking, or why not. The order is the order of the hurdles to an attack. */

export interface DoingWords {
  /** "Mulcher 1 waits for a cooldown" */
  does: string;
  /** Where its time went, in two words; absent where no time is counted to it. */
  time?: string;
}

const DOINGS = {
  unaware: { does: 'knows of no foe' },
  noTarget: { does: 'has no target', time: 'no target' },
  noAttack: { does: 'may not attack', time: 'no attack in state' },
  staggered: { does: 'reels', time: 'staggered' },
  evading: { does: 'gets out of the way', time: 'evading' },
  reloading: { does: 'reloads', time: 'reloading' },
  mending: { does: 'mends', time: 'mending' },
  goingHome: { does: 'goes home', time: 'going home' },
  pause: { does: 'pauses', time: 'pause' },
  cooldown: { does: 'waits for a cooldown', time: 'cooldown' },
  charges: { does: 'waits for a charge', time: 'no charge' },
  energy: { does: 'lacks energy', time: 'energy' },
  condition: { does: 'waits for a condition', time: 'condition' },
  slot: { does: 'waits for a slot', time: 'no slot' },
  range: { does: 'is out of range', time: 'out of range' },
  toBand: { does: 'moves to the distance it keeps', time: 'moving to band' },
  line: { does: 'has no clear line', time: 'no line' },
  facing: { does: 'turns', time: 'facing' },
  attacking: { does: 'attacks' },
} as const satisfies Record<string, DoingWords>;

export type Doing = keyof typeof DOINGS;
export const DOING_NAMES = Object.keys(DOINGS) as Doing[];
/** The number of each in the record: its place. */
export const DOING = Object.fromEntries(DOING_NAMES.map((name, i) => [name, i])) as Readonly<Record<Doing, number>>;

/** "waits for a cooldown" */
export const doingWords = (doing: Doing): string => DOINGS[doing].does;

type Timed<D> = { [K in Doing]: (typeof DOINGS)[K] extends { time: string } ? K : never }[D & Doing];
/** Why a unit that is alerted does not attack. */
export type IdleReason = Timed<Doing>;
export const IDLE_REASONS = DOING_NAMES.filter((name): name is IdleReason => 'time' in DOINGS[name]);

/** What alerted time goes into: the phases of an attack, or the reason for none. */
const PHASES = { windup: 'wind-up', active: 'active', recovery: 'recovery' } as const;
export type TimeUse = keyof typeof PHASES | IdleReason;
export const TIME_USES: readonly TimeUse[] = [...(Object.keys(PHASES) as (keyof typeof PHASES)[]), ...IDLE_REASONS];

/** "strikes": what a turn went into. */
export function turnUseWords(use: TimeUse | Doing): string {
  if (use === 'windup') return 'prepares to strike';
  if (use === 'active') return 'strikes';
  return use === 'recovery' ? 'recovers' : doingWords(use);
}

/** The number of the use that a doing is counted to; −1: none. */
export const useOfDoing = (doing: number): number => TIME_USES.indexOf(DOING_NAMES[doing] as TimeUse);

/** "no line"; of a doing that no time is counted to, what it does. */
export function timeUseWords(use: TimeUse | Doing): string {
  if (use in PHASES) return PHASES[use as keyof typeof PHASES];
  const { does, time }: DoingWords = DOINGS[use as Doing];
  return time ?? does;
}
