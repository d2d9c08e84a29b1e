/** Sent to strike what stands somewhere: which thing, and whom instead of it. */
import { inReach } from '../body/reach';
import type { Fight } from '../fight';
import { NOBODY } from '../numbers';
import { DO } from '../unit-tables';
import { HINDERED_FOR } from '../tuning';

/** The foe's thing that its state sends a unit to strike; NOBODY: it is sent to none, or that is destroyed. */
export function thingToStrike(fight: Fight, unit: number): number {
  if (fight.does[unit] !== DO.goTo) return NOBODY;
  const { strikes, toPoint } = fight.kinds[unit].states[fight.state[unit]];
  const thing = strikes === 'no' ? NOBODY : (fight.things[toPoint] ?? NOBODY);
  return thing !== NOBODY && fight.isAlive[thing] && fight.side[thing] !== fight.side[unit] ? thing : NOBODY;
}

/** Whom it strikes now: the thing, or whoever its state lets come before it. */
export function whomToStrike(fight: Fight, unit: number, thing: number): number {
  const kind = fight.kinds[unit];
  const { strikes } = kind.states[fight.state[unit]];
  if (strikes === 'hinders') {
    const by = fight.hurtBy[unit];
    const lately =
      by !== NOBODY && fight.isAlive[by] && fight.side[by] !== fight.side[unit] && fight.now - fight.hurtAt[unit] < HINDERED_FOR;
    return lately && inReach(fight.apart(unit, by), kind.lose) ? by : thing;
  }
  if (strikes !== 'both') return thing;
  let nearest = thing;
  let least = kind.attacks.reduce((most, { rangeMax }) => Math.max(most, rangeMax), 0);
  for (const foe of fight.living[1 - fight.side[unit]]) {
    const gap = fight.gap(unit, foe);
    if (foe === thing || !inReach(gap, least) || (nearest !== thing && gap >= least)) continue;
    nearest = foe;
    least = gap;
  }
  return nearest;
}
