/**
 * The floor: a bare loop of the same shape in plain JavaScript. Nearest target, move, cooldown, hit, for 26 units (two
 * against twenty-four) at 20 steps a second for 60 s, and nothing else.
 */
const UNITS = 26;
const PARTY = 2;
const STEP = 0.05;
const STEPS = 1200;

export const FLOOR_UNIT_STEPS = UNITS * STEPS;

export function floor() {
  const x = new Float64Array(UNITS);
  const y = new Float64Array(UNITS);
  const health = new Float64Array(UNITS).fill(1e6);
  const ready = new Float64Array(UNITS);
  const side = new Uint8Array(UNITS);
  for (let i = 0; i < UNITS; i++) {
    side[i] = i < PARTY ? 0 : 1;
    x[i] = i < PARTY ? i : 12 + (i % 5);
    y[i] = i < PARTY ? 0 : Math.floor(i / 5);
  }
  let hits = 0;
  for (let step = 0; step < STEPS; step++) {
    const time = step * STEP;
    for (let i = 0; i < UNITS; i++) {
      let nearest = -1;
      let least = Infinity;
      for (let j = 0; j < UNITS; j++) {
        if (side[j] === side[i]) continue;
        const dx = x[j] - x[i];
        const dy = y[j] - y[i];
        const square = dx * dx + dy * dy;
        if (square < least) {
          least = square;
          nearest = j;
        }
      }
      const distance = Math.sqrt(least);
      if (distance > 1.2) {
        const share = Math.min(4 * STEP, distance - 1.2) / distance;
        x[i] += (x[nearest] - x[i]) * share;
        y[i] += (y[nearest] - y[i]) * share;
      } else if (time >= ready[i]) {
        ready[i] = time + 1.2;
        health[nearest] -= 5;
        hits++;
      }
    }
  }
  return hits + health[0];
}
