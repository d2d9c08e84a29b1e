/** One page for a review meeting, to be printed or sent: verdicts, board, pacing and findings as HTML that needs nothing else. */
import {
  type BoardLens,
  type ReadCells,
  askedOf,
  cellAt,
  columnsOf,
  countsOf,
  goalsByPlace,
  judgedOf,
  rowsOf,
  shownAt,
} from '../analysis/board';
import { scenarioKey } from '../analysis/scenario';
import { type JudgedGoal } from '../analysis/cells';
import { lullsOf } from '../analysis/encounter-readout';
import { inspectAll } from '../analysis/inspection/inspect';
import { findingsOf, intendedFor, pacedWaves, pacingColumns, shareInside } from '../analysis/pacing';
import { tierSteps } from '../analysis/ranking';
import { acceptanceOf } from '../analysis/warning';
import { ENGINE_VERSION } from '../engine/tuning';
import type { Curve } from '../measures/curves';
import { type BandMeasure, BAND_MEASURES, commonClock, goalIn } from '../measures/list';
import type { Encounter } from '../model/encounter';
import type { Project } from '../model/project';
import { boardPicture } from '../telling/board-picture';
import { goalPlace, goalSentence, isMissed } from '../telling/goal-sentences';
import { unitOf } from '../telling/goal-words';
import { shown } from '../telling/numbers';
import { pacingPicture } from '../telling/pacing-picture';
import { roundUp } from '../telling/scale';
import { escaped, svgOf } from '../telling/shape';
import { VERDICT_SHAPES, VERDICT_SIZE } from '../telling/verdict-mark';
import { REPORT_STYLE, reportFonts } from './report-style';

/** What of an encounter at a tier lies over its clock. */
export interface ReportCurves {
  pressure: Curve;
  quiet: Curve;
}

export interface ReportOptions {
  project: Project;
  lens: Pick<BoardLens, 'skill' | 'style' | 'players'>;
  read: ReadCells;
  /** By key of a cell. */
  curves: ReadonlyMap<string, ReportCurves>;
  /** When it was made, as it is to be read. */
  at: string;
  /** The bytes of a file of `REPORT_FONTS`, in base64; absent: a reader's own typefaces serve. */
  font?: (file: string) => string;
  /** Boards to show; absent: what the brief speaks of, most goals first, four at most. */
  measures?: readonly BandMeasure[];
}

const WIDTH = 1040;
const MOST_BOARDS = 4;

/** The skill that most goals of the brief speak of, else the first: what a report looks through unless it is told. */
export function usualSkill({ brief, skills }: Project): string | undefined {
  const count = (id: string) => (brief?.bands ?? []).filter(({ skill }) => skill === id).length;
  return [...skills].sort((a, b) => count(b.id) - count(a.id))[0]?.id;
}

/** Cells that a report reads, with the columns of each. */
export function reportCells(project: Project, lens: ReportOptions['lens'], measures?: readonly BandMeasure[]) {
  const asked = new Map<string, Set<string>>();
  const add = (cell: string, columns: readonly string[]) => {
    const own = asked.get(cell) ?? new Set();
    columns.forEach((column) => own.add(column));
    asked.set(cell, own);
  };
  for (const measure of boardsOf(project, measures))
    for (const { cell, columns } of askedOf(project, measure, 'tiers', lens)) add(cell, columns);
  for (const encounter of project.encounters)
    for (const { key } of stripsOf(project, encounter, lens)) add(key, [...pacingColumns(encounter), 'dose']);
  return [...asked].map(([cell, columns]) => ({ cell, columns: [...columns] }));
}

/** Cells whose curves a report draws. */
export function reportCurves(project: Project, lens: ReportOptions['lens']): string[] {
  return project.encounters.flatMap((encounter) => stripsOf(project, encounter, lens).map(({ key }) => key));
}

export function report({ project, lens, read, curves, at, measures, font }: ReportOptions): string {
  const judged = judgedOf(project, 'tiers', lens, read);
  const skill = project.skills.find(({ id }) => id === lens.skill)?.name ?? 'players as written';
  const through = [
    skill,
    project.styles.find(({ id }) => id === lens.style)?.name,
    lens.players && `${lens.players} ${lens.players === 1 ? 'player' : 'players'}`,
  ].filter(Boolean);
  const body = [
    `<header><h1>${escaped(project.name)}</h1><p>${escaped([at, ...through].join(' · '))}</p></header>`,
    verdicts(project, judged),
    ...boardsOf(project, measures).map((measure) => board(project, lens, read, judged, measure)),
    order(project, lens, read),
    ...project.encounters.map((encounter) => pacing(project, encounter, lens, read, curves)),
    warnings(project),
    `<footer>Seeds 1 and up; engine ${ENGINE_VERSION}. Intervals are 95 %; verdicts of all goals are read together. A survivor counts as never.</footer>`,
  ];
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escaped(project.name)}: report</title><style>${font ? reportFonts(font) : ''}${REPORT_STYLE}</style></head><body>${body.join('')}</body></html>\n`;
}

function boardsOf(project: Project, measures?: readonly BandMeasure[]): BandMeasure[] {
  if (measures?.length) return [...measures];
  const count = new Map<BandMeasure, number>();
  for (const { measure } of project.brief?.bands ?? []) count.set(measure, (count.get(measure) ?? 0) + 1);
  const known = BAND_MEASURES.filter((measure) => count.has(measure));
  known.sort((a, b) => (count.get(b) ?? 0) - (count.get(a) ?? 0));
  return known.length ? known.slice(0, MOST_BOARDS) : ['timeToKill', 'won'];
}

const section = (title: string, note: string, content: string) =>
  `<section><h2>${escaped(title)}${note && ` <small>${escaped(note)}</small>`}</h2>${content}</section>`;
const mark = (verdict: JudgedGoal['verdict']) =>
  `<svg class="mark" width="${VERDICT_SIZE.width}" height="${VERDICT_SIZE.height}" fill="none">${svgOf(VERDICT_SHAPES[verdict])}</svg>`;
const list = (items: readonly string[]) => `<ul>${items.map((item) => `<li>${item}</li>`).join('')}</ul>`;

function verdicts(project: Project, judged: readonly JudgedGoal[]): string {
  if (!judged.length) return section('Verdicts', '', '<p>The brief has no goal that speaks of this.</p>');
  const run = judged.filter(({ judgement }) => judgement);
  const missed = run.filter(isMissed);
  const open = run.filter(({ verdict }) => verdict === 'undecided');
  const met = run.filter(({ verdict }) => verdict === 'met').length;
  const rows = [...countsOf(run)].map(
    ([measure, counts]) =>
      `<tr><td>${escaped(goalIn(measure, commonClock(run.flatMap(({ band, clock }) => (band.measure === measure ? [clock] : [])))).label)}</td>${(
        ['met', 'missedLow', 'missedHigh', 'undecided'] as const
      )
        .map((verdict) => `<td>${counts[verdict] || ''}</td>`)
        .join('')}</tr>`,
  );
  const head = (['met', 'missedLow', 'missedHigh', 'undecided'] as const).map((verdict) => `<th>${mark(verdict)}</th>`).join('');
  const lines = (goals: readonly JudgedGoal[]) =>
    list(
      goals.map(
        (goal) =>
          `${mark(goal.verdict)} <b>${escaped(goalPlace(project, goal))}</b>: ${escaped(`${goalIn(goal.band.measure, goal.clock).label} ${goalSentence(goal)}`)}${goal.band.why ? ` <i>${escaped(goal.band.why)}</i>` : ''}`,
      ),
    );
  const lacking = judged.length - run.length;
  return section(
    'Verdicts',
    `${met} of ${judged.length} goals met, ${missed.length} missed, ${open.length} undecided${lacking ? `, ${lacking} not run` : ''}`,
    run.length
      ? `<div class="two"><table class="counts"><tr><th></th>${head}</tr>${rows.join('')}</table><div>${
          missed.length ? lines(missed) : `<p>No goal${lacking ? ' that has been run' : ''} is missed.</p>`
        }${open.length ? lines(open) : ''}</div></div>`
      : '<p>No goal has been run: nothing is known of them yet.</p>',
  );
}

function board(
  project: Project,
  lens: ReportOptions['lens'],
  read: ReadCells,
  judged: readonly JudgedGoal[],
  measure: BandMeasure,
): string {
  const columns = columnsOf(project, 'tiers');
  const rows = rowsOf(project, measure, 'tiers');
  const goals = goalsByPlace(judged);
  const cells = rows.map((row) => columns.map((column) => shownAt(row, column, lens, measure, goals, read)));
  const { svg, width, height } = boardPicture({ rows, columns, cells, measure, width: WIDTH });
  const clocks = new Set(rows.map(({ clock }) => clock));
  const clock = commonClock(clocks);
  const { label, about } = goalIn(measure, clock);
  const runs = cells.flat().flatMap((cell) => (cell.runs ? [cell.runs] : []));
  const note = [about, clocks.size > 1 ? '' : unitOf(measure, clock), runsOf(runs)];
  return section(
    label.charAt(0).toUpperCase() + label.slice(1),
    note.filter(Boolean).join('; '),
    `<svg role="img" aria-label="${escaped(label)}" viewBox="0 0 ${width} ${height}">${svg}</svg>`,
  );
}

function runsOf(runs: readonly number[]): string {
  if (!runs.length) return 'not run';
  const [least, most] = [Math.min(...runs), Math.max(...runs)];
  return `${least === most ? most : `${least} to ${most}`} runs a cell`;
}

/** Tiers whose measured order is not the declared one. */
function order(project: Project, lens: ReportOptions['lens'], read: ReadCells): string {
  const name = (id: string) => project.tiers.find((tier) => tier.id === id)?.name ?? id;
  const columns = columnsOf(project, 'tiers');
  const found = project.encounters.flatMap((encounter) => {
    const tiers = project.tiers.map(({ id }, t) => ({
      id,
      values: read.get(scenarioKey(cellAt({ subject: 'encounter', id: encounter.id }, columns[t], lens)))?.values.dose ?? [],
    }));
    return tierSteps(tiers.filter(({ values }) => values.length)).flatMap(({ below, id, says, compared }) =>
      says === 'harder'
        ? []
        : [
            `<b>${escaped(encounter.name)}</b>: ${escaped(name(id))} is ${says === 'easier' ? 'easier' : 'not measurably harder'} than ${escaped(name(below))}: pressure dose ${shown(compared.difference, 2)} (${shown(compared.low, 2)} to ${shown(compared.high, 2)})`,
          ],
    );
  });
  return found.length ? section('Tiers out of order', 'on the same seeds', list(found)) : '';
}

function stripsOf(project: Project, encounter: Encounter, lens: ReportOptions['lens']) {
  return columnsOf(project, 'tiers').map((column) => {
    const cell = cellAt({ subject: 'encounter', id: encounter.id }, column, lens);
    return { column, cell, key: scenarioKey(cell) };
  });
}

function pacing(
  project: Project,
  encounter: Encounter,
  lens: ReportOptions['lens'],
  read: ReadCells,
  curves: ReportOptions['curves'],
): string {
  const strips = stripsOf(project, encounter, lens).flatMap((strip) => {
    const own = curves.get(strip.key);
    return own ? [{ ...strip, ...own, intended: intendedFor(project.brief, encounter.id, strip.cell.tier) }] : [];
  });
  if (!strips.length) return section(`Pacing of ${encounter.name}`, 'not run', '');
  const last = (curve: Curve) => curve.times[curve.median.findLastIndex((value) => value !== undefined)] ?? 0;
  const until = Math.max(1, ...strips.map(({ pressure }) => last(pressure)));
  const top = roundUp(
    Math.max(0.01, ...strips.flatMap(({ pressure }) => pressure.p90.filter((value): value is number => value !== undefined))),
  );
  const each = (WIDTH - 16) / 2;
  const pictures = strips.map(({ column, key, pressure, quiet, intended }) => {
    const found = read.get(key);
    const waves = pacedWaves(encounter, found?.runs ?? 0, (name) => found?.values[name] ?? []);
    const inside = intended && shareInside(pressure, intended);
    const shapes = pacingPicture({
      curve: pressure,
      percent: true,
      waves,
      lulls: lullsOf(
        quiet.times,
        quiet.median.map((value) => value === 1),
      ),
      intended,
      until,
      top,
      width: each,
      height: 120,
      named: true,
      clock: encounter.clock,
    });
    const findings = findingsOf(pressure, waves, intended, encounter.clock).map(({ sentence }) => escaped(sentence));
    return `<figure><figcaption><b>${escaped(column.name)}</b>${inside === undefined ? '' : ` ${Math.round(100 * inside)} % of the time within what is intended`}</figcaption><svg role="img" aria-label="${escaped(`${encounter.name}, ${column.name}: pressure`)}" viewBox="0 0 ${each} 120">${svgOf(shapes)}</svg>${list(findings)}</figure>`;
  });
  return section(
    `Pacing of ${encounter.name}`,
    'pressure, % of full health a second: median, half and four fifths of the runs; shaded the lulls',
    `<div class="figures">${pictures.join('')}</div>`,
  );
}

function warnings(project: Project): string {
  const open = inspectAll(project).filter((warning) => warning.severity === 'problem' && !acceptanceOf(project, warning));
  if (!open.length) return '';
  return section(
    'Open warnings',
    'by inspection',
    list(open.map(({ path, message, mend }) => `<code>${escaped(path)}</code> ${escaped(message)}; ${escaped(mend)}`)),
  );
}
