/**
 * What a player may do otherwise without being better or worse at it: where it stands, what distance it keeps, whether it moves,
 * covers, heals, answers, helps, and whom it goes for. Each habit has levels, the first as it is written; aim, reactions and
 * mistakes stay those of the skill, except that a player may leave its answers be.
 */
import type { Compiled } from '../../engine/tables';
import { cellName } from '../../model/board-size';
import { pointerOf } from '../../model/pointer';
import type { Project } from '../../model/project';
import { type Turn, placesOfTurn, turnedProject } from '../../model/turn';
import type { Tweak } from '../../model/tweak';
import { effectiveUnit } from '../../model/effective';
import type { Unit } from '../../model/unit';
import { ANSWERS } from '../../model/answer-kind';
import { keepsBand } from '../../model/state';
import { CRITERIA_NAMES } from '../../model/targeting';
import { sameJson } from '../../model/patch';
import type { Scenario } from '../../analysis/scenario';
import { habitsInTurns } from './habits-in-turns';
import { AS_WRITTEN, DISTANCES, type Habit, type Level, PACES, all, ofParty } from './levels';
import { cellSpots, spotsOf } from './spots';

export type { Habit, Level } from './levels';

const COVER = [0, 0.3, 0.6, 0.95];
const HEALING = [0, 0.25, 0.5, 0.75, 0.95];
/** m */
const RUNS_WITHIN = [0, 4, 10, 20, 40];
const RESCUES = [0, 30];

const metres = (value: number): string => `${Number(value.toPrecision(2))} m`;
const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** Habits of those who take part in a fight; only levels that change something. */
export function habitsOf(project: Project, compiled: Compiled, cell: Scenario): Habit[] {
  const inTurns = compiled.rounds !== null;
  const members = membersOf(project, compiled, inTurns);
  if (!members.length) return [];
  const lens = { tier: cell.tier, skill: cell.skill, style: cell.style };
  const effective = members.map(({ id }) => effectiveUnit(project, id, lens).unit);
  const habits = [
    ...(inTurns ? habitsInTurns(effective) : habitsInSeconds(members, effective)),
    targets(members, inTurns),
    ...weapons(members),
    ...(inTurns && !compiled.rounds!.board ? [] : [places(project, compiled, cell)]),
  ];
  return habits.flatMap(({ id, levels }) => {
    const own = levels.filter(({ turns }) => changes(project, turns));
    return own.length ? [{ id, levels: [AS_WRITTEN, ...own] }] : [];
  });
}

function habitsInSeconds(members: readonly Unit[], effective: readonly Unit[]): Habit[] {
  return [
    distances(effective),
    { id: 'pace', levels: PACES.map((by) => pace(by)) },
    shares('cover', '/player/cover/below', COVER, 'never takes cover', (at) => `takes cover below ${percent(at)}`),
    shares('healing', '/player/healing/below', HEALING, 'never heals itself', (at) => `heals itself below ${percent(at)}`),
    shares('runs', '/player/runsWithin', RUNS_WITHIN, 'never runs', (at) => `runs when a foe is within ${metres(at)}`),
    shares('rescues', '/player/rescues/within', RESCUES, 'helps nobody who is down', (at) => `helps whoever is down within ${metres(at)}`),
    answers(effective),
    dodges(members),
  ];
}

/** Party members of a fight as they are written: in turns whoever takes them, else whom a player is simulated for. */
function membersOf(project: Project, { kinds }: Compiled, inTurns: boolean): Unit[] {
  const there = new Set(kinds.map(({ id }) => id));
  return project.units.filter(({ id, side, player, rounds }) => side === 'party' && (inTurns ? rounds : player) && there.has(id));
}

const changes = (project: Project, turns: readonly Turn[]): boolean =>
  turns.some((turn) => placesOfTurn(project, turn).some(({ before, after }) => !sameJson(before, after)));

function distances(members: readonly Unit[]): Habit {
  const band = members.flatMap(({ states }) => states).find(({ does, far }) => keepsBand(does) && far !== undefined);
  const levels = DISTANCES.map((by): Level => {
    const says = band ? `keeps ${metres((band.near ?? 0) * by)} to ${metres(band.far! * by)}` : `keeps ${by} of its distance`;
    return { says, idle: false, ...all([ofParty('/states/*/near', '×', by), ofParty('/states/*/far', '×', by)]) };
  });
  return { id: 'distance', levels };
}

const pace = (by: number): Level => ({
  says: by === 0 ? 'stands still' : 'moves at half its pace',
  idle: true,
  ...all([ofParty('/movement/walk', '×', by), ofParty('/movement/run', '×', by)]),
});

function shares(id: string, path: string, values: readonly number[], never: string, says: (at: number) => string): Habit {
  return { id, levels: values.map((at): Level => ({ says: at === 0 ? never : says(at), idle: at === 0, ...ofParty(path, '=', at) })) };
}

/** To leave what is announced be, all of it. */
function answers(members: readonly Unit[]): Habit {
  const kinds = [...new Set(members.flatMap(({ player }) => player!.answers.map(({ kind }) => kind)))];
  const bare = kinds.map((kind) => ANSWERS[kind].bare);
  const says = `answers nothing${bare.length ? ` (no ${bare.join(', no ')})` : ''}`;
  return { id: 'answers', levels: kinds.length ? [{ says, idle: true, ...ofParty('/player/attention/mistakes', '=', 1) }] : [] };
}

function dodges(members: readonly Unit[]): Habit {
  const own = members.flatMap(({ id, player }) => player!.answers.filter(({ kind }) => kind === 'dodge').map((answer) => ({ id, answer })));
  const levels = (['sideways', 'away', 'towards'] as const).map((way): Level => ({
    says: way === 'towards' ? 'dodges towards them' : `dodges ${way}`,
    idle: false,
    turns: own.map(({ id, answer }) => ({
      path: pointerOf('units', id, 'player', 'answers', answer.id, 'way'),
      op: '=',
      value: way,
    })),
  }));
  return { id: 'dodge', levels };
}

/** Whom it goes for, where one criterion says so. */
function targets(members: readonly Unit[], inTurns: boolean): Habit {
  const own = members.filter(({ targeting: { criteria } }) => criteria.length === 1);
  const words: Partial<Record<(typeof CRITERIA_NAMES)[number], string>> = {
    nearest: 'goes for the nearest',
    lowestHealth: 'goes for the least health',
    highestDamage: `goes for the most damage a ${inTurns ? 'round' : 'second'}`,
    mostDamageToMe: 'goes for who hurt it most',
  };
  const levels = CRITERIA_NAMES.flatMap((by): Level[] => {
    const says = words[by];
    if (says === undefined) return [];
    const turns = own.map(({ id }): Turn => ({ path: pointerOf('units', id, 'targeting', 'criteria', '0', 'by'), op: '=', value: by }));
    return [{ says, idle: by === 'nearest', turns }];
  });
  return { id: 'targets', levels };
}

/** Of several attacks among which chance decides one alone. */
function weapons(members: readonly Unit[]): Habit[] {
  return members.flatMap(({ id, choice, attacks }) =>
    choice.priorities.flatMap(({ entries }, p): Habit[] => {
      if (entries.length < 2) return [];
      const levels = entries.map((entry, e): Level => {
        const name = attacks.find((one) => one.id === entry.attack)?.name ?? entry.attack;
        const turns = entries.flatMap((_, other): Turn[] =>
          other === e
            ? []
            : [{ path: pointerOf('units', id, 'choice', 'priorities', String(p), 'entries', String(other), 'weight'), op: '=', value: 0 }],
        );
        return { says: `of that draw ${name} alone`, idle: false, turns };
      });
      return [{ id: `weapon ${id} ${p}`, levels }];
    }),
  );
}

/** Where in the arena it begins: places all over it, and those that no enemy reaches. */
function places(project: Project, compiled: Compiled, cell: Scenario): Habit {
  const arena = cell.kind === 'encounter' ? project.encounters.find(({ id }) => id === cell.id)?.arena : undefined;
  if (arena === undefined) return { id: 'place', levels: [] };
  const level = (where: string, to: { x: number; y: number }): Level => {
    const turn = (axis: 'x' | 'y'): Turn => ({ path: pointerOf('arenas', arena, 'partyStart', axis), op: '=', value: to[axis] });
    return { says: `begins at ${where}`, idle: false, turns: [turn('x'), turn('y')] };
  };
  // Over cells other ways lead: of a board none is called out of reach.
  const levels = compiled.rounds
    ? cellSpots(compiled).map((at) => level(cellName(compiled.rounds!.board!, at.cell), at))
    : spotsOf(compiled).map((at) => level(`${at.x}, ${at.y}${at.unreached ? ', where no enemy gets to' : ''}`, at));
  return { id: 'place', levels };
}

/** A way to play: of each habit a level. */
export type Play = readonly number[];

export const turnsOfPlay = (habits: readonly Habit[], play: Play): Turn[] => habits.flatMap(({ levels }, h) => levels[play[h]].turns);

/** What it does otherwise than written, in words. */
export const wordsOfPlay = (habits: readonly Habit[], play: Play): string[] =>
  habits.flatMap(({ levels }, h) => (play[h] === 0 ? [] : [levels[play[h]].says]));

/** The same as a style; `left`: what no style can say. */
export function styleOfPlay(habits: readonly Habit[], play: Play): { tweaks: Tweak[]; left: string[] } {
  const chosen = habits.map(({ levels }, h) => levels[play[h]]);
  return {
    tweaks: chosen.flatMap(({ tweaks = [] }) => tweaks),
    left: chosen.flatMap(({ tweaks, says }) => (tweaks ? [] : [says])),
  };
}

/** The project as a play has it. */
export const playedProject = (project: Project, habits: readonly Habit[], play: Play): Project =>
  turnedProject(project, turnsOfPlay(habits, play));
