/**
 * Sine and cosine by our own polynomials, the same to the last bit on every machine (Math.sin is not). Angles are
 * reduced to ±45° by exact symmetries, so multiples of 90° come out exact; there the Taylor series to x¹⁵ and x¹⁶ err by
 * less than (π/4)¹⁷ / 17! < 5e-17, below the rounding of a double.
 */
const RADIANS = 0.017453292519943295;

function sineOf(x: number): number {
  const q = x * x;
  return x * (1 - (q / 6) * (1 - (q / 20) * (1 - (q / 42) * (1 - (q / 72) * (1 - (q / 110) * (1 - (q / 156) * (1 - q / 210)))))));
}

function cosineOf(x: number): number {
  const q = x * x;
  return (
    1 - (q / 2) * (1 - (q / 12) * (1 - (q / 30) * (1 - (q / 56) * (1 - (q / 90) * (1 - (q / 132) * (1 - (q / 182) * (1 - q / 240)))))))
  );
}

/** Cosine of an angle in degrees. */
export function cosine(degrees: number): number {
  const turns = Math.floor(degrees / 90 + 0.5);
  const x = (degrees - turns * 90) * RADIANS;
  const quarter = ((turns % 4) + 4) % 4;
  if (quarter === 0) return cosineOf(x);
  if (quarter === 1) return 0 - sineOf(x);
  return quarter === 2 ? 0 - cosineOf(x) : sineOf(x);
}

/** Sine of an angle in degrees. */
export function sine(degrees: number): number {
  return cosine(degrees - 90);
}
