/** What a search is asked: goals in some fights, numbers that may be turned, what is preferred; and how far a point is from what is written. */
import type { Project } from '../../model/project';
import type { PREFERRED } from '../../model/question';
import { type Scenario, scenarioKey } from '../../analysis/scenario';
import { type Turn } from '../../model/turn';
import { type Dial, standsAt, stepped, turnTo } from '../dial';
import type { Objective } from '../goal';

export type Preferred = keyof typeof PREFERRED;

export interface FindProblem {
  project: Project;
  /** Those of which something is wanted, in each fight. */
  goals: readonly Objective[];
  /** Fights, each once. */
  cells: readonly Scenario[];
  dials: readonly Knob[];
  prefer: Preferred;
  /** Runs that the search may take, in all fights together. */
  budget: number;
}

/** A dial as a search turns it. */
export interface Knob {
  dial: Dial;
  now: number;
}

/** Where each dial is put, in shares of its range from what is written; of a common factor as its natural logarithm. */
export type DialPoint = readonly number[];

/** Dials that can be turned by a search: numbers with somewhere to go, not locked. */
export function knobsOf(project: Project, dials: readonly Dial[]): Knob[] {
  return dials.flatMap((dial) => {
    const now = dial.to === undefined && !dial.locked ? standsAt(project, dial) : undefined;
    return now !== undefined && dial.high > dial.low ? [{ dial, now }] : [];
  });
}

/** Runs in one fight without which a search can't come to anything: what does nothing, points all around, one promise, its proof. */
const leastBudget = (dials: number): number => 20 * (dials + 1) + 200 + 100 * (dials + 2) + 300 + 1500;

/** @throws Error for nothing to look for, or nothing to turn */
export function findProblem(
  project: Project,
  objectives: readonly Objective[],
  dials: readonly Dial[],
  { prefer = 'change', budget = 20_000 }: { prefer?: Preferred; budget?: number } = {},
): FindProblem {
  const goals = objectives.filter(({ band }) => band && (band.low !== undefined || band.high !== undefined));
  if (!goals.length) throw new Error('nothing is wanted of the fight: give a goal a value it is to lie above or below');
  const knobs = knobsOf(project, dials);
  if (!knobs.length) throw new Error('no number can be turned: all are locked, are words, or have nowhere to go');
  const cells = [...new Map(goals.map(({ cell }) => [scenarioKey(cell), cell])).values()];
  const least = leastBudget(knobs.length) * cells.length;
  if (budget < least) throw new Error(`the budget must be at least ${least} runs for so many numbers and fights, it is ${budget}`);
  return { project, goals, cells, dials: knobs, prefer, budget };
}

/** Digits of a value that has no step: 7.11 m/s says as much as 7.11363. */
const DIGITS = 3;

/** The value of a dial at a place; where it stands at 0, whatever its digits. */
export function valueOf({ dial, now }: Knob, at: number): number {
  if (at === 0) return dial.op === '×' ? 1 : now;
  const value = dial.op === '×' ? Math.exp(at) : now + at * (dial.high - dial.low);
  return stepped(dial, dial.step ? value : Number(value.toPrecision(DIGITS)));
}

/** Back. */
export const placeOf = ({ dial, now }: Knob, value: number): number =>
  dial.op === '×' ? Math.log(value) : (value - now) / (dial.high - dial.low);

/** How far a dial may go, down and up. */
export const endsOf = (knob: Knob): [number, number] => [placeOf(knob, knob.dial.low), placeOf(knob, knob.dial.high)];

/** A point at the steps of its dials, within their ranges. */
export const steppedPoint = (knobs: readonly Knob[], point: DialPoint): number[] =>
  point.map((at, i) => placeOf(knobs[i], valueOf(knobs[i], at)));

/** How far a point is from what is written: Σ |Δ| ÷ range, of factors |ln|. */
export const distanceOf = (point: DialPoint): number => point.reduce((sum, at) => sum + Math.abs(at), 0);

/** What is turned at a point; what stands as it is written is not turned. */
export function turnsAt(knobs: readonly Knob[], point: DialPoint): Turn[] {
  return knobs.flatMap((knob, i) => {
    const value = valueOf(knob, point[i]);
    const written = knob.dial.op === '×' ? 1 : knob.now;
    return value === written ? [] : [turnTo(knob.dial, value)];
  });
}

/** The fight at a point. */
export function cellAtPoint(cell: Scenario, knobs: readonly Knob[], point: DialPoint): Scenario {
  const turns = turnsAt(knobs, point);
  return turns.length ? { ...cell, turned: [...(cell.turned ?? []), ...turns] } : cell;
}
