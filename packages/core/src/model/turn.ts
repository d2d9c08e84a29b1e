/**
 * A place of the document turned to another value: what a dial does. A turn is written where it would be written by hand, so
 * that whatever comes after it (variants, tiers, skills) follows as it would. An entry of a list is a yes-or-no: no takes it out.
 */
import { editUnit, setAt, setInOrder } from './edit';
import { type FieldKind, type QuantityInfo } from './field';
import { fieldAt } from './field-at';
import { placesAt, pointerOf, pointerSteps, valueAt } from './pointer';
import { Project } from './project';
import { dropEntry, withoutEntry } from './references';
import { writtenUnit } from './effective';
import { Unit } from './unit';
import { unitHeads } from './variants';

export const TURN_OPERATIONS = ['=', '×'] as const;
export type TurnOperation = (typeof TURN_OPERATIONS)[number];

export interface Turn {
  /** JSON Pointer into the project; `/units/ID/…` for variants as well; `*` for each unit, each item of a list. */
  path: string;
  /** With `/units/*`: those of this role alone, or of this side. */
  role?: string;
  /** `=` sets, `×` multiplies each place by the same factor. */
  op: TurnOperation;
  value: number | string | boolean;
}

/** Digits of a product that are kept: what is proved is what is written. */
const DIGITS = 4;

/** A place that a turn changes: of a unit or variant, or of the rest of the document. */
export interface Turned {
  /** Of whom: the id of a unit or variant; absent: of the document. */
  unit?: string;
  /** Within the unit, or the document. */
  path: string;
  field: FieldKind | typeof ENTRY;
  before: unknown;
  after: number | string | boolean;
}

/** An entry of a list, which is there or is not. */
export const ENTRY = { kind: 'entry' } as const;

/** The places of a turn with what stands there and what is to stand there; none where it leads nowhere, or to what can't be turned. */
export function placesOfTurn(project: Project, turn: Turn): Turned[] {
  const steps = pointerSteps(turn.path);
  if (steps[0] !== 'units') return placesWithin(Project, project, steps, turn);
  return unitsOfTurn(project, steps[1], turn.role).flatMap((id) =>
    placesWithin(Unit, writtenUnit(project, id), steps.slice(2), turn).map((one) => ({ ...one, unit: id })),
  );
}

const placesWithin = (root: Root, from: object, steps: readonly string[], turn: Turn): Turned[] =>
  placesAt(from, steps).flatMap((place) => turnedAt(root, from, place, turn));

/** Variants follow the unit that they are of: of a kind of units the written ones alone are turned. */
function unitsOfTurn(project: Project, step: string, role: string | undefined): string[] {
  if (step !== '*') return unitHeads(project).some(({ id }) => id === step) ? [step] : [];
  return project.units.filter((unit) => role === undefined || unit.role === role || unit.side === role).map(({ id }) => id);
}

/** A tweak's value: what it may be, the field that it changes says. */
const ANY_NUMBER: FieldKind = { kind: 'number', info: { label: 'value', unit: '', min: -1e9, max: 1e9, about: 'of a tweak' } };

type Root = typeof Project | typeof Unit;

function turnedAt(root: Root, from: object, place: string[], { op, value }: Turn): Turned[] {
  const path = pointerOf(...place);
  const before = valueAt(from, path);
  if (isEntry(root, place)) return op === '=' && value === false ? [{ path, field: ENTRY, before: true, after: false }] : [];
  const field = fieldAt(root, place) ?? (typeof before === 'number' ? ANY_NUMBER : undefined);
  if (!field) return [];
  if (field.kind === 'number') {
    if (typeof value !== 'number' || typeof before !== 'number') return [];
    const asked = op === '×' ? Number((before * value).toPrecision(DIGITS)) : value;
    return [{ path, field, before, after: within(asked, field.info) }];
  }
  const fits = (field.kind === 'word' && field.words.includes(String(value))) || (field.kind === 'yesNo' && typeof value === 'boolean');
  return op === '=' && fits ? [{ path, field, before, after: value }] : [];
}

/** Whether a pointer ends at an entry of a list of objects, within what the document keeps in its own lists. */
export function isEntry(root: Root, steps: readonly string[]): boolean {
  const list = fieldAt(root, steps.slice(0, -1));
  return list?.kind === 'list' && steps.length >= (root === Unit ? 2 : 4);
}

/** A number as a field takes it. */
export function within(value: number, { min, max, whole }: QuantityInfo): number {
  const kept = Math.min(Math.max(value, min), max);
  return whole ? Math.floor(kept + 0.5) : kept;
}

/**
 * The project with places turned, in the order in which they are given; a number that passes the one beside it which it may not
 * pass takes it along. Turns that lead nowhere change nothing.
 */
export function turnedProject(project: Project, turns: readonly Turn[]): Project {
  // What is turned of one unit is written at once: its variants are looked after once.
  const ofUnits = new Map<string, { turn: Turn; steps: string[] }[]>();
  const ofLists = new Map<keyof Project, Turn[]>();
  for (const turn of turns) {
    const steps = pointerSteps(turn.path);
    if (steps[0] !== 'units') {
      const list = steps[0] as keyof Project;
      ofLists.set(list, [...(ofLists.get(list) ?? []), turn]);
      continue;
    }
    for (const id of unitsOfTurn(project, steps[1], turn.role)) {
      const own = ofUnits.get(id) ?? [];
      own.push({ turn, steps: steps.slice(2) });
      ofUnits.set(id, own);
    }
  }
  let now = project;
  for (const [list, own] of ofLists) {
    if (typeof project[list] !== 'object') continue;
    now = { ...now, [list]: structuredClone(now[list]) };
    const places = (turn: Turn) => placesWithin(Project, now, pointerSteps(turn.path), turn);
    for (const turn of own) for (const place of places(turn)) set(now, place);
    for (const path of entriesOut(own, places)) now = withoutEntry(now, pointerSteps(path));
  }
  for (const [id, own] of ofUnits)
    now = editUnit(now, id, (unit) => {
      for (const { turn, steps } of own) for (const place of placesWithin(Unit, unit, steps, turn)) set(unit, place);
      const out = entriesOut(own, ({ turn, steps }) => placesWithin(Unit, unit, steps, turn));
      for (const path of out) dropEntry(unit, pointerSteps(path));
    });
  return now;
}

/** Entries that turns take out, each once; of a list without ids the last first, so that the others stay where they are. */
function entriesOut<T>(turns: readonly T[], placesOf: (turn: T) => Turned[]): string[] {
  const paths = turns.flatMap((turn) => placesOf(turn).flatMap(({ path, field }) => (field === ENTRY ? [path] : [])));
  const numbers = (path: string) => pointerSteps(path).map(Number);
  const later = (a: number[], b: number[]) => {
    const at = a.findIndex((step, i) => step !== b[i] && !(Number.isNaN(step) && Number.isNaN(b[i])));
    return at < 0 ? b.length - a.length : (b[at] || 0) - (a[at] || 0);
  };
  return [...new Set(paths)].sort((a, b) => later(numbers(a), numbers(b)));
}

function set(root: object, { path, field, after }: Turned): void {
  if (field === ENTRY) return;
  if (typeof after === 'number') setInOrder(root, path, after);
  else setAt(root, path, after);
}

/** A turn in the key of a scenario. */
export const turnsKey = (turns: readonly Turn[]): string =>
  encodeURIComponent(JSON.stringify(turns.map(({ path, role, op, value }) => [path, op, value, ...(role === undefined ? [] : [role])])));

/** Back from the key; what is none is left to be refused where it is run. */
export function turnsOf(key: string): Turn[] {
  const all = JSON.parse(decodeURIComponent(key)) as [string, TurnOperation, Turn['value'], string?][];
  return all.map(([path, op, value, role]) => ({ path, op, value, ...(role !== undefined && { role }) }));
}
