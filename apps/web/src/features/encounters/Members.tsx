import { LIMITS, type UnitHead, hasParty } from '@insidia/core';
import { Choose } from '../../fields/Choose';
import { ListButtons, Mini } from '../../fields/Mini';
import type { ObjectEditor } from '../../fields/useObjectEditor';
import { nextMember, sizeAdded } from './edits';
import { TweaksPopover } from './TweaksPopover';

const IN_LINE = '*';

/** Who stands against the enemies: of the party, or beside it. */
export function Members({
  editor,
  heads,
  list,
}: {
  editor: ObjectEditor<'encounters'>;
  heads: ReadonlyMap<string, UnitHead>;
  list: 'party' | 'allies';
}) {
  const { base } = editor;
  const units = [...heads.values()].map(({ id, name }) => ({ id, name }));
  const [what, member] = list === 'party' ? ['Party', 'member'] : ['Allies', 'ally'];
  const own = base[list];
  const last = list === 'party' && own.length === 1 && !hasParty({ ...base, party: [] });
  const points = editor.project.arenas.find(({ id }) => id === base.arena)?.points.map(({ id, name }) => ({ id, name })) ?? [];
  return (
    <div className="border-t border-hair pt-1" role="group" aria-label={what}>
      <b className="text-table">{what}</b>
      {own.map(({ id, unit, at }, i) => (
        <div key={id} className="flex items-center gap-1 py-px">
          <Choose
            quiet
            label={`${member === 'ally' ? 'Ally' : 'Member'} ${i + 1}`}
            value={unit}
            options={units}
            onChoose={(next) => editor.set(`/${list}/${id}/unit`, next, heads.get(next)?.name ?? next)}
          />
          {points.length > 0 && (
            <div className="w-[104px] shrink-0">
              <Choose
                quiet
                label={`${member === 'ally' ? 'Ally' : 'Member'} ${i + 1} stands at`}
                value={at ?? IN_LINE}
                options={[{ id: IN_LINE, name: 'in line' }, ...points]}
                onChoose={(next) =>
                  editor.set(
                    `/${list}/${id}/at`,
                    next === IN_LINE ? undefined : next,
                    points.find((one) => one.id === next)?.name ?? 'in line',
                  )
                }
              />
            </div>
          )}
          <ListButtons
            what={`${member} ${i + 1}`}
            index={i}
            count={own.length}
            kept={last ? 'stays: somebody must stand against the enemies, here or in a group of ours' : undefined}
            onRemove={() =>
              editor.change(
                `${base.name}: ${heads.get(unit)?.name ?? unit} does not take part`,
                (encounter) => void encounter[list].splice(i, 1),
              )
            }
          />
        </div>
      ))}
      {own.length < LIMITS.party && (
        <button
          type="button"
          className="link block"
          onClick={() => {
            const next = nextMember(base, list, [...heads.values()]);
            if (next)
              editor.change(
                `${base.name}: ${heads.get(next.unit)?.name} ${list === 'party' ? 'joins' : 'stands by'}`,
                (encounter) => void encounter[list].push(next),
              );
          }}
        >
          add {list === 'party' ? 'a member' : 'an ally'}
        </button>
      )}
    </div>
  );
}

/** What changes with how many take part. */
export function Sizes({ editor }: { editor: ObjectEditor<'encounters'> }) {
  const { base, project } = editor;
  const missing = Array.from({ length: LIMITS.party }, (_, i) => i + 1).filter(
    (members) => !base.bySize.some((one) => one.members === members),
  );
  return (
    <div className="border-t border-hair pt-1" role="group" aria-label="By party size">
      <b className="text-table">By party size</b>
      {base.bySize.map((size, i) => (
        <div key={i} className="flex items-baseline gap-1 py-px text-table">
          <span className="flex-1">{size.members === 1 ? 'one alone' : `party of ${size.members}`}</span>
          <TweaksPopover
            label={`Party of ${size.members}`}
            project={project}
            encounter={base}
            tweaks={size.tweaks}
            onChange={(tweaks, mark) =>
              editor.change(`${base.name} party of ${size.members}: tweaks`, (encounter) => (encounter.bySize[i].tweaks = tweaks), mark)
            }
          />
          <Mini
            sign="remove"
            label={`Remove party of ${size.members}`}
            onClick={() => editor.change(`${base.name}: nothing for ${size.members}`, (encounter) => void encounter.bySize.splice(i, 1))}
          />
        </div>
      ))}
      {missing.length > 0 && (
        <span className="block text-table text-ink-3">
          add for{' '}
          {missing.map((members) => (
            <button
              key={members}
              type="button"
              className="link mr-1.5"
              aria-label={`Add tweaks for a party of ${members}`}
              onClick={() =>
                editor.change(`${base.name}: tweaks for ${members}`, (encounter) => (encounter.bySize = sizeAdded(base, members)))
              }
            >
              {members}
            </button>
          ))}
        </span>
      )}
    </div>
  );
}
