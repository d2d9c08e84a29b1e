import {
  type Moves,
  type Nudge,
  PAIRED,
  cellsOfPairs,
  dialWords,
  isSeen,
  keysOfMoves,
  numberOf,
  pairsOf,
  scenarioKey,
  seenTogether,
  togetherOf,
  unitOf,
} from '@insidia/core';
import { useMemo } from 'react';
import { useAppSelector } from '../../store/store';
import { type Asked, lackingOf, useRan } from './reading';
import { headOf } from './words';

/** Whether the first numbers of the table do something together that neither does alone. */
export function Pairs({
  project,
  objectives,
  moved,
  runs,
  onRun,
}: Omit<Asked, 'cell'> & { moved: readonly Moves[]; runs: number; onRun: (keys: string[]) => void }) {
  const saved = useAppSelector((state) => state.document.saving === 'saved');
  const first = useMemo(() => moved.slice(0, PAIRED), [moved]);
  const pairs = useMemo(() => pairsOf(first), [first]);
  const keys = useMemo(
    () => [...new Set([...keysOfMoves(objectives, first), ...cellsOfPairs(objectives, pairs).map(scenarioKey)])],
    [objectives, first, pairs],
  );
  const { read, ran } = useRan(project.id, keys, objectives);
  const together = useMemo(() => togetherOf(objectives, pairs, ran), [objectives, pairs, ran]);
  if (first.length < 2) return null;
  const lacking = lackingOf(read, keys, runs);
  const done = together.filter(({ effects }) => effects.some((effect) => effect)).length;
  const seen = seenTogether(together);
  const name = ({ dial }: Nudge) => {
    const words = dialWords(project, dial);
    return `${words.whose} ${words.name.toLowerCase()}`;
  };
  return (
    <section aria-label="Together" className="border-t px-4 py-2">
      <div className="flex items-center gap-2">
        <h2 className="shrink-0 text-section">Together</h2>
        <span className="note min-w-0 truncate">
          what the first {first.length} numbers do by twos beyond the sum of what each does alone
        </span>
        <span className="flex-1" />
        {lacking.length > 0 && (
          <button type="button" className="btn shrink-0" disabled={!saved} onClick={() => onRun(lacking)}>
            Run {lacking.length} of {keys.length} for {pairs.length} {pairs.length === 1 ? 'pair' : 'pairs'}
          </button>
        )}
      </div>
      {seen.map(({ first: one, second, effects }) => (
        <p key={`${one.dial.id} ${second.dial.id}`} className="mt-1 text-table">
          <b>{name(one)}</b> and <b>{name(second)}</b>:{' '}
          {effects
            .flatMap((effect, i) => {
              if (!effect || !isSeen(effect)) return [];
              const { measure, clock } = objectives[i];
              const signed = (value: number) => `${value > 0 ? '+' : ''}${numberOf(measure, value, clock)}`;
              return [
                `${headOf(objectives[i])} ${signed(effect.difference)} ${unitOf(measure, clock)} beyond their sum (${signed(effect.low)} to ${signed(effect.high)})`,
              ];
            })
            .join('; ')}
        </p>
      ))}
      {done > 0 && (
        <p className="mt-1 text-label text-ink-3">
          {seen.length === 0 ? 'Nothing beyond the sum is seen' : `Of the other ${done - seen.length} nothing beyond the sum is seen`} in so
          many runs{seen.length === 0 ? ': they can be turned one after the other' : ''}.
        </p>
      )}
    </section>
  );
}
