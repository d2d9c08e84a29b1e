/** Names and ids for projects that come beside others. Pure. */
import { idFor, nameFor } from '@insidia/core';

interface Known {
  id: string;
  name: string;
}

/** A name, and an id made of it, that no project has or had: a deleted one may be brought back. */
export function beside(name: string, there: readonly Known[], deleted: readonly Known[] = []): Known {
  const own = nameFor(
    name.trim() || 'New project',
    there.map((one) => one.name),
  );
  return {
    name: own,
    id: idFor(
      own,
      [...there, ...deleted].map((one) => one.id),
    ),
  };
}

/** "10 enemies, 2 members, 5 encounters, 14 goals"; what there is none of is left out. */
export function holdsWords({
  enemies,
  members,
  encounters,
  goals,
}: Record<'enemies' | 'members' | 'encounters' | 'goals', number>): string {
  const counted = (count: number, one: string, many: string) => (count ? [`${count} ${count === 1 ? one : many}`] : []);
  const parts = [
    ...counted(enemies, 'enemy', 'enemies'),
    ...counted(members, 'member', 'members'),
    ...counted(encounters, 'encounter', 'encounters'),
    ...counted(goals, 'goal', 'goals'),
  ];
  return parts.join(', ') || 'empty';
}
