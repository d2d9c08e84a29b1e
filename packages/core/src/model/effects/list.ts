/** Every effect, in the order in which they are offered. */
import { About, Group, Optional } from '../field';
import { boost } from './boost';
import { damage } from './damage';
import { drain } from './drain';
import type { Compiling, Effect } from './effect';
import { heal } from './heal';
import { knockback } from './knockback';
import { mark } from './mark';
import { overTime } from './over-time';
import { revive } from './revive';
import { shield } from './shield';
import { slow } from './slow';
import { stagger } from './stagger';
import { taunt } from './taunt';

const LIST = { damage, overTime, heal, shield, slow, stagger, knockback, boost, revive, drain, taunt, mark };

export type EffectName = keyof typeof LIST;
export const EFFECT_NAMES = Object.keys(LIST) as EffectName[];
/** Each with whatever fields it has: for what treats all alike. */
export const EFFECTS = LIST as unknown as Readonly<Record<EffectName, Effect<object, object>>>;

type Given<E> = E extends Effect<infer G, infer _, infer __> ? G : never;
type Made<E> = E extends Effect<infer _, infer C, infer __> ? C : never;
type ToldBy<E> = E extends Effect<infer _, infer __, infer N> ? N : never;

/** Events that tell of effects. */
export type EffectEvent = { [K in EffectName]: ToldBy<(typeof LIST)[K]> }[EffectName];

/** What an attack's effects come to; null where it has none of the kind. */
export type CompiledEffects = { readonly [K in EffectName]: Made<(typeof LIST)[K]> | null };

/** One field an effect, all of them optional. */
export type Effects = { [K in EffectName]?: Given<(typeof LIST)[K]> };
export const Effects = class Effects {} as new () => Effects;
About('What a hit does to a foe, or what help does for a friend.')(Effects);
for (const name of EFFECT_NAMES) {
  const { type, label, about } = EFFECTS[name];
  Optional()(Effects.prototype as object, name);
  Group(() => type, { label, about })(Effects.prototype as object, name);
}

/** @param given an attack's effects */
export function compileEffects(given: Effects, compiling: Compiling): CompiledEffects {
  const compiled = {} as Record<EffectName, object | null>;
  for (const name of EFFECT_NAMES) {
    const own = given[name];
    compiled[name] = own === undefined ? null : EFFECTS[name].compile(own, compiling);
  }
  return compiled as CompiledEffects;
}

/** Effects that something is left to do for besides the hit, or the help, itself. */
const byTurn = (a: EffectName, b: EffectName) => (EFFECTS[a].turn ?? 0) - (EFFECTS[b].turn ?? 0);
export const STRIKES = EFFECT_NAMES.filter((name) => EFFECTS[name].strike).sort(byTurn);
export const HELPS = EFFECT_NAMES.filter((name) => EFFECTS[name].help).sort(byTurn);

/** What an attack can do: to foes whatever strikes them, to friends whatever helps them. */
export function effectsFor(strikes: boolean): EffectName[] {
  return EFFECT_NAMES.filter((name) => {
    const { strike, help, isItself } = EFFECTS[name];
    return strikes ? strike || isItself === 'hit' : help || isItself === 'raising';
  });
}
