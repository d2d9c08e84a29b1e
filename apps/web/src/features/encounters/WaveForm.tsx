import {
  type Arena,
  type Project,
  type UnitHead,
  type Wave,
  type WaveGroup,
  WaveGroup as WaveGroupClass,
  Repeat,
  Encounter as EncounterClass,
  LIMITS,
  blank,
  blankAt,
  pointerSteps,
  fieldWords,
  hasParty,
  idFor,
  waveSentence,
  writtenUnit,
} from '@insidia/core';
import { useMemo } from 'react';
import { Choose } from '../../fields/Choose';
import { ConditionField } from '../../fields/ConditionField';
import { firstOf } from '../../fields/conditions';
import { Field } from '../../fields/Field';
import { FieldNumber } from '../../fields/FieldNumber';
import { ListButtons, Mini } from '../../fields/Mini';
import { NumberField } from '../../fields/NumberField';
import { Popover } from '../../fields/Popover';
import { SomeOf } from '../../fields/SomeOf';
import { NameField } from '../../fields/NameField';
import { GroupTraits, TraitsField } from '../../fields/TraitFields';
import { TweaksField } from '../../fields/TweaksField';
import type { ObjectEditor } from '../../fields/useObjectEditor';
import { groupWords } from '../../visuals/waveRows';
import { drawnBy, groupCopied, startedBy, startsFor, waveCopied } from './edits';
import { guarded } from '../../parts/guarded';

interface Props {
  editor: ObjectEditor<'encounters'>;
  wave: Wave;
  group: WaveGroup | undefined;
  arena: Arena | undefined;
  heads: ReadonlyMap<string, UnitHead>;
  onSelect: (selected: { wave: string; group?: string } | undefined) => void;
}

const POOL = '*pool';
const SIDES = fieldWords(EncounterClass, ['waves', '0', 'groups', '0', 'side']);
const NEEDED = 'somebody must stand against the enemies, a member of the party or a group of ours';

/** One wave: when it starts, whom it brings, how they appear. */
export const WaveForm = guarded('The wave’s form', function WaveForm({ editor, wave, group, arena, heads, onSelect }: Props) {
  const { base, project } = editor;
  const at = `/waves/${wave.id}`;
  const turns = base.clock === 'rounds';
  const others = base.waves.filter(({ id }) => id !== wave.id).map(({ id, name }) => ({ id, name }));
  const change = (what: string, how: (own: Wave) => void) =>
    editor.change(`${base.name} ${wave.name}: ${what}`, (encounter) => how(encounter.waves.find(({ id }) => id === wave.id)!));
  const sample = sampleOf(project, group, heads);
  const held = useMemo(() => editor.holding('wave', wave.id), [editor, wave.id]);
  const starts = startsFor(base);
  return (
    <div className="flex flex-col gap-1.5" role="group" aria-label={wave.name}>
      <div className="flex items-end gap-1">
        <div className="min-w-0 flex-1">
          <NameField quiet label="Name of the wave" of={wave} among={base.waves} onName={(name) => editor.set(`${at}/name`, name, name)} />
        </div>
        <Mini
          sign="copy"
          label={`Copy ${wave.name}`}
          disabled={base.waves.length >= LIMITS.waves}
          onClick={() => {
            const { waves, copy } = waveCopied(base.waves, wave.id);
            editor.change(`${base.name}: ${copy.name}, a copy of ${wave.name}`, (encounter) => (encounter.waves = waves));
            onSelect({ wave: copy.id });
          }}
        />
        <Mini
          sign="remove"
          label={held.length ? `To be changed before ${wave.name} can go: ${held.join('; ')}` : `Remove ${wave.name}`}
          disabled={held.length > 0}
          onClick={() => {
            editor.remove('wave', wave.id, wave.name);
            onSelect(undefined);
          }}
        />
      </div>
      <p className="text-label leading-[13px] text-ink-3">{waveSentence(base, wave)}</p>
      <div className="flex flex-wrap items-end gap-1.5">
        <div className="w-[150px]">
          <Choose
            label="Starts"
            value={wave.start}
            options={starts}
            onChoose={(start) =>
              editor.change(`${base.name} ${wave.name}: ${starts.find(({ id }) => id === start)?.name}`, (encounter) => {
                const when = firstOf('clock', { encounter: base, project });
                encounter.waves = encounter.waves.map((one) =>
                  one.id === wave.id ? startedBy(encounter.waves, one, start as Wave['start'], when) : one,
                );
              })
            }
          />
        </div>
        {wave.start === 'clock' && (!turns || wave.rounds) && (
          <FieldNumber tight editor={editor} path={turns ? `${at}/rounds/at` : `${at}/at`} width={78} />
        )}
        {(wave.start === 'with' || wave.start === 'defeated') && (
          <Field editor={editor} path={`${at}/after`} label="Of" offers={others} none="the one before" width={78} />
        )}
        {wave.start === 'defeated' && <FieldNumber tight editor={editor} path={`${at}/share`} width={64} />}
        {wave.start === 'condition' && (
          <span className="basis-full text-table">
            <ConditionField
              needed
              label={`${wave.name} starts when`}
              condition={wave.when}
              encounter={base}
              project={project}
              onChange={(when) => when && editor.set(`${at}/when`, when, 'changed')}
            />
          </span>
        )}
        {turns && !wave.rounds ? (
          <GroupAdded editor={editor} at={at} what="in which round, or later" />
        ) : (
          <>
            <FieldNumber tight editor={editor} path={`${at}${turns ? '/rounds' : ''}/delay`} width={72} />
            <FieldNumber tight editor={editor} path={`${at}${turns ? '/rounds' : ''}/timeout`} width={84} />
          </>
        )}
        <Popover
          label={`${wave.name}: more`}
          width={330}
          align="end"
          trigger={
            <button type="button" className="link">
              more …
            </button>
          }
        >
          <div className="flex flex-col gap-1.5">
            <Field editor={editor} path={`${at}/holdsBack`} />
            <Field editor={editor} path={`${at}/countsSummoned`} />
            <Field editor={editor} path={`${at}/countsRevived`} />
            <Field editor={editor} path={`${at}/optional`} />
            <TraitsField project={project} value={wave.traits} onChange={(traits, words) => editor.set(`${at}/traits`, traits, words)} />
            {wave.repeat ? (
              <div className="flex flex-wrap items-end gap-1.5">
                <FieldNumber tight editor={editor} path={`${at}/repeat/times`} width={64} />
                <Field editor={editor} path={`${at}/repeat/when`} width={150} />
                {wave.repeat.when === 'defeated' ? (
                  <>
                    <FieldNumber tight editor={editor} path={`${at}/repeat/share`} width={70} />
                    <FieldNumber tight editor={editor} path={`${at}/repeat${turns ? '/rounds' : ''}/pause`} width={70} />
                  </>
                ) : (
                  <FieldNumber tight editor={editor} path={`${at}/repeat${turns ? '/rounds' : ''}/every`} width={70} />
                )}
                <FieldNumber tight editor={editor} path={`${at}/repeat/count`} width={70} />
                <Mini sign="remove" label="Comes once" onClick={() => editor.set(`${at}/repeat`, undefined, 'once')} />
                {sample && (
                  <TweaksField
                    label="Each time once more"
                    tweaks={wave.repeat.tweaks}
                    unit={sample}
                    onChange={(tweaks) => editor.set(`${at}/repeat/tweaks`, tweaks, 'changed')}
                  />
                )}
              </div>
            ) : (
              <button
                type="button"
                className="link self-start"
                onClick={() => editor.set(`${at}/repeat`, { ...blank(Repeat), times: 2 }, 'twice')}
              >
                comes again …
              </button>
            )}
          </div>
        </Popover>
      </div>
      <div className="flex items-baseline gap-1.5 border-t border-hair pt-1">
        <b className="text-table">Groups</b>
        <span className="flex-1" />
        <button
          type="button"
          className="link"
          onClick={() => {
            const enemy = [...heads.values()].find(({ side }) => side === 'enemy')?.id;
            const point = arena?.spawnPoints[0]?.id;
            if (!enemy || !point) return;
            const id = idFor(
              'group',
              wave.groups.map((one) => one.id),
            );
            change('another group', (own) => void own.groups.push({ ...blank(WaveGroupClass), id, enemy, at: [point] }));
            onSelect({ wave: wave.id, group: id });
          }}
          title={arena?.spawnPoints.length ? undefined : 'the arena has no spawn point yet'}
        >
          add a group
        </button>
      </div>
      <div className="flex flex-wrap" role="tablist" aria-label="Groups">
        {wave.groups.map((one) => (
          <button
            key={one.id}
            type="button"
            role="tab"
            aria-selected={one === group}
            aria-current={one === group ? 'page' : undefined}
            className="switch max-w-[240px] truncate"
            onClick={() => onSelect({ wave: wave.id, group: one.id })}
          >
            {groupWords(one, heads)}
          </button>
        ))}
      </div>
      {group && <GroupForm key={group.id} editor={editor} wave={wave} group={group} arena={arena} heads={heads} onSelect={onSelect} />}
    </div>
  );
});

/** One of the units that a group brings: whose numbers its tweaks may name. */
function sampleOf(project: Project, group: WaveGroup | undefined, heads: Props['heads']) {
  const id = group?.enemy ?? group?.pool[0]?.enemy;
  return id !== undefined && heads.has(id) ? writtenUnit(project, id) : undefined;
}

function GroupForm({ editor, wave, group, arena, heads, onSelect }: Omit<Props, 'group'> & { group: WaveGroup }) {
  const { base, project } = editor;
  const at = `/waves/${wave.id}/groups/${group.id}`;
  const index = wave.groups.indexOf(group);
  const enemies = [...heads.values()].map(({ id, name }) => ({ id, name }));
  const party = [...new Set(base.party.map(({ unit }) => unit))].map((id) => ({ id, name: heads.get(id)?.name ?? id }));
  const roles = [...new Set(party.map(({ id }) => heads.get(id)?.role ?? ''))]
    .filter(Boolean)
    .map((role) => ({ id: role, name: `role ${role}` }));
  const change = (what: string, how: (own: WaveGroup) => void) =>
    editor.change(`${base.name} ${wave.name}: ${what}`, (encounter) =>
      how(encounter.waves.find(({ id }) => id === wave.id)!.groups.find(({ id }) => id === group.id)!),
    );
  const needed =
    group.side === 'ours' &&
    !hasParty({
      ...base,
      waves: base.waves.map((one) => (one.id === wave.id ? { ...one, groups: one.groups.filter(({ id }) => id !== group.id) } : one)),
    });
  const draws = fieldWords(WaveGroupClass, ['draws']);
  const points = arena?.spawnPoints.map(({ id, name }) => ({ id, name })) ?? [];
  return (
    <div className="flex flex-wrap items-end gap-1.5" role="group" aria-label="Group">
      <div className="w-[132px]">
        <Choose
          label="Brings"
          value={group.pool.length ? POOL : group.enemy}
          options={[{ id: POOL, name: 'from a pool' }, ...enemies]}
          onChoose={(id) =>
            change(id === POOL ? 'from a pool' : (heads.get(id)?.name ?? id), (own) => {
              if (id === POOL) {
                own.pool = [{ enemy: own.enemy ?? enemies[0].id, weight: 1 }];
                delete own.enemy;
              } else {
                own.enemy = id;
                own.pool = [];
              }
            })
          }
        />
      </div>
      {!(group.pool.length && group.draws === 'budget') && <NumberPair editor={editor} at={at} group={group} change={change} />}
      {group.pool.length > 0 && (
        <div className="basis-full">
          {group.pool.map((entry, i) => (
            <div key={i} className="flex items-end gap-1">
              <div className="w-[120px]">
                <Choose
                  quiet
                  label={`Pool ${i + 1}`}
                  value={entry.enemy}
                  options={enemies}
                  onChoose={(enemy) => change('pool', (own) => (own.pool[i].enemy = enemy))}
                />
              </div>
              <FieldNumber tight editor={editor} path={`${at}/pool/${i}/weight`} width={62} />
              <ListButtons
                what={`pool entry ${i + 1}`}
                index={i}
                count={group.pool.length}
                onRemove={() => group.pool.length > 1 && change('pool', (own) => void own.pool.splice(i, 1))}
              />
            </div>
          ))}
          <div className="flex items-end gap-1.5">
            <button
              type="button"
              className="link"
              onClick={() => change('pool', (own) => void own.pool.push({ enemy: enemies[0].id, weight: 1 }))}
            >
              add to the pool
            </button>
            <div className="w-[110px]">
              <Choose
                label="Draws"
                value={group.draws}
                options={draws}
                onChoose={(id) =>
                  change(draws.find((one) => one.id === id)?.name ?? id, (own) =>
                    Object.assign(own, drawnBy(own, id as WaveGroup['draws'], sampleOf(project, own, heads)?.onDeath.worth ?? 1)),
                  )
                }
              />
            </div>
            {group.draws === 'budget' && <FieldNumber tight editor={editor} path={`${at}/budget`} width={70} />}
          </div>
        </div>
      )}
      <div className="basis-full">
        <SomeOf
          label="At"
          options={points}
          value={group.at}
          numbered={group.rule === 'inTurn'}
          onChange={(next) => next.length && change('spawn points', (own) => (own.at = next))}
        />
      </div>
      <div title={needed ? NEEDED : undefined}>
        <Choose
          label="Side"
          value={group.side}
          options={needed ? SIDES.filter(({ id }) => id === 'ours') : SIDES}
          onChoose={(side) => editor.set(`${at}/side`, side, SIDES.find(({ id }) => id === side)?.name ?? side)}
        />
      </div>
      <Field editor={editor} path={`${at}/rule`} width={108} />
      {base.clock === 'continuous' ? (
        <FieldNumber tight editor={editor} path={`${at}/spacing`} width={64} />
      ) : group.rounds ? (
        <FieldNumber tight editor={editor} path={`${at}/rounds/spacing`} width={64} />
      ) : (
        <GroupAdded editor={editor} at={at} what="rounds apart" />
      )}
      <div className="w-[104px]">
        <Choose
          label="Goes for"
          value={group.target ?? '*'}
          options={[{ id: '*', name: 'by its targeting' }, ...party, ...roles]}
          onChoose={(id) => editor.set(`${at}/target`, id === '*' ? undefined : id, heads.get(id)?.name ?? 'by its targeting')}
        />
      </div>
      <Field editor={editor} path={`${at}/alerted`} />
      <Popover
        label="Group: more"
        width={330}
        align="end"
        trigger={
          <button type="button" className="link">
            more …
          </button>
        }
      >
        <div className="flex flex-wrap items-end gap-1.5">
          <FieldNumber tight editor={editor} path={`${at}/leastDistance`} width={110} />
          <FieldNumber tight editor={editor} path={`${at}/leavesBeyond`} width={100} />
          <Field editor={editor} path={`${at}/outOfView`} />
        </div>
      </Popover>
      <GroupTraits
        project={project}
        value={group.traits}
        most={LIMITS.groupTraits}
        onChange={(traits, mark) =>
          editor.change(
            `${base.name} ${wave.name}: traits of a group`,
            (encounter) => (encounter.waves.find(({ id }) => id === wave.id)!.groups[index].traits = traits),
            mark,
          )
        }
      />
      <Mini
        sign="copy"
        label="Copy the group"
        disabled={wave.groups.length >= LIMITS.groups}
        onClick={() => {
          const { groups, copy } = groupCopied(wave.groups, group.id);
          editor.change(`${base.name} ${wave.name}: a group copied`, (encounter) => {
            encounter.waves.find(({ id }) => id === wave.id)!.groups = groups;
          });
          onSelect({ wave: wave.id, group: copy.id });
        }}
      />
      <Mini
        sign="remove"
        label={needed ? `The group stays: ${NEEDED}` : 'Remove the group'}
        disabled={needed}
        onClick={() =>
          editor.change(`${base.name} ${wave.name}: a group less`, (encounter) => {
            const own = encounter.waves.find(({ id }) => id === wave.id)!;
            own.groups = own.groups.filter((_, i) => i !== index);
          })
        }
      />
    </div>
  );
}

/** How many: a number, or between two. */
function NumberPair({
  editor,
  at,
  group,
  change,
}: {
  editor: ObjectEditor<'encounters'>;
  at: string;
  group: WaveGroup;
  change: (what: string, how: (own: WaveGroup) => void) => void;
}) {
  const between = group.count.min !== group.count.max;
  if (between)
    return (
      <>
        <FieldNumber tight editor={editor} path={`${at}/count/min`} width={52} label="From" />
        <FieldNumber tight editor={editor} path={`${at}/count/max`} width={52} label="To" />
      </>
    );
  return (
    <>
      <NumberField
        compact
        info={{ label: 'How many', unit: '', min: 1, max: 500, whole: true, about: 'units of the group' }}
        base={group.count.max}
        width={58}
        onCommit={(count) => change(`${count} of it`, (own) => (own.count = { min: count, max: count }))}
      />
      <button
        type="button"
        className="link"
        title="or between two numbers"
        onClick={() => change('a range', (own) => (own.count.max += 1))}
      >
        range
      </button>
    </>
  );
}

/** Says something in turns that it said nothing of yet. */
function GroupAdded({ editor, at, what }: { editor: ObjectEditor<'encounters'>; at: string; what: string }) {
  return (
    <button
      type="button"
      className="link self-end"
      onClick={() => editor.set(`${at}/rounds`, blankAt(EncounterClass, pointerSteps(`${at}/rounds`)), 'added')}
    >
      {what} …
    </button>
  );
}
