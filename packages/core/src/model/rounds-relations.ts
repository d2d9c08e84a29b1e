/** What a fight in turns needs: whatever takes part in it says so in turns and cells, and it is no larger than the engine carries. */
import { boardSize, cellsCovered } from './board-size';
import { Encounter } from './encounter';
import { classFields } from './field';
import type { Report } from './field-relations';
import { LIMITS } from './limits';
import { metIn } from './meets';
import { plannedUnits } from './planned';
import { pointerOf } from './pointer';
import type { Problem } from './problem';
import type { Project } from './project';
import { State, keepsBand } from './state';
import { Unit } from './unit';
import { alteredUnit } from './variants';
import { eachObject } from './walk';

/** What the units of fights in turns, and these fights themselves, lack to be fought so. */
export function roundsProblems(project: Project): Problem[] {
  const problems: Problem[] = [];
  const seen = new Set<string>();
  for (const encounter of project.encounters) {
    if (encounter.clock !== 'rounds') continue;
    const where = `${encounter.name} takes turns`;
    problems.push(...lackingRounds(project, Encounter, encounter, ['encounters', encounter.id], where));
    for (const id of metIn(encounter, encounter.party, (id) => alteredUnit(project, id))) {
      if (seen.has(id)) continue;
      seen.add(id);
      const at = [project.units.some((unit) => unit.id === id) ? 'units' : 'variants', id];
      problems.push(...unitLacks(project, alteredUnit(project, id), at, where));
    }
  }
  return problems;
}

/** What a unit lacks for fights in turns. @param where in which it would take part */
export function unitLacks(project: Project, unit: Unit, at: readonly string[], where: string): Problem[] {
  return lackingRounds(project, Unit, unit, at, where);
}

/** Pointers of the groups and fields that an object and what is below it lack for turns. */
export const lacksOf = (project: Project, type: new () => object, value: object): string[] =>
  lackingRounds(project, type, value, [], '').map(({ path }) => path);

/** Every object below that says something in seconds or metres and nothing in turns, and every band without edges in cells. */
function lackingRounds(project: Project, type: new () => object, value: object, at: readonly string[], where: string): Problem[] {
  const problems: Problem[] = [];
  eachObject(type, value, at, { project }, (of, object, here) => {
    if (of === State) bandProblems(object as unknown as State, here, where, problems);
    if (object.rounds !== undefined || !classFields(of)!.said.get('rounds')?.inTurns?.(object)) return;
    const message = `is needed: ${where}, where seconds and metres mean nothing`;
    problems.push({ path: pointerOf(...here, 'rounds'), rule: 'required', value: undefined, message });
  });
  return problems;
}

/** A band has edges. */
function bandProblems({ does, rounds, far, near }: State, at: readonly (string | number)[], where: string, problems: Problem[]): void {
  if (!rounds || !keepsBand(does)) return;
  for (const [edge, written] of [
    ['near', near],
    ['far', far],
  ] as const) {
    if (written === undefined || rounds[edge] !== undefined) continue;
    const message = `is needed where does is ${does}: ${where}`;
    problems.push({ path: pointerOf(...at, 'rounds', edge), rule: 'required', value: undefined, message });
  }
}

/** What must hold of a unit's numbers in turns, whatever tweaks made of them. */
export function roundsOrder(
  { attacks, states }: Unit,
  ordered: (low: number, high: number, what: string, ...steps: string[]) => void,
): void {
  for (const { id, rounds } of attacks) if (rounds) ordered(rounds.from, rounds.to, 'the range’s end', 'attacks', id, 'rounds', 'from');
  for (const { id, does, rounds } of states)
    if (rounds?.near !== undefined && rounds.far !== undefined && keepsBand(does))
      ordered(rounds.near, rounds.far, 'the far edge', 'states', id, 'rounds', 'near');
}

/** How large a fight in turns may be: its units and its board, as its numbers stand. */
export function roundsSize(project: Project, encounter: Encounter, at: readonly string[], report: Report): void {
  const { clock, rounds, alive } = encounter;
  if (clock !== 'rounds' || !rounds) return;
  const planned = alive ? alive.most + plannedUnits(encounter, 'ours') : plannedUnits(encounter);
  if (planned > LIMITS.unitsInTurns) {
    const place = alive ? ['alive', 'most'] : ['waves'];
    const rest = alive ? '' : '; or set a cap on the living';
    report(
      pointerOf(...at, ...place),
      'limit',
      planned,
      `may bring at most ${LIMITS.unitsInTurns} living units where a fight takes turns, the party among them${rest}`,
    );
  }
  const arena = project.arenas.find(({ id }) => id === encounter.arena);
  if (rounds.ground === 'none' || !arena) return;
  const { columns, rows } = boardSize(arena, rounds.cell, rounds.ground);
  if (columns > LIMITS.boardSide || rows > LIMITS.boardSide)
    report(
      pointerOf(...at, 'rounds', 'cell'),
      'limit',
      rounds.cell,
      `makes ${columns} × ${rows} cells of ${arena.name}; at most ${LIMITS.boardSide} × ${LIMITS.boardSide} are kept: widen the cell`,
    );
  const standing = [...encounter.party, ...encounter.allies];
  const sizes = standing.map(({ unit }) => alteredUnit(project, unit).rounds?.size ?? 1);
  const covered = sizes.reduce((sum, size) => sum + cellsCovered(size, rounds.ground), 0);
  const tooWide = rounds.ground !== 'hexagons' && Math.max(0, ...sizes) > Math.min(columns, rows);
  if (covered > columns * rows || tooWide)
    report(
      pointerOf(...at, 'rounds', 'cell'),
      'fits',
      rounds.cell,
      `makes ${columns} × ${rows} cells of ${arena.name}: too few for the ${standing.length} who stand there from the start, on ${covered} cells`,
    );
}
