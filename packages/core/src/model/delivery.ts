/**
 * Deliveries: how an attack reaches whom it is meant for, each as a row of traits and words. What asks about a delivery asks
 * for a trait; only what its hits do is said elsewhere, in the engine.
 */
import { type Clock, countedTurns, withUnit } from '../record/clock';
import type { Attack } from './attack';
import { numberWords as n } from './number-words';

export interface DeliveryTraits {
  called: string;
  about: string;
  /** Does to foes whatever its effects are; else it helps, or calls others. */
  strikes: boolean;
  /** Does to its user or its friends whatever its effects are. */
  aids: boolean;
  /** Is meant for somebody: begun only when that one is in range, ahead and, if it asks for it, in a clear line. */
  needsTarget: boolean;
  /** Begun by being chosen; else it is always there. */
  chosen: boolean;
  /** Goes along a straight line to its target: walls and bodies stop it, an aim may stray, breaking the line escapes it. */
  alongLine: boolean;
  /** Strikes whoever is where it strikes, not only whom it is aimed at. */
  wide: boolean;
  /** One hit strikes as many as it meets unless it says how many; else one. */
  many: boolean;
  /** When it is for its target alone, and broken off when that dies. */
  forOne: 'always' | 'limitedToOne' | 'aboutTarget' | 'never';
  /** What one must get out of to escape it by moving; absent: moving does not help. */
  escape?: 'reach' | 'shot' | 'line' | 'area';
  /** The group of an attack that only this one has, and needs. */
  part?: 'projectile' | 'area' | 'summon';
  /** What it does, read aloud. */
  action: (attack: Attack, told: Told) => string;
  /** What one use consists of, in two or three words. @param instants hit instants */
  blows: (attack: Attack, instants: number) => string;
}

/** What an action is told with. */
export interface Told {
  /** Hit instants of one use. */
  instants: number;
  /** "three times over 0.4 s", with a space before it; empty for one */
  times: string;
  /** "over 0.4 s", with a space before it; empty for one */
  over: string;
  /** "within 2 m" */
  where: string;
  nameOf: (unit: string) => string;
  /** What the attack’s seconds and metres stand for. */
  clock: Clock;
}

const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve'];
const inWords = (value: number) => NUMBERS[value] ?? String(value);
/** "three shots" */
export const counted = (value: number, thing: string) => `${inWords(value)} ${thing}${value === 1 ? '' : 's'}`;
const oneOr = (count: number, one: string, many: string) => (count === 1 ? `one ${one}` : `${count} ${many}`);

const STRIKES = {
  strikes: true,
  aids: false,
  needsTarget: true,
  chosen: true,
  alongLine: false,
  wide: false,
  many: false,
  forOne: 'always',
} as const;
const HELPS = { ...STRIKES, strikes: false } as const;

const areaWords = ({ area }: Attack, clock: Clock) => {
  const wide = withUnit(clock, n(area?.radius ?? 0), 'm');
  return area && area.angle < 360 ? `a cone of ${wide} and ${n(area.angle)}°` : `a circle of ${wide}`;
};
const ABOUT = { self: 'about itself', target: 'about its target', mark: 'at a marked point' };

export const DELIVERIES = {
  melee: {
    ...STRIKES,
    called: 'melee',
    about: 'strikes within its arc and reach',
    wide: true,
    forOne: 'limitedToOne',
    escape: 'reach',
    action: ({ arc }, { times, where }) => `strikes${times} ${where} in an arc of ${n(arc)}°`,
    blows: ({ hits }, instants) =>
      instants === 1 || hits.perTarget === 'every' ? oneOr(instants, 'blow', 'blows') : `${instants} chances to land one blow`,
  },
  hitscan: {
    ...STRIKES,
    called: 'instant shot',
    about: 'strikes along a line at once',
    alongLine: true,
    escape: 'line',
    action: (_, { instants, over, where }) => `shoots${instants > 1 ? ` ${inWords(instants)} times${over}` : ''} ${where}`,
    blows: (_, instants) => oneOr(instants, 'instant shot', 'instant shots'),
  },
  projectile: {
    ...STRIKES,
    called: 'shot that flies',
    about: 'strikes what its shots meet on their way',
    alongLine: true,
    escape: 'shot',
    part: 'projectile',
    action: ({ projectile }, { instants, over, where }) => `looses ${counted((projectile?.count ?? 1) * instants, 'shot')}${over} ${where}`,
    blows: ({ projectile }, instants) => oneOr((projectile?.count ?? 1) * instants, 'shot', 'shots'),
  },
  area: {
    ...STRIKES,
    called: 'area',
    about: 'strikes a circle or a cone',
    wide: true,
    many: true,
    forOne: 'aboutTarget',
    escape: 'area',
    part: 'area',
    action: (attack, { times, where, clock }) => {
      const { about = 'self', delay = 0 } = attack.area ?? {};
      const later = clock === 'rounds' ? countedTurns(delay) : `${n(delay)} s`;
      return `bursts${times} in ${areaWords(attack, clock)} ${ABOUT[about]}${delay ? `, ${later} after the mark` : ''}, begun ${where}`;
    },
    blows: (_, instants) => oneOr(instants, 'burst', 'bursts'),
  },
  contact: {
    ...STRIKES,
    called: 'contact',
    about: 'strikes whoever touches, without being chosen',
    chosen: false,
    wide: true,
    many: true,
    forOne: 'never',
    action: (_, { times }) => `hurts whoever touches it${times}`,
    blows: () => 'hurts whoever touches',
  },
  self: {
    ...HELPS,
    called: 'itself',
    about: 'does to its user what its effects say',
    aids: true,
    needsTarget: false,
    forOne: 'never',
    action: () => 'works on itself',
    blows: () => 'on itself',
  },
  support: {
    ...HELPS,
    called: 'support',
    about: 'helps a friend that is hurt or fallen',
    aids: true,
    action: ({ targets }, { times, where }) => `helps ${targets === 'fallen' ? 'a fallen friend' : 'a hurt friend'}${times} ${where}`,
    blows: () => 'for a friend',
  },
  summon: {
    ...HELPS,
    called: 'summon',
    about: 'calls other units',
    needsTarget: false,
    forOne: 'never',
    part: 'summon',
    action: ({ summon }, { times, nameOf }) =>
      `calls ${inWords(summon?.count ?? 1)} ${nameOf(summon?.unit ?? '')}${times}, at most ${n(summon?.cap ?? 1)} at one time`,
    blows: () => 'calls others',
  },
} as const satisfies Record<string, DeliveryTraits>;

export type Delivery = keyof typeof DELIVERIES;
export const DELIVERY_NAMES = Object.keys(DELIVERIES) as Delivery[];

/** What a delivery is like. */
export const traitsOf = (delivery: Delivery): DeliveryTraits => DELIVERIES[delivery];

/** Deliveries with a trait: where fields say when they apply. */
export const deliveriesWith = (has: (traits: DeliveryTraits) => boolean | undefined): Delivery[] =>
  DELIVERY_NAMES.filter((name) => has(DELIVERIES[name]));

/** What each is called. */
export const DELIVERY_WORDS = Object.fromEntries(DELIVERY_NAMES.map((name) => [name, DELIVERIES[name].called])) as Record<Delivery, string>;
