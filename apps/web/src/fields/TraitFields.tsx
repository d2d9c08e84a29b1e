import type { GivenTrait, GroupTrait, Project } from '@insidia/core';
import { useMemo } from 'react';
import { Choose } from './Choose';
import { ListButtons, moved } from './Mini';
import { NumberField } from './NumberField';
import { SomeOf } from './SomeOf';
import { whoseOf } from './tweakPlaces';
import { bearerOffers, bearers } from './traits';

const NO_TRAITS = 'no trait yet: make one under Difficulty, Traits';

const offersOf = ({ traits }: Project) => traits.map(({ id, name }) => ({ id, name }));

/** Which traits something has, in the order in which they are laid over its numbers. */
export function TraitsField({
  project,
  value,
  onChange,
}: {
  project: Project;
  value: readonly string[];
  onChange: (value: string[], words: string) => void;
}) {
  const names = new Map(project.traits.map(({ id, name }) => [id, name]));
  return (
    <SomeOf
      numbered
      label="Traits"
      options={offersOf(project)}
      value={value}
      empty={NO_TRAITS}
      onChange={(next) => onChange(next, next.map((id) => names.get(id) ?? id).join(', ') || 'none')}
    />
  );
}

/** The traits of a group, each with the share of its units that has it. */
export function GroupTraits({
  project,
  value,
  most,
  onChange,
}: {
  project: Project;
  value: readonly GroupTrait[];
  most: number;
  onChange: (value: GroupTrait[], mark?: string) => void;
}) {
  const offers = offersOf(project);
  const next = offers.find(({ id }) => !value.some(({ trait }) => trait === id));
  const set = (i: number, more: Partial<GroupTrait>, mark?: string) =>
    onChange(
      value.map((one, j) => (j === i ? { ...one, ...more } : one)),
      mark,
    );
  return (
    <div role="group" aria-label="Traits" className="basis-full">
      <span className="block text-label text-ink-3">Traits</span>
      {value.map(({ trait, share }, i) => (
        <div key={i} className="mb-1 flex items-end gap-1.5">
          <div className="w-[150px]">
            <Choose quiet label={`Trait ${i + 1}`} value={trait} options={offers} onChoose={(id) => set(i, { trait: id })} />
          </div>
          <NumberField
            bare
            compact
            info={{ label: `Trait ${i + 1}: share`, unit: 'of them', min: 0, max: 1, about: '' }}
            base={share}
            width={110}
            onCommit={(to, mark) => set(i, { share: to }, mark)}
          />
          <ListButtons
            what={`trait ${i + 1}`}
            index={i}
            count={value.length}
            onMove={(by) => onChange(moved(value, i, by))}
            onRemove={() => onChange(value.filter((_, j) => j !== i))}
          />
        </div>
      ))}
      {next && value.length < most ? (
        <button type="button" className="link" onClick={() => onChange([...value, { trait: next.id, share: value.length ? 0.25 : 1 }])}>
          with a trait …
        </button>
      ) : (
        !offers.length && <span className="text-table text-ink-3">{NO_TRAITS}</span>
      )}
    </div>
  );
}

/** Traits that come with a setting, each saying who has it. */
export function GivenTraits({
  label,
  project,
  value,
  onChange,
}: {
  label: string;
  project: Project;
  value: readonly GivenTrait[];
  onChange: (value: GivenTrait[]) => void;
}) {
  const offers = offersOf(project);
  const whose = useMemo(() => bearerOffers(project), [project]);
  const set = (i: number, next: GivenTrait) => onChange(value.map((one, j) => (j === i ? next : one)));
  return (
    <div role="group" aria-label={label} className="min-w-0">
      <span className="block text-label text-ink-3">{label}</span>
      {value.map((given, i) => (
        <div key={i} className="mb-1 flex flex-wrap items-end gap-1 border-t border-hair pt-1">
          <div className="w-full min-w-0">
            <Choose
              quiet
              label={`${label} ${i + 1}: trait`}
              value={given.trait}
              options={offers}
              onChoose={(trait) => set(i, { ...given, trait })}
            />
          </div>
          <div className="min-w-0 flex-1">
            <Choose
              quiet
              label={`${label} ${i + 1}: who`}
              value={whoseOf(given)}
              options={whose.some(({ id }) => id === whoseOf(given)) ? whose : [{ id: whoseOf(given), name: whoseOf(given) }, ...whose]}
              onChoose={(id) => set(i, { trait: given.trait, ...bearers(id) })}
            />
          </div>
          <ListButtons
            what={`trait ${i + 1}`}
            index={i}
            count={value.length}
            onMove={(by) => onChange(moved(value, i, by))}
            onRemove={() => onChange(value.filter((_, j) => j !== i))}
          />
        </div>
      ))}
      {offers.length ? (
        <button type="button" className="link" onClick={() => onChange([...value, { trait: offers[0].id, scope: 'enemies' }])}>
          give a trait
        </button>
      ) : (
        <span className="text-table text-ink-3">{NO_TRAITS}</span>
      )}
    </div>
  );
}
