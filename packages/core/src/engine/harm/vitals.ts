/** Health, shield and energy: amounts as of an instant, from which what grows back is worked out when it is asked for. */
import type { Fight } from '../fight';

/** What a unit of its kind begins with. */
export function fillVitals(fight: Fight, unit: number): void {
  const { maxHealth, shield, energyStart } = fight.kinds[unit];
  fight.health[unit] = maxHealth;
  fight.shield[unit] = shield;
  fight.energy[unit] = energyStart;
  fight.healthAt[unit] = fight.regenFrom[unit] = fight.shieldAt[unit] = fight.shieldFrom[unit] = fight.energyAt[unit] = fight.now;
}

export function setHealth(fight: Fight, unit: number, health: number): void {
  fight.health[unit] = health;
  fight.healthAt[unit] = fight.now;
}

/** @param from µs: when it begins to grow back */
export function regenerateFrom(fight: Fight, unit: number, from: number): void {
  fight.regenFrom[unit] = from;
}

export function setShield(fight: Fight, unit: number, shield: number): void {
  fight.shield[unit] = shield;
  fight.shieldAt[unit] = fight.now;
}

/** Damage has met it: it grows back after its delay. */
export function delayShield(fight: Fight, unit: number): void {
  fight.shieldFrom[unit] = fight.ends(unit, fight.kinds[unit].shieldDelay);
}

export function setEnergy(fight: Fight, unit: number, energy: number): void {
  fight.energy[unit] = energy;
  fight.energyAt[unit] = fight.now;
}
