/** Which numbers, words and entries of a fight a dial can be made of. */
import { pointerOf, pointerSteps, valueAt } from '../model/pointer';
import { classFields, type Constructor } from '../model/field';
import { fieldAt } from '../model/field-at';
import { Encounter } from '../model/encounter';
import type { Project } from '../model/project';
import { type Dial, dialFor, factorDial, standsAt, turnTo, wordDial } from './dial';
import { Unit } from '../model/unit';
import { unitHeads } from '../model/variants';
import { setAt } from '../model/edit';
import { writtenUnit } from '../model/effective';
import { dropEntry } from '../model/references';
import { itemStep } from '../model/walk';
import type { Compiled } from '../engine/tables';
import { turnedProject } from '../model/turn';
import { relationProblems } from '../model/relations';
import { unitProblems } from '../model/unit-relations';

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

/** Entries of lists that can be taken out of the enemies of a fight, or of the fight itself, and leave what is whole still. */
export function entriesOf(project: Project, compiled: Compiled, encounter?: string): Dial[] {
  const own = new Set(compiled.names.types);
  const ofUnits = unitHeads(project).flatMap(({ id, side }) => {
    if (side !== 'enemy' || !own.has(id)) return [];
    const unit = writtenUnit(project, id);
    return entryPaths(Unit, unit, []).flatMap((path) => {
      const rest = structuredClone(unit);
      dropEntry(rest, pointerSteps(path));
      return isWhole(project, rest) ? (wordDial(project, pointerOf('units', id) + path, false) ?? []) : [];
    });
  });
  const fight = project.encounters.find(({ id }) => id === encounter);
  if (!fight) return ofUnits;
  const ofFight = entryPaths(Encounter, fight, []).flatMap((path) => {
    const dial = wordDial(project, pointerOf('encounters', fight.id) + path, false);
    return dial && !relationProblems(turnedProject(project, [turnTo(dial, false)])).length ? dial : [];
  });
  return [...ofUnits, ...ofFight];
}

function entryPaths(type: Constructor, object: object, at: string[]): string[] {
  return [...(classFields(type)?.kinds ?? [])].flatMap(([name, kind]) => {
    const value = (object as Record<string, unknown>)[name];
    if (value === undefined || value === null) return [];
    if (kind.kind === 'group') return entryPaths(kind.type(), value, [...at, name]);
    if (kind.kind !== 'list') return [];
    return (value as object[]).flatMap((item, i) => {
      const here = [...at, name, itemStep(item, i)];
      return [pointerOf(...here), ...entryPaths(kind.type(), item, here)];
    });
  });
}

/** Every other word and yes-or-no that the enemies of a fight could go by, each a dial of its own; none that asks for more to be said. */
export function wordsOf(project: Project, compiled: Compiled): Dial[] {
  const own = new Set(compiled.names.types);
  return unitHeads(project).flatMap(({ id, side }) => {
    if (side !== 'enemy' || !own.has(id)) return [];
    const unit = writtenUnit(project, id);
    const tried = structuredClone(unit);
    return wordPaths(Unit, unit, []).flatMap(({ path, words }) => {
      const before = valueAt(unit, path);
      const others = words.filter((to) => {
        setAt(tried, path, to);
        return to !== before && isWhole(project, tried);
      });
      setAt(tried, path, before);
      return others.flatMap((to) => wordDial(project, pointerOf('units', id) + path, to) ?? []);
    });
  });
}

/** Whether a unit is one still: some words ask for a place, a target, a list that was not needed. */
const isWhole = (project: Project, unit: Unit): boolean => unitProblems(project, unit, ['units', unit.id]).length === 0;

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
