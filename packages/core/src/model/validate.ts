import 'reflect-metadata';
import { instanceToPlain, plainToInstance } from 'class-transformer';
import { type ValidationError, validateSync } from 'class-validator';
import { effectiveUnit, lenses } from './effective';
import { type Json, isDictionary, pointerOf, pointerSteps, stepInto } from './pointer';
import { type Problem, InvalidDocument } from './problem';
import { COLLECTIONS, FORMAT, FORMAT_VERSION, Project } from './project';
import { quantityAt } from './field';
import { Encounter } from './encounter';
import type { Tweak } from './tweak';
import { Unit } from './unit';

/**
 * A complete project from untrusted JSON: what may be left out is filled with its default, everything else must be
 * right. The result is plain data.
 * @throws InvalidDocument with every problem found: path, rule, value
 */
export function parseProject(input: Json): Project {
  if (!isDictionary(input)) throw new InvalidDocument([{ path: '', rule: 'object', value: input, message: 'must be an object' }]);
  if (input.format !== FORMAT || input.version !== FORMAT_VERSION) {
    const path = input.format !== FORMAT ? 'format' : 'version';
    const wanted = path === 'format' ? `"${FORMAT}"` : FORMAT_VERSION;
    throw new InvalidDocument([{ path: `/${path}`, rule: path, value: input[path], message: `must be ${wanted}` }]);
  }
  const instance = plainToInstance(Project, input, { enableCircularCheck: false });
  const errors = validateSync(instance, { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true });
  const problems = errors.flatMap((error) => problemsOf(error, input, []));
  if (problems.length) throw new InvalidDocument(problems);
  const project = withoutAbsent(instanceToPlain(instance)) as Project;
  const relations = relationProblems(project);
  if (relations.length) throw new InvalidDocument(relations);
  const judged = effectiveProblems(project);
  if (judged.length) throw new InvalidDocument(judged);
  return project;
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
  const kind = own.find(({ rule }) =>
    ['number', 'whole', 'text', 'list', 'object', 'oneOf', 'notBuilt', 'unknown', 'yesNo'].includes(rule),
  );
  const first = own.find(({ rule }) => rule === 'notBuilt') ?? kind;
  return [...(first ? [first] : own), ...(error.children ?? []).flatMap((child) => problemsOf(child, value, here))];
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

/** Everything about how parts of a document refer to one another. */
function relationProblems(project: Project): Problem[] {
  const problems: Problem[] = [];
  const report = (path: string, rule: string, value: unknown, message: string) => problems.push({ path, rule, value, message });
  const unique = (items: { id: string; name?: string }[], ...at: string[]) => {
    for (const key of ['id', 'name'] as const) {
      const seen = new Set<string>();
      for (const item of items) {
        const value = item[key];
        if (value === undefined) continue;
        if (seen.has(value)) report(pointerOf(...at, item.id, key), 'unique', value, `must be unique in ${at.at(-1)}`);
        seen.add(value);
      }
    }
  };
  for (const collection of COLLECTIONS) unique(project[collection], collection);
  const everyId = new Map<string, string>();
  for (const collection of COLLECTIONS) {
    for (const { id } of project[collection]) {
      const other = everyId.get(id);
      if (other && other !== collection)
        report(pointerOf(collection, id, 'id'), 'unique', id, `must be unique in the project; ${other} has it too`);
      everyId.set(id, collection);
    }
  }
  for (const unit of project.units) unitRelations(unit, report, unique);
  for (const arena of project.arenas) unique(arena.spawnPoints, 'arenas', arena.id, 'spawnPoints');
  for (const encounter of project.encounters) encounterRelations(project, encounter, report, unique);
  for (const list of ['tiers', 'skills'] as const) {
    for (const { id, tweaks } of project[list]) {
      tweaks.forEach((tweak, i) => tweakRelations(project, tweak, list, pointerOf(list, id, 'tweaks', i), report));
    }
  }
  return problems;
}

type Report = (path: string, rule: string, value: unknown, message: string) => void;
type Unique = (items: { id: string; name?: string }[], ...at: string[]) => void;

function unitRelations(unit: Unit, report: Report, unique: Unique): void {
  const at = ['units', unit.id];
  unique(unit.attacks, ...at, 'attacks');
  unique(unit.states, ...at, 'states');
  if (unit.body.eyeHeight > unit.body.height) {
    report(pointerOf(...at, 'body', 'eyeHeight'), 'atMostHeight', unit.body.eyeHeight, `must be at most the height ${unit.body.height}`);
  }
  for (const attack of unit.attacks) {
    const here = [...at, 'attacks', attack.id];
    if (attack.range.min > attack.range.max) {
      report(pointerOf(...here, 'range', 'min'), 'order', attack.range.min, `must be at most the range’s end ${attack.range.max}`);
    }
    const { initialDelay } = attack.beat;
    if (initialDelay.min > initialDelay.max) {
      report(pointerOf(...here, 'beat', 'initialDelay', 'min'), 'order', initialDelay.min, `must be at most ${initialDelay.max}`);
    }
    if (attack.delivery === 'projectile' && !attack.projectile) {
      report(pointerOf(...here, 'projectile'), 'required', undefined, 'is needed for a projectile: speed, radius, volley');
    }
    if (attack.delivery !== 'projectile' && attack.projectile) {
      report(pointerOf(...here, 'projectile'), 'applies', attack.delivery, `applies to projectiles only, not to ${attack.delivery}`);
    }
  }
  const { pause } = unit.choice;
  if (pause.min > pause.max) report(pointerOf(...at, 'choice', 'pause', 'min'), 'order', pause.min, `must be at most ${pause.max}`);
  unit.choice.priorities.forEach((priority, p) =>
    priority.entries.forEach((entry, e) => {
      if (!unit.attacks.some(({ id }) => id === entry.attack)) {
        report(
          pointerOf(...at, 'choice', 'priorities', p, 'entries', e, 'attack'),
          'reference',
          entry.attack,
          'must be an attack of the unit',
        );
      }
    }),
  );
  const hasState = (id: string) => unit.states.some((state) => state.id === id);
  if (unit.startsIn !== undefined && !hasState(unit.startsIn)) {
    report(pointerOf(...at, 'startsIn'), 'reference', unit.startsIn, 'must be a state of the unit');
  }
  for (const state of unit.states) {
    const here = [...at, 'states', state.id];
    state.leaves.forEach((leave, i) => {
      if (!hasState(leave.to)) report(pointerOf(...here, 'leaves', i, 'to'), 'reference', leave.to, 'must be a state of the unit');
    });
    if (state.does === 'band') {
      if (state.near === undefined) report(pointerOf(...here, 'near'), 'required', undefined, 'is needed to keep a band');
      if (state.far === undefined) report(pointerOf(...here, 'far'), 'required', undefined, 'is needed to keep a band');
      if ((state.near ?? 0) > (state.far ?? 0))
        report(pointerOf(...here, 'near'), 'order', state.near, `must be at most the far edge ${state.far}`);
    }
  }
}

function encounterRelations(project: Project, encounter: Encounter, report: Report, unique: Unique): void {
  const at = ['encounters', encounter.id];
  unique(encounter.party, ...at, 'party');
  unique(encounter.waves, ...at, 'waves');
  const arena = project.arenas.find(({ id }) => id === encounter.arena);
  if (!arena) report(pointerOf(...at, 'arena'), 'reference', encounter.arena, 'must be an arena of the project');
  const hasUnit = (id: string) => project.units.some((unit) => unit.id === id);
  if (!encounter.party.length) report(pointerOf(...at, 'party'), 'required', [], 'needs at least one member');
  for (const member of encounter.party) {
    if (!hasUnit(member.unit))
      report(pointerOf(...at, 'party', member.id, 'unit'), 'reference', member.unit, 'must be a unit of the project');
  }
  let most = encounter.party.length;
  for (const wave of encounter.waves) {
    unique(wave.groups, ...at, 'waves', wave.id, 'groups');
    for (const group of wave.groups) {
      const here = [...at, 'waves', wave.id, 'groups', group.id];
      most += group.count.max;
      if (!hasUnit(group.enemy)) report(pointerOf(...here, 'enemy'), 'reference', group.enemy, 'must be a unit of the project');
      if (group.count.min > group.count.max)
        report(pointerOf(...here, 'count', 'min'), 'order', group.count.min, `must be at most ${group.count.max}`);
      group.at.forEach((id, i) => {
        if (arena && !arena.spawnPoints.some((point) => point.id === id)) {
          report(pointerOf(...here, 'at', i), 'reference', id, `must be a spawn point of ${arena.name}`);
        }
      });
    }
  }
  if (most > 500) report(pointerOf(...at, 'waves'), 'limit', most, 'may bring at most 500 living units, the party among them');
}

function tweakRelations(project: Project, tweak: Tweak, list: 'tiers' | 'skills', at: string, report: Report): void {
  const root = tweak.scope === 'encounter' ? Encounter : Unit;
  let steps: string[] = [];
  try {
    steps = pointerSteps(tweak.path);
  } catch {
    /* refused by its own rule already */
  }
  if (!quantityAt(root, steps)) report(`${at}/path`, 'reference', tweak.path, 'must lead to a number of the unit or encounter');
  if (tweak.scope === 'unit' && !project.units.some(({ id }) => id === tweak.of)) {
    report(`${at}/of`, 'reference', tweak.of, 'must be a unit of the project');
  }
  if (tweak.scope === 'role' && !tweak.of) report(`${at}/of`, 'required', tweak.of, 'must name the role');
  if (list === 'skills' && (tweak.scope === 'enemies' || tweak.scope === 'role' || tweak.scope === 'encounter')) {
    report(`${at}/scope`, 'applies', tweak.scope, 'a skill changes the party: party or one unit');
  }
  if (tweak.min !== undefined && tweak.max !== undefined && tweak.min > tweak.max) {
    report(`${at}/min`, 'order', tweak.min, `must be at most ${tweak.max}`);
  }
}

/** What must hold of effective values, at every tier and skill: an attack takes some time, from 0 to the next one. */
function effectiveProblems(project: Project): Problem[] {
  const problems: Problem[] = [];
  for (const lens of lenses(project)) {
    for (const unit of project.units) {
      const { unit: effective } = effectiveUnit(project, unit.id, lens);
      for (const { id, beat } of effective.attacks) {
        if (beat.windup + beat.active + beat.recovery + beat.cooldown > 0) continue;
        const through = [lens.tier, lens.skill].filter(Boolean).join(', ') || 'base';
        problems.push({
          path: pointerOf('units', unit.id, 'attacks', id, 'beat'),
          rule: 'takesTime',
          value: { windup: 0, active: 0, recovery: 0, cooldown: 0 },
          message: `must take some time: wind-up, active, recovery and cooldown are all 0 (seen through ${through})`,
        });
      }
    }
    if (problems.length) break;
  }
  return problems;
}
