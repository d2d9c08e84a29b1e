/** Roaming: one direction for a time, then another, within a radius of home or a zone. */
import { contains } from '../body/clearance';
import { turnInStep } from '../body/facing';
import { cosine, sine } from '../body/rotation';
import { near, WISH } from '../body/route';
import { arrive, stepAway } from '../body/steps';
import { microsecondsUp } from '../../record/time';
import type { Fight } from '../fight';
import { NOBODY } from '../numbers';
import type { CompiledState } from '../unit-tables';
import { PURPOSE } from '../time/chance';
import { head, rest } from './going';

type Roams = NonNullable<CompiledState['roams']>;

/**
 * A step that would lead out of where it keeps turns it to the middle of that, for the rest of its time; whoever is outside
 * goes there. Where its way is closed it slants aside.
 */
export function roam(fight: Fight, unit: number, most: number, roams: Roams, radius: number): void {
  if (fight.now >= fight.waitUntil[unit]) chooseDirection(fight, unit, roams);
  const zone = fight.compiled.zones[roams.zone];
  const middleX = zone?.middleX ?? fight.homeX[unit];
  const middleY = zone?.middleY ?? fight.homeY[unit];
  const keeps = (x: number, y: number) => (zone ? contains(zone.shape, x, y) : near(x, y, middleX, middleY, radius));
  const x = fight.x[unit];
  const y = fight.y[unit];
  if (!keeps(x, y)) return arrive(fight, unit, middleX, middleY, most);
  if ((fight.headingX[unit] === 0 && fight.headingY[unit] === 0) || most <= 0) return;
  if (!keeps(x + fight.headingX[unit] * most, y + fight.headingY[unit] * most)) {
    const dx = middleX - x;
    const dy = middleY - y;
    const length = Math.sqrt(dx * dx + dy * dy);
    if (length === 0) return;
    head(fight, unit, dx / length, dy / length);
  }
  stepAway(fight, unit, 0 - fight.headingX[unit], 0 - fight.headingY[unit], most);
  if (!keeps(WISH.x, WISH.y)) {
    WISH.x = x;
    WISH.y = y;
    return;
  }
  if (fight.target[unit] === NOBODY && !fight.held[unit]) turnInStep(fight, unit, (WISH.x - x) / most, (WISH.y - y) / most);
}

/** Each time begins where the last one ended. */
function chooseDirection(fight: Fight, unit: number, { min, max, stands }: Roams): void {
  const from = fight.waitUntil[unit] || fight.now;
  const lasts = max > min ? min + (max - min) * fight.chance(unit, PURPOSE.wander) : min;
  rest(fight, unit, from + microsecondsUp(lasts));
  const still = stands > 0 && fight.chance(unit, PURPOSE.wander) < stands;
  const angle = still ? 0 : fight.chance(unit, PURPOSE.wander) * 360;
  head(fight, unit, still ? 0 : cosine(angle), still ? 0 : sine(angle));
}
