/** What is run: one type for the page, its workers, the server, its batches, the board and the command line. */
import type { Project } from '../model/project';
import type { Clock } from '../record/clock';
import { clockOfDuel, usualDistance } from './duel-clock';
import { type Company, DUEL_DEFAULTS, type DuelFrom, type DuelOptions } from './duel-setup';
import { type Turn, turnsKey, turnsOf } from '../model/turn';

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
  /** Numbers of the document turned to other values, as if they were written there. */
  turned?: readonly Turn[];
}

/** All of a duel but who is looked at, and how long it may last; absent: as usual. */
export type DuelSetup = Partial<Omit<DuelOptions, 'enemy' | 'against' | 'limit'> & { against: readonly string[] }>;

/** How a duel is set up in words that stand in addresses and on the command line; what is usual has none. */
export type SetupWords = Partial<Record<(typeof SETUP_WORDS)[number], string>>;
export const SETUP_WORDS = ['against', 'copies', 'with', 'distance', 'from', 'wall', 'arena', 'clock'] as const;

/** "sapwright:1,clipper:2" */
export const companyWords = (company: readonly Company[]): string => company.map(({ unit, count }) => `${unit}:${count}`).join(',');

/** Back from the words; a number that is none is left to be refused. */
export const companyOf = (words: string): Company[] =>
  words.split(',').map((one) => {
    const [unit, count = '1'] = one.split(':');
    return { unit, count: count.trim() === '' ? NaN : Number(count) };
  });

export function setupWords({ against, copies, company, distance, from, wall, arena, clock }: DuelSetup): SetupWords {
  return {
    ...(against && { against: against.join(',') }),
    ...(copies !== undefined && { copies: String(copies) }),
    ...(company?.length && { with: companyWords(company) }),
    ...(distance !== undefined && { distance: String(distance) }),
    ...(from !== undefined && { from }),
    ...(wall !== undefined && { wall: String(wall) }),
    ...(arena !== undefined && { arena }),
    ...(clock !== undefined && { clock }),
  };
}

export function setupOf({ against, copies, with: company, distance, from, wall, arena, clock }: SetupWords): DuelSetup {
  return {
    ...(against && { against: against.split(',') }),
    ...(copies && { copies: Number(copies) }),
    ...(company && { company: companyOf(company) }),
    ...(distance && { distance: Number(distance) }),
    ...(from && { from: from as DuelFrom }),
    ...(wall && { wall: Number(wall) }),
    ...(arena && { arena }),
    ...(clock && { clock: clock as Clock }),
  };
}

/** Tells one of a project from another, whatever its numbers are. */
export function scenarioKey({ kind, id, tier, skill, style, players, without, duel, turned }: Scenario): string {
  const more = without ?? (duel && setupKey(duel));
  const turns = turned?.length ? turnsKey(turned) : undefined;
  const last = turns ? [more ?? '', turns] : more ? [more] : [];
  return [kind, id, tier ?? '', skill ?? '', style ?? '', players ?? '', ...last].join('|');
}

/** "against=warden,tender;copies=3". */
function setupKey(duel: DuelSetup): string {
  const words = setupWords(duel);
  return SETUP_WORDS.flatMap((name) => (words[name] === undefined ? [] : [`${name}=${words[name]}`])).join(';');
}

const setupOfKey = (key: string): DuelSetup => setupOf(Object.fromEntries(key.split(';').map((part) => part.split('='))) as SetupWords);

/** Whom a duel is against where nobody says: the first of the party. */
export const usualMember = (project: Project): string | undefined => project.units.find(({ side }) => side === 'party')?.id;

/** A duel as a readout sets it up; what is usual is left out, so that the usual duel is the board's. */
export function duelScenario(project: Project, lens: Pick<Scenario, 'tier' | 'skill' | 'turned'>, options: DuelOptions): Scenario {
  const first = usualMember(project);
  const against = typeof options.against === 'string' ? [options.against] : [...options.against];
  const { copies = DUEL_DEFAULTS.copies, distance, from = DUEL_DEFAULTS.from, company, wall, arena } = options;
  const clock = clockOfDuel(project, options);
  const asked = clock !== clockOfDuel(project, { ...options, clock: undefined });
  const duel: DuelSetup = {
    ...((against.length > 1 || against[0] !== first) && { against }),
    ...(copies !== DUEL_DEFAULTS.copies && { copies }),
    ...(distance !== undefined && distance !== usualDistance(clock) && { distance }),
    ...(company?.length && { company }),
    ...(from !== DUEL_DEFAULTS.from && { from }),
    ...(wall !== undefined && { wall }),
    ...(arena !== undefined && { arena }),
    ...(asked && { clock }),
  };
  return {
    kind: 'duel',
    id: options.enemy,
    ...(lens.tier && { tier: lens.tier }),
    ...(lens.skill && { skill: lens.skill }),
    ...(Object.keys(duel).length > 0 && { duel }),
    ...(lens.turned?.length && { turned: lens.turned }),
  };
}

/** Back from the key. */
export function scenarioOf(key: string): Scenario {
  const [kind, id, tier, skill, style, players, more, turns] = key.split('|');
  const duels = kind === 'duel';
  return {
    kind: duels ? 'duel' : 'encounter',
    id,
    ...(tier && { tier }),
    ...(skill && { skill }),
    ...(style && { style }),
    ...(players && { players: Number(players) }),
    ...(more && (duels ? { duel: setupOfKey(more) } : { without: more })),
    ...(turns && { turned: turnsOf(turns) }),
  };
}
