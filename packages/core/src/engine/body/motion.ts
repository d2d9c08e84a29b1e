/** Where bodies are at an instant, and standing still: a segment is a straight line from a place at a time. */
import { DASH_END, EVENT } from '../../record/log';
import { DASHING, NOBODY } from '../numbers';
import { FightState } from '../state';
import { PER_MICROSECOND } from '../tuning';

export class Motion extends FightState {
  xAt(unit: number, time: number): number {
    return this.x[unit] + this.vx[unit] * ((time - this.segmentStart[unit]) * PER_MICROSECOND);
  }

  yAt(unit: number, time: number): number {
    return this.y[unit] + this.vy[unit] * ((time - this.segmentStart[unit]) * PER_MICROSECOND);
  }

  /** Between the edges of two bodies at this instant; at least 0. */
  gap(a: number, b: number): number {
    if (this.inTurns) return this.cellsBetween(a, b);
    return Math.max(0, this.apart(a, b) - this.radius[a] - this.radius[b]);
  }

  /** In rounds: cells between the nearest of two bodies. Without ground 0, or 1 to whoever stands behind a front row. */
  private cellsBetween(a: number, b: number): number {
    const { board } = this;
    if (board) return board.cells.gap(this.onCell[a], this.sizeOf(a), this.onCell[b], this.sizeOf(b));
    const isBehind = (unit: number) => this.kinds[unit].turns?.row === 'back';
    if (!this.compiled.rounds!.rows || this.side[a] === this.side[b] || !isBehind(b)) return 0;
    return this.living[this.side[b] as 0 | 1].every(isBehind) ? 0 : 1;
  }

  /** In rounds: cells that a body is wide. */
  sizeOf(unit: number): number {
    return this.kinds[unit].turns?.size ?? 1;
  }

  /** Between the centres of two bodies at this instant; in rounds as their edges are. */
  apart(a: number, b: number): number {
    if (this.inTurns) return this.cellsBetween(a, b);
    const dx = this.xAt(b, this.now) - this.xAt(a, this.now);
    const dy = this.yAt(b, this.now) - this.yAt(a, this.now);
    return Math.sqrt(dx * dx + dy * dy);
  }

  /** Centre to a place at this instant. */
  apartFrom(unit: number, x: number, y: number): number {
    const dx = x - this.xAt(unit, this.now);
    const dy = y - this.yAt(unit, this.now);
    return Math.sqrt(dx * dx + dy * dy);
  }

  /** Everyone is where its segment ended. */
  carry(): void {
    const { alive, x, y, vx, vy, segmentStart, now } = this;
    for (let i = 0; i < alive.length; i++) {
      const unit = alive[i];
      const elapsed = (now - segmentStart[unit]) * PER_MICROSECOND;
      x[unit] += vx[unit] * elapsed;
      y[unit] += vy[unit] * elapsed;
      segmentStart[unit] = now;
    }
  }

  /** From where it is to a place, in so many steps a second. */
  goTo(unit: number, x: number, y: number, perSecond: number): void {
    this.vx[unit] = (x - this.x[unit]) * perSecond;
    this.vy[unit] = (y - this.y[unit]) * perSecond;
  }

  /** @param speed m/s: what it has gathered */
  setSpeed(unit: number, speed: number): void {
    this.speed[unit] = speed;
  }

  /** Ends a unit's segment here: it stands until the next step. */
  stand(unit: number): void {
    if (this.dashing[unit]) return this.fallShort(unit, DASH_END.cut);
    if (this.vx[unit] === 0 && this.vy[unit] === 0) return;
    const toX = this.xAt(unit, this.now);
    const toY = this.yAt(unit, this.now);
    const { ground } = this.kinds[unit];
    if (!this.ground.isBounded(ground)) return this.moveTo(unit, toX, toY);
    // A straight way from one free place to another may cut the corner of a wall.
    this.ground.slide(ground, this.x[unit], this.y[unit], toX, toY, this.radius[unit]);
    this.moveTo(unit, this.ground.x, this.ground.y);
  }

  /** A movement carries it straight from where it stands. @param by one of DASHING; @param vx, vy m/s; @param until µs */
  fling(unit: number, by: number, vx: number, vy: number, toX: number, toY: number, until: number): void {
    this.moveTo(unit, this.x[unit], this.y[unit]);
    this.vx[unit] = vx;
    this.vy[unit] = vy;
    this.dashing[unit] = by;
    this.dashFromX[unit] = this.x[unit];
    this.dashFromY[unit] = this.y[unit];
    this.dashToX[unit] = toX;
    this.dashToY[unit] = toY;
    this.dashUntil[unit] = until;
    this.dashMet[unit].length = 0;
    this.dashers.push(unit);
    this.crowd.clear();
  }

  /** Its contacts are worked out anew: earlier ones are stale. */
  planDash(unit: number): number {
    return ++this.dashPlan[unit];
  }

  /** It has met another on its way. */
  meets(unit: number, other: number): void {
    this.dashMet[unit].push(other);
  }

  /** It has come to the end of its movement. @param why one of DASH_END */
  land(unit: number, why: number): void {
    this.endDash(unit, why);
    this.moveTo(unit, this.dashToX[unit], this.dashToY[unit]);
  }

  /** Nothing carries it any more. @param why one of DASH_END */
  private endDash(unit: number, why: number): void {
    const arrives = why === DASH_END.done || why === DASH_END.wall;
    const dx = (arrives ? this.dashToX[unit] : this.xAt(unit, this.now)) - this.dashFromX[unit];
    const dy = (arrives ? this.dashToY[unit] : this.yAt(unit, this.now)) - this.dashFromY[unit];
    const ofAttack = this.dashing[unit] === DASHING.attack;
    this.dashing[unit] = DASHING.not;
    this.dashPlan[unit]++;
    this.dashers.splice(this.dashers.indexOf(unit), 1);
    this.crowd.clear();
    if (ofAttack) this.log.add(this.now, EVENT.dashed, unit, NOBODY, this.attack[unit], Math.sqrt(dx * dx + dy * dy), why);
  }

  /** Its movement ends before its place: it stands where it is, or back on its way where it was above a wall. @param why one of DASH_END */
  fallShort(unit: number, why: number): void {
    const fromX = this.dashFromX[unit];
    const fromY = this.dashFromY[unit];
    const dx = this.xAt(unit, this.now) - fromX;
    const dy = this.yAt(unit, this.now) - fromY;
    const gone = Math.sqrt(dx * dx + dy * dy);
    const share =
      gone > 0 ? this.ground.lastFree(this.kinds[unit].ground, fromX, fromY, dx / gone, dy / gone, gone, this.radius[unit]) / gone : 0;
    this.endDash(unit, why);
    this.moveTo(unit, fromX + dx * share, fromY + dy * share);
  }

  /** Puts a unit somewhere at this instant; it stands there until the next step. A movement that carried it is cut short. */
  moveTo(unit: number, x: number, y: number): void {
    if (this.dashing[unit]) this.endDash(unit, DASH_END.cut);
    this.x[unit] = x;
    this.y[unit] = y;
    this.vx[unit] = this.vy[unit] = this.speed[unit] = 0;
    this.segmentStart[unit] = this.now;
    this.shots.stale = true;
  }
}
