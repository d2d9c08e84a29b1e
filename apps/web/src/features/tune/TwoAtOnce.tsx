import { type MapAxis, type Moves, dialWords, isOfNumber, mapBetween, mapCell, mapOf, mapValues, scenarioKey } from '@insidia/core';
import { useMemo, useState } from 'react';
import { useQuery } from '../../app/query';
import { Choose } from '../../fields/Choose';
import { useAppSelector } from '../../store/store';
import { DialMap } from './DialMap';
import { type Asked, type NumberMoves, lackingOf, useRan } from './reading';

const NONE = 'none';
const NO_MORE: [number[], number[]] = [[], []];

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
  const [closer, setCloser] = useState<{ of: string; more: [number[], number[]] }>();
  const of = `${chosen.dial.id} ${chosen.dial.low} ${chosen.dial.high} ${other?.dial.id} ${other?.dial.low} ${other?.dial.high}`;
  const more = closer?.of === of ? closer.more : NO_MORE;
  const axes = useMemo(
    (): [MapAxis, MapAxis] => [
      { dial: chosen.dial, now: chosen.from, more: more[0] },
      { dial: (other ?? chosen).dial, now: (other ?? chosen).from, more: more[1] },
    ],
    [chosen, other, more],
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
  const between = other && read && !lacking.length ? mapBetween(axes, points) : NO_MORE;
  const goCloser = () => {
    const next: [number[], number[]] = [
      [...more[0], ...between[0]],
      [...more[1], ...between[1]],
    ];
    setCloser({ of, more: next });
    const wide = axes.map((axis, i): MapAxis => ({ ...axis, more: next[i] })) as [MapAxis, MapAxis];
    onRun([...new Set(mapValues(wide[1]).flatMap((y) => mapValues(wide[0]).map((x) => scenarioKey(mapCell(cell, wide, x, y)))))]);
  };
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
        {between.flat().length > 0 && (
          <button
            type="button"
            className="btn shrink-0"
            disabled={!saved}
            onClick={goCloser}
            title="half-way between values of which one has all that is wanted and the other has not"
          >
            Closer where it changes
          </button>
        )}
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
