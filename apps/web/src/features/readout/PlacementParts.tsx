import { type Company, DUEL_MOST, companyWords, pointOf, unitHeads } from '@insidia/core';
import { useMemo } from 'react';
import { Choose } from '../../fields/Choose';
import { Mini } from '../../fields/Mini';
import { NumberField } from '../../fields/NumberField';
import { type PlacementProps, placesFor } from './Placement';

/** m, of a wall until somebody says how high */
const FIRST_WALL = 1.5;

export function PlacementParts({ project, duel, ground, onView }: PlacementProps) {
  const { company = [], from = 'ahead', wall } = duel;
  const arena = project.arenas.find((one) => one.id === duel.arena);
  const enemies = useMemo(() => unitHeads(project).filter(({ side }) => side === 'enemy'), [project]);
  const put = (next: readonly Company[]) => onView({ with: next.length ? companyWords(next) : undefined });
  const places = placesFor(project, duel);
  const next = enemies.find((head) => head.id !== duel.enemy && !company.some(({ unit }) => unit === head.id)) ?? enemies[0];
  return (
    <div className="flex flex-col gap-2">
      <div role="group" aria-label="With it">
        <span className="block text-label text-ink-3">With it</span>
        {company.map(({ unit, count }, i) => (
          <div key={i} className="mb-1 flex items-end gap-1.5">
            <div className="w-[150px]">
              <Choose
                quiet
                label={`With it ${i + 1}`}
                value={unit}
                options={enemies.map((head) => ({ id: head.id, name: head.name }))}
                onChoose={(to) => put(company.map((one, j) => (j === i ? { ...one, unit: to } : one)))}
              />
            </div>
            <NumberField
              bare
              compact
              info={{ label: `How many ${i + 1}`, unit: '', min: 1, max: DUEL_MOST.copies, whole: true, about: '' }}
              base={count}
              width={54}
              onCommit={(to) => put(company.map((one, j) => (j === i ? { ...one, count: to } : one)))}
            />
            <Mini sign="remove" label={`Without them ${i + 1}`} onClick={() => put(company.filter((_, j) => j !== i))} />
          </div>
        ))}
        {next && company.length < DUEL_MOST.kinds && (
          <button type="button" className="link" onClick={() => put([...company, { unit: next.id, count: 1 }])}>
            somebody beside it …
          </button>
        )}
      </div>
      {(ground || from !== 'ahead' || wall !== undefined) && (
        <div className="flex items-end gap-1.5">
          <div className="w-[150px]">
            <Choose label="Comes" value={from} options={places} onChoose={(to) => onView({ from: to === 'ahead' ? undefined : to })} />
          </div>
          {!arena &&
            (ground || wall !== undefined) &&
            (wall === undefined ? (
              <button type="button" className="link" onClick={() => onView({ wall: FIRST_WALL })}>
                a wall between …
              </button>
            ) : (
              <>
                <NumberField
                  compact
                  info={{ label: 'Wall', unit: 'm', min: 0.1, max: 20, about: 'how high a wall stands halfway between them' }}
                  base={wall}
                  width={70}
                  onCommit={(to) => onView({ wall: to })}
                />
                <Mini sign="remove" label="No wall" onClick={() => onView({ wall: undefined })} />
              </>
            ))}
        </div>
      )}
      {pointOf(from) !== undefined && <p className="text-label text-ink-3">The spawn point says how far; the distance does not count.</p>}
    </div>
  );
}
