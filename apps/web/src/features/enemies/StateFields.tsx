import { type Does, LIMITS, type State, Unit as UnitClass, doing, fieldWords, keepsBand, stateTurnFields } from '@insidia/core';
import { Choose } from '../../fields/Choose';
import { CountFields } from '../../fields/CountFields';
import { Field } from '../../fields/Field';
import { InTurns } from '../../fields/InTurns';
import { FieldNumber } from '../../fields/FieldNumber';
import { ListButtons, Mini, moved } from '../../fields/Mini';
import { TextField } from '../../fields/TextField';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { CopyPart } from './Clipboard';
import { Leaves } from './Leaves';
import {
  countersOf,
  DOES_WORDS,
  FIRST_PICKS,
  FIRST_ROAMS,
  freeName,
  friendsOf,
  mayBegin,
  placesOf,
  stopAdded,
  zonesOf,
} from './stateEdits';
import { TargetingFields } from './TargetingFields';
import { laterWithin } from '../../parts/later';

const TweaksField = laterWithin(async () => (await import('../../fields/TweaksField')).TweaksField);

interface StateProps {
  editor: UnitEditor;
  state: State;
  onSelect: (id: string | undefined) => void;
  start?: string;
  /** Every field is shown. */
  all: boolean;
  /** The duel beside it takes turns. */
  turns: boolean;
}

/** Its pace and distances in seconds and metres. */
function InSeconds({ editor, state }: Pick<StateProps, 'editor' | 'state'>) {
  const at = `/states/${state.id}`;
  return (
    <>
      <Field editor={editor} path={`${at}/pace`} width={58} />
      <FieldNumber tight editor={editor} path={`${at}/paceFactor`} width={52} label="Factor" />
      {state.does === 'approach' && <FieldNumber tight editor={editor} path={`${at}/stopAt`} width={66} />}
      {keepsBand(state.does) && (
        <>
          <FieldNumber tight editor={editor} path={`${at}/near`} width={58} label="Keeps from" />
          <FieldNumber tight editor={editor} path={`${at}/far`} width={58} label="Keeps to" />
        </>
      )}
      {(state.does === 'wander' || state.does === 'search') && <FieldNumber tight editor={editor} path={`${at}/radius`} width={84} />}
    </>
  );
}

/** What the selected state does, and all that may be said of it. */
export function StateFields({ editor, state, onSelect, start, all, turns }: StateProps) {
  const { unit, base, project } = editor;
  const at = `/states/${state.id}`;
  const index = unit.states.findIndex(({ id }) => id === state.id);
  const attacks = base.attacks.map(({ id, name }) => ({ id, name }));
  const places = placesOf(project);
  const friends = friendsOf(project, unit.id);
  return (
    <div className="mt-1 border-t border-hair pt-1">
      <div className="flex flex-wrap items-start gap-x-1.5">
        <div className="w-[98px]">
          <Choose
            label="Does"
            value={state.does}
            options={DOES_WORDS}
            onChoose={(does) =>
              editor.change(`${base.name} ${state.name}: ${DOES_WORDS.find(({ id }) => id === does)?.name}`, (one) => {
                const to = places[0]?.id ?? 'point';
                one.states = one.states.map((each) => (each.id === state.id ? doing(each, does as Does, to) : each));
              })
            }
          />
        </div>
        {(all || !turns) && <InSeconds editor={editor} state={state} />}
        {(all || turns) && <InTurns editor={editor} at={at} of={stateTurnFields(state)} />}
        {state.does === 'goTo' && <Field editor={editor} path={`${at}/to`} offers={places} />}
        {state.does === 'goTo' && <Field editor={editor} path={`${at}/strikes`} width={118} />}
        {state.does === 'follow' && (
          <Field editor={editor} path={`${at}/to`} label="Follows" offers={friends} none="any friend" width={104} />
        )}
      </div>
      {state.does === 'follow' && <Picks editor={editor} state={state} />}
      {state.does === 'wander' && <Roams editor={editor} state={state} />}
      {state.does === 'patrol' && <Patrol editor={editor} state={state} />}
      {all && (
        <div className="mt-1 flex flex-wrap items-end gap-2 border-t border-hair pt-1">
          <TextField
            label="Name"
            width={110}
            value={state.name}
            limit={80}
            onCommit={(name) => {
              const own = freeName(base.states, state.id, name);
              if (own) editor.set(`${at}/name`, own, own);
            }}
          />
          <Field editor={editor} path={`${at}/onTheWay`} width={130} />
          <Field editor={editor} path={`${at}/invulnerable`} />
          <div className="w-[120px]">
            <Choose
              label="May begin"
              value={state.attacks}
              options={fieldWords(UnitClass, ['states', '0', 'attacks'])}
              onChoose={(word) =>
                editor.change(`${base.name} ${state.name} may begin: ${word}`, (one) =>
                  mayBegin(
                    one.states.find(({ id }) => id === state.id)!,
                    word as State['attacks'],
                    attacks.map(({ id }) => id),
                  ),
                )
              }
            />
          </div>
          {state.attacks === 'some' && <Field editor={editor} path={`${at}/only`} offers={attacks} />}
          <OnEnter editor={editor} state={state} attacks={attacks} />
          <TweaksField
            label="While in it"
            tweaks={base.states[index]?.tweaks ?? []}
            unit={base}
            onChange={(tweaks) => editor.set(`${at}/tweaks`, tweaks, 'tweaks changed')}
          />
          <span className="flex basis-full items-center gap-1">
            {state.id !== start && (
              <button type="button" className="btn" onClick={() => editor.set('/startsIn', state.id, state.name)}>
                Begin here
              </button>
            )}
            <CopyPart kind="state" editor={editor} value={state} />
            <span className="flex-1" />
            <ListButtons
              what={state.name}
              index={index}
              count={unit.states.length}
              onMove={(by) =>
                editor.change(`${base.name}: ${state.name} ${by < 0 ? 'earlier' : 'later'}`, (one) => {
                  one.startsIn ??= one.states[0]?.id;
                  one.states = moved(one.states, index, by);
                })
              }
              onRemove={() => {
                editor.remove('state', state.id, state.name);
                onSelect(undefined);
              }}
            />
          </span>
        </div>
      )}
      <Leaves editor={editor} state={state} index={index} />
    </div>
  );
}

function OnEnter({ editor, state, attacks }: { editor: UnitEditor; state: State; attacks: { id: string; name: string }[] }) {
  const at = `/states/${state.id}/onEnter`;
  const counters = countersOf(editor.project);
  const counts = state.onEnter?.counts ?? [];
  const count = (next: typeof counts, what: string) => editor.set(`${at}/counts`, next, what);
  if (!state.onEnter)
    return (
      <button type="button" className="link" onClick={() => editor.set(at, { refill: false, counts: [] }, 'something')}>
        on entering …
      </button>
    );
  return (
    <div role="group" aria-label="On entering" className="flex flex-wrap items-end gap-2">
      <Field editor={editor} path={`${at}/attack`} offers={attacks} none="nothing" />
      <Field editor={editor} path={`${at}/raise`} none="none" />
      <Field editor={editor} path={`${at}/lower`} none="none" />
      <Field editor={editor} path={`${at}/refill`} />
      {counts.map((one, i) => (
        <span key={i} className="flex items-end gap-1">
          <CountFields
            label={`Count ${i + 1}`}
            value={one}
            counters={counters}
            onChange={(next) => count(counts.with(i, next), 'changed')}
          />
          <Mini
            sign="remove"
            label={`Remove count ${i + 1}`}
            onClick={() =>
              count(
                counts.filter((_, j) => j !== i),
                'one less',
              )
            }
          />
        </span>
      ))}
      {counters.length > 0 && counts.length < LIMITS.counts && (
        <button
          type="button"
          className="link"
          onClick={() => count([...counts, { counter: counters[0].id, how: 'add', by: 1 }], `${counters[0].name} grows`)}
        >
          counts …
        </button>
      )}
      <Mini sign="remove" label="Nothing on entering" onClick={() => editor.set(at, undefined, 'nothing')} />
    </div>
  );
}

/** Whom a follower picks, where it is not simply the nearest. */
function Picks({ editor, state }: { editor: UnitEditor; state: State }) {
  const at = `/states/${state.id}/picks`;
  if (!state.picks)
    return (
      <button type="button" className="link" onClick={() => editor.set(at, FIRST_PICKS, 'by criteria')}>
        the nearest of them; pick by criteria …
      </button>
    );
  return (
    <div role="group" aria-label="Whom it follows" className="mt-1 flex flex-wrap items-end gap-1 border-t border-hair pt-1">
      <TargetingFields editor={editor} at={at} />
      <button type="button" className="link" onClick={() => editor.set(at, undefined, 'the nearest')}>
        follow the nearest
      </button>
    </div>
  );
}

/** How a wanderer goes about, where it is not from place to place. */
function Roams({ editor, state }: { editor: UnitEditor; state: State }) {
  const at = `/states/${state.id}/roams`;
  if (!state.roams)
    return (
      <button type="button" className="link" onClick={() => editor.set(at, FIRST_ROAMS, 'in directions')}>
        from place to place; keep directions for a time …
      </button>
    );
  return (
    <div role="group" aria-label="Directions" className="mt-1 flex flex-wrap items-start gap-x-1.5 border-t border-hair pt-1">
      <FieldNumber tight editor={editor} path={`${at}/min`} width={74} />
      <FieldNumber tight editor={editor} path={`${at}/max`} width={64} />
      <FieldNumber tight editor={editor} path={`${at}/stands`} width={46} />
      <Field editor={editor} path={`${at}/zone`} offers={zonesOf(editor.project)} none="about home" width={104} />
      <span className="pt-[14px]">
        <Mini sign="remove" label="No directions: from place to place" onClick={() => editor.set(at, undefined, 'from place to place')} />
      </span>
    </div>
  );
}

function Patrol({ editor, state }: { editor: UnitEditor; state: State }) {
  const { base } = editor;
  const at = `/states/${state.id}/patrol`;
  const points = state.patrol?.points ?? [];
  const set = (next: typeof points, what: string) => editor.set(`${at}/points`, next, what);
  return (
    <div className="mt-1" role="group" aria-label="Its round">
      {points.map(({ id }, i) => (
        <div key={id} className="flex items-end gap-1" role="group" aria-label={`Stop ${i + 1}`}>
          <span className="w-4 pb-1 text-label text-ink-3">{i + 1}</span>
          {(['x', 'y', 'pause', 'facing'] as const).map((field) => (
            <FieldNumber tight key={field} editor={editor} path={`${at}/points/${id}/${field}`} width={66} />
          ))}
          <span className="pb-[2px]">
            <ListButtons
              what={`stop ${i + 1}`}
              index={i}
              count={points.length}
              onMove={(by) => set(moved(points, i, by), 'other order')}
              onRemove={() =>
                points.length > 1 &&
                set(
                  points.filter((_, j) => j !== i),
                  'one stop less',
                )
              }
            />
          </span>
        </div>
      ))}
      <div className="flex items-end gap-2">
        <Field editor={editor} path={`${at}/order`} width={120} />
        <FieldNumber tight editor={editor} path={`${at}/startAt`} width={66} />
        <button type="button" className="link" onClick={() => set(stopAdded(points), 'another stop')}>
          add a stop
        </button>
      </div>
      <span className="sr-only">{base.name}</span>
    </div>
  );
}
