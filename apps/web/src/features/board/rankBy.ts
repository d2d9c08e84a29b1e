/** What the tiers are ranked by, as it stands in the address: "dose", or "dose:1,won:0.5". Pure. */
import { type RankBy, RANKED_BY_DOSE, RANKING_MEASURES } from '@insidia/core';

export function rankFrom(text: string | null): readonly RankBy[] {
  const found = (text ?? '').split(',').flatMap((part): RankBy[] => {
    const [name, weight = '1'] = part.split(':');
    const measure = RANKING_MEASURES.find((one) => one === name);
    const value = Number(weight);
    return measure && value > 0 && Number.isFinite(value) ? [{ measure, weight: value }] : [];
  });
  const each = found.filter(({ measure }, i) => found.findIndex((one) => one.measure === measure) === i);
  return each.length ? each : RANKED_BY_DOSE;
}

/** Undefined for what is ranked by without a word. */
export function rankText(by: readonly RankBy[]): string | undefined {
  if (by.length === 1) return by[0].measure === RANKED_BY_DOSE[0].measure ? undefined : by[0].measure;
  return by.map(({ measure, weight }) => `${measure}:${weight}`).join(',');
}
