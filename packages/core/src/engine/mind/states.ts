/** Which state a unit is in: its transitions, and what it takes up on entering one. */
import { EVENT } from '../../record/log';
import type { Fight } from '../fight';
import { NOBODY } from '../numbers';
import { tryAgainAt } from '../time/again';
import { PURPOSE } from '../time/chance';
import { refit, takeUp } from './changes';
import { holds } from './conditions';

/** Phase of a step: the first transition whose time and condition have come is taken; one a step. Who reels stays. */
export function changeStates(fight: Fight): void {
  const { alive, leaves, now } = fight;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    if (leaves[unit] === 0 || now < fight.staggeredUntil[unit]) continue;
    const state = fight.kinds[unit].states[fight.state[unit]];
    for (let l = 0; l < state.leaves.length; l++) {
      const leave = state.leaves[l];
      if (now - fight.stateSince[unit] < leave.after || !holds(fight, unit, leave.when)) continue;
      enterState(fight, unit, leave.to);
      break;
    }
  }
}

export function enterState(fight: Fight, unit: number, state: number): void {
  const changes = fight.kinds[unit].states[fight.state[unit]].tweaks.length + fight.kinds[unit].states[state].tweaks.length > 0;
  fight.state[unit] = state;
  fight.stateEntries[unit]++;
  fight.log.add(fight.now, EVENT.state, unit, NOBODY, state);
  passGates(fight, unit, state);
  begin(fight, unit);
  if (changes) refit(fight, unit);
  onEnter(fight, unit);
}

/** The state's clock starts, and what it left open before is forgotten. */
export function begin(fight: Fight, unit: number): void {
  const { startAt, invulnerable } = fight.kinds[unit].states[fight.state[unit]];
  fight.stateSince[unit] = fight.now;
  fight.stop[unit] = startAt;
  fight.stopWay[unit] = 1;
  fight.hasGoal[unit] = 0;
  fight.waitUntil[unit] = 0;
  fight.wayUntil[unit] = 0;
  fight.strafeSign[unit] = 0;
  fight.invulnerable[unit] = invulnerable ? 1 : 0;
  takeUp(fight, unit);
}

/** A gate is passed once its state has come; a gate above it whose state has not is skipped, and that is said. */
function passGates(fight: Fight, unit: number, state: number): void {
  const { gates } = fight.kinds[unit];
  let last = -1;
  for (let g = 0; g < gates.length; g++) if (gates[g].state === state) last = g;
  for (let g = 0; g <= last; g++) {
    if (fight.gatesPassed[unit] & (1 << g)) continue;
    fight.gatesPassed[unit] |= 1 << g;
    if (gates[g].state !== state) fight.log.add(fight.now, EVENT.gate, unit, NOBODY, g, 1);
  }
}

function onEnter(fight: Fight, unit: number): void {
  const kind = fight.kinds[unit];
  const { raise, lower, refill, enterAttack } = kind.states[fight.state[unit]];
  if (raise >= 0) setFlag(fight, unit, raise, true);
  if (lower >= 0) setFlag(fight, unit, lower, false);
  if (refill) {
    const room = fight.compiled.attackRoom;
    fight.energy[unit] = kind.energy;
    fight.energyAt[unit] = fight.now;
    for (let a = 0; a < kind.attacks.length; a++) {
      fight.readyAt[unit * room + a] = fight.now;
      fight.charges[unit * room + a] = kind.attacks[a].charges;
    }
    if (fight.nextReady[unit] >= 0) fight.nextReady[unit] = fight.now;
    if (fight.alerted[unit]) tryAgainAt(fight, unit, fight.now);
  }
  if (enterAttack >= 0 && kind.attacks[enterAttack].traits.chosen) {
    // Whoever is in the middle of something does it as soon as that is over.
    fight.owedAttack[unit] = enterAttack;
    if (fight.alerted[unit]) tryAgainAt(fight, unit, fight.now);
  }
}

export function setFlag(fight: Fight, unit: number, flag: number, raised: boolean): void {
  if (fight.flags[flag] === raised) return;
  fight.flags[flag] = raised;
  fight.log.add(fight.now, EVENT.flag, unit, NOBODY, flag, raised ? 1 : 0);
}

/** Left or right, drawn when first asked for in a state. */
export function strafeSide(fight: Fight, unit: number): number {
  if (fight.strafeSign[unit] === 0) fight.strafeSign[unit] = fight.chance(unit, PURPOSE.strafe) < 0.5 ? -1 : 1;
  return fight.strafeSign[unit];
}
