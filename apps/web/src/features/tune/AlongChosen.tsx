import { type Dial, alongPoint, gridOf, pointsBetween, scenarioKey, turnedCell } from '@insidia/core';
import { useMemo, useState } from 'react';
import { useQuery } from '../../app/query';
import { useAppSelector } from '../../store/store';
import { Along } from './Along';
import { ranged } from './address';
import { type Asked, type NumberMoves, lackingOf, useRan } from './reading';

/** The chosen number's curves, as far as they have been run. */
export function AlongChosen({
  project,
  cell,
  objectives,
  chosen: { dial, from },
  runs,
  onDial,
  onRun,
}: Asked & { chosen: NumberMoves; runs: number; onDial: (dial: Dial) => void; onRun: (keys: string[]) => void }) {
  const [query, setQuery] = useQuery();
  const saved = useAppSelector((state) => state.document.saving === 'saved');
  const [closer, setCloser] = useState<{ dial: Dial; at: number[] }>();
  // Points that were asked for where the answer changes, of this range of this number.
  const grid = useMemo(
    () => [...new Set([...gridOf(dial, from), ...(closer?.dial === dial ? closer.at : [])])].sort((a, b) => a - b),
    [dial, from, closer],
  );
  const at = (value: number) => (value === from ? cell : turnedCell(cell, dial, value));
  const keys = grid.map((value) => scenarioKey(at(value)));
  const { read, ran } = useRan(project.id, keys, objectives);
  const curves = useMemo(
    () =>
      objectives.map((objective) =>
        grid.flatMap((value) => {
          const own = ran(value === from ? cell : turnedCell(cell, dial, value), objective);
          return own ? [alongPoint(value, objective, own.values)] : [];
        }),
      ),
    [cell, dial, from, grid, objectives, ran],
  );
  const lacking = lackingOf(read, keys, runs);
  const between = pointsBetween(
    dial,
    curves,
    objectives.map(({ band }) => band),
  );
  const goCloser = () => {
    setCloser({ dial, at: [...(closer?.dial === dial ? closer.at : []), ...between] });
    onRun(between.map((value) => scenarioKey(at(value))));
  };
  return (
    <Along
      project={project}
      objectives={objectives}
      dial={dial}
      now={from}
      values={grid}
      curves={curves}
      chosen={query.get('at') === null ? undefined : Number(query.get('at'))}
      lacking={lacking.length}
      saved={saved}
      onChoose={(value) => setQuery({ at: value === from ? undefined : value, and: undefined, dial: dial.id })}
      onRange={(change) => onDial(ranged(project, dial, change))}
      between={read && !lacking.length ? between.length : 0}
      onCloser={goCloser}
      onRun={() => onRun(lacking)}
    />
  );
}
