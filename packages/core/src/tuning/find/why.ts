/** Why a search found nothing: which goals pull against each other, and which range is at its end. Promises of its models, no facts. */
import type { Objective } from '../goal';
import { type Knob, endsOf } from './problem';
import { propose } from './propose';
import type { FindSearch } from './search';

/** Outside of what is wanted by this, in halves of it, counts as outside. */
const OUT = 0.05;
/** As far as any dial may go. */
const ANYWHERE = 10;

export interface AtEnd {
  knob: Knob;
  end: 'low' | 'high';
}

export interface Why {
  /** Goals that no point of the ranges is promised to have, with dials that are at an end of their range there. */
  alone: { goal: Objective; ends: AtEnd[] }[];
  /** Two that can each be had, and not both. */
  pulling: [Objective, Objective][];
}

export function whyNot(search: FindSearch): Why {
  const { goals, dials } = search.problem;
  const middle = search.progress.best?.at ?? dials.map(() => 0);
  const wanted = goals.map((_, g) => search.wantedOf(g, middle, false));
  const promise = (which: readonly number[]) => {
    const asked = which.flatMap((g) => wanted[g] ?? []);
    return propose(asked, { knobs: dials, middle, radius: ANYWHERE, caution: 0, prefer: 'change', kept: search.unmoving });
  };
  const single = goals.map((_, g) => promise([g]));
  // What was there is there, whatever a model makes of it from afar.
  const canBeHad = (g: number) => single[g].outside <= OUT || search.had(g);
  const alone = goals.flatMap((goal, g) => {
    if (canBeHad(g)) return [];
    const ends = dials.flatMap((knob, i): AtEnd[] => {
      const [low, high] = endsOf(knob);
      const at = single[g].at[i];
      if (at === 0) return [];
      return at <= low + 1e-6 ? [{ knob, end: 'low' }] : at >= high - 1e-6 ? [{ knob, end: 'high' }] : [];
    });
    return [{ goal, ends }];
  });
  const pulling = goals.flatMap((goal, g) =>
    goals.slice(g + 1).flatMap((other, k): [Objective, Objective][] => {
      const h = g + 1 + k;
      if (!canBeHad(g) || !canBeHad(h)) return [];
      return promise([g, h]).outside > OUT ? [[goal, other]] : [];
    }),
  );
  return { alone, pulling };
}
