import { type DuelOptions, type Project, pointOf, shown } from '@insidia/core';
import type { View } from '../../app/view';
import { Popover } from '../../fields/Popover';
import { laterWithin } from '../../parts/later';

const PlacementParts = laterWithin(async () => (await import('./PlacementParts')).PlacementParts, 90);

export interface PlacementProps {
  project: Project;
  duel: DuelOptions;
  /** Somebody stands somewhere in it. */
  ground: boolean;
  onView: (change: Partial<Record<keyof View, string | number | undefined>>) => void;
}

/** From where an enemy may come. */
export function placesFor(project: Project, duel: DuelOptions): { id: string; name: string }[] {
  const arena = project.arenas.find((one) => one.id === duel.arena);
  return [
    { id: 'ahead', name: 'in front' },
    { id: 'behind', name: 'from behind' },
    ...(arena?.spawnPoints.map((point) => ({ id: `point:${point.id}`, name: `from ${point.name}` })) ?? []),
  ];
}

/** Who stands with the enemy of a duel, from where they come, and what stands between. */
export function Placement(props: PlacementProps) {
  const { project, duel, ground } = props;
  const { company = [], from = 'ahead', wall } = duel;
  const words = [
    ...(from === 'ahead' ? [] : [placesFor(project, duel).find((place) => place.id === from)?.name ?? pointOf(from)]),
    ...(wall === undefined ? [] : [`wall ${shown(wall)} m`]),
    ...(company.length ? [`with ${company.reduce((sum, { count }) => sum + count, 0)} others`] : []),
  ];
  return (
    <Popover
      label="How they stand"
      width={300}
      align="end"
      trigger={
        <button type="button" className="link min-w-0 truncate text-label">
          {words.length ? words.join(', ') : ground ? 'with others, from behind, over a wall …' : 'with others …'}
        </button>
      }
    >
      <PlacementParts {...props} />
    </Popover>
  );
}
