import { type Consequence, Encounter as EncounterClass, fieldWords, idFor } from '@insidia/core';
import { Choose } from '../../fields/Choose';
import { ConditionField } from '../../fields/ConditionField';
import { firstOf } from '../../fields/conditions';
import { Field } from '../../fields/Field';
import { ListButtons, Mini } from '../../fields/Mini';
import { TextField } from '../../fields/TextField';
import { bearerOffers } from '../../fields/traits';
import { whoseOf } from '../../fields/tweakPlaces';
import type { ObjectEditor } from '../../fields/useObjectEditor';
import { CountFields } from '../../fields/CountFields';
import { doingOf, givenTo, newEvent, ofWave, raises, thenChanged, eventCopied } from './edits';
import { TweaksPopover } from './TweaksPopover';

/** What the encounter itself does when something holds. */
export function EncounterEvents({ editor }: { editor: ObjectEditor<'encounters'> }) {
  const { base, project } = editor;
  const counters = base.counters.map(({ id, name }) => ({ id, name }));
  const does = fieldWords(EncounterClass, ['events', '0', 'then', '0', 'does']).filter(
    ({ id }) =>
      (id !== 'count' || counters.length > 0) &&
      (id !== 'trait' || project.traits.length > 0) &&
      (!ofWave(id as Consequence['does']) || base.waves.length > 0),
  );
  const waves = base.waves.map(({ id, name }) => ({ id, name }));
  const traits = project.traits.map(({ id, name }) => ({ id, name }));
  const whose = bearerOffers(project);
  const first = { wave: waves[0]?.id, counter: counters[0]?.id, trait: traits[0]?.id };
  const set = (event: string, then: Consequence[]) => editor.set(`/events/${event}/then`, then, 'changed');
  return (
    <div className="border-t border-hair pt-1">
      <div className="flex items-baseline">
        <b className="flex-1 text-table">Events</b>
        <button
          type="button"
          className="link"
          onClick={() => {
            const event = newEvent(base, firstOf('clock', { encounter: base, project }));
            editor.change(`${base.name}: new event`, (encounter) => void encounter.events.push(event));
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
              onCopy={() =>
                editor.change(`${base.name}: ${event.name} copied`, (encounter) => (encounter.events = eventCopied(encounter.events, i)))
              }
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
                  onChoose={(word) => set(event.id, thenChanged(event.then, j, doingOf(act, word as Consequence['does'], first)))}
                />
              </div>
              {ofWave(act.does) && (
                <div className="w-[96px]">
                  <Choose
                    quiet
                    label={`${event.name} wave ${j + 1}`}
                    value={act.of}
                    options={waves}
                    onChoose={(of) => set(event.id, thenChanged(event.then, j, { ...act, of }))}
                  />
                </div>
              )}
              {(act.does === 'raise' || act.does === 'lower') && (
                <TextField
                  quiet
                  width={92}
                  label={`${event.name} flag ${j + 1}`}
                  value={act.of ?? ''}
                  onCommit={(of) => set(event.id, thenChanged(event.then, j, { ...act, of: idFor(of, []) }))}
                />
              )}
              {act.does === 'count' && act.counts && (
                <CountFields
                  label={`${event.name} ${j + 1}`}
                  value={act.counts}
                  counters={counters}
                  onChange={(counts) => set(event.id, thenChanged(event.then, j, { ...act, counts }))}
                />
              )}
              {act.does === 'trait' && act.to && (
                <>
                  <div className="w-[104px]">
                    <Choose
                      quiet
                      label={`${event.name} trait ${j + 1}`}
                      value={act.of}
                      options={traits}
                      onChoose={(of) => set(event.id, thenChanged(event.then, j, { ...act, of }))}
                    />
                  </div>
                  <div className="w-[104px]">
                    <Choose
                      quiet
                      label={`${event.name} trait ${j + 1}: who`}
                      value={whoseOf({ scope: act.to, of: act.whom })}
                      options={whose}
                      onChoose={(id) => set(event.id, thenChanged(event.then, j, givenTo(act, id)))}
                    />
                  </div>
                </>
              )}
              {act.does === 'score' && <Field editor={editor} path={`/events/${event.id}/then/${j}/score`} width={66} />}
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
          <button type="button" className="link" onClick={() => set(event.id, [...event.then, raises()])}>
            and …
          </button>
        </div>
      ))}
    </div>
  );
}
