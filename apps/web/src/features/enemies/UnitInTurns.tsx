import { type TurnReaction, LIMITS, blankAt, fieldLabel, fieldWords, idFor, Unit as UnitClass, unitTurnFields } from '@insidia/core';
import { Choose } from '../../fields/Choose';
import { Field, Fields } from '../../fields/Field';
import { FieldNumber } from '../../fields/FieldNumber';
import { ListButtons, Mini, moved } from '../../fields/Mini';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { Part } from './Part';

/** Groups of its turns that a unit may be without. */
const GROUPS = ['senses', 'plays'] as const;
const DOES = fieldWords(UnitClass, ['rounds', 'reactions', '0', 'does']);

/** What a unit is in fights that take turns: only what has a say. */
export function UnitInTurns({ editor }: { editor: UnitEditor }) {
  return (
    <Part title="In turns" note="what it is in fights that take turns">
      <Fields editor={editor} at="/rounds" of={unitTurnFields(editor.unit)} />
      <Reactions editor={editor} />
      {GROUPS.map((group) => (
        <MaybeGroup key={group} editor={editor} group={group} />
      ))}
    </Part>
  );
}

function MaybeGroup({ editor, group }: { editor: UnitEditor; group: (typeof GROUPS)[number] }) {
  const path = `/rounds/${group}`;
  const name = fieldLabel(UnitClass, ['rounds', group]);
  if (editor.base.rounds?.[group])
    return (
      <div className="flex basis-full flex-wrap items-end gap-x-2 gap-y-1" role="group" aria-label={`${name} in turns`}>
        <span className="w-[92px] pb-1 text-table text-ink-2">{name}</span>
        <Fields editor={editor} at={path} />
        <Mini sign="remove" label={`Take ${name.toLowerCase()} in turns away`} onClick={() => editor.set(path, undefined, 'none')} />
      </div>
    );
  return (
    <button type="button" className="switch self-end" onClick={() => editor.set(path, blankAt(UnitClass, ['rounds', group]), 'added')}>
      + {name.toLowerCase()} in turns
    </button>
  );
}

/** What it does about hits in nobody’s turn, tried in their order. */
function Reactions({ editor }: { editor: UnitEditor }) {
  const { base } = editor;
  const reactions = base.rounds!.reactions;
  const attacks = base.attacks.map(({ id, name }) => ({ id, name }));
  const offered = DOES.filter(({ id }) => id !== 'counter' || attacks.length > 0);
  const set = (next: readonly TurnReaction[], what: string) => editor.set('/rounds/reactions', next, what);
  const turnedTo = (one: TurnReaction, does: TurnReaction['does']): TurnReaction => {
    const { attack: _, ...rest } = one;
    return { ...rest, does, ...(does === 'counter' && { attack: attacks[0].id }) };
  };
  return (
    <div className="flex basis-full flex-col gap-1" role="group" aria-label="Reactions">
      {reactions.map((one, i) => (
        <div key={one.id} className="flex flex-wrap items-end gap-x-2 gap-y-1" role="group" aria-label={`Reaction ${i + 1}`}>
          <div className="w-[120px]">
            <Choose
              label="About a hit it"
              value={one.does}
              options={offered}
              onChoose={(does) =>
                set(
                  reactions.map((each) => (each === one ? turnedTo(one, does as TurnReaction['does']) : each)),
                  DOES.find(({ id }) => id === does)?.name ?? does,
                )
              }
            />
          </div>
          <FieldNumber tight editor={editor} path={`/rounds/reactions/${one.id}/uses`} label="Times a round" width={84} />
          {one.does === 'guard' && <FieldNumber tight editor={editor} path={`/rounds/reactions/${one.id}/reduces`} width={84} />}
          {one.does === 'counter' && <Field editor={editor} path={`/rounds/reactions/${one.id}/attack`} offers={attacks} />}
          <ListButtons
            what={`reaction ${i + 1}`}
            index={i}
            count={reactions.length}
            onMove={reactions.length > 1 ? (by) => set(moved(reactions, i, by), 'other order') : undefined}
            onRemove={() =>
              set(
                reactions.filter((each) => each !== one),
                'one less',
              )
            }
          />
        </div>
      ))}
      {reactions.length < LIMITS.answers && (
        <button
          type="button"
          className="link self-start"
          title="what it does about a hit in nobody’s turn: dodges, guards or strikes back, so often a round"
          onClick={() => {
            const taken = reactions.map(({ id }) => id);
            set([...reactions, { id: idFor('guard', taken), does: 'guard', uses: 1, reduces: 0.5 }], 'another: guards');
          }}
        >
          add a reaction
        </button>
      )}
    </div>
  );
}
