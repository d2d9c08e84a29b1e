import {
  BAND_MEASURES,
  BOARD_AXES,
  type Band,
  type BoardAxis,
  type BoardLens,
  GOAL_MEASURES,
  type Project,
  acrossStyles,
  askedOf,
  clocksOfBoard,
  commonClock,
  goalIn,
  scenarioKey,
  scenarioOf,
  columnAt,
  columnsOf,
  countsOf,
  everyCell,
  goalsByPlace,
  idFor,
  judgedOf,
  lensOfGoals,
  rowsOf,
  shownAt,
  unitOf,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { useQuery } from '../../app/query';
import { useView } from '../../app/view';
import { Choose } from '../../fields/Choose';
import { bandAbout, movedEdge } from '../../fields/bandAbout';
import { type Until, api } from '../../server/api';
import { runCells } from '../../server/batches';
import { changed } from '../../store/document';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { READING, useCells } from '../../server/useCells';
import { useWidth } from '../../visuals/useWidth';
import { BoardRanking } from './BoardRanking';
import { BoardTable } from './BoardTable';
import { CellPanel } from './CellPanel';
import { Grid } from './Grid';
import { MeasureList } from './MeasureList';
import { rankFrom, rankText } from './rankBy';
import { RankingCheck } from './RankingCheck';
import { nameWidth } from './rowUnits';
import { BOARD_RUNS } from './runs';
import { type HowMany, RunBar } from './RunBar';
import { saveCsv, savePng } from './saveBoard';

const AS_IS = 'as-is';
/** In place of a style: all of them side by side. */
const RANGE = 'range';
const AXIS_WORDS: Record<BoardAxis, string> = { tiers: 'tiers', skills: 'skills', players: 'player counts' };
const LOOKS = ['pictures', 'table', 'ranking'] as const;
type Looks = (typeof LOOKS)[number];
const FIRST: HowMany = { ...BOARD_RUNS, until: false, narrower: 5, cap: 3200 };

/** The whole project judged at once: enemies and encounters by tiers, a measure in each cell, against the brief. */
export function BoardPage() {
  const project = useAppSelector((state) => state.document.document);
  return project && <Board project={project} />;
}

function Board({ project }: { project: Project }) {
  const dispatch = useAppDispatch();
  const [view] = useView(project);
  const [search, change] = useQuery();
  const saving = useAppSelector((state) => state.document.saving);
  const [howMany, setHowMany] = useState(FIRST);
  const [looks, setLooks] = useState<Looks>('pictures');
  const [ref, width] = useWidth<HTMLDivElement>(732);
  const measure = BAND_MEASURES.find((key) => key === search.get('measure')) ?? 'timeToKill';
  const style = project.styles.find(({ id }) => id === search.get('style'))?.id;
  const axis = BOARD_AXES.find((one) => one === search.get('by')) ?? 'tiers';
  const most = Math.max(1, ...project.encounters.map(({ party }) => party.length));
  const count = Number(search.get('players'));
  const players = axis !== 'players' && count >= 1 && count <= most ? count : undefined;
  const lens = useMemo((): BoardLens => {
    // The axis that the columns are is not in the lens.
    return {
      ...(axis !== 'tiers' && { tier: view.tier }),
      ...(axis !== 'skills' && { skill: view.skill }),
      style,
      players,
      turned: view.turned,
    };
  }, [axis, view.tier, view.skill, style, players, view.turned]);
  const range = search.get('style') === RANGE && project.styles.length > 0;
  const lenses = useMemo(
    () => [lens, ...(range ? project.styles.map(({ id }) => ({ ...lens, style: id })) : [])],
    [lens, range, project.styles],
  );
  const every = useMemo(() => lenses.flatMap((one) => everyCell(project, axis, one)), [project, axis, lenses]);
  const set = (name: string, value: string | undefined) => change({ [name]: value });
  const columns = useMemo(() => columnsOf(project, axis), [project, axis]);
  const rows = useMemo(() => rowsOf(project, measure, axis), [project, measure, axis]);
  const clocks = useMemo(() => clocksOfBoard(project), [project]);
  const rankedBy = search.get('rank');
  const rankBy = useMemo(() => rankFrom(rankedBy), [rankedBy]);
  const asked = useMemo(
    () => lenses.flatMap((one) => askedOf(project, measure, axis, one, rankBy)),
    [project, measure, axis, lenses, rankBy],
  );
  const read = useCells(project.id, asked);
  const judged = useMemo(() => (read ? judgedOf(project, axis, lens, read) : []), [project, axis, lens, read]);
  const goals = useMemo(() => goalsByPlace(judged), [judged]);
  const counts = useMemo(() => countsOf(judged), [judged]);
  const goalsLens = useMemo(() => lensOfGoals(project, axis, lens), [project, axis, lens]);
  const cells = useMemo(
    () =>
      rows.map((row) =>
        columns.map((column) => {
          const shown = shownAt(row, column, lens, measure, goals, read);
          return range ? acrossStyles(project, row, column, lens, measure, shown, read) : shown;
        }),
      ),
    [project, rows, columns, lens, measure, goals, read, range],
  );
  const flat = cells.flat();
  const selected =
    flat.find(({ key }) => key === search.get('cell')) ?? flat[columns.findIndex(({ at }) => at.tier === view.tier)] ?? flat[0];
  const at = Math.max(0, flat.indexOf(selected));
  const row = rows[Math.floor(at / columns.length)];
  const column = columns[at % columns.length];
  const lacking = every.filter((key) => !read?.get(key)?.runs);
  const met = flat.filter(({ verdict }) => verdict === 'met').length;
  const wanted = flat.filter(({ band }) => band).length;
  /** Until what is shown is clear: by its band, where one speaks of the cell, or by its width. */
  const untilOf = (key: string): { until?: Until } => {
    const index = flat.findIndex(({ cell }) => scenarioKey(cell) === key);
    if (!howMany.until || index < 0) return {};
    const { statistic, band } = flat[index];
    const edges = band && { band: { low: band.low, high: band.high } };
    const column = columnAt(rows[Math.floor(index / columns.length)], measure);
    return { until: { column, statistic, narrower: howMany.narrower / 100, cap: howMany.cap, ...edges } };
  };
  const run = (keys: readonly string[], runs?: number) =>
    dispatch(
      runCells(
        project.id,
        keys.map((cell) => ({ cell, runs: runs ?? howMany[scenarioOf(cell).kind], ...(runs === undefined && untilOf(cell)) })),
      ),
    );
  const clock = commonClock(rows.length ? rows.map((row) => row.clock) : clocks);
  const { label } = goalIn(measure, clock);
  const changeBrief = (name: string, how: (bands: Band[]) => Band[], mark?: string) =>
    dispatch(
      changed({
        document: { ...project, brief: { ...(project.brief ?? { curves: [] }), bands: how(project.brief?.bands ?? []) } },
        name,
        mark,
      }),
    );
  const moveBand = (band: Band, edge: 'low' | 'high', value: number, mark: string) =>
    changeBrief(
      `Band of ${goalIn(band.measure, clock).label}`,
      (bands) => bands.map((one) => (one.id === band.id ? movedEdge(one, edge, value) : one)),
      mark,
    );
  const addBand = () => {
    if (!selected || !row || !Number.isFinite(selected.estimate.value)) return;
    const { value } = selected.estimate;
    const { tier, skill } = selected.cell;
    const band: Band = {
      id: idFor(
        `${measure} ${row.wave ?? row.id} ${tier ?? ''}`,
        (project.brief?.bands ?? []).map(({ id }) => id),
      ),
      measure,
      scope: row.subject === 'enemy' ? 'unit' : row.subject,
      of: row.wave ?? row.id,
      ...(row.wave && { encounter: row.id }),
      ...(tier && { tier }),
      ...(skill && { skill }),
      statistic: GOAL_MEASURES[measure].usual,
      ...bandAbout(measure, [value]),
    };
    changeBrief(`Band: ${label} of ${row.name}`, (bands) => [...bands, band]);
  };
  const nameIn = (list: readonly { id: string; name: string }[], id: string | undefined) => list.find((one) => one.id === id)?.name;
  const lensWords = ({ tier, skill }: Pick<BoardLens, 'tier' | 'skill'>) =>
    [nameIn(project.tiers, tier), nameIn(project.skills, skill)].filter(Boolean).join(', ');
  const through = [
    ...(axis === 'tiers' ? [] : [nameIn(project.tiers, view.tier)]),
    ...(axis === 'skills' ? [] : [nameIn(project.skills, view.skill) ?? 'as written']),
    nameIn(project.styles, style),
    players && `${players} ${players === 1 ? 'player' : 'players'}`,
  ]
    .filter(Boolean)
    .join(', ');
  const parts = { measure, rows, columns, cells };
  const names = nameWidth(width - 34, columns.length);
  const cellWidth = Math.max(96, (width - names - 34) / columns.length);
  return (
    <div className="grid min-h-0 grid-cols-[var(--list-w)_minmax(0,1fr)_var(--readout-w)]">
      <MeasureList
        clocks={clocks}
        measure={measure}
        counts={counts}
        known={read !== null}
        goals={project.brief?.bands.length ?? 0}
        seenAt={goalsLens && { words: `Look at ${lensWords(goalsLens)}`, look: () => change({ ...goalsLens }) }}
        onMeasure={(key) => set('measure', key)}
      />
      <main className="scroll flex min-h-0 min-w-0 flex-col" ref={ref}>
        <header className="flex items-center gap-3 px-4 pb-1.5 pt-2.5">
          <h1 className="text-page">Board</h1>
          <span className="note min-w-0 flex-1 truncate">
            {label}
            {unitOf(measure, clock) && `, ${unitOf(measure, clock)}`}, against the brief; {through}
          </span>
          {wanted > 0 && (
            <span className="whitespace-nowrap text-table" data-testid="met">
              <b>{met}</b> of {wanted} met
            </span>
          )}
        </header>
        <div className="flex flex-wrap items-end gap-2 px-4 pb-2">
          <div className="w-[108px] shrink-0">
            <Choose
              label="Play style"
              value={range ? RANGE : (style ?? AS_IS)}
              options={[
                { id: AS_IS, name: 'as written' },
                ...project.styles.map(({ id, name }) => ({ id, name })),
                ...(project.styles.length ? [{ id: RANGE, name: 'the range across all' }] : []),
              ]}
              onChoose={(id) => set('style', id === AS_IS ? undefined : id)}
            />
          </div>
          <div className="w-[96px] shrink-0">
            <Choose
              label="Columns"
              value={axis}
              options={BOARD_AXES.map((id) => ({ id, name: AXIS_WORDS[id] }))}
              onChoose={(id) => set('by', id === 'tiers' ? undefined : id)}
            />
          </div>
          {axis !== 'players' && most > 1 && (
            <div className="w-[84px] shrink-0">
              <Choose
                label="Players"
                value={players ? String(players) : AS_IS}
                options={[
                  { id: AS_IS, name: 'as written' },
                  ...Array.from({ length: most }, (_, i) => ({ id: String(i + 1), name: String(i + 1) })),
                ]}
                onChoose={(id) => set('players', id === AS_IS ? undefined : id)}
              />
            </div>
          )}
          <span role="radiogroup" aria-label="Shown as" className="shrink-0 whitespace-nowrap pb-[3px]">
            {LOOKS.map((one) => (
              <button key={one} type="button" role="radio" aria-checked={looks === one} className="switch" onClick={() => setLooks(one)}>
                {one}
              </button>
            ))}
          </span>
          <span className="flex-1" />
          <RunBar
            project={project.id}
            howMany={howMany}
            onHowMany={setHowMany}
            missing={read ? lacking.length : every.length}
            all={every.length}
            onRun={(which) => run(which === 'all' ? every : lacking)}
            lacking={read ? lacking.map((cell) => ({ cell, runs: howMany[scenarioOf(cell).kind] })) : []}
            unsaved={saving !== 'saved'}
          />
        </div>
        {!read && <p className="px-4 py-6 text-ink-3">{READING}</p>}
        {read && looks === 'table' && <BoardTable {...parts} />}
        {read && looks === 'ranking' && column && (
          <BoardRanking
            {...parts}
            column={columns.indexOf(column)}
            onColumn={(c) => set('cell', cells[0]?.[c]?.key)}
            onSelect={(key) => set('cell', key)}
          />
        )}
        {read && looks === 'pictures' && (
          <Grid
            {...parts}
            names={names}
            cellWidth={cellWidth}
            selected={at}
            lensTier={view.tier}
            trouble={({ cell }) => read.get(scenarioKey(cell))?.trouble}
            onSelect={(key) => set('cell', key)}
          />
        )}
        <p className="flex gap-4 px-4 pt-1.5 text-table">
          <button type="button" className="link" onClick={() => saveCsv(project, parts)}>
            CSV
          </button>
          <button type="button" className="link" onClick={() => void savePng(project, parts)}>
            PNG
          </button>
          <a className="link" href={api.reportOf(project.id, { skill: lens.skill, style, players })} target="_blank" rel="noreferrer">
            Report to print
          </a>
        </p>
        <span className="flex-1" />
        {read && axis === 'tiers' && (
          <RankingCheck
            project={project}
            lens={lens}
            read={read}
            width={width - 32}
            by={rankBy}
            onBy={(next) => set('rank', rankText(next))}
          />
        )}
      </main>
      {selected && row && column && (
        <CellPanel
          project={project}
          row={row}
          column={column}
          measure={measure}
          cell={selected}
          read={read?.get(scenarioKey(selected.cell))}
          through={through}
          onRun={run}
          onBand={moveBand}
          onAddBand={addBand}
        />
      )}
    </div>
  );
}
