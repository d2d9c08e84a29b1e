/** When units of waves would come if each wave lasted a while: for small pictures, before any run. Pure; seconds. */
import type { Wave } from '@insidia/core';

/** How long a wave is taken to stand before one that waits for it comes. */
const STANDS = 5;

export interface Coming {
  at: number;
  /** Of the spawn points. */
  row: number;
  /** Of those that come at that instant and place: its place among them. */
  beside: number;
}

/** @param points spawn points in their order */
export function comings(waves: readonly Wave[], points: readonly string[]): { dots: Coming[]; starts: number[]; until: number } {
  const dots: Coming[] = [];
  const starts: number[] = [];
  let clock = 0;
  for (const wave of waves) {
    if (wave.start === 'clock') clock = wave.at;
    for (let time = 0; time < (wave.repeat?.times ?? 1); time++) {
      const start = clock + (time === 0 ? wave.delay : 0);
      starts.push(start);
      let last = start;
      for (const { count, rule, at, spacing } of wave.groups) {
        const most = Math.round((count.min + count.max) / 2);
        const each = rule === 'each' ? at : [undefined];
        for (const place of each)
          for (let i = 0; i < most; i++) {
            const point = place ?? at[i % at.length];
            const when = start + i * spacing;
            const row = Math.max(0, points.indexOf(point));
            dots.push({ at: when, row, beside: dots.filter((dot) => dot.at === when && dot.row === row).length });
            last = Math.max(last, when);
          }
      }
      clock = wave.repeat?.when === 'every' ? start + wave.repeat.every : last + STANDS + (wave.repeat?.pause ?? 0);
    }
  }
  return { dots, starts, until: Math.max(clock, ...dots.map(({ at }) => at)) };
}
