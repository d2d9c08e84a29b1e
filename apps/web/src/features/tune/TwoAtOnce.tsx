import { type MapAxis, type Moves, dialWords, isOfNumber, mapCell, mapOf, mapValues, scenarioKey } from '@insidia/core';
import { useMemo } from 'react';
import { useQuery } from '../../app/query';
import { Choose } from '../../fields/Choose';
import { useAppSelector } from '../../store/store';
import { DialMap } from './DialMap';
import { type Asked, type NumberMoves, lackingOf, useRan } from './reading';

const NONE = 'none';

/** The chosen number and another at once, as far as that has been run. */
export function TwoAtOnce({
  project,
  cell,
  objectives,
  chosen,
  moved,
  runs,
  onRun,
}: Asked & { chosen: NumberMoves; moved: readonly Moves[]; runs: number; onRun: (keys: string[]) => void }) {
  const [query, setQuery] = useQuery();
  const saved = useAppSelector((state) => state.document.saving === 'saved');
  const others = moved.filter(isOfNumber).filter(({ dial }) => dial.id !== chosen.dial.id);
  const other = others.find(({ dial }) => dial.id === query.get('with'));
  const axes = useMemo(
    (): [MapAxis, MapAxis] => [
      { dial: chosen.dial, now: chosen.from },
      { dial: (other ?? chosen).dial, now: (other ?? chosen).from },
    ],
    [chosen, other],
  );
  const keys = useMemo(
    () =>
      other ? [...new Set(mapValues(axes[1]).flatMap((y) => mapValues(axes[0]).map((x) => scenarioKey(mapCell(cell, axes, x, y)))))] : [],
    [axes, cell, other],
  );
  const { read, ran } = useRan(project.id, keys, objectives);
  const points = useMemo(() => (other ? mapOf(cell, axes, objectives, ran) : []), [axes, cell, objectives, other, ran]);
  if (!others.length) return null;
  const lacking = lackingOf(read, keys, runs);
  return (
    <section aria-label="Two at once" className="border-t px-4 pb-4 pt-2">
      <div className="flex items-center gap-2">
        <h2 className="shrink-0 text-section">Two at once</h2>
        <span className="note">with</span>
        <span className="w-[220px]">
          <Choose
            quiet
            label="The other number"
            value={other?.dial.id ?? NONE}
            options={[
              { id: NONE, name: 'no other' },
              ...others.map(({ dial }) => {
                const { name, whose } = dialWords(project, dial);
                return { id: dial.id, name: `${whose}: ${name.toLowerCase()}` };
              }),
            ]}
            onChoose={(id) => setQuery({ with: id === NONE ? undefined : id })}
          />
        </span>
        <span className="flex-1" />
        {lacking.length > 0 && (
          <button type="button" className="btn shrink-0" disabled={!saved} onClick={() => onRun(lacking)}>
            Run {lacking.length} of {keys.length} pairs
          </button>
        )}
      </div>
      {other && (
        <DialMap
          project={project}
          axes={axes}
          objectives={objectives}
          points={points}
          onChoose={(x, y) => setQuery({ at: x === chosen.from ? undefined : x, and: y === other.from ? undefined : y })}
        />
      )}
    </section>
  );
}
