/** What a state's tweaks and boosts make of a unit while they last: its row is made anew and put in the place of the old. */
import { tweakedUnit } from '../../model/effective';
import type { CompiledBoost } from '../../model/effects/effect';
import type { FieldTweak } from '../../model/tweak';
import { compileUnit, contextIn } from '../compile-unit';
import type { Fight } from '../fight';
import { setEnergy, setHealth, setShield } from '../harm/vitals';
import { reshape } from '../rounds/places';
import { ILL } from '../numbers';
import type { CompiledUnit } from '../unit-tables';

/** What every step asks of a state is put beside the unit. */
export function takeUp(fight: Fight, unit: number): void {
  const kind = fight.kinds[unit];
  const { does, speed, near, far, leaves, mayAttack } = kind.states[fight.state[unit]];
  fight.does[unit] = does;
  fight.pace[unit] = speed;
  fight.near[unit] = near;
  fight.far[unit] = far;
  fight.leaves[unit] = leaves.length;
  fight.mayAttack[unit] = mayAttack && kind.choice.length ? 1 : 0;
}

/** Whether nothing can harm it. */
export function shelter(fight: Fight, unit: number, safe: boolean): void {
  fight.invulnerable[unit] = safe ? 1 : 0;
}

/** @param pace m/s, instead of its state's */
export function setPace(fight: Fight, unit: number, pace: number): void {
  fight.pace[unit] = pace;
}

/** Rows kept at one time; an odd document can't fill the memory with them. */
const MOST_ROWS = 2000;

/** Gives a unit the row that its state and its boosts ask for. A changed maximum keeps the share and is no damage. */
export function refit(fight: Fight, unit: number): void {
  const plain = fight.compiled.kinds[fight.kindNumber[unit]];
  const row = rowOf(fight, unit, plain);
  const old = fight.kinds[unit];
  if (row === old) return;
  const health = fight.healthNow(unit) / old.maxHealth;
  const shield = old.shield > 0 ? fight.shieldNow(unit) / old.shield : 1;
  const energy = old.energy > 0 ? fight.energyNow(unit) / old.energy : 1;
  takeOn(fight, unit, row);
  setHealth(fight, unit, health * row.maxHealth);
  setShield(fight, unit, shield * row.shield);
  setEnergy(fight, unit, energy * row.energy);
}

/** Its row, and the columns that stand beside a unit because every step asks for them. */
export function takeOn(fight: Fight, unit: number, given: CompiledUnit): void {
  const row = fight.board ? reshape(fight, unit, given) : given;
  fight.kinds[unit] = row;
  if (fight.radius[unit] !== row.radius) fight.crowd.clear();
  fight.radius[unit] = row.radius;
  fight.lose[unit] = row.lose;
  fight.leashed[unit] = row.leash > 0 ? 1 : 0;
  fight.acceleration[unit] = row.acceleration;
  fight.turnsAtOnce[unit] = row.turnRate === 0 ? 1 : 0;
  fight.stepCosine[unit] = row.stepCosine;
  takeUp(fight, unit);
}

function rowOf(fight: Fight, unit: number, plain: CompiledUnit): CompiledUnit {
  const { tweaks } = plain.states[fight.state[unit]];
  const ills = fight.ills[unit];
  let key = tweaks.length ? `${fight.kindNumber[unit]} s${fight.state[unit]}` : `${fight.kindNumber[unit]}`;
  let changed = tweaks.length > 0;
  for (let i = 0; i < ills.length; i++) {
    if (ills[i].what !== ILL.boost) continue;
    key += ` b${ills[i].value}`;
    changed = true;
  }
  if (!changed || !plain.source) return plain;
  const known = fight.changed.get(key);
  if (known) return known;
  const boosts = ills.filter(({ what }) => what === ILL.boost).map(({ value }) => boostOf(fight, value));
  const tweaksOf = (early: boolean) => boosts.filter((boost) => (boost.early ?? false) === early).flatMap((boost) => boost.tweaks);
  const all: FieldTweak[] = [...tweaksOf(true), ...plain.grown, ...tweaks, ...tweaksOf(false)];
  const row = compileUnit(tweakedUnit(plain.source, all), contextIn(fight.compiled));
  if (fight.changed.size >= MOST_ROWS) fight.changed.clear();
  fight.changed.set(key, row);
  return row;
}

const NO_BOOST: Pick<CompiledBoost, 'tweaks' | 'early'> = { tweaks: [] };

/** A boost by its number among the names. */
function boostOf({ compiled }: Fight, id: number): Pick<CompiledBoost, 'tweaks' | 'early'> {
  for (const kind of compiled.kinds) for (const { effects } of kind.attacks) if (effects.boost?.id === id) return effects.boost;
  for (const { then } of compiled.events) for (const { boosts } of then) for (const boost of boosts) if (boost?.id === id) return boost;
  return NO_BOOST;
}
