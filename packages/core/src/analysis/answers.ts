/** On paper: which of a player's answers fit in the time that an attack leaves. The engine's own figures, at one distance. */
import { CLEARANCE_SHARE } from '../engine/tuning';
import type { AnswerKind } from '../model/answer-kind';
import type { Attack } from '../model/attack';
import type { Answer } from '../model/player';
import { traitsOf } from '../model/delivery';
import { dashOnPaper } from './dash-on-paper';
import type { Unit } from '../model/unit';

export interface PaperAnswer {
  id: string;
  kind: AnswerKind;
  /** s that it needs after the reaction; Infinity: it can't help. */
  needs: number;
  fits: boolean;
  /** Why it does not fit. */
  why?: string;
}

export interface PaperAnswers {
  /** s from cue to hit */
  announced: number;
  /** s that are left after the mean reaction; below 0: the hit comes first */
  left: number;
  answers: PaperAnswer[];
}

/**
 * In the order in which the player tries them. A dodge or block takes no time; stepping out takes the way at a run;
 * interrupting, the wind-up of the quickest attack that breaks it.
 * @param gap m between edges; absent: the middle of the attack's range
 */
export function answersOnPaper(
  attack: Attack,
  attacker: Unit,
  victim: Unit,
  gap = (attack.range.min + attack.range.max) / 2,
): PaperAnswers | undefined {
  const { player } = victim;
  if (!player) return undefined;
  const flight = attack.projectile ? gap / attack.projectile.speed : 0;
  const announced = (dashOnPaper(attack, gap)?.hit ?? attack.beat.windup) - (attack.beat.cue ?? 0) + (attack.area?.delay ?? 0) + flight;
  const left = announced - player.attention.mean;
  const answers = player.answers.map((answer): PaperAnswer => {
    const { id, kind } = answer;
    if (!attack.answers.includes(kind)) return { id, kind, needs: Infinity, fits: false, why: 'does not work against it' };
    const { needs, why } = needed(answer, attack, attacker, victim, gap);
    return {
      id,
      kind,
      needs,
      fits: needs <= left,
      ...(needs > left && { why: why ?? (left < 0 ? 'the hit comes first' : 'takes longer') }),
    };
  });
  return { announced, left, answers };
}

function needed(answer: Answer, attack: Attack, attacker: Unit, victim: Unit, gap: number): { needs: number; why?: string } {
  switch (answer.kind) {
    case 'dodge':
      if (answer.protects) return { needs: 0 };
      return answer.distance >= wayOut(attack, attacker, victim, gap)
        ? { needs: answer.window }
        : { needs: Infinity, why: 'does not carry it far enough' };
    case 'block':
      return { needs: 0 };
    case 'stepOut': {
      const way = wayOut(attack, attacker, victim, gap);
      if (way === Infinity) return { needs: Infinity, why: 'moving does not help' };
      return victim.movement.run > 0 ? { needs: way / victim.movement.run } : { needs: Infinity, why: 'it does not run' };
    }
    case 'breakLine':
      return traitsOf(attack.delivery).alongLine
        ? { needs: victim.movement.run > 0 ? victim.body.radius / victim.movement.run : Infinity }
        : { needs: Infinity, why: 'needs no line' };
    case 'interrupt': {
      const { stagger, hit } = attack.interruptible;
      const quickest = victim.attacks
        .filter(({ effects }) => {
          const least = (effects.damage?.amount ?? 0) - (effects.damage?.spread ?? 0);
          return (stagger && (effects.stagger?.for ?? 0) > 0) || (hit !== undefined && least >= hit);
        })
        .reduce((least, { beat }) => Math.min(least, beat.windup), Infinity);
      return { needs: quickest, ...(quickest === Infinity && { why: 'nothing it has breaks it' }) };
    }
  }
}

/** m to be out of what is coming, from the middle of the range. */
function wayOut(attack: Attack, attacker: Unit, victim: Unit, gap: number): number {
  const own = victim.body.radius;
  const spare = own * CLEARANCE_SHARE;
  if (attack.dash?.hurts === 'way') return own + attacker.body.radius + spare;
  const { escape } = traitsOf(attack.delivery);
  switch (escape) {
    case 'reach':
      return Math.max(0, attack.range.max - gap) + spare;
    case 'shot':
      return own + (attack.projectile?.radius ?? 0) + spare;
    case 'line':
      return attack.beat.tracking === 'turns' ? Infinity : own + spare;
    case 'area': {
      const { about = 'self', radius = 0, delay = 0 } = attack.area ?? {};
      if (about === 'target' && delay === 0) return Infinity;
      const centre = about === 'self' ? attacker.body.radius + gap : 0;
      return Math.max(0, radius - centre) + spare;
    }
    case undefined:
      return Infinity;
  }
}
