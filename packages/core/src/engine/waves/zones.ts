/** Zones: stretches of the arena that raise a flag when somebody enters them. */
import { PARTY } from '../../record/sides';
import { contains } from '../body/clearance';
import type { Fight } from '../fight';
import { setFlag } from '../mind/signals';
import type { CompiledZone } from '../tables';

/** Whether a unit at a place is in a zone that is for it. */
export function enters(fight: Fight, { shape, party, enemies, role }: CompiledZone, unit: number, x: number, y: number): boolean {
  const isFor = fight.side[unit] === PARTY ? party : enemies;
  return isFor && (role < 0 || fight.kinds[unit].role === role) && contains(shape, x, y);
}

/** On its way a unit comes over a place. */
export function passOver(fight: Fight, unit: number, x: number, y: number): void {
  for (const zone of fight.compiled.zones)
    if (!fight.flags[zone.flag] && enters(fight, zone, unit, x, y)) setFlag(fight, unit, zone.flag, true);
}
