/** Deliveries: how an attack reaches whom it is meant for, each as a row of traits; what asks about one asks for a trait. */

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
  /** The group of an attack that only this one has, and needs. */
  part?: 'projectile' | 'area' | 'summon';
}

const AIMED = { strikes: true, aids: false, needsTarget: true, chosen: true, alongLine: false, wide: false, many: false };

export const DELIVERIES = {
  melee: { ...AIMED, called: 'melee', about: 'strikes within its arc and reach', wide: true },
  hitscan: { ...AIMED, called: 'instant shot', about: 'strikes along a line at once', alongLine: true },
  projectile: {
    ...AIMED,
    called: 'shot that flies',
    about: 'strikes what its shots meet on their way',
    alongLine: true,
    part: 'projectile',
  },
  area: { ...AIMED, called: 'area', about: 'strikes a circle or a cone', wide: true, many: true, part: 'area' },
  contact: {
    ...AIMED,
    called: 'contact',
    about: 'strikes whoever touches, without being chosen',
    needsTarget: true,
    chosen: false,
    many: true,
  },
  self: { ...AIMED, called: 'itself', about: 'does to its user what its effects say', strikes: false, aids: true, needsTarget: false },
  support: { ...AIMED, called: 'support', about: 'helps a friend that is hurt or fallen', strikes: false, aids: true },
  summon: { ...AIMED, called: 'summon', about: 'calls other units', strikes: false, needsTarget: false, part: 'summon' },
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
