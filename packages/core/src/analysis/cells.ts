/**
 * What a board is made of: cells, each an enemy in a duel or an encounter, looked at through a tier, a skill, a style and
 * a number of players; and what the brief wants of each.
 */
import { type CompileOptions, compile } from '../engine/compile';
import type { Compiled } from '../engine/tables';
import { type Judgement, judge, together } from '../measures/verdict';
import type { Verdict } from '../measures/enough';
import { columnOf } from '../measures/list';
import type { Sample } from '../measures/sample';
import type { Band } from '../model/brief';
import { SUBJECT_OF } from '../model/brief-relations';
import type { Project } from '../model/project';
import { unitHeads } from '../model/variants';
import { DUEL_DEFAULTS, type DuelOptions, duelOptions } from './duel';

export interface Cell {
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

/** Tells one cell of a project from another, whatever its numbers are. */
export function cellKey({ kind, id, tier, skill, style, players, without, duel }: Cell): string {
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
export function duelCell(project: Project, lens: Pick<Cell, 'tier' | 'skill'>, options: DuelOptions): Cell {
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
export function cellOf(key: string): Cell {
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
export function cellOptions(project: Project, { kind, id, tier, skill, style, players, without, duel }: Cell): CompileOptions {
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
export function compileCell(project: Project, cell: Cell): Compiled {
  return compile(project, cellOptions(project, cell));
}

/** One band at one cell: what is measured there, and in which column of its sample. */
export interface Goal {
  band: Band;
  cell: Cell;
  column: string;
  /** The unit, encounter or wave that is measured. */
  of: string;
}

export interface Axes {
  tiers?: readonly (string | undefined)[];
  skills?: readonly (string | undefined)[];
  style?: string;
  players?: number;
}

/** Every band at every cell it speaks of. Absent axes: all tiers and all skills of the project; a project without any has one. */
export function goalsOf(project: Project, axes: Axes = {}): Goal[] {
  const all = (list: readonly { id: string }[]) => (list.length ? list.map(({ id }) => id) : [undefined]);
  const tiers = axes.tiers ?? all(project.tiers);
  const skills = axes.skills ?? all(project.skills);
  return (project.brief?.bands ?? []).flatMap((band) =>
    tiers
      .filter((tier) => band.tier === undefined || band.tier === tier)
      .flatMap((tier) =>
        skills
          .filter((skill) => band.skill === undefined || band.skill === skill)
          .flatMap((skill) =>
            placesOf(project, band).map((place) => ({
              band,
              of: place.of,
              column: columnOf(band.measure, SUBJECT_OF[band.scope], place.of),
              cell: {
                kind: place.kind,
                id: place.id,
                ...(tier && { tier }),
                ...(skill && { skill }),
                ...(axes.style && { style: axes.style }),
                ...(axes.players && { players: axes.players }),
              },
            })),
          ),
      ),
  );
}

/** Where a band is measured, and of whom. */
function placesOf(project: Project, band: Band): { kind: Cell['kind']; id: string; of: string }[] {
  const { scope, of, encounter } = band;
  switch (scope) {
    case 'encounters':
      return project.encounters.map(({ id }) => ({ kind: 'encounter', id, of: id }));
    case 'encounter':
      return of === undefined ? [] : [{ kind: 'encounter', id: of, of }];
    case 'wave':
      return of === undefined || encounter === undefined ? [] : [{ kind: 'encounter', id: encounter, of }];
    default:
      return unitHeads(project)
        .filter(({ id, side, role }) => side === 'enemy' && (scope === 'enemies' || (scope === 'role' ? role === of : id === of)))
        .map(({ id }) => (encounter === undefined ? { kind: 'duel', id, of: id } : { kind: 'encounter', id: encounter, of: id }));
  }
}

/** A goal with what its runs say. Without runs there is no judgement. */
export interface JudgedGoal extends Goal {
  runs: number;
  judgement?: Judgement;
  /** Read together with all others. */
  verdict: Verdict;
}

/** @param sampleAt the sample of a cell, where it has been run */
export function judgeGoals(goals: readonly Goal[], sampleAt: (cell: Cell) => Sample | undefined): JudgedGoal[] {
  const judged = goals.map((goal) => {
    const sample = sampleAt(goal.cell);
    const values = sample?.columns[goal.column];
    return { ...goal, runs: sample?.runs ?? 0, judgement: values && judge(values, goal.band.statistic, goal.band) };
  });
  const known = judged.flatMap(({ judgement }) => judgement ?? []);
  const verdicts = together(known);
  let next = 0;
  return judged.map((goal) => ({ ...goal, verdict: goal.judgement ? verdicts[next++] : 'undecided' }));
}
