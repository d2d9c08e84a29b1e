import {
  type Band,
  BAND_MEASURES,
  type BandMeasure,
  GOAL_MEASURES,
  commonClock,
  type JudgedGoal,
  type Project,
  SUBJECT_OF,
  type Verdict,
  samplesIn,
  goalIn,
  goalsOf,
  idFor,
  judgeGoals,
  STATISTIC_WORDS,
  told,
  unitOf,
  untold,
  VERDICT_WORDS,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { useQuery } from '../../app/query';
import { useView } from '../../app/view';
import { Choose } from '../../fields/Choose';
import { Mini } from '../../fields/Mini';
import { NumberField } from '../../fields/NumberField';
import { changed } from '../../store/document';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { useCells } from '../../server/useCells';
import { VerdictMark } from '../../visuals/VerdictMark';
import { BandPanel } from './BandPanel';
import {
  aboutOf,
  aboutOffers,
  askedOf,
  bandsCopied,
  markedWith,
  measuresIn,
  statisticsOf,
  withAbout,
  withMeasure,
  measuresFor,
} from './bands';

const ALL = '*';
const ANY = '*any';
/** Titles of the columns, their widths in px, and those where limits are told in rounds. */
const COLUMNS: readonly (readonly [string, number, number])[] = [
  ['', 22, 22],
  ['measure', 82, 82],
  ['of', 90, 84],
  ['in', 78, 62],
  ['tier', 64, 62],
  ['skill', 58, 50],
  ['by its', 62, 58],
  ['at least', 62, 82],
  ['at most', 62, 82],
  ['now', 80, 76],
  [' ', 40, 40],
];
const TABLE_WIDTH = COLUMNS.reduce((sum, [, width]) => sum + width, 0);

/** The brief: what the fights are meant to be like, goal by goal, and how far they are. */
export function BriefPage() {
  const project = useAppSelector((state) => state.document.document);
  return project && <BriefOf project={project} />;
}

function BriefOf({ project }: { project: Project }) {
  const dispatch = useAppDispatch();
  const [search, set] = useQuery();
  const bands = project.brief?.bands ?? [];
  const measure = BAND_MEASURES.find((key) => key === search.get('measure'));
  const listed = measure ? bands.filter((band) => band.measure === measure) : bands;
  const selected = listed.find(({ id }) => id === search.get('band')) ?? listed[0];
  const [{ turned }] = useView(project);
  const goals = useMemo(() => goalsOf(project, { turned }), [project, turned]);
  const asked = useMemo(() => askedOf(goals), [goals]);
  const read = useCells(project.id, asked);
  const judged = useMemo(() => (read ? judgeGoals(goals, samplesIn(read)) : []), [goals, read]);
  const byBand = useMemo(() => {
    const found = new Map<string, JudgedGoal[]>();
    for (const goal of judged) found.set(goal.band.id, [...(found.get(goal.band.id) ?? []), goal]);
    return found;
  }, [judged]);
  const change = (name: string, how: (bands: Band[]) => Band[], mark?: string) =>
    dispatch(changed({ document: { ...project, brief: { ...(project.brief ?? { curves: [] }), bands: how(bands) } }, name, mark }));
  const called = (band: Band) => goalIn(band.measure, clockOfGoals(byBand.get(band.id) ?? [])).label;
  const edit = (band: Band, what: string, next: Band, mark?: string) =>
    change(`Brief, ${called(band)}: ${what}`, (all) => all.map((one) => (one.id === band.id ? next : one)), mark);
  const add = () => {
    const own: BandMeasure = measure ?? 'timeToKill';
    const from = selected?.measure === own ? selected : undefined;
    const made: Band = from
      ? { ...structuredClone(from), id: '' }
      : withAbout(
          { id: '', measure: own, scope: 'enemies', statistic: GOAL_MEASURES[own].usual, high: untold(own, 10) },
          aboutOffers(project, own)[0]?.id ?? 'enemies',
        );
    made.id = idFor(
      `${own}-${made.of ?? made.scope}`,
      bands.map(({ id }) => id),
    );
    change(`Brief: another goal, ${called(from ?? made)}`, (all) => [...all, made]);
    set({ band: made.id, measure: measure ?? search.get('measure') ?? undefined });
  };
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const several = listed.filter(({ id }) => marked.has(id));
  const mark = (id: string, on: boolean, range: boolean) =>
    setMarked(markedWith(listed, marked, { id, on, ...(range && selected && { from: selected.id }) }));
  const copy = (which: readonly Band[], tier?: string) => {
    const { bands: next, copies } = bandsCopied(bands, which, tier);
    const words = copies.length === 1 ? called(which[0]) : `${copies.length} goals`;
    change(`Brief: ${words} copied`, () => next);
    setMarked(new Set(copies.length > 1 ? copies.map(({ id }) => id) : []));
    set({ band: copies[0].id });
  };
  const rounds = judged.some(({ clock }) => clock === 'rounds');
  const notRun = judged.filter(({ judgement }) => !judgement).length;
  const met = judged.filter(({ verdict, judgement }) => judgement && verdict === 'met').length;
  return (
    <div className="grid min-h-0 grid-cols-[var(--list-w)_minmax(0,1fr)_var(--readout-w)]">
      <nav aria-label="Goals by measure" className="scroll flex min-h-0 flex-col border-r bg-well">
        <h2 className="px-4 pb-2 pt-3 text-section">
          {bands.length} {bands.length === 1 ? 'goal' : 'goals'}
        </h2>
        {[{ measure: undefined, count: bands.length }, ...measuresIn(bands)].map(({ measure: own, count }) => (
          <button
            key={own ?? ALL}
            type="button"
            aria-current={own === measure ? 'page' : undefined}
            onClick={() => set({ measure: own, band: undefined })}
            className={`flex shrink-0 items-baseline gap-2 border-t border-hair px-4 py-1.5 text-left ${own === measure ? 'bg-sheet font-semibold shadow-[inset_3px_0_0_var(--ink)]' : ''}`}
          >
            <span className="min-w-0 flex-1 truncate first-letter:uppercase">
              {own ? goalIn(own, clockOfGoals(judged.filter(({ band }) => band.measure === own))).label : 'All measures'}
            </span>
            <span className="text-label text-ink-3">{count}</span>
          </button>
        ))}
      </nav>
      <main className="scroll flex min-h-0 min-w-0 flex-col">
        <header className="flex items-center gap-3 px-4 pb-2 pt-2.5">
          <h1 className="text-page">Brief</h1>
          <span className="note min-w-0 flex-1 truncate">what the fights are meant to be like</span>
          {judged.length > 0 && (
            <span className="whitespace-nowrap text-table">
              <b>{met}</b> of {judged.length} met{notRun > 0 && `, ${notRun} not run`}
            </span>
          )}
          <button type="button" className="btn" onClick={add}>
            Add a goal
          </button>
        </header>
        {several.length > 0 && (
          <div role="group" aria-label="Marked goals" className="flex flex-wrap items-end gap-2 px-4 pb-2 text-table">
            <span className="pb-1">
              <b>{several.length}</b> {several.length === 1 ? 'goal' : 'goals'} marked
            </span>
            <button type="button" className="btn" onClick={() => copy(several)}>
              Copy
            </button>
            {project.tiers.length > 0 && (
              <div className="w-[140px]">
                <Choose
                  quiet
                  label="Copy for a tier"
                  value={ANY}
                  options={[{ id: ANY, name: 'copy for a tier …' }, ...project.tiers.map(({ id, name }) => ({ id, name }))]}
                  onChoose={(tier) => tier !== ANY && copy(several, tier)}
                />
              </div>
            )}
            <button
              type="button"
              className="btn"
              onClick={() => {
                change(`Brief: ${several.length} goals less`, (all) => all.filter(({ id }) => !marked.has(id)));
                setMarked(new Set());
              }}
            >
              Remove
            </button>
            <button type="button" className="link pb-1" onClick={() => setMarked(new Set())}>
              none
            </button>
          </div>
        )}
        {listed.length ? (
          <table
            className="mx-4 w-[calc(100%-32px)] max-w-[1080px] table-fixed border-b text-table"
            style={{ minWidth: TABLE_WIDTH }}
            aria-label="Goals"
          >
            <thead>
              <tr className="border-y text-left text-label text-ink-3">
                {COLUMNS.map(([title, width, inRounds]) => (
                  <th key={title} className="px-1 font-normal" style={{ width: rounds ? inRounds : width }}>
                    {title}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {listed.map((band) => (
                <BandRow
                  key={band.id}
                  project={project}
                  band={band}
                  on={band === selected}
                  goals={byBand.get(band.id) ?? []}
                  read={read !== null}
                  marked={marked.has(band.id)}
                  onMark={(on, range) => mark(band.id, on, range)}
                  onCopy={() => copy([band])}
                  onSelect={() => set({ band: band.id })}
                  onChange={(what, next, mark) => edit(band, what, next, mark)}
                  onRemove={() => change(`Brief: a goal less, ${called(band)}`, (all) => all.filter(({ id }) => id !== band.id))}
                />
              ))}
            </tbody>
          </table>
        ) : (
          <p className="max-w-[560px] px-4 py-6 text-ink-2">
            No goal yet. A goal says where a measure is to lie: the time to kill every swarm enemy at Bloom between 1 and 2.6 seconds, say.
            The board then shows every cell against it, and the command line’s check fails when it is missed.
          </p>
        )}
      </main>
      {selected && read && (
        <BandPanel
          key={selected.id}
          project={project}
          band={selected}
          goals={byBand.get(selected.id) ?? []}
          read={read}
          onChange={(what, next, mark) => edit(selected, what, next, mark)}
        />
      )}
    </div>
  );
}

interface RowProps {
  project: Project;
  band: Band;
  on: boolean;
  goals: readonly JudgedGoal[];
  /** What has been run is known. */
  read: boolean;
  marked: boolean;
  /** @param range everything from the chosen goal to this one */
  onMark: (on: boolean, range: boolean) => void;
  onCopy: () => void;
  onSelect: () => void;
  onChange: (what: string, next: Band, mark?: string) => void;
  onRemove: () => void;
}

/** Where all that they are measured in takes turns, goals are told in rounds. */
const clockOfGoals = (goals: readonly JudgedGoal[]) => commonClock(goals.map(({ clock }) => clock));

function BandRow({ project, band, on, goals, read, marked, onMark, onCopy, onSelect, onChange, onRemove }: RowProps) {
  const { measure, tier, skill, encounter, scope, statistic } = band;
  const clock = clockOfGoals(goals);
  const { label } = goalIn(measure, clock);
  const about = aboutOf(band);
  const offers = useMemo(() => aboutOffers(project, measure), [project, measure]);
  const enemy = SUBJECT_OF[scope] === 'enemy';
  const name = `${label} of ${offers.find(({ id }) => id === about)?.name ?? about}`;
  const optional = (key: 'tier' | 'skill' | 'encounter', id: string, words: string) => {
    const { [key]: _, ...rest } = band;
    onChange(words, id === ANY ? rest : { ...rest, [key]: id });
  };
  const shownLimit = (key: 'low' | 'high') => {
    const own = band[key];
    return own === undefined ? undefined : Number(told(measure, own).toPrecision(10));
  };
  const limit = (key: 'low' | 'high') => (
    <NumberField
      bare
      compact
      width={clock === 'rounds' ? 74 : 58}
      info={{
        label: `${name}: ${key === 'low' ? 'at least' : 'at most'}`,
        unit: unitOf(measure, clock),
        // A band the wrong way round is refused where it is typed.
        min: key === 'high' ? (shownLimit('low') ?? -1e7) : -1e7,
        max: key === 'low' ? (shownLimit('high') ?? 1e7) : 1e7,
        about: '',
      }}
      base={shownLimit(key)}
      onCommit={(value, mark) => {
        const own = Number(untold(measure, value).toPrecision(10));
        onChange(`${key === 'low' ? 'at least' : 'at most'} ${value}`, { ...band, [key]: own }, mark);
      }}
      onClear={() => {
        const rest: Band = { ...band };
        delete rest[key];
        if (rest.low !== undefined || rest.high !== undefined) onChange(`no ${key === 'low' ? 'least' : 'most'}`, rest);
      }}
    />
  );
  const pick = 'relative flex min-h-6 w-full items-center px-0.5';
  return (
    <tr
      className={`border-t border-hair ${on ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : ''}`}
      onFocus={onSelect}
      onClick={onSelect}
      aria-label={name}
    >
      <td className="pl-2">
        <input
          type="checkbox"
          className="mark block"
          aria-label={`Mark ${name}`}
          title="mark several to copy or remove them together; Shift: all from the chosen one on"
          checked={marked}
          onFocus={(event) => event.stopPropagation()}
          onClick={(event) => {
            event.stopPropagation();
            onMark(!marked, event.shiftKey);
          }}
          onChange={() => undefined}
        />
      </td>
      <td className="px-1">
        <Choose
          quiet
          cell
          className={pick}
          label={`${name}: measure`}
          value={measure}
          options={measuresFor(project, band).map((id) => ({ id, name: goalIn(id, clock).label }))}
          onChoose={(id) => onChange('another measure', withMeasure(project, band, BAND_MEASURES.find((one) => one === id) ?? measure))}
        />
      </td>
      <td className="px-1">
        <Choose
          quiet
          cell
          className={pick}
          label={`${name}: of`}
          value={about}
          options={offers}
          onChoose={(id) => onChange(`of ${offers.find((one) => one.id === id)?.name ?? id}`, withAbout(band, id))}
        />
      </td>
      <td className="px-1">
        {enemy && (
          <Choose
            quiet
            cell
            className={pick}
            label={`${name}: in`}
            value={encounter ?? ANY}
            options={[{ id: ANY, name: 'a duel' }, ...project.encounters.map(({ id, name: own }) => ({ id, name: own }))]}
            onChoose={(id) => optional('encounter', id, 'measured elsewhere')}
          />
        )}
      </td>
      <td className="px-1">
        <Choose
          quiet
          cell
          className={pick}
          label={`${name}: tier`}
          value={tier ?? ANY}
          options={[{ id: ANY, name: 'every' }, ...project.tiers.map(({ id, name: own }) => ({ id, name: own }))]}
          onChoose={(id) => optional('tier', id, 'another tier')}
        />
      </td>
      <td className="px-1">
        <Choose
          quiet
          cell
          className={pick}
          label={`${name}: skill`}
          value={skill ?? ANY}
          options={[{ id: ANY, name: 'every' }, ...project.skills.map(({ id, name: own }) => ({ id, name: own }))]}
          onChoose={(id) => optional('skill', id, 'another skill')}
        />
      </td>
      <td className="px-1">
        <Choose
          quiet
          cell
          className={pick}
          label={`${name}: by its`}
          value={statistic}
          options={statisticsOf(measure).map((id) => ({ id, name: STATISTIC_WORDS[id] }))}
          onChoose={(id) => onChange(`by its ${id}`, { ...band, statistic: statisticsOf(measure).find((one) => one === id) ?? statistic })}
        />
      </td>
      <td className="px-1">{limit('low')}</td>
      <td className="px-1">{limit('high')}</td>
      <td className="whitespace-nowrap px-1">
        <Tally goals={goals} read={read} />
      </td>
      <td className="whitespace-nowrap">
        <Mini sign="copy" label={`Copy ${name}`} onClick={onCopy} />
        <Mini sign="remove" label={`Remove ${name}`} onClick={onRemove} />
      </td>
    </tr>
  );
}

/** The verdicts of a band's cells: one mark where it has one cell, counts where it has several. */
function Tally({ goals, read }: Pick<RowProps, 'goals' | 'read'>) {
  const known = goals.filter(({ judgement }) => judgement);
  if (!known.length) return <span className="text-label text-ink-3">{read ? 'not run' : 'reading …'}</span>;
  const verdicts = (Object.keys(VERDICT_WORDS) as Verdict[]).map((verdict) => ({
    verdict,
    count: known.filter((goal) => goal.verdict === verdict).length,
  }));
  return (
    <span className="flex flex-wrap items-center gap-x-1.5">
      {verdicts
        .filter(({ count }) => count > 0)
        .map(({ verdict, count }) => (
          <span key={verdict} className={`flex items-center gap-0.5 ${verdict.startsWith('missed') ? 'text-warn' : ''}`}>
            <VerdictMark verdict={verdict} />
            {known.length > 1 && count}
          </span>
        ))}
    </span>
  );
}
