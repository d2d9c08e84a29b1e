/** A dial: a number, a word or a yes-or-no of the document that may be turned, and between what. */
import { pointerOf, pointerSteps, valueAt } from '../model/pointer';
import type { NumberTweak } from '../model/tweak';
import { classFields, type Constructor, fieldAt, type QuantityInfo } from '../model/field';
import { Encounter } from '../model/encounter';
import { Project } from '../model/project';
import { Unit } from '../model/unit';
import { fieldLabel, fieldWords, placeName } from '../model/words';
import { unitHeads } from '../model/variants';
import { writtenUnit } from '../model/effective';
import { itemStep } from '../model/walk';
import type { Compiled } from '../engine/tables';
import { type Turn, type TurnOperation, placesOfTurn, turnedProject } from '../model/turn';
import { unitProblems } from '../model/unit-relations';

export interface Dial {
  id: string;
  /** As of a turn. */
  path: string;
  role?: string;
  /** `=`: the number itself; `×`: a factor common to all places. */
  op: TurnOperation;
  /** May turn between; of words and yes-or-no: none. */
  low: number;
  high: number;
  /** Values lie this far from one another; absent: anywhere. */
  step?: number;
  /** Never turned by a search or a screening. */
  locked?: boolean;
  /** Of a word or a yes-or-no: to which it is turned. */
  to?: string | boolean;
}

/** Share of what is written by which a dial is turned to see what it moves. */
export const NUDGE = 0.1;

/** How far a dial may turn where nobody said: this share down, and as a factor up. */
const RANGE = { down: 0.5, up: 1.5 };

/** A turn of a dial. */
export const turnTo = ({ path, role, op }: Dial, value: Turn['value']): Turn => ({ path, ...(role !== undefined && { role }), op, value });

/** Where a dial stands: the number that is written; of a common factor 1; undefined where it leads to no number, or to several. */
export function standsAt(project: Project, dial: Dial): number | undefined {
  const places = placesOfTurn(project, turnTo(dial, 1));
  if (dial.op === '×') return places.length ? 1 : undefined;
  const [place] = places;
  return places.length === 1 && typeof place.before === 'number' ? place.before : undefined;
}

/** What is written where a dial leads, number, word or yes-or-no; of a common factor 1; undefined where it leads nowhere, or to several. */
export function writtenAt(project: Project, dial: Dial): Turn['value'] | undefined {
  if (dial.to === undefined) return standsAt(project, dial);
  const places = placesOfTurn(project, turnTo(dial, dial.to));
  return places.length === 1 ? (places[0].before as string | boolean) : undefined;
}

/** The quantity that a dial turns; undefined where it leads to none. */
export function dialQuantity(project: Project, dial: Dial): QuantityInfo | undefined {
  const field = placesOfTurn(project, turnTo(dial, 1))[0]?.field;
  return field?.kind === 'number' ? field.info : undefined;
}

/** A value at one of the dial's steps, between its ends. */
export function stepped({ low, high, step }: Pick<Dial, 'low' | 'high' | 'step'>, value: number): number {
  const at = step ? Math.round(value / step) * step : value;
  // 0.35 × 1.1 is not 0.38499999999999995 to whoever reads it.
  return Math.min(high, Math.max(low, Number(at.toPrecision(12))));
}

/** A tenth of where a dial stands; where it stands at 0, of how far it may go. */
export const tenthOf = ({ low, high }: Pick<Dial, 'low' | 'high'>, now: number): number =>
  NUDGE * (now === 0 ? Math.max(Math.abs(low), Math.abs(high)) : Math.abs(now));

/**
 * To what a dial is turned to see what it moves: a tenth more than is written, at least a step; a tenth less where it stands at
 * its upper end. Of 0 a tenth of the way to its end. A word or a yes-or-no to what it is put. Undefined where it can't be turned.
 */
export function nudged(project: Project, dial: Dial): Turn['value'] | undefined {
  if (dial.to !== undefined) return dial.to === writtenAt(project, dial) ? undefined : dial.to;
  const now = standsAt(project, dial);
  if (now === undefined || !(dial.high > dial.low)) return undefined;
  const by = tenthOf(dial, now);
  for (const way of [1, -1]) {
    const far = stepped(dial, now + way * Math.max(by, dial.step ?? 0));
    if (far !== now && Math.abs(far - now) >= by / 2) return far;
  }
  return undefined;
}

/** Steps that people write numbers in. */
function stepFor({ whole, unit }: QuantityInfo, now: number): number | undefined {
  if (whole) return 1;
  if (unit === 'hp') return now >= 4 ? 1 : 0.1;
  if (unit === 's') return 0.05;
  return undefined;
}

/** A dial for a number that is written, between half and one and a half times of it, as far as its field and those beside it go. */
export function dialFor(project: Project, path: string): Dial | undefined {
  const wide: Dial = { id: path, path, op: '=', low: 0, high: 0 };
  const info = dialQuantity(project, wide);
  const now = standsAt(project, wide);
  if (!info || now === undefined) return undefined;
  const step = stepFor(info, now);
  const to = (value: number) => (step ? Math.round(value / step) * step : Number(value.toPrecision(3)));
  const ends = now === 0 ? [0, Math.min(info.max, step ? 10 * step : 1)] : [now * RANGE.down, now * RANGE.up].sort((a, b) => a - b);
  const [low, high] = ends.map((end) => Math.min(info.max, Math.max(info.min, Number(to(end).toPrecision(12)))));
  return { ...wide, low: Math.min(low, now), high: Math.max(high, now), ...(step && { step }) };
}

/** A dial that puts a word or a yes-or-no to another; undefined where it leads to none, or to one that has no such word. */
export function wordDial(project: Project, path: string, to: string | boolean): Dial | undefined {
  const dial: Dial = { id: `${path}=${String(to)}`, path, op: '=', low: 0, high: 0, to };
  return placesOfTurn(project, turnTo(dial, to)).length === 1 && writtenAt(project, dial) !== undefined ? dial : undefined;
}

/** A common factor for all places of a path, from half to one and a half times; undefined where it leads to no number. */
export function factorDial(project: Project, path: string, role?: string): Dial | undefined {
  const dial: Dial = {
    id: `${role ?? ''}${path}×`,
    path,
    ...(role !== undefined && { role }),
    op: '×',
    low: RANGE.down,
    high: RANGE.up,
  };
  const places = placesOfTurn(project, turnTo(dial, 1));
  return places.some(({ field, before }) => field.kind === 'number' && before !== 0) ? dial : undefined;
}

/** The dial that a turn is of; undefined where it leads nowhere. */
export const dialOfTurn = (project: Project, { path, role, op, value }: Turn): Dial | undefined =>
  typeof value !== 'number' ? wordDial(project, path, value) : op === '×' ? factorDial(project, path, role) : dialFor(project, path);

/** "Clipper, Health 24 hp; …": what is turned, in words; what leads nowhere is left out. */
export function turnsWords(project: Project, turns: readonly Turn[]): string {
  const words = turns.flatMap((turn) => {
    const dial = dialOfTurn(project, turn);
    return dial ? [putWords(project, dial, turn.value)] : [];
  });
  return words.join('; ');
}

/** Numbers that a screening turns: fields of a unit that say how it looks, or how it is drawn, move nothing. */
const LEFT_OUT = new Set(['/worth']);

/**
 * Every number that the fight of a scenario could go by: of the enemies that may come, and of the encounter itself. Never of the
 * party or the ground: those are what the enemies are balanced against; a dial of theirs is chosen by hand.
 *
 * @param compiled of the scenario: who may come
 * @param zeros also those that are 0: of what is off there is no tenth, so a screening leaves them out
 */
export function numbersOf(project: Project, compiled: Compiled, encounter?: string, zeros = false): Dial[] {
  const heads = unitHeads(project);
  const own = new Set(compiled.names.types);
  const found: Dial[] = [];
  const add = (path: string) => {
    const dial = dialFor(project, path);
    if (dial && dial.high > dial.low && (zeros || standsAt(project, dial) !== 0)) found.push(dial);
  };
  for (const { id, side } of heads) {
    if (side !== 'enemy' || !own.has(id)) continue;
    for (const path of numberPaths(Unit, writtenUnit(project, id), [])) if (!LEFT_OUT.has(path)) add(pointerOf('units', id) + path);
  }
  const fight = project.encounters.find(({ id }) => id === encounter);
  if (fight)
    for (const path of numberPaths(Encounter, fight, []))
      if (!/^\/(party|allies|bySize|limit)/.test(path)) add(pointerOf('encounters', fight.id) + path);
  return found;
}

/**
 * Kinds of numbers of a fight: what at least two of its enemies of a role, or two attacks or states of one, have alike, to be turned
 * by a factor common to all of them.
 */
export function kindsOfNumbers(project: Project, numbers: readonly Dial[]): Dial[] {
  const roles = new Map(unitHeads(project).map(({ id, role }) => [id, role]));
  const found = new Map<string, number>();
  for (const { path } of numbers) {
    const [list, id, ...within] = pointerSteps(path);
    const role = roles.get(id);
    if (list !== 'units' || role === undefined) continue;
    const general = within.map((step, i) => (i > 0 && fieldAt(Unit, within.slice(0, i))?.kind === 'list' ? '*' : step));
    const key = JSON.stringify([role, pointerOf('units', '*', ...general)]);
    found.set(key, (found.get(key) ?? 0) + 1);
  }
  return [...found].flatMap(([key, count]) => {
    const [role, path] = JSON.parse(key) as [string, string];
    return count > 1 ? (factorDial(project, path, role) ?? []) : [];
  });
}

/** Every other word and yes-or-no that the enemies of a fight could go by, each a dial of its own; none that asks for more to be said. */
export function wordsOf(project: Project, compiled: Compiled): Dial[] {
  const own = new Set(compiled.names.types);
  return unitHeads(project).flatMap(({ id, side }) => {
    if (side !== 'enemy' || !own.has(id)) return [];
    return wordPaths(Unit, writtenUnit(project, id), []).flatMap(({ path, words }) =>
      words.flatMap((to) => {
        const dial = wordDial(project, pointerOf('units', id) + path, to);
        return dial && dial.to !== writtenAt(project, dial) && isWhole(project, id, dial) ? dial : [];
      }),
    );
  });
}

/** Whether a unit is one still with a word of it put to another: some ask for a place, a target, a list that was not needed. */
function isWhole(project: Project, id: string, dial: Dial): boolean {
  const turned = turnedProject(project, [turnTo(dial, dial.to!)]);
  return unitProblems(turned, writtenUnit(turned, id), ['units', id]).length === 0;
}

/** Words that say how a unit looks, or on whose side it is, are no matter of its strength. */
const LOOKS = /^\/(role|glyph|colour|side)$/;

function wordPaths(type: Constructor, object: object, at: string[]): { path: string; words: readonly (string | boolean)[] }[] {
  const fields = classFields(type);
  if (!fields) return [];
  return [...fields.kinds].flatMap(([name, kind]) => {
    const value = (object as Record<string, unknown>)[name];
    const path = pointerOf(...at, name);
    if (value === undefined || value === null || LOOKS.test(path)) return [];
    if (kind.kind === 'word') return [{ path, words: kind.words }];
    if (kind.kind === 'yesNo') return [{ path, words: [true, false] }];
    if (kind.kind === 'group') return wordPaths(kind.type(), value, [...at, name]);
    if (kind.kind === 'list')
      return (value as object[]).flatMap((item, i) =>
        typeof item === 'object' ? wordPaths(kind.type(), item, [...at, name, itemStep(item, i)]) : [],
      );
    return [];
  });
}

/** Pointers of all numbers within an object, in the order of its class. Tweaks are not numbers of it: what they change is. */
function numberPaths(type: Constructor, object: object, at: string[]): string[] {
  const fields = classFields(type);
  if (!fields) return [];
  return [...fields.kinds].flatMap(([name, kind]) => {
    const value = (object as Record<string, unknown>)[name];
    if (value === undefined || value === null || name === 'tweaks') return [];
    if (kind.kind === 'number') return typeof value === 'number' ? [pointerOf(...at, name)] : [];
    if (kind.kind === 'group') return numberPaths(kind.type(), value, [...at, name]);
    if (kind.kind === 'list')
      return (value as object[]).flatMap((item, i) =>
        typeof item === 'object' ? numberPaths(kind.type(), item, [...at, name, itemStep(item, i)]) : [],
      );
    return [];
  });
}

export interface DialWords {
  /** "Bite: cooldown" */
  name: string;
  /** "Clipper", "Evening Shift", "enemies of the role swarm" */
  whose: string;
  /** Written behind its value; × for a factor. */
  unit: string;
}

/** What a dial is called. */
export function dialWords(project: Project, dial: Dial): DialWords {
  const steps = pointerSteps(dial.path);
  const unit = dial.op === '×' ? '×' : (dialQuantity(project, dial)?.unit ?? '');
  if (steps[0] === 'units') {
    const whose = steps[1] === '*' ? groupWords(dial.role) : (unitHeads(project).find(({ id }) => id === steps[1])?.name ?? steps[1]);
    const within = steps.slice(2);
    if (within.includes('*')) return { name: placeName(pointerOf(...within)), whose, unit };
    return { name: nameWithin(project, steps, Unit, within), whose, unit };
  }
  const tweak =
    steps[steps.length - 3] === 'tweaks' ? (valueAt(project, pointerOf(...steps.slice(0, -1))) as NumberTweak | undefined) : undefined;
  const owner = (project[steps[0] as 'encounters'] as { id: string; name: string }[] | undefined)?.find?.(({ id }) => id === steps[1]);
  const whose = owner?.name ?? project.name;
  if (tweak) return { name: `tweak of ${placeName(tweak.path).toLowerCase()}`, whose, unit: tweak.op === '×' ? '×' : '' };
  return { name: nameWithin(project, steps, Project, steps), whose, unit };
}

const groupWords = (role: string | undefined): string =>
  role === undefined ? 'everybody' : role === 'enemy' ? 'all enemies' : role === 'party' ? 'the party' : `all of the role ${role}`;

/** "Bite: cooldown": the last thing with a name on the way, and what the field is called. */
function nameWithin(project: Project, steps: readonly string[], root: Constructor, within: readonly string[]): string {
  const label = fieldLabel(root, within);
  let value: unknown = root === Unit ? safeUnit(project, steps[1]) : project;
  let named: string | undefined;
  const groups: string[] = [];
  within.slice(0, -1).forEach((step, i) => {
    const list = Array.isArray(value);
    value = list
      ? (value as unknown[]).find((one, index) => itemStep(one, index) === step)
      : (value as Record<string, unknown> | undefined)?.[step];
    const name = (value as { name?: string } | undefined)?.name;
    const outer = root === Project && i < 2;
    if (list && name && !outer) {
      named = name;
      groups.length = 0;
    } else if (!list && !outer && fieldAt(root, within.slice(0, i + 1))?.kind === 'group')
      groups.push(fieldLabel(root, within.slice(0, i + 1)));
  });
  const group = groups[groups.length - 1];
  const says = group === undefined || PLAIN.test(within[within.length - 2] ?? '') || label.toLowerCase().startsWith(group.toLowerCase());
  const plain = says ? label : `${group.toLowerCase()}, ${label.toLowerCase()}`;
  return named ? `${named}: ${plain.toLowerCase()}` : plain;
}

/** Groups whose fields' labels say enough by themselves. */
const PLAIN = /^(beat|health|body|movement|senses|effects|aim)$/;

function safeUnit(project: Project, id: string): Unit | undefined {
  return unitHeads(project).some((head) => head.id === id) ? writtenUnit(project, id) : undefined;
}

/** A value of a dial as people read it: "1.75 s", "× 1.2", "yes". */
export function dialValue(project: Project, dial: Dial, value: Turn['value']): string {
  if (dial.op === '×') return `× ${Number(Number(value).toPrecision(4))}`;
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  const steps = pointerSteps(dial.path);
  const unitPath = steps[0] === 'units' ? steps.slice(2) : steps;
  if (typeof value === 'string')
    return fieldWords(steps[0] === 'units' ? Unit : Project, unitPath).find(({ id }) => id === value)?.name ?? value;
  const { unit } = dialWords(project, dial);
  return `${Number(value.toPrecision(6))}${unit ? ` ${unit}` : ''}`;
}

/** "Clipper, Health 24 hp": a dial put somewhere. */
export function putWords(project: Project, dial: Dial, value: Turn['value']): string {
  const { name, whose } = dialWords(project, dial);
  return `${whose}, ${name} ${dialValue(project, dial, value)}`;
}
