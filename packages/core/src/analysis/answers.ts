/** On paper: which of a player's answers fit in the time that an attack leaves. The engine's own figures, at one distance. */
import { CLEARANCE_SHARE, REACH_SLACK } from '../engine/tuning';
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
  /** s of these from when it has left its owner: a flight, a mark */
  underWay: number;
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
  const cue = attack.beat.cue ?? 0;
  const underWay = (attack.area?.delay ?? 0) + flightOf(attack, gap);
  const announced = (dashOnPaper(attack, gap)?.hit ?? attack.beat.windup) - cue + underWay;
  const left = announced - player.attention.mean;
  // Whoever goes before it is settled where it comes takes it along.
  const waits = Math.max(0, settledAfter(attack) - cue - player.attention.mean);
  const answers = player.answers.map((answer): PaperAnswer => {
    const { id, kind } = answer;
    if (!attack.answers.includes(kind)) return { id, kind, needs: Infinity, fits: false, why: 'does not work against it' };
    const { needs, why } = needed(answer, attack, attacker, victim, gap, waits);
    // What has left its owner can't be broken off any more.
    const time = kind === 'interrupt' ? left - underWay : left;
    return {
      id,
      kind,
      needs,
      fits: needs <= time,
      ...(needs > time && { why: why ?? (left < 0 ? 'the hit comes first' : time < 0 ? 'it has left its owner' : 'takes longer') }),
    };
  });
  return { announced, underWay, left, answers };
}

/** s that a shot is under way. */
const flightOf = ({ projectile }: Attack, gap: number): number =>
  projectile ? Math.max(0, gap - projectile.radius) / projectile.speed : 0;

/** s from its start at which it is settled where it comes. */
function settledAfter(attack: Attack): number {
  const { beat, dash, delivery, area } = attack;
  if (dash && dash.hurts !== 'no') return dashOnPaper(attack)!.from;
  const { escape } = traitsOf(delivery);
  if (escape === 'reach' || (escape === 'area' && (area?.about ?? 'self') === 'self')) return 0;
  return beat.tracking === 'turns' || area?.about === 'target' ? beat.windup : 0;
}

/** @param waits s before it can set out to be elsewhere */
function needed(answer: Answer, attack: Attack, attacker: Unit, victim: Unit, gap: number, waits: number): { needs: number; why?: string } {
  switch (answer.kind) {
    case 'dodge':
      if (answer.protects) return { needs: 0 };
      return isOutAt(attack, attacker, victim, gap, CARRIES[answer.way](answer.distance))
        ? { needs: waits + answer.window }
        : { needs: Infinity, why: 'does not carry it far enough' };
    case 'block':
      return { needs: 0 };
    case 'stepOut': {
      const way = wayOut(attack, attacker, victim, gap);
      if (way === Infinity) return { needs: Infinity, why: 'moving does not help' };
      return victim.movement.run > 0 ? { needs: waits + way / victim.movement.run } : { needs: Infinity, why: 'it does not run' };
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
        .reduce((least, own) => Math.min(least, own.beat.windup + flightOf(own, gap)), Infinity);
      return { needs: quickest, ...(quickest === Infinity && { why: 'nothing it has breaks it' }) };
    }
  }
}

/** Where a dodge carries whoever stands on the x axis before an attacker at 0, 0. m */
const CARRIES: Record<Answer['way'], (metres: number) => readonly [number, number]> = {
  sideways: (metres) => [0, metres],
  away: (metres) => [metres, 0],
  towards: (metres) => [0 - metres, 0],
};

/** Whether it is out of what is coming once it has gone so far. */
function isOutAt(attack: Attack, attacker: Unit, victim: Unit, gap: number, [dx, dy]: readonly [number, number]): boolean {
  const own = victim.body.radius;
  const apart = attacker.body.radius + gap + own;
  const { escape, alongLine } = traitsOf(attack.delivery);
  const charges = attack.dash?.hurts === 'way';
  if (alongLine || charges) return Math.abs(dy) > own + (attack.projectile?.radius ?? 0) + (charges ? attacker.body.radius : 0);
  if (escape === 'reach') return Math.hypot(apart + dx, dy) - own - attacker.body.radius > attack.range.max + REACH_SLACK;
  if (escape !== 'area') return false;
  const { about = 'self', radius = 0, delay = 0 } = attack.area ?? {};
  if (about === 'target' && delay === 0) return false;
  const centre = about === 'self' ? (attack.dash?.hurts === 'end' ? dashOnPaper(attack, gap)!.metres : 0) : apart;
  return Math.hypot(apart + dx - centre, dy) - own > radius + REACH_SLACK;
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
      // From its middle to the nearest of the body: a leap comes down nearer, and what lies about its target lies under it.
      const leapt = attack.dash?.hurts === 'end' ? dashOnPaper(attack, gap)!.metres : 0;
      const centre = about === 'self' ? Math.abs(attacker.body.radius + gap + own - leapt) - own : 0 - own;
      return Math.max(0, radius - centre) + spare;
    }
    case undefined:
      return Infinity;
  }
}
