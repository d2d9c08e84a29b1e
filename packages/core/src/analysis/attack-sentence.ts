/** An attack read aloud: what it does in the order in which it happens. */
import { hitInstants } from '../engine/hit-instants';
import type { Attack } from '../model/attack';
import { counted, traitsOf } from '../model/delivery';
import { EFFECTS, EFFECT_NAMES } from '../model/effects/list';
import { attackInRounds } from '../model/in-rounds';
import { numberWords as n } from '../model/number-words';
import { type Clock, countedTurns, withUnit } from '../record/clock';

/** "winds up 0.55 s, looses three shots over 0.3 s at 2–6 m, 6 each, then recovers 0.35 s and rests 2.4 s from there". */
export function attackSentence(given: Attack, nameOf: (unit: string) => string = (unit) => unit, by: Clock = 'continuous'): string {
  // What says nothing of turns is read in seconds.
  const clock = given.rounds ? by : 'continuous';
  const attack = clock === 'rounds' ? attackInRounds(given) : given;
  return (
    [clock === 'rounds' ? beginsInTurns(attack, given, nameOf) : begins(attack, nameOf), ...effectWords(given, clock)].join(', ') +
    ends(attack, clock)
  );
}

/** "strikes two turns later within 1 cell" */
function beginsInTurns(attack: Attack, { rounds }: Attack, nameOf: (unit: string) => string): string {
  const { windup } = attack.beat;
  const hits = rounds!.hits;
  const lunge = rounds!.lunge > 0 ? `lunges up to ${withUnit('rounds', n(rounds!.lunge), 'm')}, ` : '';
  const times = hits > 1 ? ` ${counted(hits, 'time')}` : '';
  const acts = traitsOf(attack.delivery).action(attack, {
    instants: hits,
    times,
    over: '',
    where: distanceWords(attack, 'rounds'),
    nameOf,
    clock: 'rounds',
  });
  return `${windup > 0 ? `prepares, ${countedTurns(windup)} later ` : ''}${lunge}${acts}`;
}

function begins(attack: Attack, nameOf: (unit: string) => string): string {
  const { beat } = attack;
  const parts: string[] = [];
  if (beat.windup > 0) parts.push(`winds up ${n(beat.windup)} s`);
  parts.push(...moved(attack, action(attack, nameOf)));
  return parts.join(', ');
}

function ends(attack: Attack, clock: Clock): string {
  const { beat } = attack;
  const time = (value: number) => (clock === 'rounds' ? countedTurns(value) : `${n(value)} s`);
  const tail: string[] = [];
  if (beat.recovery > 0) tail.push(`recovers ${time(beat.recovery)}`);
  if (clock === 'rounds') {
    if (beat.cooldown > 1) tail.push(`may come again ${countedTurns(beat.cooldown)} later`);
  } else if (beat.cooldown > 0)
    tail.push(beat.cooldownFrom === 'end' ? `rests ${time(beat.cooldown)}` : `may come again ${time(beat.cooldown)} after its start`);
  const price: string[] = [];
  if (attack.energy) price.push(`costs ${n(attack.energy)} energy`);
  if (attack.charges) price.push(`${counted(attack.charges.count, 'charge')}, one back every ${time(attack.charges.reload)}`);
  return (tail.length ? `, then ${tail.join(' and ')}` : '') + price.map((one) => `; ${one}`).join('');
}

const WAYS = { target: 'towards its target', away: 'away from its target', sideways: 'to a side', ahead: 'straight ahead' };

/** With the movement that is part of it, where there is one. */
function moved({ dash, beat }: Attack, acts: string): string[] {
  if (!dash) return [acts];
  const when = dash.during === 'active' ? (beat.windup > 0 ? 'while active' : '') : beat.windup > 0 ? 'meanwhile' : '';
  const begins = [when, dash.after > 0 && `after ${n(dash.after)} s`].filter(Boolean).join(' ');
  const goes = `${begins ? `${begins} ` : ''}goes up to ${n(dash.distance)} m ${WAYS[dash.way]} at ${n(dash.speed)} m/s`;
  if (dash.hurts === 'way') return [`${goes} and strikes ${dash.stops ? 'the first' : 'whom'} it meets`];
  return dash.hurts === 'end' ? [goes, `where that ends ${acts}`] : [goes, acts];
}

function distanceWords({ range: { min, max } }: Attack, clock: Clock = 'continuous'): string {
  return min > 0 ? `at ${n(min)}–${withUnit(clock, n(max), 'm')}` : `within ${withUnit(clock, n(max), 'm')}`;
}

function action(attack: Attack, nameOf: (unit: string) => string): string {
  const { delivery, beat, hits } = attack;
  const instants = hitInstants(attack);
  const over = instants > 1 ? ` over ${n(beat.active)} s` : '';
  const times =
    instants > 1 ? (hits.perTarget === 'every' ? ` ${counted(instants, 'time')}${over}` : `, once to each, for ${n(beat.active)} s`) : '';
  return traitsOf(delivery).action(attack, {
    instants,
    times,
    over,
    where: distanceWords(attack),
    nameOf,
    clock: 'continuous',
  });
}

function effectWords({ effects, beat, hits, projectile, rounds }: Attack, clock: Clock): string[] {
  const each =
    (clock === 'rounds' && (rounds?.hits ?? 1) > 1) ||
    (projectile !== undefined && (projectile.count > 1 || beat.every !== undefined)) ||
    (hits.perTarget === 'every' && beat.every !== undefined);
  return EFFECT_NAMES.flatMap((name) => {
    const given = effects[name];
    return given ? [EFFECTS[name].sentence(given, each, clock)] : [];
  });
}
