/**
 * "It would have … if …": one change of one quantity that would have made an attack usable at an instant. Each is tried: the
 * quantity is changed, the choice is looked at again, and only what then comes out usable is said.
 */
import { countedTurns, withUnit } from '../record/clock';
import { hurdleOf } from '../engine/mind/hurdles';
import type { Fight } from '../engine/fight';
import { NOBODY } from '../engine/numbers';
import { CROSSING } from '../engine/body/lines';
import { DOING } from '../record/doing';
import type { CompiledAttack } from '../engine/unit-tables';
import { SECOND } from '../record/time';
import { strikesFromSomewhere } from '../engine/rounds/reach';

export interface WouldHave {
  attack: string;
  /** "it would have used Quill if P3 were 1.1 m high" */
  sentence: string;
}

/** m, and s, by which a change goes beyond what is just needed. */
const HAIR = 0.01;

export function wouldHave(fight: Fight, unit: number): WouldHave[] {
  const kind = fight.kinds[unit];
  const found: WouldHave[] = [];
  const seen = new Set<number>();
  for (const { attacks } of kind.choice)
    for (const number of attacks) {
      if (seen.has(number)) continue;
      seen.add(number);
      const attack = fight.attackOf(unit, number);
      if (attack.targets !== 'foes' || !attack.traits.needsTarget || fight.target[unit] === NOBODY) continue;
      const words = tryOne(fight, unit, number, attack);
      const further = words && fight.inTurns ? movingOn(fight, unit, number) : undefined;
      if (further) found.push({ attack: attack.name, sentence: `it would have used ${attack.name} if ${further}` });
      if (words) found.push({ attack: attack.name, sentence: `it would have used ${attack.name} if ${words}` });
    }
  return found;
}

/** The least by which it would have to move on from where it stands to strike its target. */
function movingOn(fight: Fight, unit: number, number: number): string | undefined {
  const { target, pace, slowed } = fight;
  const attack = fight.attackOf(unit, number);
  if (!fight.board || hurdleOf(fight, unit, target[unit], number, fight.gap(unit, target[unit])) !== DOING.range) return undefined;
  const [before, slow] = [pace[unit], slowed[unit]];
  slowed[unit] = 0;
  let more = 1;
  for (; more <= MOST_MORE; more++) {
    pace[unit] = more;
    if (strikesFromSomewhere(fight, unit, [target[unit]], [attack])) break;
  }
  pace[unit] = before;
  slowed[unit] = slow;
  return more <= MOST_MORE ? `it moved ${withUnit('rounds', String(more), 'm')} further` : undefined;
}

/** cells */
const MOST_MORE = 12;

function tryOne(fight: Fight, unit: number, number: number, attack: CompiledAttack): string | undefined {
  const target = fight.target[unit];
  const gap = fight.gap(unit, target);
  const hurdle = () => hurdleOf(fight, unit, target, number, gap);
  switch (hurdle()) {
    case 0:
      return undefined;
    case DOING.cooldown: {
      const at = unit * fight.compiled.attackRoom + number;
      const left = (fight.readyAt[at] - fight.now) / SECOND;
      const shorter = fight.inTurns ? countedTurns(Math.ceil(left - 1e-6)) : `${n(left)} s`;
      return changed(fight.readyAt, at, fight.now, hurdle, () => `its cooldown were ${shorter} shorter`);
    }
    case DOING.range: {
      const far = (metres: number) => withUnit(fight.inTurns ? 'rounds' : 'continuous', n(metres), 'm');
      if (gap > attack.rangeMax)
        return changed(attack, 'rangeMax', gap, hurdle, () => `it reached ${far(Math.ceil(gap * 100) / 100)}, not ${n(attack.rangeMax)}`);
      return changed(
        attack,
        'rangeMin',
        gap,
        hurdle,
        () => `it could be begun from ${far(Math.floor(gap * 100) / 100)}, not only from ${n(attack.rangeMin)}`,
      );
    }
    case DOING.energy: {
      const has = fight.energyNow(unit);
      return changed(attack, 'energy', has, hurdle, () => `it cost ${n(Math.floor(has * 10) / 10)} energy, not ${n(attack.energy)}`);
    }
    case DOING.facing:
      return changed(attack, 'facingCosine', -1, hurdle, () => 'it need not face its target');
    case DOING.line:
      return lower(fight, unit, target, hurdle);
    default:
      return undefined;
  }
}

/** The wall in the way, made as low as the line needs. */
function lower(fight: Fight, unit: number, target: number, hurdle: () => number): string | undefined {
  const { now, ground } = fight;
  const half = fight.kinds[target].height / 2;
  const from = fight.kinds[unit].muzzle;
  if (!ground.blocked(fight.xAt(unit, now), fight.yAt(unit, now), from, fight.xAt(target, now), fight.yAt(target, now), half))
    return undefined;
  const wall = ground.walls[CROSSING.wall];
  const height = Math.floor((wall.height - CROSSING.excess - HAIR) * 100) / 100;
  if (height <= 0) return undefined;
  const lineAt = fight.lineAt[unit];
  fight.lineAt[unit] = -1; // it is looked up anew
  const said = changed(wall, 'height', height, hurdle, () => `${wall.name} were ${n(height)} m high, not ${n(wall.height)}`);
  fight.lineAt[unit] = lineAt;
  return said;
}

/** Changes one number for as long as the choice is looked at again; the words where nothing is in its way any more. */
function changed<K extends PropertyKey>(
  of: { [key in K]: number },
  key: K,
  to: number,
  hurdle: () => number,
  words: () => string,
): string | undefined {
  const before = of[key];
  of[key] = to as (typeof of)[K];
  const usable = hurdle() === 0;
  of[key] = before;
  return usable ? words() : undefined;
}

const n = (value: number) => String(Number(value.toFixed(2)));
