/** An attack read aloud: what it does in the order in which it happens. */
import { hitInstants } from '../engine/hit-instants';
import type { Attack } from '../model/attack';
import { counted, traitsOf } from '../model/delivery';
import { EFFECTS, EFFECT_NAMES } from '../model/effects/list';
import { numberWords as n } from '../model/number-words';

/** "winds up 0.55 s, looses three shots over 0.3 s at 2–6 m, 6 each, then recovers 0.35 s and rests 2.4 s from there". */
export function attackSentence(attack: Attack, nameOf: (unit: string) => string = (unit) => unit): string {
  const { beat } = attack;
  const parts: string[] = [];
  if (beat.windup > 0) parts.push(`winds up ${n(beat.windup)} s`);
  parts.push(...moved(attack, action(attack, nameOf)));
  const tail: string[] = [];
  if (beat.recovery > 0) tail.push(`recovers ${n(beat.recovery)} s`);
  if (beat.cooldown > 0)
    tail.push(beat.cooldownFrom === 'end' ? `rests ${n(beat.cooldown)} s` : `may come again ${n(beat.cooldown)} s after its start`);
  const price: string[] = [];
  if (attack.energy) price.push(`costs ${n(attack.energy)} energy`);
  if (attack.charges) price.push(`${counted(attack.charges.count, 'charge')}, one back every ${n(attack.charges.reload)} s`);
  return (
    [...parts, ...effectWords(attack)].join(', ') +
    (tail.length ? `, then ${tail.join(' and ')}` : '') +
    price.map((one) => `; ${one}`).join('')
  );
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

function distanceWords({ range: { min, max } }: Attack): string {
  return min > 0 ? `at ${n(min)}–${n(max)} m` : `within ${n(max)} m`;
}

function action(attack: Attack, nameOf: (unit: string) => string): string {
  const { delivery, beat, hits } = attack;
  const instants = hitInstants(attack);
  const over = instants > 1 ? ` over ${n(beat.active)} s` : '';
  const times =
    instants > 1 ? (hits.perTarget === 'every' ? ` ${counted(instants, 'time')}${over}` : `, once to each, for ${n(beat.active)} s`) : '';
  return traitsOf(delivery).action(attack, { instants, times, over, where: distanceWords(attack), nameOf });
}

function effectWords({ effects, beat, hits, projectile }: Attack): string[] {
  const each =
    (projectile !== undefined && (projectile.count > 1 || beat.every !== undefined)) ||
    (hits.perTarget === 'every' && beat.every !== undefined);
  return EFFECT_NAMES.flatMap((name) => {
    const given = effects[name];
    return given ? [EFFECTS[name].sentence(given, each)] : [];
  });
}
