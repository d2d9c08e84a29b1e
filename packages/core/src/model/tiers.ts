/** Tiers, skills and styles as a table: a row for each number that some of them change, a column for each of them. */
import type { Setting, Tweak } from './tweak';

export const SETTING_LISTS = ['tiers', 'skills', 'styles'] as const;
export type SettingList = (typeof SETTING_LISTS)[number];

/** Whose number, and which. */
export type TweakPlace = Pick<Tweak, 'scope' | 'of' | 'path'>;

export function samePlace(a: TweakPlace, b: TweakPlace): boolean {
  return a.scope === b.scope && a.of === b.of && a.path === b.path;
}

/** Every number that some of them change, once: what holds for all first, exceptions after it; else in the order in which they are met. */
export function placesOfTweaks(settings: readonly Setting[]): TweakPlace[] {
  const places: TweakPlace[] = [];
  for (const { tweaks } of settings)
    for (const { scope, of, path } of tweaks)
      if (!places.some((place) => samePlace(place, { scope, of, path }))) places.push({ scope, ...(of !== undefined && { of }), path });
  const rank = ({ scope }: TweakPlace) => ({ enemies: 0, party: 0, encounter: 1, role: 2, unit: 3 })[scope];
  return places
    .map((place, i) => ({ place, i }))
    .sort((a, b) => rank(a.place) - rank(b.place) || a.i - b.i)
    .map(({ place }) => place);
}

/**
 * A tier that lies between two: factors at the share of the way between them by ratio, sums and set values by difference. What one
 * of them leaves alone counts as × 1 or + 0; a value that only one sets is set as that one does. Limits are those of the nearer.
 *
 * @param share 0: as the first; 1: as the second
 * Worked: × 1.25 and × 1.8 at a half is × 1.5; + 2 and nothing is + 1; = 4 and = 6 is = 5.
 */
export function between(first: Setting, second: Setting, share: number): Tweak[] {
  return placesOfTweaks([first, second]).flatMap((place) => {
    const [from, to] = [first, second].map(({ tweaks }) => tweaks.filter((tweak) => samePlace(tweak, place)));
    const count = Math.max(from.length, to.length);
    return Array.from({ length: count }, (_, i): Tweak => {
      const [a, b] = [from[i], to[i]];
      const near = (share < 0.5 ? (a ?? b) : (b ?? a)) as Tweak;
      if (a && b && a.op !== b.op) return { ...near };
      const { op } = near;
      // Between two words there is none.
      if (typeof near.value !== 'number') return { ...near };
      const idle = op === '×' ? 1 : op === '+' ? 0 : near.value;
      const [low, high] = [a, b].map((one) => (typeof one?.value === 'number' ? one.value : idle));
      const value = op === '×' && low > 0 && high > 0 ? low ** (1 - share) * high ** share : low + (high - low) * share;
      return { ...near, value: Number(value.toPrecision(4)) };
    });
  });
}
