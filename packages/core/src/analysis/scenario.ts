/** What is run: one type for the page, its workers, the server, its batches, the board and the command line. */
import { type CompileOptions, compile } from '../engine/compile';
import type { Compiled } from '../engine/tables';
import type { Project } from '../model/project';
import { DUEL_DEFAULTS, type DuelOptions, duelOptions } from './duel';

/** An enemy in a duel, or an encounter, looked at through a tier, a skill, a style and a number of players. */
export interface Scenario {
  kind: 'duel' | 'encounter';
  /** Of the enemy, or of the encounter. */
  id: string;
  tier?: string;
  skill?: string;
  style?: string;
  players?: number;
  /** `wave:ID` or `unit:ID`: the encounter without it, to see what it does. */
  without?: string;
  /** How a duel is set up, as far as it is not the usual one: the first party member, one enemy, twelve metres of open ground. */
  duel?: DuelSetup;
}

export interface DuelSetup {
  against?: readonly string[];
  copies?: number;
  /** m */
  distance?: number;
  arena?: string;
}

/** Tells one of a project from another, whatever its numbers are. */
export function scenarioKey({ kind, id, tier, skill, style, players, without, duel }: Scenario): string {
  const more = without ?? (duel && setupKey(duel));
  return [kind, id, tier ?? '', skill ?? '', style ?? '', players ?? '', ...(more ? [more] : [])].join('|');
}

/** "against=warden,tender;copies=3". */
function setupKey({ against, copies, distance, arena }: DuelSetup): string {
  return [
    ...(against ? [`against=${against.join(',')}`] : []),
    ...(copies === undefined ? [] : [`copies=${copies}`]),
    ...(distance === undefined ? [] : [`distance=${distance}`]),
    ...(arena === undefined ? [] : [`arena=${arena}`]),
  ].join(';');
}

function setupOf(key: string): DuelSetup {
  const parts = new Map(key.split(';').map((part) => part.split('=') as [string, string | undefined]));
  const [against, copies, distance, arena] = ['against', 'copies', 'distance', 'arena'].map((name) => parts.get(name));
  return {
    ...(against && { against: against.split(',') }),
    ...(copies && { copies: Number(copies) }),
    ...(distance && { distance: Number(distance) }),
    ...(arena && { arena }),
  };
}

/** A duel as a readout sets it up; what is usual is left out, so that the usual duel is the board's. */
export function duelScenario(project: Project, lens: Pick<Scenario, 'tier' | 'skill'>, options: DuelOptions): Scenario {
  const first = project.units.find(({ side }) => side === 'party')?.id;
  const against = typeof options.against === 'string' ? [options.against] : [...options.against];
  const { copies = DUEL_DEFAULTS.copies, distance = DUEL_DEFAULTS.distance, arena } = options;
  const duel: DuelSetup = {
    ...((against.length > 1 || against[0] !== first) && { against }),
    ...(copies !== DUEL_DEFAULTS.copies && { copies }),
    ...(distance !== DUEL_DEFAULTS.distance && { distance }),
    ...(arena !== undefined && { arena }),
  };
  return {
    kind: 'duel',
    id: options.enemy,
    ...(lens.tier && { tier: lens.tier }),
    ...(lens.skill && { skill: lens.skill }),
    ...(Object.keys(duel).length > 0 && { duel }),
  };
}

/** Back from the key. */
export function scenarioOf(key: string): Scenario {
  const [kind, id, tier, skill, style, players, more] = key.split('|');
  const duels = kind === 'duel';
  return {
    kind: duels ? 'duel' : 'encounter',
    id,
    ...(tier && { tier }),
    ...(skill && { skill }),
    ...(style && { style }),
    ...(players && { players: Number(players) }),
    ...(more && (duels ? { duel: setupOf(more) } : { without: more })),
  };
}

/** What to hand to `compile`: an enemy meets the first party member at the distance of a readout. @throws Error for what is not there */
export function scenarioOptions(project: Project, { kind, id, tier, skill, style, players, without, duel }: Scenario): CompileOptions {
  const lens = { tier, skill, style, players };
  if (kind === 'encounter') return { encounter: id, ...lens, ...(without && { without }) };
  const against = duel?.against ?? project.units.find(({ side }) => side === 'party')?.id;
  if (against === undefined) throw new Error(`${project.name} has no party member to duel against`);
  const { copies, distance, arena } = duel ?? {};
  return duelOptions(project, lens, {
    enemy: id,
    against,
    ...(copies !== undefined && { copies }),
    ...(distance !== undefined && { distance }),
    ...(arena !== undefined && { arena }),
  });
}

/** @throws Error for what is not there */
export function compileScenario(project: Project, scenario: Scenario, stepSeconds?: number): Compiled {
  return compile(project, { ...scenarioOptions(project, scenario), stepSeconds });
}
