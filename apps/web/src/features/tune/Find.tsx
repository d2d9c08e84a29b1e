import {
  type Dial,
  type FindProgress,
  type Nudge,
  type Objective,
  type BestIn,
  PREFERRED,
  type Preferred,
  type Project,
  type QuestionGoal,
  type Scenario,
  type Proposal,
  type Why,
  bestIn,
  dialValue,
  dialWords,
  linear,
  numberOf,
  objectivesOf,
  unitOf,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { Choose } from '../../fields/Choose';
import { Popover } from '../../fields/Popover';
import { useAppSelector } from '../../store/store';
import { VerdictMark } from '../../visuals/VerdictMark';
import { useFinding } from './useFinding';
import { headOf } from './words';

/** Runs that a search may take, to choose from. */
const BUDGETS = [3000, 6000, 10_000, 20_000, 40_000];
const LETTERS = ['A', 'B', 'C', 'D'];

interface Props {
  project: Project;
  /** The fight as it is looked at. */
  cell: Scenario;
  goals: readonly QuestionGoal[];
  dials: readonly Dial[];
  /** The proposal that is looked at, by where it puts each number. */
  chosen: string | undefined;
  /** Tiers and skills that a kept question is asked at. */
  at: readonly Lens[];
  onChoose: (proposal: string | undefined, put: readonly Nudge[]) => void;
}

/** Values of the table's numbers with which every goal holds, searched for, proved, up to four of them. */
export function Find({ project, cell, goals, dials, chosen, at, onChoose }: Props) {
  // Where nobody has said otherwise as it is looked at.
  const [picked, setPicked] = useState<readonly Lens[] | undefined>(at.length > 1 ? at : undefined);
  const { tier, skill } = cell;
  const lenses = useMemo(() => picked ?? [{ tier, skill }], [picked, tier, skill]);
  const objectives = useMemo(
    () => lenses.flatMap((lens) => objectivesOf(project, { ...cell, tier: lens.tier, skill: lens.skill }, goals)),
    [project, cell, goals, lenses],
  );
  const [prefer, setPrefer] = useState<Preferred>('change');
  const [budget, setBudget] = useState(20_000);
  const saved = useAppSelector((state) => state.document.saving === 'saved');
  const { finding, begin, pause, goOn, forget } = useFinding();
  const wanted = objectives.filter(({ band }) => band);
  const turned = dials.filter(({ to, locked }) => to === undefined && !locked);
  const { progress, proposals = [], paused, failure, why } = finding ?? {};
  const titles = bestIn({ goals: wanted }, proposals);
  const over = progress?.phase === 'done' || failure !== undefined;
  const running = finding !== null && !over && !paused;
  const putOf = ({ put }: Proposal): Nudge[] =>
    put.map(({ knob, value }) => ({ dial: knob.dial, from: knob.dial.op === '×' ? 1 : knob.now, to: value }));
  if (!wanted.length || !turned.length)
    return (
      <section aria-label="Find" className="border-t px-4 py-2">
        <h2 className="text-section">Find</h2>
        <p className="note">
          {wanted.length
            ? 'Values with which all goals hold are looked for among the numbers of the table: add some.'
            : 'Nothing is wanted of this fight. Give a measure a value that it is to lie above or below (its goals stand in the sentence above), and values are looked for.'}
        </p>
      </section>
    );
  return (
    <section aria-label="Find" className="border-t px-4 pb-3 pt-2">
      <div className="flex items-center gap-2">
        <h2 className="shrink-0 text-section">Find</h2>
        <span className="note min-w-0 truncate" title="every goal at once, by turning the numbers of the table within their ranges">
          {wanted.length === 1 ? 'the goal' : `${wanted.length} goals`} by {turned.length === 1 ? 'one number' : `${turned.length} numbers`}
          , at
        </span>
        <Lenses project={project} chosen={lenses} onChoose={setPicked} />
        <span className="note shrink-0">with</span>
        <span className="w-[188px] shrink-0">
          <Choose
            quiet
            label="Preferred"
            value={prefer}
            options={Object.entries(PREFERRED).map(([id, name]) => ({ id, name }))}
            onChoose={(id) => setPrefer(id as Preferred)}
          />
        </span>
        <span className="flex-1" />
        <span className="w-[104px] shrink-0">
          <Choose
            quiet
            label="Runs of the search"
            value={String(budget)}
            options={BUDGETS.map((many) => ({ id: String(many), name: `${many.toLocaleString('en')} runs` }))}
            onChoose={(many) => setBudget(Number(many))}
          />
        </span>
        {running ? (
          <button type="button" className="btn shrink-0" onClick={pause}>
            Stop
          </button>
        ) : paused && !over ? (
          <button type="button" className="btn shrink-0" onClick={goOn}>
            Search on
          </button>
        ) : null}
        {!running && (
          <button
            type="button"
            className="btn btn-primary shrink-0"
            disabled={!saved}
            onClick={() => {
              onChoose(undefined, []);
              begin(project, objectives, [...dials], prefer, budget);
            }}
          >
            {finding ? 'Search again' : 'Search'}
          </button>
        )}
      </div>
      {finding && (
        <div className="mt-1 flex items-center gap-4" role="status">
          {progress && <Way progress={progress} budget={budget} />}
          <p className="min-w-0 flex-1 text-table text-ink-2">
            {failure !== undefined
              ? `It can’t be searched: ${failure}.`
              : progress
                ? sentenceOf(progress, proposals.length, budget, paused)
                : 'Beginning …'}
          </p>
          {over && (
            <button type="button" className="link shrink-0 text-label" onClick={() => (onChoose(undefined, []), forget())}>
              put away
            </button>
          )}
        </div>
      )}
      {proposals.length > 0 && (
        <div
          className="mt-2 grid gap-0 border"
          style={{ gridTemplateColumns: `repeat(${proposals.length === 4 ? 2 : Math.min(3, proposals.length)}, minmax(0, 1fr))` }}
        >
          {proposals.map((proposal, i) => (
            <Card
              key={i}
              letter={LETTERS[i]}
              project={project}
              objectives={wanted}
              proposal={proposal}
              best={titles[i]}
              here={keyOf(proposal) === chosen}
              onChoose={() => onChoose(keyOf(proposal), putOf(proposal))}
            />
          ))}
        </div>
      )}
      {why && <NotFound project={project} why={why} />}
    </section>
  );
}

const keyOf = ({ at }: Proposal): string => at.join(' ');

interface Lens {
  tier?: string | undefined;
  skill?: string | undefined;
}

const isSame = (a: Lens, b: Lens): boolean => a.tier === b.tier && a.skill === b.skill;

/** "Bloom, novice"; of neither none. */
const lensWords = (project: Project, { tier, skill }: Lens): string =>
  [project.tiers.find(({ id }) => id === tier)?.name, project.skills.find(({ id }) => id === skill)?.name].filter(Boolean).join(', ');

/** At which tiers and skills the goals are to hold. */
function Lenses({ project, chosen, onChoose }: { project: Project; chosen: readonly Lens[]; onChoose: (lenses: readonly Lens[]) => void }) {
  const options = (list: readonly { id: string }[]) => [undefined, ...list.map(({ id }) => id)];
  const all = options(project.tiers).flatMap((tier) => options(project.skills).map((skill): Lens => ({ tier, skill })));
  const words = (lens: Lens) => lensWords(project, lens) || 'as written';
  return (
    <Popover
      label="At which tiers and skills"
      width={240}
      trigger={
        <button type="button" className="link min-w-0 shrink truncate">
          {chosen.length === 1 ? words(chosen[0]) : `${chosen.length} tiers and skills`}
        </button>
      }
    >
      {() => (
        <fieldset>
          <legend className="mb-1 text-table text-ink-2">Every goal is to hold at each of them; runs are shared among them.</legend>
          {all.map((lens) => {
            const on = chosen.some((one) => isSame(one, lens));
            return (
              <label key={words(lens)} className="flex items-center gap-2 border-t border-hair py-1 text-table">
                <input
                  type="checkbox"
                  checked={on}
                  disabled={on && chosen.length === 1}
                  onChange={() => onChoose(on ? chosen.filter((one) => !isSame(one, lens)) : [...chosen, lens])}
                />
                {words(lens)}
              </label>
            );
          })}
        </fieldset>
      )}
    </Popover>
  );
}

/** What the search is doing, in a sentence. */
function sentenceOf({ phase, runs, rounds, best }: FindProgress, found: number, budget: number, paused: boolean | undefined): string {
  const so = `${runs.toLocaleString('en')} of ${budget.toLocaleString('en')} runs`;
  const had = found === 0 ? '' : found === 1 ? ' One is proved.' : ` ${found} are proved.`;
  if (phase === 'done')
    return found
      ? `It stopped by itself after ${runs.toLocaleString('en')} runs.${had}`
      : `Nothing was found in ${runs.toLocaleString('en')} runs.`;
  const stands = best
    ? best.outside < 0.005
      ? ' The best so far is inside.'
      : ` The best so far lies ${best.outside.toFixed(2)} outside.`
    : '';
  const doing = {
    still: 'Which numbers do anything at all?',
    around: 'All numbers at once around a point, to learn what each does.',
    try: `Round ${rounds}: a promise is tried.`,
    gate: 'It looks right: it is run again.',
    prove: 'It is proved on seeds that nothing has seen.',
  }[phase];
  return `${paused ? 'Stopped. ' : ''}${doing} ${so}.${stands}${had}`;
}

const WAY = { width: 160, height: 30 };

/** How far outside the best point lay, along the runs. */
function Way({ progress: { way, runs }, budget }: { progress: FindProgress; budget: number }) {
  const known = way.filter(({ outside }) => Number.isFinite(outside));
  const top = Math.max(0.5, ...known.map(({ outside }) => outside));
  const x = linear(0, budget, 1, WAY.width - 1);
  const y = linear(0, top, WAY.height - 4, 3);
  return (
    <svg width={WAY.width} height={WAY.height} role="img" aria-label={`best point after each round, ${runs} of ${budget} runs`}>
      <path d={`M1 ${WAY.height - 3.5} H${WAY.width - 1}`} className="axis" />
      {known.length > 0 && (
        <path
          d={`M${known.map((one) => `${x(one.runs).toFixed(1)} ${y(one.outside).toFixed(1)}`).join(' L')}`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.4}
        />
      )}
      <circle cx={x(Math.min(runs, budget))} cy={WAY.height - 3.5} r={2.5} fill="var(--ink)" />
    </svg>
  );
}

function Card({
  letter,
  project,
  objectives,
  proposal: { put, distance, proof, seeds },
  best,
  here,
  onChoose,
}: {
  letter: string;
  project: Project;
  objectives: readonly Objective[];
  proposal: Proposal;
  best: BestIn;
  here: boolean;
  onChoose: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={here}
      data-proposal={letter}
      className={`flex min-w-0 flex-col justify-start border-r border-hair px-3 py-2 text-left text-table ${here ? 'bg-sheet shadow-[inset_0_3px_0_var(--ink)]' : 'hover:bg-well'}`}
      onClick={onChoose}
    >
      <span className="flex items-baseline gap-2">
        <span className="tier shrink-0">{letter}</span>
        <b className="min-w-0 flex-1 truncate">{TITLES[best]}</b>
        <span className="shrink-0 text-label text-ink-3">{(100 * distance).toFixed(0)} % away</span>
      </span>
      {put.length === 0 && <span className="block py-1 text-ink-2">as it is written: all holds</span>}
      {put.map(({ knob, value }) => {
        const { name, whose } = dialWords(project, knob.dial);
        const from = knob.dial.op === '×' ? 1 : knob.now;
        return (
          <span key={knob.dial.id} className="flex gap-2 border-t border-hair py-0.5" title={`${whose}: ${name}`}>
            <span className="min-w-0 flex-1 truncate">
              {whose} {name.toLowerCase()}
            </span>
            <span className="shrink-0 text-ink-3">{dialValue(project, knob.dial, from)} →</span>
            <b className="shrink-0">{dialValue(project, knob.dial, value)}</b>
          </span>
        );
      })}
      <span className="flex items-center gap-1.5 border-t border-hair pt-1">
        {proof.map(({ estimate, verdict }, g) => (
          <span
            key={g}
            title={`${headOf(objectives[g])}${where(project, objectives[g])}: ${numberOf(objectives[g].measure, estimate.value, objectives[g].clock)} ${unitOf(objectives[g].measure, objectives[g].clock)} (${numberOf(objectives[g].measure, estimate.low, objectives[g].clock)} to ${numberOf(objectives[g].measure, estimate.high, objectives[g].clock)})`}
          >
            <VerdictMark verdict={verdict} />
          </span>
        ))}
        <span className="flex-1 text-right text-label text-ink-3">{seeds.runs.toLocaleString('en')} fresh seeds</span>
      </span>
    </button>
  );
}

/** " at Bloom, regular" */
function where(project: Project, { cell }: Objective): string {
  const words = lensWords(project, cell);
  return words && ` at ${words}`;
}

const TITLES: Record<BestIn, string> = { change: 'Least change', numbers: 'Fewest numbers', margin: 'Most margin', other: 'Another way' };

/** Why nothing was found, as far as the search can promise. */
function NotFound({ project, why: { alone, pulling } }: { project: Project; why: Why }) {
  return (
    <ul aria-label="Why nothing was found" className="mt-1 text-table text-ink-2">
      {pulling.map(([a, b]) => (
        <li key={`${a.column} ${b.column}`} className="border-t border-hair py-0.5">
          <b>{headOf(a)}</b> and <b>{headOf(b)}</b> pull against each other within these ranges: each can be had, both are promised nowhere.
        </li>
      ))}
      {alone.map(({ goal, ends }) => (
        <li key={goal.column} className="border-t border-hair py-0.5">
          <b>{headOf(goal)}</b> is promised nowhere in these ranges
          {ends.length > 0 &&
            `: ${ends
              .map(({ knob, end }) => {
                const { name, whose } = dialWords(project, knob.dial);
                return `${whose} ${name.toLowerCase()} is at its ${end === 'low' ? 'lowest' : 'highest'}, ${dialValue(project, knob.dial, knob.dial[end])}`;
              })
              .join('; ')}`}
          .
        </li>
      ))}
      <li className="border-t border-hair py-0.5 text-label text-ink-3">
        What is promised comes of the runs of this search; other numbers, or wider ranges, may do what these can’t.
      </li>
    </ul>
  );
}
