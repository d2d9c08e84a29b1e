import {
  type Arena,
  type Encounter,
  type UnitHead,
  type Wave,
  WAVE_BEGINNINGS,
  Wave as WaveClass,
  beginWave,
  blank,
  idFor,
  nameFor,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { Choose } from '../../fields/Choose';
import { Beginnings } from '../../parts/Beginnings';
import { NewSheet } from '../../parts/NewSheet';
import { WavesMiniature } from '../../visuals/Miniature';

interface Props {
  encounter: Encounter;
  arena: Arena | undefined;
  heads: ReadonlyMap<string, UnitHead>;
  onWave: (wave: Wave) => void;
}

const EMPTY = 'empty';

/** A new wave: whom it brings, and what it begins as. */
export function NewWave({ encounter, arena, heads, onWave }: Props) {
  const [begins, setBegins] = useState(WAVE_BEGINNINGS[0].id);
  const enemies = [...heads.values()].filter(({ side }) => side === 'enemy');
  const [chosen, setChosen] = useState<string>();
  const enemy = enemies.find(({ id }) => id === chosen) ?? enemies[0];
  const can = enemy !== undefined && (arena?.spawnPoints.length ?? 0) > 0;
  const pattern = can ? WAVE_BEGINNINGS.find(({ id }) => id === begins) : undefined;
  const taken = encounter.waves.map((wave) => wave.name);
  const add = (name: string) => {
    const own = nameFor(name, taken);
    const id = idFor(
      own,
      encounter.waves.map((wave) => wave.id),
    );
    onWave(
      pattern && arena && enemy
        ? beginWave(pattern, { encounter, arena, enemies: fromFirst(enemies, enemy.id) }, { id, name: own })
        : { ...blank(WaveClass), id, name: own, start: encounter.waves.length ? 'defeated' : 'atOnce' },
    );
  };
  return (
    <NewSheet
      label="New wave"
      width={480}
      align="end"
      suggested={nameFor(pattern?.name ?? 'Wave', taken)}
      submit="Add wave"
      onName={add}
      trigger={
        <button type="button" className="btn">
          Add a wave
        </button>
      }
      beside={
        can && (
          <div className="w-[170px]">
            <Choose label="Brings" value={enemy.id} options={enemies.map((one) => ({ id: one.id, name: one.name }))} onChoose={setChosen} />
          </div>
        )
      }
    >
      {can && arena ? (
        <BeginsAs encounter={encounter} arena={arena} enemies={fromFirst(enemies, enemy.id)} value={begins} onChoose={setBegins} />
      ) : (
        <p className="text-table text-ink-2">
          {enemy ? 'The arena has no spawn point yet' : 'There is no enemy yet'}: the wave begins without a group.
        </p>
      )}
    </NewSheet>
  );
}

/** All of them, the one that is meant before the others. */
export const fromFirst = (units: readonly UnitHead[], first: string): string[] => [
  first,
  ...units.map(({ id }) => id).filter((id) => id !== first),
];

interface BeginsProps {
  encounter: Encounter;
  arena: Arena;
  enemies: readonly string[];
  value: string;
  onChoose: (id: string) => void;
}

function BeginsAs({ encounter, arena, enemies, value, onChoose }: BeginsProps) {
  const points = useMemo(() => arena.spawnPoints.map(({ id }) => id), [arena]);
  const offers = [
    ...WAVE_BEGINNINGS.map((one) => ({
      id: one.id,
      called: one.called,
      about: one.about,
      picture: <WavesMiniature waves={[beginWave(one, { encounter, arena, enemies }, { id: one.id, name: one.name })]} points={points} />,
    })),
    { id: EMPTY, called: 'empty', about: 'a wave without groups' },
  ];
  return <Beginnings heads={[['who comes when', 118]]} offers={offers} value={value} onChoose={onChoose} />;
}
