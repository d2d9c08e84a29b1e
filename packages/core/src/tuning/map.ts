/** Along two dials at once: each objective at every pair of values, and where all that is wanted holds. */
import { type Verdict } from '../measures/enough';
import type { Scenario } from '../analysis/scenario';
import { type AlongPoint, alongPoint, gridOf } from './along';
import { type Dial } from './dial';
import type { Ran } from '../analysis/effect';
import type { Objective } from './goal';
import { turnedCell } from './moves';

/** Values of each dial of a map. */
export const MAP_POINTS = 5;

export interface MapAxis {
  dial: Dial;
  /** Where it stands. */
  now: number;
}

export interface MapPoint {
  x: number;
  y: number;
  /** One for each objective; undefined where it has not been run. */
  at: (AlongPoint | undefined)[];
  /** Of all objectives of which something is wanted: met where all are, missed where one is, else undecided; none: nothing is wanted, or not run. */
  all?: 'met' | 'missed' | 'undecided';
}

export const mapValues = ({ dial, now }: MapAxis): number[] => gridOf(dial, now, MAP_POINTS);

/** The cell of a point: what stands as it is written is not turned, so that the middle of the map is what is known already. */
export function mapCell(cell: Scenario, [a, b]: readonly [MapAxis, MapAxis], x: number, y: number): Scenario {
  const along = x === a.now ? cell : turnedCell(cell, a.dial, x);
  return y === b.now ? along : turnedCell(along, b.dial, y);
}

/** Points row by row, from the least value of the second dial to its largest. @param ran undefined: not run */
export function mapOf(
  cell: Scenario,
  axes: readonly [MapAxis, MapAxis],
  objectives: readonly Objective[],
  ran: (cell: Scenario, objective: Objective) => Ran | undefined,
): MapPoint[] {
  const [xs, ys] = axes.map(mapValues);
  return ys.flatMap((y) =>
    xs.map((x) => {
      const own = mapCell(cell, axes, x, y);
      const at = objectives.map((objective) => {
        const found = ran(own, objective);
        return found && alongPoint(x, objective, found.values);
      });
      return {
        x,
        y,
        at,
        ...allOf(
          at.flatMap((point) => point?.verdict ?? []),
          objectives,
          at,
        ),
      };
    }),
  );
}

function allOf(
  verdicts: readonly Verdict[],
  objectives: readonly Objective[],
  at: readonly (AlongPoint | undefined)[],
): Pick<MapPoint, 'all'> {
  const wanted = objectives.filter(({ band }) => band).length;
  if (!wanted || at.some((point) => !point)) return {};
  if (verdicts.some((verdict) => verdict === 'missedLow' || verdict === 'missedHigh')) return { all: 'missed' };
  return { all: verdicts.every((verdict) => verdict === 'met') ? 'met' : 'undecided' };
}
