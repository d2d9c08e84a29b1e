/** Where bodies are at an instant, and standing still: a segment is a straight line from a place at a time. */
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
    return Math.max(0, this.apart(a, b) - this.radius[a] - this.radius[b]);
  }

  /** Between the centres of two bodies at this instant. */
  apart(a: number, b: number): number {
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
    if (this.vx[unit] === 0 && this.vy[unit] === 0) return;
    const toX = this.xAt(unit, this.now);
    const toY = this.yAt(unit, this.now);
    const { ground } = this.kinds[unit];
    if (!this.ground.isBounded(ground)) return this.moveTo(unit, toX, toY);
    // A straight way from one free place to another may cut the corner of a wall.
    this.ground.slide(ground, this.x[unit], this.y[unit], toX, toY, this.radius[unit]);
    this.moveTo(unit, this.ground.x, this.ground.y);
  }

  /** Puts a unit somewhere at this instant; it stands there until the next step. */
  moveTo(unit: number, x: number, y: number): void {
    this.x[unit] = x;
    this.y[unit] = y;
    this.vx[unit] = this.vy[unit] = this.speed[unit] = 0;
    this.segmentStart[unit] = this.now;
    this.shots.stale = true;
  }
}
