/** Closed forms: what an attack or a unit would do on paper, in range all the time, before any run. */
import { traitsOf } from '../model/delivery';
import type { Attack } from '../model/attack';
import type { Unit } from '../model/unit';
import { hitInstants } from '../engine/hit-instants';

/** On paper, per use and per second, of one attack against one victim. Infinity where nothing gets through. */
export interface PaperAttack {
  /** hits of one use that the victim takes, at accuracy 1 */
  hitsPerUse: number;
  /** hp of one hit after armour, crits averaged in */
  damagePerHit: number;
  /** share of hits that land, at the middle of its range */
  accuracy: number;
  /** s from one start to the next possible one */
  cycle: number;
  damagePerCycle: number;
  damagePerSecond: number;
}

/** What `attacker` does to `victim` on paper; shields are taken through, regeneration is not counted. */
export interface PaperDuel {
  damagePerSecond: number;
  hitsToKill: number;
  /** mean shots up to the lethal one: hits ÷ accuracy, the mean of the negative binomial distribution */
  shotsToKill: number;
  /** s from the first shot that could hurt to the lethal one, on average */
  timeToKill: number;
}

/**
 * A volley counts every shot of it. A hit that strikes each target once in a use counts once, however often the active
 * part repeats. Cooldown from the start runs beside the phases; from the end, after them.
 */
export function paperAttack(attack: Attack, attacker: Unit, victim?: Unit): PaperAttack {
  const { beat, effects, aim, hits, projectile } = attack;
  const instants = hitInstants(attack);
  const hitsPerUse = projectile ? projectile.count * instants : hits.perTarget === 'every' ? instants : 1;
  const damage = effects.damage;
  const raw = damage ? damage.amount * (1 + damage.critChance * (damage.critMultiplier - 1)) : 0;
  const damagePerHit = afterArmour(raw, damage?.type, victim);
  const accuracy = (aim.near + aim.far) / 2;
  const busy = beat.windup + beat.active + beat.recovery;
  const { pause } = attacker.choice;
  const free = busy + (pause.min + pause.max) / 2;
  const cycle = beat.cooldownFrom === 'end' ? Math.max(busy + beat.cooldown, free) : Math.max(beat.cooldown, free);
  const damagePerCycle = accuracy * (hitsPerUse * damagePerHit + ticksPerUse(attack, cycle) * tickDamage(attack, victim));
  return { hitsPerUse, damagePerHit, accuracy, cycle, damagePerCycle, damagePerSecond: damagePerCycle / cycle };
}

/** What armour and resistance leave of a hit of some type: in the engine's order, with the guarded arc towards the attacker. */
function afterArmour(amount: number, type: string | undefined, victim?: Unit): number {
  const resisted = victim?.armour.resist.find(({ id }) => id === type)?.share ?? 0;
  const taken = amount * (1 - resisted);
  if (resisted >= 1) return 0;
  return Math.max(taken - (victim?.armour.flat ?? 0), Math.min(taken, victim?.armour.minimumDamage ?? 0), 0);
}

function tickDamage({ effects: { overTime } }: Attack, victim?: Unit): number {
  return overTime ? afterArmour(overTime.amount, overTime.type, victim) : 0;
}

/**
 * Effective health against hits of one type and size: the raw damage that must be dealt to bring a unit down, shield and all.
 * Infinity where nothing of a hit gets through.
 *
 * Worked: health 100, shield 20, armour 2: hits of 10 leave 8 each; 120 ÷ 8 × 10 = 150.
 */
export function effectiveHealth(unit: Unit, hit: number, type?: string): number {
  const through = afterArmour(hit, type, unit);
  return through > 0 ? ((unit.health.max + (unit.shield?.max ?? 0)) / through) * hit : Infinity;
}

/**
 * Damage a second that energy can sustain: an attack that costs more than regeneration brings in its cycle comes as often as
 * its price is regained. What costs nothing is sustained as it is.
 */
export function sustainedDamage(attack: Attack, attacker: Unit, victim?: Unit): number {
  const paper = paperAttack(attack, attacker, victim);
  const { energy } = attacker;
  if (!attack.energy || !energy) return paper.damagePerSecond;
  const cycle = energy.regen > 0 ? Math.max(paper.cycle, attack.energy / energy.regen) : Infinity;
  return paper.damagePerCycle / cycle;
}

/** Ticks that one use adds: all of them where they stack, else those that fall before the next use renews or is ignored. */
function ticksPerUse({ effects: { overTime } }: Attack, cycle: number): number {
  if (!overTime) return 0;
  const all = Math.floor(overTime.for / overTime.every + 1e-9);
  return overTime.stacking === 'stack' ? all : Math.min(all, cycle / overTime.every);
}

/**
 * The attacks of a unit's choice taken together: each as often as its cycle allows; where their phases would need more
 * than all of the time, all are thinned alike. Undefined for a unit that chooses none that hurts.
 */
export function paperDuel(attacker: Unit, victim: Unit): PaperDuel | undefined {
  const chosen = new Set(attacker.choice.priorities.flatMap(({ entries }) => entries.map(({ attack }) => attack)));
  const attacks = attacker.attacks.filter(
    ({ id, delivery, effects }) => chosen.has(id) && !traitsOf(delivery).aids && (effects.damage || effects.overTime),
  );
  if (!attacks.length) return undefined;
  const papers = attacks.map((attack) => paperAttack(attack, attacker, victim));
  const load = attacks.reduce((sum, { beat }, i) => sum + (beat.windup + beat.active + beat.recovery) / papers[i].cycle, 0);
  const thin = Math.max(1, load);
  const damagePerSecond = papers.reduce((sum, paper) => sum + paper.damagePerSecond, 0) / thin;
  const shotsPerSecond = papers.reduce((sum, paper) => sum + paper.hitsPerUse / paper.cycle, 0) / thin;
  const accuracy = papers.reduce((sum, paper) => sum + (paper.accuracy * paper.hitsPerUse) / paper.cycle, 0) / thin / shotsPerSecond;
  const damagePerHit = damagePerSecond / (shotsPerSecond * accuracy);
  const whole = victim.health.max + (victim.shield?.max ?? 0);
  const hitsToKill = damagePerHit > 0 ? Math.ceil(whole / damagePerHit - 1e-9) : Infinity;
  const shotsToKill = hitsToKill / accuracy;
  return { damagePerSecond, hitsToKill, shotsToKill, timeToKill: (shotsToKill - 1) / shotsPerSecond };
}
