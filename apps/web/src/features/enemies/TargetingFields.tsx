import { type Project, type TargetCriterion, type TargetFilter, type Targeting, Unit, fieldWords, unitHeads, valueAt } from '@insidia/core';
import { Choose } from '../../fields/Choose';
import { ListButtons, moved } from '../../fields/Mini';
import { NumberField } from '../../fields/NumberField';
import { SomeOf } from '../../fields/SomeOf';
import { FieldNumber } from '../../fields/FieldNumber';
import { infoAt } from '../../fields/edits';
import type { UnitEditor } from '../../fields/useUnitEditor';

/** Whom it goes for: criteria with weights, filters, and how readily it changes its mind. @param at "/targeting", or an entry's own */
export function TargetingFields({ editor, at }: { editor: UnitEditor; at: string }) {
  const targeting = valueAt(editor.base, at) as Targeting | undefined;
  if (!targeting) return null;
  const words = fieldWords(Unit, ['targeting', 'criteria', '0', 'by']);
  const heads = unitHeads(editor.project);
  const roles = [...new Set(heads.map(({ role }) => role))].filter(Boolean).map((role) => ({ id: role, name: role }));
  const units = heads.map(({ id, name }) => ({ id, name }));
  const whom: Partial<Record<TargetCriterion['by'], { id: string; name: string }[]>> = {
    role: roles,
    unit: units,
    carries: attackNames(editor.project).map((name) => ({ id: name, name })),
  };
  const set = (criteria: Targeting['criteria'], what: string) => editor.set(`${at}/criteria`, criteria, what);
  const change = (index: number, more: Partial<Targeting['criteria'][number]>) =>
    set(
      targeting.criteria.map((one, i) => {
        if (i !== index) return one;
        const next = { ...one, ...more };
        const offers = whom[next.by];
        if (!offers) delete next.of;
        else if (!offers.some(({ id }) => id === next.of)) next.of = offers[0]?.id;
        return next;
      }),
      words.find(({ id }) => id === (more.by ?? targeting.criteria[index].by))?.name ?? 'changed',
    );
  const weight = infoAt('/targeting/criteria/0/weight')!;
  return (
    <div className="flex basis-full flex-col gap-1">
      {targeting.criteria.map((criterion, i) => (
        <div key={i} className="flex flex-wrap items-end gap-1.5">
          <div className="w-[150px]">
            <Choose
              label={`Criterion ${i + 1}`}
              value={criterion.by}
              options={words}
              onChoose={(by) => change(i, { by: by as TargetCriterion['by'] })}
            />
          </div>
          {whom[criterion.by] && (
            <div className="w-[130px]">
              <Choose
                label={criterion.by === 'carries' ? 'Which attack' : 'Whom'}
                value={criterion.of}
                options={withChosen(whom[criterion.by]!, criterion.of)}
                onChoose={(of) => change(i, { of })}
              />
            </div>
          )}
          <NumberField compact info={weight} base={criterion.weight} width={70} onCommit={(next) => change(i, { weight: next })} />
          <ListButtons
            what={`criterion ${i + 1}`}
            index={i}
            count={targeting.criteria.length}
            onMove={(by) => set(moved(targeting.criteria, i, by), 'other order')}
            onRemove={() =>
              set(
                targeting.criteria.filter((_, j) => j !== i),
                'one criterion less',
              )
            }
          />
        </div>
      ))}
      <div className="flex flex-wrap items-start gap-x-2">
        <span className="flex h-10 items-end">
          <button
            type="button"
            className="link"
            onClick={() =>
              set([...targeting.criteria, { by: targeting.criteria.length ? 'lowestHealth' : 'nearest', weight: 1 }], 'another criterion')
            }
          >
            add a criterion
          </button>
        </span>
        <FieldNumber tight editor={editor} path={`${at}/reconsider`} width={84} label="Reconsiders" />
        <FieldNumber tight editor={editor} path={`${at}/commitment`} width={84} />
        <Filter
          name="Goes only for"
          value={targeting.only}
          roles={roles}
          units={units}
          onChange={(next) => editor.set(`${at}/only`, next, 'changed')}
        />
        <Filter
          name="Leaves alone"
          value={targeting.never}
          roles={roles}
          units={units}
          onChange={(next) => editor.set(`${at}/never`, next, 'changed')}
        />
      </div>
    </div>
  );
}

/** Each name once, in the order of the units. */
const attackNames = ({ units }: Project) => [...new Set(units.flatMap(({ attacks }) => attacks.map(({ name }) => name)))];

/** What is written stays to be seen where the document has nothing of that name any more. */
const withChosen = (offers: { id: string; name: string }[], of: string | undefined) =>
  of === undefined || offers.some(({ id }) => id === of) ? offers : [...offers, { id: of, name: `${of} (nobody)` }];

interface FilterProps {
  name: string;
  value: TargetFilter | undefined;
  roles: { id: string; name: string }[];
  units: { id: string; name: string }[];
  onChange: (value: TargetFilter | undefined) => void;
}

/** Roles and units; nothing chosen is no filter at all. */
function Filter({ name, value, roles, units, onChange }: FilterProps) {
  if (!value)
    return (
      <span className="flex h-10 items-end">
        <button type="button" className="link" onClick={() => onChange({ roles: [], units: [] })}>
          {name.toLowerCase()} …
        </button>
      </span>
    );
  const write = (next: TargetFilter) => onChange(next);
  return (
    <div role="group" aria-label={name} className="flex basis-full flex-wrap items-end gap-x-2">
      <SomeOf label={`${name}: roles`} options={roles} value={value.roles} onChange={(chosen) => write({ ...value, roles: chosen })} />
      <SomeOf label={`${name}: units`} options={units} value={value.units} onChange={(chosen) => write({ ...value, units: chosen })} />
      <button type="button" className="link" onClick={() => onChange(undefined)}>
        anybody
      </button>
    </div>
  );
}
