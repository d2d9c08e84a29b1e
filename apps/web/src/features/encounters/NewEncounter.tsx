import {
  type Arena,
  ENCOUNTER_BEGINNINGS,
  type Encounter,
  Encounter as EncounterClass,
  type Project,
  beginEncounter,
  beginningOf,
  blank,
  idFor,
  nameFor,
  takenIds,
  unitHeads,
} from '@insidia/core';
import { type ReactElement, useState } from 'react';
import { Choose } from '../../fields/Choose';
import { Beginnings } from '../../parts/Beginnings';
import { NewSheet } from '../../parts/NewSheet';
import { WavesMiniature } from '../../visuals/Miniature';
import { fromFirst } from './NewWave';

interface Props {
  project: Project;
  trigger: ReactElement;
  onEncounter: (encounter: Encounter) => void;
}

const EMPTY = 'empty';

/** A new encounter: where, whom the party meets, and what it begins as. */
export function NewEncounter({ project, trigger, onEncounter }: Props) {
  const [begins, setBegins] = useState(ENCOUNTER_BEGINNINGS[0].id);
  const heads = unitHeads(project);
  const enemies = heads.filter(({ side }) => side === 'enemy');
  const [chosen, setChosen] = useState<{ arena?: string; enemy?: string }>({});
  const arena = project.arenas.find(({ id }) => id === chosen.arena) ?? project.arenas[0];
  const enemy = enemies.find(({ id }) => id === chosen.enemy) ?? enemies[0];
  const can = enemy !== undefined && arena.spawnPoints.length > 0;
  const setting = {
    arena,
    party: heads
      .filter(({ side }) => side === 'party')
      .slice(0, 1)
      .map(({ id }) => id),
    enemies: can ? fromFirst(enemies, enemy.id) : [],
  };
  const pattern = can && begins !== EMPTY ? beginningOf(ENCOUNTER_BEGINNINGS, begins) : undefined;
  const taken = project.encounters.map((one) => one.name);
  const add = (name: string) => {
    const free = nameFor(name, taken);
    const own = { id: idFor(free, takenIds(project)), name: free };
    const party = setting.party.map((unit, i) => ({ id: `member-${i + 1}`, unit }));
    onEncounter(pattern ? beginEncounter(pattern, setting, own) : { ...blank(EncounterClass), ...own, arena: arena.id, party });
  };
  return (
    <NewSheet
      label="New encounter"
      width={500}
      suggested={nameFor(pattern?.name ?? 'Encounter', taken)}
      submit="Add encounter"
      onName={add}
      trigger={trigger}
      beside={
        <>
          {project.arenas.length > 1 && (
            <div className="w-[140px]">
              <Choose label="In" value={arena.id} options={project.arenas} onChoose={(id) => setChosen({ ...chosen, arena: id })} />
            </div>
          )}
          {can && (
            <div className="w-[140px]">
              <Choose label="Against" value={enemy.id} options={enemies} onChoose={(id) => setChosen({ ...chosen, enemy: id })} />
            </div>
          )}
        </>
      }
    >
      {can ? (
        <BeginsAs setting={setting} value={begins} onChoose={setBegins} />
      ) : (
        <p className="text-table text-ink-2">
          {enemy ? `${arena.name} has no spawn point yet` : 'There is no enemy yet'}: the encounter begins without a wave.
        </p>
      )}
    </NewSheet>
  );
}

interface BeginsProps {
  setting: { arena: Arena; party: readonly string[]; enemies: readonly string[] };
  value: string;
  onChoose: (id: string) => void;
}

function BeginsAs({ setting, value, onChoose }: BeginsProps) {
  const points = setting.arena.spawnPoints.map(({ id }) => id);
  const offers = [
    ...ENCOUNTER_BEGINNINGS.map((one) => ({
      id: one.id,
      called: one.called,
      about: one.about,
      picture: <WavesMiniature waves={beginEncounter(one, setting, { id: one.id, name: one.name }).waves} points={points} />,
    })),
    { id: EMPTY, called: 'empty', about: 'a party on its ground: waves are added one by one' },
  ];
  return <Beginnings heads={[['who comes when', 118]]} offers={offers} value={value} onChoose={onChoose} />;
}
