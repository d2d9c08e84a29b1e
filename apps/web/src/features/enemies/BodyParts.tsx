import {
  ANSWERS,
  ANSWER_KINDS,
  type AnswerKind,
  type Unit,
  blankAt,
  fieldLabel,
  plainFields,
  Unit as UnitClass,
  unitHeads,
} from '@insidia/core';
import { Choose } from '../../fields/Choose';
import { ListButtons, Mini, moved } from '../../fields/Mini';
import { TextField } from '../../fields/TextField';
import { Fields, Field } from '../../fields/Field';
import { FieldNumber } from '../../fields/FieldNumber';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { CopyPart } from './Clipboard';
import { AddParts, Part } from './Part';
import { TraitsField } from '../../fields/TraitFields';
import { TargetingFields } from './TargetingFields';
import { UnitInTurns } from './UnitInTurns';
import { guarded } from '../../parts/guarded';

/** Groups a unit may be without. */
const MAYBE = ['shield', 'weakPoint', 'stagger', 'energy', 'leash'] as const;
const MAYBE_PLAYER = ['magazine', 'healing', 'cover', 'down', 'rescues'] as const;
/** Everything of a unit besides its attacks, states and choice: grouped by what is thought of together, quiet when unused. */
export const BodyParts = guarded('The body', function BodyParts({ editor }: { editor: UnitEditor }) {
  const { base } = editor;
  const states = base.states.map(({ id, name }) => ({ id, name }));
  const attacks = base.attacks.map(({ id, name }) => ({ id, name }));
  const take = (field: (typeof MAYBE)[number]) => () => editor.set(`/${field}`, undefined, 'none');
  return (
    <div className="mb-1 mt-1">
      <Part title="Body">
        <Fields editor={editor} at="/body" />
      </Part>
      <Part title="Movement">
        <Fields editor={editor} at="/movement" />
        <FieldNumber tight editor={editor} path="/knockback/resist" width={84} />
        <Ground editor={editor} field="only" />
        <Ground editor={editor} field="never" />
      </Part>
      <Part title="Health">
        <Fields editor={editor} at="/health" />
        <Gates editor={editor} states={states} />
      </Part>
      {base.shield && (
        <Part title="Shield" onRemove={take('shield')}>
          <Fields editor={editor} at="/shield" />
        </Part>
      )}
      <Part title="Armour">
        <Fields editor={editor} at="/armour" />
        <Resistances editor={editor} />
      </Part>
      {base.weakPoint && (
        <Part title="Weak point" onRemove={take('weakPoint')}>
          <Fields editor={editor} at="/weakPoint" />
          {base.weakPoint.exposed === 'states' && <Field editor={editor} path="/weakPoint/states" offers={states} />}
        </Part>
      )}
      <Part title="After a hit" note="no further hit counts for this long">
        <Fields editor={editor} at="/invulnerability" />
      </Part>
      {base.stagger && (
        <Part title="Stagger" onRemove={take('stagger')}>
          <Fields editor={editor} at="/stagger" />
        </Part>
      )}
      {base.energy && (
        <Part title="Energy" onRemove={take('energy')}>
          <Fields editor={editor} at="/energy" />
        </Part>
      )}
      {base.rounds && <UnitInTurns editor={editor} />}
      <Part title="Senses">
        <Fields
          editor={editor}
          at="/senses"
          of={['sight', 'angle', 'lose', 'memory', 'hearing', 'reaction/mean', 'reaction/spread', 'buildUp', 'interval', 'needsLine']}
        />
        <span className="flex gap-1 pt-[14px]">
          <CopyPart kind="senses" editor={editor} value={base.senses} />
        </span>
      </Part>
      <Part title="Temper">
        <Fields editor={editor} at="/temper" />
      </Part>
      {base.leash && (
        <Part title="Leash" onRemove={take('leash')}>
          <Fields editor={editor} at="/leash" />
        </Part>
      )}
      <Part title="Targeting">
        <TargetingFields editor={editor} at="/targeting" />
      </Part>
      <Part title="Between attacks">
        <FieldNumber tight editor={editor} path="/choice/pause/min" label="Pause from" width={84} />
        <FieldNumber tight editor={editor} path="/choice/pause/max" label="Pause to" width={84} />
      </Part>
      <Part title="On death">
        <Field editor={editor} path="/onDeath/attack" offers={attacks} none="nothing" label="Does" />
        <Fields editor={editor} at="/onDeath" />
      </Part>
      {base.player && <PlayerParts editor={editor} attacks={attacks} />}
      <Traits editor={editor} />
      <Identity editor={editor} />
      <AddParts
        what="it may also have"
        parts={[
          ...MAYBE.filter((field) => !base[field]).map((id) => ({ id, name: fieldLabel(UnitClass, [id]) })),
          ...(base.side === 'party' && !base.player ? [{ id: 'player', name: 'Player' }] : []),
        ]}
        onAdd={(field) => editor.set(`/${field}`, blankAt(UnitClass, [field]), 'added')}
      />
    </div>
  );
});

/** Named changes that it has of itself. */
function Traits({ editor }: { editor: UnitEditor }) {
  const { base, project } = editor;
  return (
    <Part title="Traits" note="laid over its numbers before any tier, in this order">
      <TraitsField project={project} value={base.traits} onChange={(traits, words) => editor.set('/traits', traits, words)} />
    </Part>
  );
}

function Identity({ editor }: { editor: UnitEditor }) {
  const { base, project } = editor;
  const roles = [...new Set(unitHeads(project).map(({ role }) => role))].filter(Boolean).map((role) => ({ id: role, name: role }));
  return (
    <Part title="Shown as">
      <TextField
        label="Role"
        width={120}
        value={base.role}
        limit={40}
        offers={roles.map(({ id }) => id)}
        onCommit={(role) => editor.set('/role', role.trim(), role.trim())}
      />
      <Fields editor={editor} at="" of={['glyph', 'colour']} />
      <TextField
        label="Notes"
        lines={2}
        width={320}
        value={base.notes ?? ''}
        limit={8000}
        onCommit={(notes) => editor.set('/notes', notes.trim() || undefined, 'changed')}
      />
    </Part>
  );
}

/** Kinds of ground as the project's arenas have them. */
function Ground({ editor, field }: { editor: UnitEditor; field: 'only' | 'never' }) {
  const kinds = [...new Set(editor.project.arenas.flatMap(({ ground }) => ground.map(({ kind }) => kind)))].filter(Boolean);
  if (!kinds.length && !editor.base.movement[field].length) return null;
  return <Field editor={editor} path={`/movement/${field}`} offers={kinds.map((kind) => ({ id: kind, name: kind }))} />;
}

function Gates({ editor, states }: { editor: UnitEditor; states: { id: string; name: string }[] }) {
  const { base } = editor;
  const { gates } = base.health;
  return (
    <div className="flex basis-full flex-wrap items-end gap-x-3">
      {gates.map(({ id, state }, i) => (
        <span key={id} className="flex items-end gap-1.5">
          <FieldNumber tight editor={editor} path={`/health/gates/${id}/share`} label={`Gate ${i + 1} at`} width={72} />
          <div className="w-[110px]">
            <Choose
              label="Until in"
              value={state}
              options={states}
              onChoose={(to) => editor.set(`/health/gates/${id}/state`, to, states.find((one) => one.id === to)?.name ?? to)}
            />
          </div>
          <div>
            <Field editor={editor} path={`/health/gates/${id}/holds`} />
          </div>
          <div className="pb-[2px]">
            <Mini
              sign="remove"
              label={`Remove gate ${i + 1}`}
              onClick={() => editor.change(`${base.name}: a gate less`, (unit) => unit.health.gates.splice(i, 1))}
            />
          </div>
        </span>
      ))}
      {states.length > 0 && (
        <button
          type="button"
          className="link"
          title="a share of health at which damage stops until a state has been entered"
          onClick={() =>
            editor.change(`${base.name}: another gate`, (unit) => {
              const id = ['first', 'second', 'third', 'fourth'].find((one) => !unit.health.gates.some((gate) => gate.id === one));
              unit.health.gates.push({
                id: id ?? `gate-${unit.health.gates.length + 1}`,
                share: 0.5,
                state: states[Math.min(1, states.length - 1)].id,
                holds: true,
              });
            })
          }
        >
          add a health gate
        </button>
      )}
    </div>
  );
}

function Resistances({ editor }: { editor: UnitEditor }) {
  const { base, project } = editor;
  const kinds = new Set<string>();
  for (const { attacks, armour } of project.units) {
    for (const { effects } of attacks) {
      if (effects.damage?.type) kinds.add(effects.damage.type);
      if (effects.overTime?.type) kinds.add(effects.overTime.type);
    }
    for (const { id } of armour.resist) kinds.add(id);
  }
  const free = [...kinds].filter((kind) => !base.armour.resist.some(({ id }) => id === kind));
  return (
    <div className="flex flex-wrap items-end gap-x-2">
      {base.armour.resist.map(({ id }, i) => (
        <span key={id} className="flex items-end">
          <FieldNumber tight editor={editor} path={`/armour/resist/${id}/share`} label={`Resists ${id}`} width={90} />
          <span className="pb-[2px]">
            <Mini
              sign="remove"
              label={`Remove resistance to ${id}`}
              onClick={() => editor.change(`${base.name}: no resistance to ${id}`, (unit) => unit.armour.resist.splice(i, 1))}
            />
          </span>
        </span>
      ))}
      <TextField
        label="Resist another kind"
        width={120}
        value=""
        placeholder="kind of damage"
        offers={free}
        onCommit={(kind) => {
          const id = kind
            .trim()
            .toLowerCase()
            .replace(/[^a-z0-9]+/g, '-');
          if (id && !base.armour.resist.some((one) => one.id === id))
            editor.change(`${base.name}: resists ${id}`, (unit) => unit.armour.resist.push({ id, share: 0.25 }));
        }}
      />
    </div>
  );
}

/** The simulated player behind a party member. */
function PlayerParts({ editor, attacks }: { editor: UnitEditor; attacks: { id: string; name: string }[] }) {
  const { base } = editor;
  const player = base.player!;
  const take = (field: (typeof MAYBE_PLAYER)[number]) => () => editor.set(`/player/${field}`, undefined, 'none');
  return (
    <>
      <Part title="Attention">
        <Fields editor={editor} at="/player/attention" />
        <FieldNumber tight editor={editor} path="/player/aimError" width={84} />
        <FieldNumber tight editor={editor} path="/player/runsWithin" width={84} />
      </Part>
      <Part title="Answers" note="tried in this order where they can still work in the time left">
        <Answers editor={editor} player={player} />
      </Part>
      {player.magazine && (
        <Part title="Magazine" onRemove={take('magazine')}>
          <Fields editor={editor} at="/player/magazine" />
          <Field editor={editor} path="/player/magazine/attacks" offers={attacks} />
        </Part>
      )}
      {player.healing && (
        <Part title="Healing item" onRemove={take('healing')}>
          <Fields editor={editor} at="/player/healing" />
        </Part>
      )}
      {player.cover && (
        <Part title="Cover" onRemove={take('cover')}>
          <Fields editor={editor} at="/player/cover" />
        </Part>
      )}
      {player.down && (
        <Part title="Goes down" onRemove={take('down')}>
          <Fields editor={editor} at="/player/down" />
        </Part>
      )}
      {player.rescues && (
        <Part title="Rescues" onRemove={take('rescues')}>
          <Fields editor={editor} at="/player/rescues" />
        </Part>
      )}
      <AddParts
        what="the player may also"
        parts={MAYBE_PLAYER.filter((field) => !player[field]).map((id) => ({ id, name: fieldLabel(UnitClass, ['player', id]) }))}
        onAdd={(field) => editor.set(`/player/${field}`, blankAt(UnitClass, ['player', field]), 'added')}
      />
    </>
  );
}

function Answers({ editor, player }: { editor: UnitEditor; player: NonNullable<Unit['player']> }) {
  const { base } = editor;
  const name = (kind: AnswerKind) => ANSWERS[kind].verb;
  const change = (what: string, how: (answers: NonNullable<Unit['player']>['answers']) => NonNullable<Unit['player']>['answers']) =>
    editor.change(`${base.name} answers: ${what}`, (unit) => {
      if (unit.player) unit.player.answers = how(unit.player.answers);
    });
  const missing = ANSWER_KINDS.filter((kind) => !player.answers.some((answer) => answer.kind === kind));
  return (
    <div className="flex basis-full flex-col">
      {player.answers.map(({ id, kind }, i) => (
        <div key={id} className="flex flex-wrap items-start gap-x-2">
          <span className="w-[120px] pt-[17px] text-table">
            <b>{i + 1}</b> {name(kind)}
          </span>
          {plainFields(UnitClass, ['player', 'answers', id], { kind })
            .filter((field) => field !== 'kind')
            .map((field) => (
              <Field key={field} editor={editor} path={`/player/answers/${id}/${field}`} width={field === 'way' ? 96 : 72} />
            ))}
          <span className="pt-[15px]">
            <ListButtons
              what={name(kind)}
              index={i}
              count={player.answers.length}
              onMove={(by) => change(`${name(kind)} ${by < 0 ? 'earlier' : 'later'}`, (answers) => moved(answers, i, by))}
              onRemove={() => change(`${name(kind)} no more`, (answers) => answers.filter((answer) => answer.id !== id))}
            />
          </span>
        </div>
      ))}
      <div className="flex gap-1">
        {missing.map((kind: AnswerKind) => (
          <button
            key={kind}
            type="button"
            className="switch"
            onClick={() =>
              change(name(kind), (answers) => [
                ...answers,
                { ...(blankAt(UnitClass, ['player', 'answers', '0']) as (typeof answers)[number]), id: ANSWERS[kind].short, kind },
              ])
            }
          >
            + {name(kind)}
          </button>
        ))}
      </div>
    </div>
  );
}
