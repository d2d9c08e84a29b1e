/** An attack read aloud: what it does in the order in which it happens. */
import { hitsInActive } from '../engine/compile-unit';
import { microseconds } from '../engine/time';
import type { Attack } from '../model/attack';
import { EFFECTS, EFFECT_NAMES } from '../model/effects/list';
import { numberWords as n } from '../model/number-words';

/** "winds up 0.55 s, looses three shots over 0.3 s at 2–6 m, 6 each, then recovers 0.35 s and rests 2.4 s from there". */
export function attackSentence(attack: Attack, nameOf: (unit: string) => string = (unit) => unit): string {
  const { beat } = attack;
  const parts: string[] = [];
  if (beat.windup > 0) parts.push(`winds up ${n(beat.windup)} s`);
  parts.push(action(attack, nameOf));
  const tail: string[] = [];
  if (beat.recovery > 0) tail.push(`recovers ${n(beat.recovery)} s`);
  if (beat.cooldown > 0)
    tail.push(beat.cooldownFrom === 'end' ? `rests ${n(beat.cooldown)} s` : `may come again ${n(beat.cooldown)} s after its start`);
  const price: string[] = [];
  if (attack.energy) price.push(`costs ${n(attack.energy)} energy`);
  if (attack.charges) price.push(`${count(attack.charges.count, 'charge')}, one back every ${n(attack.charges.reload)} s`);
  return (
    [...parts, ...effectWords(attack)].join(', ') +
    (tail.length ? `, then ${tail.join(' and ')}` : '') +
    price.map((one) => `; ${one}`).join('')
  );
}

const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve'];
const inWords = (value: number) => NUMBERS[value] ?? String(value);
const count = (value: number, thing: string) => `${inWords(value)} ${thing}${value === 1 ? '' : 's'}`;

function distanceWords({ range: { min, max } }: Attack): string {
  return min > 0 ? `at ${n(min)}–${n(max)} m` : `within ${n(max)} m`;
}

function action(attack: Attack, nameOf: (unit: string) => string): string {
  const { delivery, beat, projectile, area, hits, summon, targets } = attack;
  const instants = hitsInActive(microseconds(beat.active), beat.every === undefined ? 0 : microseconds(beat.every));
  const over = instants > 1 ? ` over ${n(beat.active)} s` : '';
  const times =
    instants > 1 ? (hits.perTarget === 'every' ? ` ${inWords(instants)} times${over}` : `, once to each, for ${n(beat.active)} s`) : '';
  const where = distanceWords(attack);
  switch (delivery) {
    case 'melee':
      return `strikes${times} ${where} in an arc of ${n(attack.arc)}°`;
    case 'projectile':
      return `looses ${count((projectile?.count ?? 1) * instants, 'shot')}${over} ${where}`;
    case 'hitscan':
      return `shoots${instants > 1 ? ` ${inWords(instants)} times${over}` : ''} ${where}`;
    case 'area': {
      const shape =
        area && area.angle < 360 ? `a cone of ${n(area.radius)} m and ${n(area.angle)}°` : `a circle of ${n(area?.radius ?? 0)} m`;
      const about = { self: 'about itself', target: 'about its target', mark: 'at a marked point' }[area?.about ?? 'self'];
      const delay = area?.delay ? `, ${n(area.delay)} s after the mark` : '';
      return `bursts${times} in ${shape} ${about}${delay}, begun ${where}`;
    }
    case 'contact':
      return `hurts whoever touches it${times}`;
    case 'self':
      return 'works on itself';
    case 'support':
      return `helps ${targets === 'fallen' ? 'a fallen friend' : 'a hurt friend'}${times} ${where}`;
    case 'summon':
      return `calls ${inWords(summon?.count ?? 1)} ${nameOf(summon?.unit ?? '')}${instants > 1 ? times : ''}, at most ${n(summon?.cap ?? 1)} at one time`;
  }
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
