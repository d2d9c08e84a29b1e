/** What a board is made of: scenarios at the brief's tiers and skills, and what the brief wants of each. */
import { type Judgement, judge, together } from '../measures/verdict';
import type { Verdict } from '../measures/enough';
import { columnOf, isTold } from '../measures/list';
import type { Clock } from '../record/clock';
import type { Sample } from '../measures/sample';
import type { Band } from '../model/brief';
import { SUBJECT_OF } from '../model/brief-relations';
import { clocksIn } from '../model/clocks';
import type { Turn } from '../model/turn';
import type { Project } from '../model/project';
import { unitHeads } from '../model/variants';
import { clockOfDuel } from './duel-clock';
import { type Scenario, usualMember } from './scenario';

/** One band at one cell: what is measured there, and in which column of its sample. */
export interface Goal {
  band: Band;
  cell: Scenario;
  column: string;
  /** The unit, encounter or wave that is measured. */
  of: string;
  /** What the fight goes by. */
  clock: Clock;
}

/** What the fight of a scenario goes by. @param clocks by unit, where several are asked about */
export function clockOfScenario(
  project: Project,
  { kind, id, duel }: Pick<Scenario, 'kind' | 'id' | 'duel'>,
  clocks = clocksIn(project),
): Clock {
  if (kind === 'encounter') return project.encounters.find((one) => one.id === id)?.clock ?? 'continuous';
  return clockOfDuel(project, { against: usualMember(project) ?? [], ...duel, enemy: id }, clocks);
}

export interface Axes {
  tiers?: readonly (string | undefined)[];
  skills?: readonly (string | undefined)[];
  style?: string;
  players?: number;
  turned?: readonly Turn[];
}

/** Every band at every cell it speaks of. Absent axes: all tiers and all skills of the project; a project without any has one. */
export function goalsOf(project: Project, axes: Axes = {}): Goal[] {
  const all = (list: readonly { id: string }[]) => (list.length ? list.map(({ id }) => id) : [undefined]);
  const tiers = axes.tiers ?? all(project.tiers);
  const skills = axes.skills ?? all(project.skills);
  const clocks = clocksIn(project);
  return (project.brief?.bands ?? []).flatMap((band) =>
    tiers
      .filter((tier) => band.tier === undefined || band.tier === tier)
      .flatMap((tier) =>
        skills
          .filter((skill) => band.skill === undefined || band.skill === skill)
          .flatMap((skill) =>
            placesOf(project, band, clocks).map((place) => ({
              band,
              of: place.of,
              clock: place.clock,
              column: columnOf(band.measure, SUBJECT_OF[band.scope], place.of),
              cell: {
                kind: place.kind,
                id: place.id,
                ...(tier && { tier }),
                ...(skill && { skill }),
                ...(axes.style && { style: axes.style }),
                ...(axes.players && { players: axes.players }),
                ...(axes.turned?.length && { turned: axes.turned }),
              },
            })),
          ),
      ),
  );
}

interface Place {
  kind: Scenario['kind'];
  id: string;
  of: string;
}

/** Where a band is measured, and of whom; where its measure means nothing it asks for nothing. */
function placesOf(project: Project, band: Band, clocks: ReturnType<typeof clocksIn>): (Place & { clock: Clock })[] {
  return placesSpokenOf(project, band)
    .map((place) => ({ ...place, clock: clockOfScenario(project, place, clocks) }))
    .filter(({ clock }) => isTold(band.measure, clock));
}

function placesSpokenOf(project: Project, band: Band): Place[] {
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
export function judgeGoals(goals: readonly Goal[], sampleAt: (cell: Scenario) => Sample | undefined): JudgedGoal[] {
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
