/** Along two dials at once: each objective at every pair of values, and where all that is wanted holds. */
import { type Verdict } from '../measures/enough';
import type { Scenario } from '../analysis/scenario';
import { type AlongPoint, alongPoint, gridOf } from './along';
import { type Dial, stepped } from './dial';
import type { Ran } from '../analysis/effect';
import type { Objective } from './goal';
import { turnedCell } from './moves';

/** Values of each dial of a map at first, and how many it may come to. */
export const MAP_POINTS = 5;
export const MOST_MAP_POINTS = 9;

export interface MapAxis {
  dial: Dial;
  /** Where it stands. */
  now: number;
  /** Values besides the usual ones. */
  more?: readonly number[];
}

export interface MapPoint {
  x: number;
  y: number;
  /** One for each objective; undefined where it has not been run. */
  at: (AlongPoint | undefined)[];
  /** Of all objectives of which something is wanted: met where all are, missed where one is, else undecided; none: nothing is wanted, or not run. */
  all?: 'met' | 'missed' | 'undecided';
}

export const mapValues = ({ dial, now, more = [] }: MapAxis): number[] =>
  [...new Set([...gridOf(dial, now, MAP_POINTS), ...more])].sort((a, b) => a - b);

/**
 * Values worth a row or a column more: half-way between neighbours of which one has all that is wanted and the other has not, where
 * both are decided or one of them is not.
 */
export function mapBetween(axes: readonly [MapAxis, MapAxis], points: readonly MapPoint[]): [number[], number[]] {
  const found = axes.map((axis, which): number[] => {
    const values = mapValues(axis);
    const across = which === 0 ? ('x' as const) : ('y' as const);
    const along = which === 0 ? ('y' as const) : ('x' as const);
    const changes = values.slice(1).filter((value, i) =>
      points.some((point) => {
        if (point[across] !== value) return false;
        const before = points.find((one) => one[across] === values[i] && one[along] === point[along]);
        return before?.all !== undefined && point.all !== undefined && before.all !== point.all;
      }),
    );
    const between = changes.map((value) => stepped(axis.dial, Number(((value + values[values.indexOf(value) - 1]) / 2).toPrecision(3))));
    return [...new Set(between)].filter((value) => !values.includes(value)).slice(0, Math.max(0, MOST_MAP_POINTS - values.length));
  });
  return [found[0], found[1]];
}

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
