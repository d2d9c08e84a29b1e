import 'reflect-metadata/lite';
import { instanceToPlain, plainToInstance } from 'class-transformer';
import { type ValidationError, validateSync } from 'class-validator';
import { type Lens, effectiveEncounter, effectiveUnit, lenses, tweakApplies } from './effective';
import type { Encounter } from './encounter';
import type { Constructor } from './field';
import { LIMITS } from './limits';
import { PatchError } from './patch';
import { type Json, isDictionary, pointerOf, stepInto } from './pointer';
import { type Problem, InvalidDocument } from './problem';
import { FORMAT, FORMAT_VERSION, Project } from './project';
import { partsBelow, read } from './reading';
import { encounterOrderProblems, relationProblems } from './relations';
import { roundsProblems } from './rounds-relations';
import type { Tier } from './tier';
import type { Setting } from './tweak';
import { Unit } from './unit';
import { orderProblems, unitProblems } from './unit-relations';
import { upgraded } from './upgrades';
import { type UnitHead, VariantError, unitHeads, alteredUnit } from './variants';

const STRICTLY = { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true };

/**
 * A complete project from untrusted JSON: what may be left out is filled with its default, everything else must be
 * right. The result is plain data.
 * @throws InvalidDocument with every problem found: path, rule, value
 */
export function parseProject(given: Json): Project {
  const input = isDictionary(given) && given.format === FORMAT ? upgraded(given) : given;
  if (!isDictionary(input)) throw new InvalidDocument([{ path: '', rule: 'object', value: input, message: 'must be an object' }]);
  if (input.format !== FORMAT || input.version !== FORMAT_VERSION) {
    const path = input.format !== FORMAT ? 'format' : 'version';
    const wanted = path === 'format' ? `"${FORMAT}"` : FORMAT_VERSION;
    throw new InvalidDocument([{ path: `/${path}`, rule: path, value: input[path], message: `must be ${wanted}` }]);
  }
  const deepest = placeBelow(input, LIMITS.depth);
  if (deepest) {
    const message = `must not be nested deeper than ${LIMITS.depth} levels`;
    throw new InvalidDocument([{ path: pointerOf(...deepest), rule: 'limit', value: LIMITS.depth, message }]);
  }
  const project = (read(Project, input) ?? examined(Project, input)) as Project;
  const relations = relationProblems(project);
  if (relations.length) throw new InvalidDocument(relations);
  const varied = variantProblems(project);
  if (varied.length) throw new InvalidDocument(varied);
  const turns = roundsProblems(project);
  if (turns.length) throw new InvalidDocument(turns);
  const judged = effectiveProblems(project);
  if (judged.length) throw new InvalidDocument(judged);
  return project;
}

/** What may break a rule, by the rules themselves. @throws InvalidDocument where it does */
export function examined(type: Constructor, input: Json): Json {
  const problems = breaches(type, input, []);
  if (problems.length) throw new InvalidDocument(problems);
  return filled(type, input);
}

/** What is said with the defaults of the classes, as plain data. */
export function filled(type: Constructor, input: Json): Json {
  return withoutAbsent(instanceToPlain(plainToInstance(type, input, { enableCircularCheck: false })));
}

/** What breaks a rule, looked for only where something may. */
export function breaches(type: Constructor, input: Json, at: string[]): Problem[] {
  if (read(type, input)) return [];
  const below = partsBelow(type, input);
  return below ? below.flatMap((part) => breaches(part.type, part.value, [...at, ...part.at])) : broken(type, input, at);
}

/** What an object and all within it break, by the rules that class-validator keeps. */
export function broken(type: Constructor, input: Json, at: string[]): Problem[] {
  const instance = plainToInstance(type, input, { enableCircularCheck: false }) as object;
  return validateSync(instance, STRICTLY).flatMap((error) => problemsOf(error, input, at));
}

/** Drops fields whose value is undefined: an absent field is absent. */
function withoutAbsent(value: Json): Json {
  if (Array.isArray(value)) return value.map(withoutAbsent);
  if (!isDictionary(value)) return value;
  return Object.fromEntries(
    Object.entries(value)
      .filter(([, v]) => v !== undefined)
      .map(([k, v]) => [k, withoutAbsent(v)]),
  );
}

/** The steps to the first place that lies so many levels down and goes on from there; undefined where none does. */
function placeBelow(value: Json, levels: number): string[] | undefined {
  if (typeof value !== 'object' || value === null) return undefined;
  if (levels === 0) return [];
  for (const [key, item] of Object.entries(value)) {
    const below = placeBelow(item, levels - 1);
    if (!below) continue;
    const own = Array.isArray(value) && isDictionary(item) && typeof item.id === 'string' ? item.id : key;
    return [own, ...below];
  }
  return undefined;
}

const RULES: Record<string, string> = {
  whitelistValidation: 'unknown',
  isNumber: 'number',
  isInt: 'whole',
  isIn: 'oneOf',
  isString: 'text',
  isArray: 'list',
  isGroup: 'object',
  nestedValidation: 'object',
  isBoolean: 'yesNo',
  isValue: 'value',
  arrayMaxSize: 'limit',
  arrayMinSize: 'limit',
};

/** The document's pointer for a class-validator error: items of lists by their id. */
function problemsOf(error: ValidationError, parent: Json, at: string[]): Problem[] {
  const value = isDictionary(parent) || Array.isArray(parent) ? stepOf(parent, error.property) : undefined;
  const step = Array.isArray(parent) && isDictionary(value) && typeof value.id === 'string' ? value.id : error.property;
  const here = [...at, step];
  const own = Object.entries(error.constraints ?? {}).map(([name, message]) => ({
    path: pointerOf(...here),
    rule: RULES[name] ?? name,
    value,
    message: messageOf(name, message, error.property),
  }));
  // A value of the wrong kind breaks every rule of its field; the kind is the one to mend.
  const kind = own.find(({ rule }) => ['number', 'whole', 'text', 'list', 'object', 'oneOf', 'unknown', 'yesNo'].includes(rule));
  return [...(kind ? [kind] : own), ...(error.children ?? []).flatMap((child) => problemsOf(child, value, here))];
}

function stepOf(parent: Json, property: string): Json {
  return Array.isArray(parent) ? parent[Number(property)] : stepInto(parent, property);
}

function messageOf(rule: string, message: string, property: string): string {
  if (rule === 'whitelistValidation') return 'is not a field of the format';
  if (rule === 'isNumber') return 'must be a finite number';
  if (rule === 'nestedValidation') return 'must be an object';
  return message.startsWith(`${property} `) ? message.slice(property.length + 1) : message;
}

/** What a variant comes to must be as sound as any unit: its class's rules, and how its parts refer to one another. */
function variantProblems(project: Project): Problem[] {
  const problems: Problem[] = [];
  for (const { id } of project.variants) {
    const at = ['variants', id];
    try {
      const unit = alteredUnit(project, id);
      const own = breaches(Unit, unit, at);
      problems.push(...(own.length ? own : unitProblems(project, unit, at)));
    } catch (error) {
      if (error instanceof VariantError)
        problems.push({ path: pointerOf(...at, 'basedOn'), rule: 'reference', value: id, message: error.message });
      else if (error instanceof PatchError)
        problems.push({ path: pointerOf(...at, 'changes', error.operation), rule: 'patch', value: error.path, message: error.message });
      else throw error;
    }
  }
  return problems;
}

/**
 * What must hold of effective values, at every tier, skill and party size: an attack takes some time, ranges are the right
 * way round, an encounter brings no more units than the engine carries.
 */
function effectiveProblems(project: Project): Problem[] {
  const units = unitHeads(project);
  /** Else it is the unit of a lens that has been looked through already. */
  const differs = (list: readonly (Setting & Partial<Tier>)[], id: string | undefined, unit: UnitHead) =>
    id === undefined ||
    list.some((one) => one.id === id && [...one.tweaks, ...(one.traits ?? [])].some((given) => tweakApplies(given, unit)));
  for (const lens of lenses(project)) {
    const through = [lens.tier, lens.skill].filter(Boolean).join(', ') || 'base';
    const problems: Problem[] = [];
    for (const head of units) {
      if (!differs(project.tiers, lens.tier, head) || !differs(project.skills, lens.skill, head)) continue;
      const { id } = head;
      const { unit } = effectiveUnit(project, id, lens);
      problems.push(...orderProblems(unit, [project.units.some((one) => one.id === id) ? 'units' : 'variants', id]));
    }
    // A skill changes no encounter.
    if (lens.skill === undefined) problems.push(...project.encounters.flatMap((one) => effectiveEncounterProblems(project, one, lens)));
    if (problems.length) return problems.map((problem) => ({ ...problem, message: `${problem.message} (seen through ${through})` }));
  }
  return [];
}

/** The same of one encounter at one tier, at each size of its party; the first size at which something is wrong. */
function effectiveEncounterProblems(project: Project, encounter: Encounter, lens: Lens): Problem[] {
  for (const { members: players } of [{ members: undefined }, ...encounter.bySize]) {
    const effective = effectiveEncounter(project, encounter, { ...lens, players }).unit;
    const problems = encounterOrderProblems(project, effective, ['encounters', encounter.id]);
    if (problems.length) return problems;
  }
  return [];
}
