/**
 * Counter-based chance: draw = mix(seed, key, purpose, n). No state is shared between units, so changing one unit
 * leaves the luck of all others alone, and a run can be repeated from its seed anywhere.
 */

/** One for each kind of draw. */
export const PURPOSE = {
  aim: 0,
  damage: 1,
  crit: 2,
  choice: 3,
  pause: 4,
  delay: 5,
  reaction: 6,
  scatter: 7,
  count: 8,
  spread: 9,
  weakPoint: 10,
  mistake: 11,
  wander: 12,
  condition: 13,
  pool: 14,
  trait: 15,
  point: 16,
  target: 17,
  strafe: 18,
  answer: 19,
  way: 20,
  decision: 21,
  dash: 22,
  order: 23,
  skill: 24,
} as const;

export const PURPOSES = 25;

/** The finaliser of a 32-bit hash: every input bit reaches every output bit. */
function finish(h: number): number {
  h ^= h >>> 16;
  h = Math.imul(h, 0x7feb352d);
  h ^= h >>> 15;
  h = Math.imul(h, 0x846ca68b);
  return h ^ (h >>> 16);
}

/** A key from a parent's key and a number within it (an ordinal, a place in a list). */
export function childKey(key: number, ordinal: number): number {
  return finish(Math.imul(key ^ 0x51ed270b, 0x9e3779b1) ^ finish(ordinal + 0x2545f491)) | 0;
}

/** A key from text: ids of waves and groups, so that a new name changes no luck. */
export function textKey(key: number, text: string): number {
  let h = key ^ 0x1b873593;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return finish(h ^ text.length) | 0;
}

/**
 * A number in [0, 1) with 53 bits.
 * @param seed of the run, any 32-bit integer
 * @param key of the unit
 * @param purpose one of PURPOSE
 * @param n how many draws for this purpose the unit has made before
 */
export function draw(seed: number, key: number, purpose: number, n: number): number {
  const a = finish(Math.imul(seed ^ 0x9e3779b9, 0x85ebca6b) ^ finish(key ^ Math.imul(purpose + 1, 0xc2b2ae35)));
  const high = finish(a ^ Math.imul(n + 1, 0x27d4eb2f));
  const low = finish(high ^ Math.imul(n ^ 0x165667b1, 0x9e3779b1) ^ key);
  return ((high >>> 5) * 67108864 + (low >>> 6)) / 9007199254740992;
}
