/** Whoever is struck or helped, as effects see it: what they may do to it, carried out on the fight. */
import type { CompiledBoost, EventName, Struck } from '../../model/effects/effect';
import { EFFECTS, HELPS, STRIKES } from '../../model/effects/list';
import { EVENT } from '../../record/log';
import type { Landing } from '../records';
import type { Fight } from '../fight';
import { ILL } from '../numbers';
import type { CompiledAttack } from '../unit-tables';
import { addBoost, addIll, jolt, taunt } from './effects';
import { heal } from './healing';
import { setEnergy } from './vitals';

/** One for all: an effect is carried out before the next is looked at. */
class StruckUnit implements Struck {
  fight!: Fight;
  by = 0;
  unit = 0;
  attack = 0;
  /** Where the hit came from. */
  x = 0;
  y = 0;

  heal(amount: number, share: number): void {
    heal(this.fight, this.by, this.unit, this.attack, amount + share * this.fight.kinds[this.unit].maxHealth);
  }

  lasts(what: 'slow' | 'mark' | 'lent', value: number, duration: number): void {
    addIll(this.fight, this.unit, ILL[what], value, duration, this.by);
  }

  loseEnergy(amount: number): number {
    const { fight, unit } = this;
    const had = fight.energyNow(unit);
    setEnergy(fight, unit, Math.max(0, had - amount));
    return had - fight.energy[unit];
  }

  boost(boost: CompiledBoost): void {
    addBoost(this.fight, this.by, this.unit, this.attack, boost);
  }

  taunt(duration: number): void {
    taunt(this.fight, this.by, this.unit, duration);
  }

  stagger(duration: number): void {
    jolt(this.fight, this, duration, 0, 0);
  }

  push(distance: number, crush: number): void {
    jolt(this.fight, this, 0, distance, crush);
  }

  tell(event: EventName, a = 0, b = 0, c = 0, d = 0): void {
    this.fight.log.add(this.fight.now, EVENT[event], this.by, this.unit, this.attack, a, b, c, d);
  }
}

const STRUCK = new StruckUnit();

function struck(fight: Fight, by: number, unit: number, attack: number, x: number, y: number): StruckUnit {
  return Object.assign(STRUCK, { fight, by, unit, attack, x, y });
}

/** What a hit on a foe leaves besides its damage. */
export function leaveEffects(fight: Fight, { attacker, victim, attack: number, x, y }: Landing, { effects }: CompiledAttack): void {
  for (let i = 0; i < STRIKES.length; i++) {
    const compiled = effects[STRIKES[i]];
    if (compiled !== null) EFFECTS[STRIKES[i]].strike!(struck(fight, attacker, victim, number, x, y), compiled);
  }
}

/** What help gives a friend, or its user. */
export function giveEffects(fight: Fight, unit: number, other: number, number: number, { effects }: CompiledAttack): void {
  for (let i = 0; i < HELPS.length; i++) {
    const compiled = effects[HELPS[i]];
    if (compiled !== null) EFFECTS[HELPS[i]].help!(struck(fight, unit, other, number, 0, 0), compiled);
  }
}
