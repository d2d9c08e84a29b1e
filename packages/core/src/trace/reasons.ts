/** Why a unit does, or does not do, something at an instant: looked up in the fight as it stands, changing nothing. */
import { entryTarget, hindrance, hurdleOf } from '../engine/mind/hurdles';
import { readyHurdle } from '../engine/mind/ready';
import { holds, quantity } from '../engine/mind/conditions';
import { canStrike, readyStrikes } from '../engine/rounds/reach';
import type { Fight } from '../engine/fight';
import { NOBODY, PHASE } from '../engine/numbers';
import { CROSSING } from '../engine/body/lines';
import { DOING, DOING_NAMES, type Doing } from '../record/doing';
import type { CompiledCondition } from '../engine/unit-tables';
import { type Clock, clockOf, countedTurns, withUnit } from '../record/clock';
import { ROUND, SECOND, roundOf } from '../record/time';
import { SUBJECT_NAMES, type SubjectInfo, TARGET_DOES, subjectOf } from '../model/condition';

/** One entry of a choice: usable, or what ruled it out with the numbers that say by how much. */
export interface EntryReason {
  attack: string;
  usable: boolean;
  /** What ruled it out; absent where usable. */
  hurdle?: Doing;
  /** "2.3 m too far", "0.4 s of cooldown left" */
  detail: string;
}

export interface PriorityReason {
  /** Absent where it has no condition. */
  condition?: { holds: boolean; detail: string };
  entries: EntryReason[];
}

/** Why each foe is, or is not, the target. */
export interface CandidateReason {
  unit: number;
  name: string;
  detail: string;
}

export interface Reasons {
  /** s; in rounds the instant of the turn, a round a second */
  time: number;
  /** In a fight that takes turns: the round, from 1. */
  round?: number;
  unit: number;
  name: string;
  state: string;
  /** s, or rounds, in the state */
  stateFor: number;
  doing: Doing;
  /** What keeps it from choosing at all; absent: nothing. */
  hindrance?: string;
  target?: { unit: number; name: string; /** m between edges, or cells; absent: a fight without ground */ gap?: number };
  /** Why it could strike nobody in this turn; absent: it could, or was not free to. */
  outOfReach?: string;
  /** Where it has no target: why not each of its foes. */
  candidates?: CandidateReason[];
  priorities: PriorityReason[];
}

/** Everything that bears on a unit's choice at the instant the fight is at. */
export function reasonsOf(fight: Fight, unit: number): Reasons {
  const kind = fight.kinds[unit];
  const target = fight.target[unit];
  const busy = fight.phase[unit] !== PHASE.idle;
  return {
    time: fight.now / SECOND,
    ...(fight.inTurns && { round: roundOf(fight.now) + 1 }),
    unit,
    name: nameOf(fight, unit),
    state: kind.states[fight.state[unit]].name,
    stateFor: (fight.now - fight.stateSince[unit]) / SECOND,
    doing: DOING_NAMES[fight.doing[unit]],
    ...hindranceOf(fight, unit, busy),
    ...outOfReach(fight, unit, busy),
    ...(target === NOBODY
      ? { candidates: candidatesOf(fight, unit) }
      : { target: { unit: target, name: nameOf(fight, target), ...(!withoutGround(fight) && { gap: fight.gap(unit, target) }) } }),
    priorities: kind.choice.map((priority) => ({
      ...(priority.condition && {
        condition: { holds: holds(fight, unit, priority.condition), detail: conditionDetail(fight, unit, priority.condition) },
      }),
      entries: priority.attacks.map((number, e) =>
        entryReason(fight, unit, number, priority.conditions[e], () => entryTarget(fight, unit, number, priority, e)),
      ),
    })),
  };
}

/** Whom of its foes it would reach first, and how far that is beyond its longest attack that is ready. */
function outOfReach(fight: Fight, unit: number, busy: boolean): { outOfReach?: string } {
  if (!fight.inTurns || busy || !fight.alerted[unit] || hindrance(fight, unit) !== 0 || fight.doing[unit] < DOING.range) return {};
  const foes = fight.living[1 - fight.side[unit]];
  const ready = readyStrikes(fight, unit, holds);
  if (foes.length === 0 || ready.length === 0 || canStrike(fight, unit, holds)) return {};
  const reach = ready.reduce((most, { rangeMax }) => Math.max(most, rangeMax), 0);
  const nearest = foes.reduce((best, foe) => (fight.gap(unit, foe) < fight.gap(unit, best) ? foe : best));
  const missing = fight.gap(unit, nearest) - reach;
  const why = missing > 0 ? `is ${lengthWords(fight, missing)} too far` : 'can’t be struck from where it can go';
  return { outOfReach: `could not reach anybody this turn: ${nameOf(fight, nearest)} ${why}` };
}

/** "Mulcher 2": the kind, and which of it when there is more than one. */
export function nameOf(fight: Fight, unit: number): string {
  const { type, name } = fight.kinds[unit];
  let ordinal = 0;
  let more = false;
  for (let other = 0; other < fight.count; other++) {
    if (fight.kinds[other].type !== type) continue;
    if (other < unit) ordinal++;
    if (other !== unit) more = true;
  }
  return more ? `${name} ${ordinal + 1}` : name;
}

function hindranceOf(fight: Fight, unit: number, busy: boolean): { hindrance?: string } {
  const { now } = fight;
  const attack = busy ? fight.attackOf(unit, fight.attack[unit]) : undefined;
  if (attack) {
    const end = fight.attackStart[unit] + attack.windup + attack.active + attack.recovery;
    return { hindrance: `in the middle of ${attack.name}, ${left(fight, end - now)} left` };
  }
  if (!fight.alerted[unit]) return { hindrance: fight.noticing[unit] ? 'has seen somebody and not reacted yet' : 'knows of no foe' };
  const hindered = hindrance(fight, unit);
  if (hindered === DOING.staggered) return { hindrance: `reels for another ${left(fight, fight.staggeredUntil[unit] - now)}` };
  if (hindered === DOING.evading) return { hindrance: 'is getting out of the way' };
  if (hindered === DOING.goingHome) return { hindrance: 'has reached the end of its leash and goes home' };
  if (hindered !== 0) return { hindrance: hindered === DOING.reloading ? 'is reloading' : 'is busy mending' };
  if (!fight.mayAttack[unit]) return { hindrance: 'may not attack in this state' };
  if (now < fight.pauseUntil[unit]) return { hindrance: `pauses for another ${left(fight, fight.pauseUntil[unit] - now)}` };
  return {};
}

function candidatesOf(fight: Fight, unit: number): CandidateReason[] {
  const { lose, targeting } = fight.kinds[unit];
  return fight.living[1 - fight.side[unit]].map((foe) => {
    const distance = fight.apart(unit, foe);
    const barred = targeting.allowed !== null && !targeting.allowed[fight.kinds[foe].type];
    const detail = barred
      ? 'its targeting never takes it'
      : distance > lose
        ? `${lengthWords(fight, distance)} away: beyond the ${lengthWords(fight, lose)} at which it loses a foe`
        : fight.alerted[unit]
          ? 'could be its target at the next look'
          : 'not noticed';
    return { unit: foe, name: nameOf(fight, foe), detail };
  });
}

function entryReason(
  fight: Fight,
  unit: number,
  number: number,
  condition: CompiledCondition | null,
  findTarget: () => number,
): EntryReason {
  const attack = fight.attackOf(unit, number);
  const ruledOut = (hurdle: number, detail: string): EntryReason => ({
    attack: attack.name,
    usable: false,
    hurdle: DOING_NAMES[hurdle],
    detail,
  });
  if (condition !== null && !holds(fight, unit, condition)) return ruledOut(DOING.condition, conditionDetail(fight, unit, condition));
  // Random targeting would draw; a target is looked up only where that draws nothing.
  const target = attack.targets === 'foes' && attack.traits.strikes ? fight.target[unit] : findTarget();
  if (target === NOBODY) {
    const waits = readyHurdle(fight, unit, number, attack);
    if (waits !== 0) return ruledOut(waits, waitDetail(fight, unit, number, waits));
    return ruledOut(DOING.noTarget, attack.targets === 'foes' ? 'no target' : 'nobody in reach to help');
  }
  const gap = fight.gap(unit, target);
  const hurdle = hurdleOf(fight, unit, target, number, gap);
  if (hurdle === 0)
    return {
      attack: attack.name,
      usable: true,
      // Without ground there is no distance to tell.
      detail: attack.traits.needsTarget && !withoutGround(fight) ? `usable at ${lengthWords(fight, gap)}` : 'usable',
    };
  return ruledOut(hurdle, hurdleDetail(fight, unit, target, number, gap, hurdle));
}

function waitDetail(fight: Fight, unit: number, number: number, hurdle: number): string {
  const attack = fight.attackOf(unit, number);
  const at = unit * fight.compiled.attackRoom + number;
  if (hurdle === DOING.cooldown) return `${left(fight, fight.readyAt[at] - fight.now)} of cooldown left`;
  if (hurdle === DOING.energy) return `costs ${attack.energy}, has ${fight.energyNow(unit).toFixed(1)}`;
  if (hurdle === DOING.reloading) return 'the magazine is empty';
  const next = attack.recharge - ((fight.now - fight.chargedAt[at]) % attack.recharge);
  return `no charge left; the next in ${left(fight, next)}`;
}

function hurdleDetail(fight: Fight, unit: number, target: number, number: number, gap: number, hurdle: number): string {
  const attack = fight.attackOf(unit, number);
  switch (hurdle) {
    case DOING.noAttack:
      return 'not allowed in this state';
    case DOING.condition:
      return attack.condition ? conditionDetail(fight, unit, attack.condition) : '';
    case DOING.slot: {
      const pool = fight.compiled.pools[attack.pool];
      return `no free slot in ${pool.id} (${pool.size}${pool.perTarget ? ' for each target' : ''})`;
    }
    case DOING.range:
      return gap > attack.rangeMax
        ? `${lengthWords(fight, gap - attack.rangeMax)} too far (reaches ${lengthWords(fight, attack.rangeMax)}, is at ${lengthWords(fight, gap)})`
        : `${lengthWords(fight, attack.rangeMin - gap)} too near (from ${lengthWords(fight, attack.rangeMin)}, is at ${lengthWords(fight, gap)})`;
    case DOING.line:
      return lineDetail(fight, unit, target);
    case DOING.facing:
      return `faces away by more than it may (${metresOff(fight, unit, target)})`;
    default:
      return waitDetail(fight, unit, number, hurdle);
  }
}

/** Which wall is in the way, and by how much it is too high. */
function lineDetail(fight: Fight, unit: number, target: number): string {
  const { now, ground } = fight;
  const half = fight.kinds[target].height / 2;
  const from = fight.kinds[unit].muzzle;
  if (!ground.blocked(fight.xAt(unit, now), fight.yAt(unit, now), from, fight.xAt(target, now), fight.yAt(target, now), half))
    return 'no clear line';
  const wall = ground.walls[CROSSING.wall];
  return `${wall.name} is in the way: ${lengthWords(fight, CROSSING.excess)} too high (the line goes from ${lengthWords(fight, from)} to ${lengthWords(fight, half)})`;
}

function metresOff(fight: Fight, unit: number, target: number): string {
  const dx = fight.xAt(target, fight.now) - fight.xAt(unit, fight.now);
  const dy = fight.yAt(target, fight.now) - fight.yAt(unit, fight.now);
  const length = Math.sqrt(dx * dx + dy * dy);
  const cosine = length > 0 ? (fight.fx[unit] * dx + fight.fy[unit] * dy) / length : 1;
  return `${Math.round((Math.acos(Math.max(-1, Math.min(1, cosine))) * 180) / Math.PI)}° off`;
}

/** A condition with the value it was compared to: "its share of health is 0.62, not below 0.5". */
export function conditionDetail(fight: Fight, unit: number, condition: CompiledCondition): string {
  const subject = SUBJECT_NAMES[condition.subject];
  const info = subjectOf(subject);
  if (info.asked === 'group') {
    const parts = condition.parts.map((part) => conditionDetail(fight, unit, part));
    return subject === 'not' ? `not (${parts.join()})` : parts.join(subject === 'all' ? ' and ' : ' or ');
  }
  const is = holds(fight, unit, condition);
  if (info.asked === 'chance') return `a chance of ${condition.value} ${is ? 'came true' : 'did not come true'}`;
  const of = nameIn(fight, unit, info.of, condition.of);
  if (info.asked === 'yesNo')
    return `${info.label}${of}: ${is === condition.yes ? 'yes' : 'no'}, ${condition.yes ? 'yes' : 'no'} was asked for`;
  const scale = info.unit === 's' ? SECOND : 1;
  const actual = quantity(fight, unit, condition) / scale;
  const side = condition.above ? 'above' : 'below';
  const shown = Number.isNaN(actual) ? 'not to be told' : withUnit(clockIn(fight), String(Number(actual.toFixed(2))), info.unit).trim();
  return `${info.label}${of} is ${shown}, ${is ? '' : 'not '}${side} ${condition.value / scale}`;
}

function nameIn(fight: Fight, unit: number, what: SubjectInfo['of'], of: number): string {
  const { names } = fight.compiled;
  const list = {
    attack: fight.kinds[unit]?.attacks.map(({ name }) => name),
    role: names.roles,
    wave: names.waves,
    flag: names.flags,
    counter: names.counters,
    point: names.types.map((type) => type.replace(/^point:/, '')),
    unit: names.types,
    doing: [...TARGET_DOES],
  };
  const found = what && list[what]?.[of];
  return found ? ` ${found}` : '';
}

/** "0.4 s"; in rounds whole turns of its own until then. */
function left(fight: Fight, microseconds: number): string {
  if (!fight.inTurns) return `${Number(Math.max(0, microseconds / SECOND).toFixed(2))} s`;
  return countedTurns(Math.max(0, Math.ceil(microseconds / ROUND - 1e-6)));
}

/** Everybody is in reach of everybody, but for rows. */
export const withoutGround = (fight: Fight): boolean => fight.inTurns && fight.board === null;

const clockIn = (fight: Fight): Clock => (fight.inTurns ? 'rounds' : 'continuous');
const lengthWords = (fight: Fight, value: number) => withUnit(clockIn(fight), String(Number(value.toFixed(2))), 'm');

/** A unit's reasons as sentences. */
export function reasonSentences(reasons: Reasons): string[] {
  const { name, state, stateFor, target, priorities, candidates } = reasons;
  const clock = clockOf({ rounds: reasons.round });
  const told = (value: number, unit: string) => withUnit(clock, String(Number(value.toFixed(clock === 'rounds' ? 0 : 2))), unit);
  const lines = [`${name} has been in ${state} for ${told(stateFor, 's')}.`];
  if (target) lines.push(`Its target is ${target.name}${target.gap === undefined ? '' : `, ${told(target.gap, 'm')} away`}.`);
  else for (const { name: foe, detail } of candidates ?? []) lines.push(`${foe} is not its target: ${detail}.`);
  if (reasons.hindrance) lines.push(`It ${/^(has|knows|is|may|reels|pauses)/.test(reasons.hindrance) ? '' : 'is '}${reasons.hindrance}.`);
  if (reasons.outOfReach) lines.push(`It ${reasons.outOfReach}.`);
  priorities.forEach(({ condition, entries }, p) => {
    if (condition && !condition.holds) {
      lines.push(`Priority ${p + 1} is passed over: ${condition.detail}.`);
      return;
    }
    for (const { attack, usable, detail } of entries)
      lines.push(`Priority ${p + 1}, ${attack}: ${usable ? detail : `ruled out, ${detail}`}.`);
  });
  return lines;
}
