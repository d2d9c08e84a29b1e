/** Small documents of fights in rounds: a sketch as of any fight, with `rounds` wherever something is said in turns and cells. */
import { compile } from '../engine/compile';
import type { Compiled } from '../engine/tables';
import { Runner } from '../engine/run';
import * as groups from '../model/rounds';
import { Project } from '../model/project';
import { filled, parseProject } from '../model/validate';
import { type FightSketch, sketched } from './builders';

type Loose = Record<string, unknown>;

const isObject = (value: unknown): value is Loose => typeof value === 'object' && value !== null && !Array.isArray(value);

/** A document without what is said in rounds. */
function without(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(without);
  if (!isObject(value)) return value;
  return Object.fromEntries(
    Object.entries(value)
      .filter(([key]) => key !== 'rounds')
      .map(([key, one]) => [key, without(one)]),
  );
}

/** Which group stands in what a list or a field holds. */
const GROUP: Record<string, new () => object> = {
  units: groups.UnitRounds,
  attacks: groups.AttackRounds,
  states: groups.StateRounds,
  leaves: groups.TransitionRounds,
  encounters: groups.EncounterRounds,
  waves: groups.WaveRounds,
  groups: groups.GroupRounds,
  repeat: groups.RepeatRounds,
  overTime: groups.TickRounds,
  knockback: groups.PushRounds,
  ...Object.fromEntries(['shield', 'slow', 'stagger', 'boost', 'taunt', 'mark'].map((name) => [name, groups.LastingRounds])),
  ...Object.fromEntries(['when', 'condition', 'parts'].map((name) => [name, groups.ConditionRounds])),
};
/** These have one wherever a fight takes turns. */
const ALWAYS = ['units', 'attacks', 'encounters'];

/** Puts back what was said in rounds, with the defaults of the groups. */
function withRounds(parsed: unknown, said: unknown, key: string): void {
  if (Array.isArray(parsed)) parsed.forEach((one, i) => withRounds(one, (said as unknown[] | undefined)?.[i], key));
  if (!isObject(parsed)) return;
  const own = isObject(said) ? said : {};
  const effect = key !== 'shield' || 'for' in parsed;
  if (effect && GROUP[key] && (own.rounds || ALWAYS.includes(key))) parsed.rounds = Object.assign(new GROUP[key](), own.rounds);
  for (const [field, one] of Object.entries(parsed)) if (field !== 'rounds') withRounds(one, own[field], field);
}

/** @param sketch as of any fight; the encounter's `rounds` in `encounter`; @param trusted it is known to be valid: many times faster */
export function inTurns(sketch: FightSketch, trusted = false): Project {
  const said = sketched({ width: 20, depth: 20, ...sketch });
  const plain = without(said) as never;
  const project = trusted ? (filled(Project, plain) as unknown as Project) : parseProject(plain);
  withRounds(project, said, '');
  for (const encounter of project.encounters) encounter.clock = 'rounds';
  return project;
}

export const turnTables = (sketch: FightSketch): Compiled => compile(inTurns(sketch), { encounter: 'fight' });

/** The same for a sketch that is known to be valid. */
export const turnTablesTrusted = (sketch: FightSketch): Compiled => compile(inTurns(sketch, true), { encounter: 'fight' });

export const foughtInTurns = (sketch: FightSketch, seed = 1) => new Runner(turnTables(sketch)).run(seed);
