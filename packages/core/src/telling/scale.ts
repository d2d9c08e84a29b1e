/** Rulers: where a value lies on the page, and which values get a tick. */

export interface Scale {
  (value: number): number;
  invert: (position: number) => number;
}

export function linear(from: number, to: number, left: number, right: number): Scale {
  const span = to - from || 1;
  const scale = ((value: number) => left + ((value - from) / span) * (right - left)) as Scale;
  scale.invert = (position) => from + ((position - left) / (right - left)) * span;
  return scale;
}

/** A ruler in two pieces with a gap between: the near one drawn wider than the far one. */
export function broken(at: number, to: number, left: number, right: number, nearShare: number, gap: number): Scale {
  const middle = left + (right - left) * nearShare;
  const near = linear(0, at, left, middle - gap / 2);
  const far = linear(at, to, middle + gap / 2, right);
  const scale = ((value: number) => (value <= at ? near(value) : far(value))) as Scale;
  scale.invert = (position) => (position < middle ? Math.min(at, near.invert(position)) : Math.max(at, far.invert(position)));
  return scale;
}

/** Round values from `from` to `to`, about as many as asked: steps of 1, 2 or 5 × a power of ten. */
export function ticks(from: number, to: number, about: number): number[] {
  if (!(to > from)) return [from];
  const raw = (to - from) / about;
  const power = 10 ** Math.floor(Math.log10(raw));
  const step = power * ([1, 2, 5].find((factor) => factor * power >= raw) ?? 10);
  const found: number[] = [];
  for (let i = Math.ceil(from / step - 1e-9); i * step <= to + step * 1e-9; i++) found.push(Number((i * step).toPrecision(12)));
  return found;
}

/** The next round value at or above: 1, 1.5, 2, 3, 4, 5, 6, 8 × a power of ten. */
export function roundUp(value: number): number {
  if (!(value > 0)) return 1;
  const power = 10 ** Math.floor(Math.log10(value));
  return Number(
    (([1, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10].find((factor) => factor * power >= value * (1 - 1e-9)) ?? 10) * power).toPrecision(12),
  );
}

/** Seconds at which a clock gets a tick: whole steps of seconds or minutes, about as many as asked. */
export function clockTicks(until: number, about: number): number[] {
  const step = [1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 1200].find((one) => until / one <= about) ?? 1800;
  return Array.from({ length: Math.floor(until / step) + 1 }, (_, i) => i * step);
}
