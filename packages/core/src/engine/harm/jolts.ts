/** What jolts whom a hit strikes: its attack breaks off, it staggers, it is pushed away and against what stops it. */
import { EVENT } from '../../record/log';
import type { Fight } from '../fight';
import type { Jolt } from '../records';
import { pushBack, wholeCells } from '../rounds/places';
import { hurt } from './damage';
import { breakable, stagger } from './effects';
import { interrupt } from './interrupt';

/** Carried out once all hits of an instant are applied. */
export function applyJolt(fight: Fight, jolt: Jolt): void {
  const { victim, breaks } = jolt;
  if (!fight.isAlive[victim] || fight.health[victim] <= 0) return;
  if (breaks >= 0 && breakable(fight, victim)) interrupt(fight, victim, breaks);
  if (jolt.stagger > 0) stagger(fight, jolt);
  if (jolt.knockback > 0) knockBack(fight, jolt);
}

/** Away from where the hit came from; where the two coincide, the way its attacker faces. At once, sliding along walls. */
function knockBack(fight: Fight, { attacker, victim, attack, knockback, crush, x, y }: Jolt): void {
  const kind = fight.kinds[victim];
  const distance = knockback * (1 - kind.steadiness);
  if (distance <= 0) return;
  if (fight.inTurns) {
    if (!fight.board) return;
    const gone = pushBack(fight, attacker, victim, distance, x, y);
    fight.log.add(fight.now, EVENT.knock, attacker, victim, attack, gone);
    // What stops it asks nothing of its armour.
    const left = wholeCells(distance) - gone;
    if (left > 0 && crush > 0) hurt(fight, EVENT.crush, attacker, victim, attack, crush * left, -1, false);
    return;
  }
  if (fight.dashing[victim]) fight.stand(victim);
  const fromX = fight.xAt(victim, fight.now);
  const fromY = fight.yAt(victim, fight.now);
  let dx = fromX - x;
  let dy = fromY - y;
  const length = Math.sqrt(dx * dx + dy * dy);
  if (length > 0) {
    dx /= length;
    dy /= length;
  } else {
    dx = fight.fx[attacker];
    dy = fight.fy[attacker];
  }
  fight.ground.slide(kind.ground, fromX, fromY, fromX + dx * distance, fromY + dy * distance, fight.radius[victim]);
  const mx = fight.ground.x - fromX;
  const my = fight.ground.y - fromY;
  fight.moveTo(victim, fight.ground.x, fight.ground.y);
  fight.log.add(fight.now, EVENT.knock, attacker, victim, attack, Math.sqrt(mx * mx + my * my));
}
