/** What rules out each entry of a choice while its unit stands idle: looked at now and then, changing nothing. */
import { entryTarget, hindrance, hurdleOf } from '../engine/mind/hurdles';
import { readyHurdle } from '../engine/mind/ready';
import { holds } from '../engine/mind/conditions';
import { type Fight } from '../engine/fight';
import { NOBODY, PHASE } from '../engine/numbers';
import { DOING, DOING_NAMES, type Doing } from '../record/doing';
import type { Compiled } from '../engine/tables';
import { SECOND } from '../record/time';

/** µs between looks */
const EVERY = 0.2 * SECOND;

/** Looks at one entry: how many there were, and by what was in its way. */
export interface EntryLooks {
  attack: string;
  looks: number;
  /** Counts in the order of DOING_NAMES; those missing from the sum found it usable. */
  hurdles: number[];
}

/** By type, priority and entry. */
export type ChoiceLooks = EntryLooks[][][];

/** One cause with its share of the looks, the largest first. */
export interface RuledOut {
  by: Doing;
  share: number;
}

export class ChoiceWatch {
  readonly looks: ChoiceLooks;

  constructor(compiled: Compiled) {
    this.looks = compiled.kindOfType.map((number) => {
      const kind = compiled.kinds[number];
      return kind.choice.map((priority) =>
        priority.attacks.map((attack) => ({ attack: kind.attacks[attack].id, looks: 0, hurdles: DOING_NAMES.map(() => 0) })),
      );
    });
  }

  see(fight: Fight, time: number): void {
    // In turns nobody stands idle between two of them.
    if (fight.inTurns || time % EVERY !== 0) return;
    for (const unit of fight.alive) {
      if (!fight.alerted[unit] || fight.phase[unit] !== PHASE.idle || fight.target[unit] === NOBODY) continue;
      this.look(fight, unit);
    }
  }

  private look(fight: Fight, unit: number): void {
    const kind = fight.kinds[unit];
    const own = this.looks[kind.type];
    if (!own) return;
    const held = hindrance(fight, unit) || (fight.now < fight.pauseUntil[unit] ? DOING.pause : fight.mayAttack[unit] ? 0 : DOING.noAttack);
    for (let p = 0; p < kind.choice.length && p < own.length; p++) {
      const priority = kind.choice[p];
      const barred = held || (priority.condition !== null && !holds(fight, unit, priority.condition) ? DOING.condition : 0);
      for (let e = 0; e < priority.attacks.length; e++) {
        const entry = own[p][e];
        entry.looks++;
        const hurdle = barred || this.hurdle(fight, unit, priority.attacks[e], p, e);
        if (hurdle !== 0) entry.hurdles[hurdle]++;
      }
    }
  }

  private hurdle(fight: Fight, unit: number, number: number, p: number, e: number): number {
    const priority = fight.kinds[unit].choice[p];
    const condition = priority.conditions[e];
    if (condition !== null && !holds(fight, unit, condition)) return DOING.condition;
    const target = entryTarget(fight, unit, number, priority, e);
    if (target === NOBODY) return readyHurdle(fight, unit, number, fight.attackOf(unit, number)) || DOING.noTarget;
    return hurdleOf(fight, unit, target, number, target === unit ? 0 : fight.gap(unit, target));
  }

  /** Takes in what another thread has seen of the same choice. */
  add(looks: ChoiceLooks): void {
    looks.forEach((kind, k) =>
      kind.forEach((priority, p) =>
        priority.forEach((entry, e) => {
          const own = this.looks[k][p][e];
          own.looks += entry.looks;
          entry.hurdles.forEach((count, i) => (own.hurdles[i] += count));
        }),
      ),
    );
  }
}

/** What ruled an entry out, by share of the looks; nothing where it was never looked at. */
export function ruledOut({ looks, hurdles }: EntryLooks): RuledOut[] {
  if (!looks) return [];
  return hurdles
    .map((count, i) => ({ by: DOING_NAMES[i], share: count / looks }))
    .filter(({ share }) => share > 0)
    .sort((a, b) => b.share - a.share);
}
