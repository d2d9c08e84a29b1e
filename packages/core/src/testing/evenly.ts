import * as fc from 'fast-check';

/**
 * Numbers evenly over a range, now and then one that is odd. fc.double draws evenly among the doubles there are: nine of ten between
 * −10 and 10 are within a thousandth of 0, so places drawn so are all one place.
 */
export const evenly = (min: number, max: number): fc.Arbitrary<number> =>
  fc.oneof(
    { weight: 9, arbitrary: fc.nat({ max: 2 ** 31 - 1 }).map((part) => min + ((max - min) * part) / (2 ** 31 - 1)) },
    { weight: 1, arbitrary: fc.double({ min, max, noNaN: true }) },
  );
