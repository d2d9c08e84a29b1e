import {
  AliveCap,
  type Arena,
  type Consequence,
  Consequence as ConsequenceClass,
  Encounter as EncounterClass,
  LIMITS,
  type Tweak,
  type TypeCap,
  type UnitHead,
  blank,
  fieldWords,
  idFor,
  nameFor,
} from '@insidia/core';
import { Choose } from '../../fields/Choose';
import { ConditionField, firstOf } from '../../fields/ConditionField';
import { Field } from '../../fields/Field';
import { FieldNumber } from '../../fields/FieldNumber';
import { ListButtons, Mini } from '../../fields/Mini';
import { NumberField } from '../../fields/NumberField';
import { Popover } from '../../fields/Popover';
import { ScopedTweaks } from '../../fields/ScopedTweaks';
import { TextField } from '../../fields/TextField';
import type { ObjectEditor } from '../../fields/useObjectEditor';
import { guarded } from '../../parts/guarded';

interface Props {
  editor: ObjectEditor<'encounters'>;
  heads: ReadonlyMap<string, UnitHead>;
  arena: Arena | undefined;
}

/** What holds for the whole encounter: where, who, slots, caps, events, ends. */
export const Whole = guarded('The encounter’s form', function Whole({ editor, heads, arena }: Props) {
  const { base, project } = editor;
  const arenas = project.arenas.map(({ id, name }) => ({ id, name }));
  const standing = arena?.points.filter(({ health }) => health !== undefined).map(({ id, name }) => ({ id, name })) ?? [];
  return (
    <div className="flex flex-col gap-1.5" role="group" aria-label="The whole encounter">
      <TextField
        label="Name"
        value={base.name}
        limit={80}
        onCommit={(name) => {
          const own = name.trim();
          if (own && !project.encounters.some((one) => one.id !== base.id && one.name === own)) editor.set('/name', own, own);
        }}
      />
      <TextField
        label="Notes"
        value={base.notes ?? ''}
        limit={2000}
        onCommit={(notes) => editor.set('/notes', notes.trim() || undefined, 'changed')}
      />
      <div className="flex items-end gap-1.5">
        <Choose
          label="Arena"
          value={base.arena}
          options={arenas}
          onChoose={(id) => editor.set('/arena', id, arenas.find((one) => one.id === id)?.name ?? id)}
        />
        <FieldNumber tight editor={editor} path="/limit" width={80} />
      </div>
      <Members editor={editor} heads={heads} list="party" />
      <Members editor={editor} heads={heads} list="allies" />
      <Sizes editor={editor} />
      <div className="border-t border-hair pt-1">
        <b className="text-table">Ends</b>
        <Field editor={editor} path="/ends/cleared" />
        <Field editor={editor} path="/ends/survive" />
        {standing.length > 0 && <Field editor={editor} path="/ends/defend" offers={standing} />}
      </div>
      <Slots editor={editor} />
      <div className="border-t border-hair pt-1">
        {base.alive ? (
          <div className="flex flex-wrap items-end gap-1.5">
            <FieldNumber tight editor={editor} path="/alive/most" label="Alive at most" width={84} />
            <Field editor={editor} path="/alive/full" width={110} />
            <Mini sign="remove" label="No cap on the living" onClick={() => editor.set('/alive', undefined, 'none')} />
            <TypeCaps editor={editor} heads={heads} />
          </div>
        ) : (
          <button type="button" className="link" onClick={() => editor.set('/alive', blank(AliveCap), 'a cap')}>
            a cap on the living …
          </button>
        )}
      </div>
      <Events editor={editor} />
    </div>
  );
});

/** Who stands against the enemies: of the party, or beside it. */
function Members({
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
  return (
    <div className="border-t border-hair pt-1" role="group" aria-label={what}>
      <b className="text-table">{what}</b>
      {own.map(({ id, unit }, i) => (
        <div key={id} className="flex items-center gap-1 py-px">
          <Choose
            quiet
            label={`${member === 'ally' ? 'Ally' : 'Member'} ${i + 1}`}
            value={unit}
            options={units}
            onChoose={(next) => editor.set(`/${list}/${id}/unit`, next, heads.get(next)?.name ?? next)}
          />
          <ListButtons
            what={`${member} ${i + 1}`}
            index={i}
            count={own.length}
            onRemove={() =>
              (list === 'allies' || own.length > 1) &&
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
            const next = units.find(({ id }) => heads.get(id)?.side === 'party' && !own.some(({ unit }) => unit === id)) ?? units[0];
            const id = idFor(
              member,
              [...base.party, ...base.allies].map((one) => one.id),
            );
            if (next)
              editor.change(
                `${base.name}: ${next.name} ${list === 'party' ? 'joins' : 'stands by'}`,
                (encounter) => void encounter[list].push({ id, unit: next.id }),
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
function Sizes({ editor }: { editor: ObjectEditor<'encounters'> }) {
  const { base, project } = editor;
  const missing = [1, 2, 3, 4].filter((members) => members <= LIMITS.party && !base.bySize.some((one) => one.members === members));
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
                editor.change(`${base.name}: tweaks for ${members}`, (encounter) => {
                  const first: Tweak = { scope: 'enemies', path: '/health/max', op: '×', value: members / Math.max(1, base.party.length) };
                  encounter.bySize = [...encounter.bySize, { members, tweaks: [first] }].sort((x, y) => x.members - y.members);
                })
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

/** How many tweaks, and a sheet to change them. */
function TweaksPopover({ label, tweaks, ...rest }: Parameters<typeof ScopedTweaks>[0]) {
  return (
    <Popover
      label={`${label}: tweaks`}
      width={560}
      align="end"
      trigger={
        <button type="button" className="link" aria-label={`${label}: ${tweaks.length} tweaks`}>
          {tweaks.length === 1 ? '1 tweak …' : `${tweaks.length} tweaks …`}
        </button>
      }
    >
      <ScopedTweaks label={label} tweaks={tweaks} {...rest} />
    </Popover>
  );
}

/** How many of one kind may live at one time, besides how many of all. */
function TypeCaps({ editor, heads }: { editor: ObjectEditor<'encounters'>; heads: ReadonlyMap<string, UnitHead> }) {
  const { base } = editor;
  const caps = base.alive?.perType ?? [];
  const free = [...heads.values()].filter(({ id, side }) => side === 'enemy' && !caps.some(({ unit }) => unit === id));
  const change = (what: string, how: (list: TypeCap[]) => TypeCap[]) =>
    editor.change(`${base.name} cap: ${what}`, (encounter) => {
      if (encounter.alive) encounter.alive.perType = how(encounter.alive.perType);
    });
  return (
    <div className="basis-full" role="group" aria-label="Caps by kind">
      {caps.map(({ unit, most }, i) => (
        <div key={unit} className="flex items-end gap-1">
          <div className="w-[120px]">
            <Choose
              quiet
              label={`Cap ${i + 1}: kind`}
              value={unit}
              options={[...heads.values()].map(({ id, name }) => ({ id, name }))}
              onChoose={(id) => change(heads.get(id)?.name ?? id, (list) => list.map((one, j) => (j === i ? { ...one, unit: id } : one)))}
            />
          </div>
          <NumberField
            bare
            compact
            width={52}
            base={most}
            info={{
              label: `Cap ${i + 1}: at most`,
              unit: '',
              min: 1,
              max: LIMITS.liveUnits,
              whole: true,
              about: 'of it alive at one time',
            }}
            onCommit={(value) => change(String(value), (list) => list.map((one, j) => (j === i ? { ...one, most: value } : one)))}
          />
          <Mini sign="remove" label={`Remove cap ${i + 1}`} onClick={() => change('one less', (list) => list.filter((_, j) => j !== i))} />
        </div>
      ))}
      {free.length > 0 && (
        <button type="button" className="link" onClick={() => change(free[0].name, (list) => [...list, { unit: free[0].id, most: 1 }])}>
          a cap for one kind …
        </button>
      )}
    </div>
  );
}

function Slots({ editor }: { editor: ObjectEditor<'encounters'> }) {
  const { base } = editor;
  return (
    <div className="border-t border-hair pt-1">
      <b className="text-table">Attack slots</b>
      {base.slots.map(({ id }) => (
        <div key={id} className="flex items-end gap-1">
          <span className="w-[52px] truncate pb-1 text-table" title={id}>
            {id}
          </span>
          <FieldNumber tight editor={editor} path={`/slots/${id}/size`} width={54} />
          <FieldNumber tight editor={editor} path={`/slots/${id}/gap`} width={58} />
          <Field editor={editor} path={`/slots/${id}/perTarget`} />
          <Mini sign="remove" label={`Remove ${id}`} onClick={() => editor.remove('slots', id, `slots ${id}`)} />
        </div>
      ))}
      <TextField
        quiet
        label="Another pool of slots"
        value=""
        placeholder="add a pool: its name"
        onCommit={(name) => {
          const id = idFor(
            name,
            base.slots.map((slot) => slot.id),
          );
          if (name.trim())
            editor.change(`${base.name}: slots ${id}`, (encounter) => void encounter.slots.push({ id, size: 2, perTarget: false, gap: 0 }));
        }}
      />
    </div>
  );
}

function Events({ editor }: { editor: ObjectEditor<'encounters'> }) {
  const { base, project } = editor;
  const does = fieldWords(EncounterClass, ['events', '0', 'then', '0', 'does']);
  const waves = base.waves.map(({ id, name }) => ({ id, name }));
  const set = (event: string, then: Consequence[]) => editor.set(`/events/${event}/then`, then, 'changed');
  return (
    <div className="border-t border-hair pt-1">
      <div className="flex items-baseline">
        <b className="flex-1 text-table">Events</b>
        <button
          type="button"
          className="link"
          onClick={() => {
            const name = nameFor(
              'Event',
              base.events.map((event) => event.name),
            );
            const id = idFor(
              name,
              base.events.map((event) => event.id),
            );
            editor.change(`${base.name}: new event`, (encounter) => {
              encounter.events.push({
                id,
                name,
                when: firstOf('clock', { encounter: base, project }),
                then: [{ ...blank(ConsequenceClass), does: 'raise', of: 'flag' }],
              });
            });
          }}
        >
          add an event
        </button>
      </div>
      {base.events.map((event, i) => (
        <div key={event.id} role="group" aria-label={event.name} className="border-t border-hair py-1 text-table">
          <div className="flex items-center gap-1">
            <div className="min-w-0 flex-1">
              <TextField
                quiet
                label="Name of the event"
                value={event.name}
                limit={80}
                onCommit={(name) => name.trim() && editor.set(`/events/${event.id}/name`, name.trim(), name.trim())}
              />
            </div>
            <ListButtons
              what={event.name}
              index={i}
              count={base.events.length}
              onRemove={() => editor.change(`${base.name}: ${event.name} removed`, (encounter) => void encounter.events.splice(i, 1))}
            />
          </div>
          <p>
            when{' '}
            <ConditionField
              needed
              label={`${event.name} happens when`}
              condition={event.when}
              encounter={base}
              project={project}
              onChange={(when) => when && editor.set(`/events/${event.id}/when`, when, 'changed')}
            />
          </p>
          {event.then.map((act, j) => (
            <div key={j} className="flex flex-wrap items-end gap-1">
              <div className="w-[104px]">
                <Choose
                  quiet
                  label={`${event.name} does ${j + 1}`}
                  value={act.does}
                  options={does}
                  onChoose={(word) =>
                    set(
                      event.id,
                      event.then.map((one, k) => {
                        if (k !== j) return one;
                        const next: Consequence = { ...one, does: word as Consequence['does'] };
                        if (word === 'startWave') next.of = waves[0]?.id;
                        else if (word === 'raise' || word === 'lower') next.of = one.does === 'startWave' ? 'flag' : (one.of ?? 'flag');
                        else delete next.of;
                        if (word === 'tweak' && !next.tweaks.length)
                          next.tweaks = [{ scope: 'enemies', path: '/movement/run', op: '×', value: 1.25 }];
                        if (word !== 'tweak') next.tweaks = [];
                        return next;
                      }),
                    )
                  }
                />
              </div>
              {act.does === 'startWave' && (
                <div className="w-[96px]">
                  <Choose
                    quiet
                    label={`${event.name} wave ${j + 1}`}
                    value={act.of}
                    options={waves}
                    onChoose={(of) =>
                      set(
                        event.id,
                        event.then.map((one, k) => (k === j ? { ...one, of } : one)),
                      )
                    }
                  />
                </div>
              )}
              {(act.does === 'raise' || act.does === 'lower') && (
                <TextField
                  quiet
                  width={92}
                  label={`${event.name} flag ${j + 1}`}
                  value={act.of ?? ''}
                  onCommit={(of) =>
                    set(
                      event.id,
                      event.then.map((one, k) => (k === j ? { ...one, of: idFor(of, []) } : one)),
                    )
                  }
                />
              )}
              {act.does === 'tweak' && (
                <TweaksPopover
                  label={`${event.name} ${j + 1}`}
                  project={project}
                  encounter={base}
                  tweaks={act.tweaks}
                  onChange={(tweaks, mark) =>
                    editor.change(`${base.name} ${event.name}: tweaks`, (encounter) => (encounter.events[i].then[j].tweaks = tweaks), mark)
                  }
                />
              )}
              {act.does === 'end' && <Field editor={editor} path={`/events/${event.id}/then/${j}/as`} width={80} />}
              <Mini
                sign="remove"
                label={`Remove doing ${j + 1}`}
                onClick={() =>
                  set(
                    event.id,
                    event.then.filter((_, k) => k !== j),
                  )
                }
              />
            </div>
          ))}
          <button
            type="button"
            className="link"
            onClick={() => set(event.id, [...event.then, { ...blank(ConsequenceClass), does: 'raise', of: 'flag' }])}
          >
            and …
          </button>
        </div>
      ))}
    </div>
  );
}
