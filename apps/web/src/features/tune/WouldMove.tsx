import { type Dial, type Objective, type Project, dialText, dialWords, dialValue, keysOfMoves, movesOf, nudges } from '@insidia/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { runCells } from '../../server/batches';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { tuneSearch } from './address';
import { EffectBar } from './EffectBar';
import { useRan } from './reading';
import { useScreening } from './useScreening';

/** Numbers that are named beside what is judged. */
const NAMED = 3;
/** Runs of each of them. */
const RUNS = 200;

interface Props {
  project: Project;
  objective: Objective;
  className?: string;
}

/** The three numbers that move what is judged most, found when asked for, and the way to Tune with them. */
export function WouldMove({ project, objective, className = 'link' }: Props) {
  const dispatch = useAppDispatch();
  const saved = useAppSelector((state) => state.document.saving === 'saved');
  const [found, setFound] = useState<readonly Dial[]>();
  const objectives = useMemo(() => [objective], [objective]);
  const { state, begin, cancel } = useScreening((dials) => {
    setFound(dials);
    const keys = keysOfMoves(objectives, nudges(project, dials).turned);
    dispatch(
      runCells(
        project.id,
        keys.map((cell) => ({ cell, runs: RUNS })),
      ),
    );
  });
  if (state && !state.failure)
    return (
      <span className="flex items-center gap-2 text-label text-ink-2" role="status">
        <progress className="h-2 w-20" value={state.done} max={state.pairs} aria-label="Turning all numbers" />
        {state.numbers} numbers at once
        <button type="button" className="link" onClick={cancel}>
          stop
        </button>
      </span>
    );
  if (found) return <Three project={project} objectives={objectives} dials={found} />;
  return (
    <>
      <button
        type="button"
        className={className}
        disabled={!saved}
        title="all numbers of the fight are turned at once; the three that move it most are then run one by one"
        onClick={() => begin(project, objective.cell, objectives, 0, NAMED)}
      >
        {className === 'btn' ? 'What would move it' : 'what would move it'}
      </button>
      {state?.failure && <span className="text-label text-warn">not run: {state.failure}</span>}
    </>
  );
}

function Three({ project, objectives, dials }: { project: Project; objectives: Objective[]; dials: readonly Dial[] }) {
  const [{ cell, measure, clock }] = objectives;
  const { turned } = useMemo(() => nudges(project, dials), [project, dials]);
  const keys = useMemo(() => keysOfMoves(objectives, turned), [objectives, turned]);
  const { ran } = useRan(project.id, keys, objectives);
  const moved = useMemo(() => movesOf(objectives, turned, ran), [objectives, turned, ran]);
  const most = Math.max(
    1e-9,
    ...moved.map(({ effects: [effect] }) => (effect && Number.isFinite(effect.difference) ? 1.5 * Math.abs(effect.difference) : 0)),
  );
  return (
    <section aria-label="What would move it" className="w-full text-table">
      {moved.length === 0 && <p className="text-ink-3">No number of this fight moves it.</p>}
      {moved.map(({ dial, to, effects: [effect] }) => {
        const { name, whose } = dialWords(project, dial);
        return (
          <p key={dial.id} className="flex h-6 items-center gap-2 border-t border-hair">
            <span className="min-w-0 flex-1 truncate" title={`${whose} ${name} ${dialValue(project, dial, to)}`}>
              {whose} {name.toLowerCase()} {dialValue(project, dial, to)}
            </span>
            {effect ? (
              <EffectBar effect={effect} measure={measure} clock={clock} most={most} asked width={40} />
            ) : (
              <span className="text-ink-3">running</span>
            )}
          </p>
        );
      })}
      <p className="flex gap-3 border-t border-hair pt-1 text-label">
        <Link
          className="link"
          to={{
            pathname: `/projects/${project.id}/tune`,
            search: tuneSearch(cell, dials.map((dial) => dialText(project, dial)).join(' ')),
          }}
        >
          on in Tune
        </Link>
        {cell.kind === 'duel' && <span className="text-ink-3">one against one is often won always: Tune asks about crowds too</span>}
      </p>
    </section>
  );
}
