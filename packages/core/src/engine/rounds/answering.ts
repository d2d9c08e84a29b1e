/** What units do about hits in nobody's turn: dodge and guard before a hit is drawn, strike back after it, so often a round. */
import { EVENT } from '../../record/log';
import type { Fight } from '../fight';
import { ANSWER } from '../numbers';
import type { Landing } from '../records';
import type { CompiledAttack } from '../unit-tables';
import type { CompiledReaction } from './tables';
import { DUE } from '../time/queue';

/** How a hit was answered: it was dodged, or so large a share of it is taken off. */
export interface Answered {
  dodged: boolean;
  guarded: number;
}

export const UNANSWERED: Answered = { dodged: false, guarded: 0 };

/** A round begins: every reaction may be used again. */
export function restReactions(fight: Fight): void {
  for (const unit of fight.alive) if (fight.reacted[unit].length > 0) fight.reacted[unit].length = 0;
}

/** The first of its reactions of a kind that it can still use, used; −1: none. */
function use(fight: Fight, unit: number, may: (reaction: CompiledReaction) => boolean): number {
  const { reactions } = fight.kinds[unit].turns!;
  if (fight.now < fight.staggeredUntil[unit]) return -1;
  const which = reactions.findIndex((reaction, i) => may(reaction) && (fight.reacted[unit][i] ?? 0) < reaction.uses);
  if (which >= 0) fight.reacted[unit][which] = (fight.reacted[unit][which] ?? 0) + 1;
  return which;
}

/** What a unit does about a hit that is coming; who reels does nothing. */
export function react(fight: Fight, unit: number, attacker: number, attack: CompiledAttack): Answered {
  const turns = fight.kinds[unit].turns;
  if (!turns || turns.reactions.length === 0) return UNANSWERED;
  const works = {
    dodge: (attack.answers & (1 << ANSWER.dodge)) !== 0,
    guard: (attack.answers & (1 << ANSWER.block)) !== 0,
    counter: false,
  };
  const which = use(fight, unit, ({ does }) => works[does]);
  if (which < 0) return UNANSWERED;
  const { does, reduces } = turns.reactions[which];
  fight.log.add(fight.now, EVENT.reaction, unit, attacker, which, does === 'dodge' ? 0 : 1);
  return does === 'dodge' ? { dodged: true, guarded: 0 } : { dodged: false, guarded: reduces };
}

/** A hit has landed: whoever lives and can strike back does so before anything else happens. */
export function provoke(fight: Fight, { attacker, victim }: Landing): void {
  const turns = fight.kinds[victim].turns;
  if (!turns || turns.reactions.length === 0 || fight.health[victim] <= 0 || fight.side[attacker] === fight.side[victim]) return;
  const which = use(fight, victim, ({ does, attack }) => does === 'counter' && attack >= 0);
  if (which < 0) return;
  fight.log.add(fight.now, EVENT.reaction, victim, attacker, which, 2);
  fight.queue.push(fight.now, DUE.counter, victim, attacker, turns.reactions[which].attack);
}
