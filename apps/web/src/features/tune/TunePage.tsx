import {
  type Dial,
  type Moves,
  type Nudge,
  type Project,
  type Scenario,
  isOfNumber,
  judge,
  keysOfMoves,
  movesOf,
  nudges,
  objectivesOf,
  putWords,
  scenarioKey,
  turnedCell,
} from '@insidia/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { useQuery } from '../../app/query';
import { useView } from '../../app/view';
import { runCells } from '../../server/batches';
import { changed } from '../../store/document';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { CROWD, cellOf, dialsOf, dialsText, fightKey, fightsOf, goalsIn, pointOf, withDial } from './address';
import { AlongChosen } from './AlongChosen';
import { FightList } from './FightList';
import { Cheapest } from './Cheapest';
import { Find } from './Find';
import { MovesTable } from './MovesTable';
import { Pairs } from './Pairs';
import { PointPanel } from './PointPanel';
import { QuestionList } from './QuestionList';
import { withQuestions } from './questions';
import { type Asked, RUNS, lackingOf, useRan } from './reading';
import { Sentence } from './Sentence';
import { TwoAtOnce } from './TwoAtOnce';

/** Runs of a proposal that is looked at. */
const PROPOSAL_RUNS = 800;

/** Tune: what moves a fight, how it goes along a number or two, and which values have what is wanted. */
export function TunePage() {
  const project = useAppSelector((state) => state.document.document);
  const { search } = useLocation();
  const [query] = useQuery();
  const [view] = useView(project);
  if (!project) return null;
  const cell = cellOf(project, query, { tier: view.tier, skill: view.skill });
  if (cell) return <Tune key={fightKey(cell)} project={project} cell={cell} />;
  return (
    <main className="mx-auto mt-20 w-[440px]">
      <h1 className="text-page">No fight yet</h1>
      <p className="mt-2 text-ink-2">
        Tune turns numbers of a fight and shows which of them move what you want of it. Make an enemy and somebody it fights first.
      </p>
      <Link className="btn btn-primary mt-4" to={{ pathname: `/projects/${project.id}/enemies`, search }}>
        To the enemies
      </Link>
    </main>
  );
}

function Tune({ project, cell }: { project: Project; cell: Scenario }) {
  const dispatch = useAppDispatch();
  const [query, setQuery] = useQuery();
  const saved = useAppSelector((state) => state.document.saving === 'saved');
  const busy = useAppSelector((state) => state.batches.since !== null);
  const runs = RUNS.find((one) => String(one) === query.get('runs')) ?? 200;
  const goalText = query.get('goals') ?? '';
  // eslint-disable-next-line react-hooks/exhaustive-deps -- what is read of the query is in the text
  const goals = useMemo(() => goalsIn(project, query), [project, goalText]);
  const objectives = useMemo(() => objectivesOf(project, cell, goals), [project, cell, goals]);
  const dialText = query.get('dials') ?? '';
  // eslint-disable-next-line react-hooks/exhaustive-deps -- what is read of the query is in the text
  const dials = useMemo(() => dialsOf(project, query), [project, dialText]);
  const { turned, stuck } = useMemo(() => nudges(project, dials), [project, dials]);
  const keys = useMemo(() => keysOfMoves(objectives, turned), [objectives, turned]);
  const { read, ran } = useRan(project.id, keys, objectives);
  // Each effect is hundreds of resamples: worked out once for what has been read.
  const moved = useMemo(() => movesOf(objectives, turned, ran), [objectives, turned, ran]);
  const verdicts = useMemo(
    () =>
      objectives.map((objective) => {
        const base = ran(cell, objective);
        if (!base) return undefined;
        const { estimate, verdict } = judge(base.values, objective.statistic, objective.band ?? {});
        return { estimate, ...(objective.band && { verdict }) };
      }),
    [cell, objectives, ran],
  );
  const chosen = moved.find(({ dial }) => dial.id === query.get('dial')) ?? moved[0];
  // A proposal of the search that is looked at, in place of a point of one number or two.
  const [proposed, setProposed] = useState<{ key: string; put: readonly Nudge[] }>();
  const setDials = (next: readonly Dial[], dial?: string) =>
    setQuery({ dials: dialsText(project, next), ...(dial && { dial }), at: undefined, and: undefined });
  const lacking = lackingOf(read, keys, runs);
  const run = (which: readonly string[], many = runs) =>
    dispatch(
      runCells(
        project.id,
        which.map((key) => ({ cell: key, runs: many })),
      ),
    );
  /** One edit; the question that it comes of remembers it. */
  const write = (put: readonly Nudge[], document: Project, where?: string, tier?: string) => {
    const words = `${put.map(({ dial, to }) => putWords(project, dial, to)).join('; ')}${where === undefined ? '' : `, ${where}`}`;
    const asked = query.get('question');
    const questions = document.tuning?.questions ?? [];
    const told = questions.some(({ id }) => id === asked)
      ? withQuestions(
          document,
          questions.map((one) => (one.id === asked ? { ...one, ledTo: words.slice(0, 2000) } : one)),
        )
      : document;
    dispatch(changed({ document: told, name: `Tune: ${words}` }));
    setProposed(undefined);
    setQuery({ at: undefined, and: undefined, ...(tier !== undefined && { tier }) });
  };
  // The one key of this page: asks what has not been run.
  const ask = useRef(() => {});
  useEffect(() => {
    ask.current = () => {
      if (saved && !busy && lacking.length && moved.length) run(lacking);
    };
  });
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) ask.current();
    };
    addEventListener('keydown', key);
    return () => removeEventListener('keydown', key);
  }, []);
  return (
    <div className="grid min-h-0 grid-cols-[var(--list-w)_minmax(0,1fr)_var(--readout-w)]">
      <FightList
        fights={fightsOf(project)}
        current={fightKey(cell)}
        onChoose={(fight) =>
          setQuery({
            fight,
            question: undefined,
            goals: undefined,
            dials: undefined,
            dial: undefined,
            with: undefined,
            at: undefined,
            and: undefined,
          })
        }
      >
        <QuestionList project={project} asking={{ cell, goals, dials, runs }} />
      </FightList>
      <main className="scroll flex min-h-0 min-w-0 flex-col">
        <div className="flex items-baseline gap-3 px-4 pt-3">
          <h1 className="text-page">Tune</h1>
          <span className="note">what a tenth more of each number does, on the same seeds</span>
        </div>
        <Sentence
          project={project}
          cell={cell}
          objectives={objectives}
          own={goals}
          dials={dials}
          onGoals={(text) => setQuery({ goals: text })}
          onCrowd={() => setQuery({ fight: fightKey({ ...cell, duel: { ...cell.duel, copies: CROWD } }), at: undefined, and: undefined })}
        />
        <MovesTable
          project={project}
          cell={cell}
          objectives={objectives}
          moved={moved}
          stuck={stuck}
          verdicts={verdicts}
          chosen={chosen?.dial.id}
          at={query.get('at') === null ? undefined : Number(query.get('at'))}
          runs={runs}
          lacking={read ? lacking.length : undefined}
          busy={busy}
          saved={saved}
          troubles={keys.flatMap((key) => read?.get(key)?.trouble ?? [])}
          onChoose={(dial) => {
            setProposed(undefined);
            setQuery({ dial, at: undefined, and: undefined });
          }}
          onDials={setDials}
          onAdd={(dial) => setDials(withDial(dials, dial), dial.id)}
          onFound={(found) => {
            setDials(found, found[0]?.id);
            run(keysOfMoves(objectives, nudges(project, found).turned));
          }}
          onRuns={(many) => setQuery({ runs: many === 200 ? undefined : many })}
          onRun={() => run(lacking)}
        />
        {chosen && isOfNumber(chosen) && (
          <AlongChosen
            project={project}
            cell={cell}
            objectives={objectives}
            chosen={chosen}
            runs={runs}
            onRun={run}
            onDial={(dial) => setDials(dials.map((one) => (one.id === dial.id ? dial : one)))}
          />
        )}
        {chosen && isOfNumber(chosen) && (
          <TwoAtOnce project={project} cell={cell} objectives={objectives} chosen={chosen} moved={moved} runs={runs} onRun={run} />
        )}
        <Find
          key={`${dialText} ${goalText}`}
          project={project}
          cell={cell}
          goals={goals}
          dials={dials}
          chosen={proposed?.key}
          at={project.tuning?.questions.find(({ id }) => id === query.get('question'))?.at ?? []}
          onChoose={(key, put) => {
            setProposed(key === undefined ? undefined : { key, put });
            if (key === undefined) return;
            const after = put.reduce((now, { dial, to }) => turnedCell(now, dial, to), cell);
            run([...new Set([scenarioKey(cell), scenarioKey(after)])], Math.max(runs, PROPOSAL_RUNS));
          }}
        />
        <Pairs project={project} objectives={objectives} moved={moved} runs={runs} onRun={run} />
        <Cheapest project={project} cell={cell} />
      </main>
      <PointOf
        project={project}
        cell={cell}
        objectives={objectives}
        chosen={chosen}
        moved={moved}
        proposed={proposed?.put}
        onWrite={write}
      />
    </div>
  );
}

type Write = (put: readonly Nudge[], document: Project, where?: string, tier?: string) => void;

/** The chosen point before and after, and what writing it does. */
function PointOf({
  project,
  cell,
  objectives,
  chosen,
  moved,
  proposed,
  onWrite,
}: Asked & { chosen: Moves | undefined; moved: readonly Moves[]; proposed: readonly Nudge[] | undefined; onWrite: Write }) {
  const [query] = useQuery();
  const put = proposed ?? pointOf(query, chosen, moved);
  const after = put.reduce((now, { dial, from, to }) => (to === from ? now : turnedCell(now, dial, to)), cell);
  const { read, ran } = useRan(project.id, [...new Set([scenarioKey(cell), scenarioKey(after)])], objectives);
  return (
    <PointPanel
      project={project}
      cell={cell}
      after={after}
      objectives={objectives}
      put={put}
      known={read !== null}
      ran={ran}
      everyGoal={proposed !== undefined}
      onWrite={onWrite}
    />
  );
}
