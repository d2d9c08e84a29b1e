import {
  Area,
  type Attack,
  type Delivery,
  EFFECTS,
  EFFECT_NAMES,
  type EffectName,
  type FieldTweak,
  Projectile,
  Summoning,
  Unit,
  blankAt,
  classFields,
  effectsFor,
  fieldLabel,
  fieldWords,
  traitsOf,
  unitHeads,
  valueAt,
  withDelivery,
  attackSentence,
  attackTurnFields,
} from '@insidia/core';
import { Choose } from '../../fields/Choose';
import { ConditionField } from '../../fields/ConditionField';
import { Mini } from '../../fields/Mini';
import { TweaksField } from '../../fields/TweaksField';
import { Fields, Field } from '../../fields/Field';
import { InTurns } from '../../fields/InTurns';
import { FieldNumber } from '../../fields/FieldNumber';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { addEffect } from './effectAdded';
import { AddParts, Part } from './Part';
import { guarded } from '../../parts/guarded';

type Offers = { id: string; name: string }[];
/** The groups that only some deliveries have. */
const PART_CLASSES = { projectile: Projectile, area: Area, summon: Summoning };
const PARTS = { charges: 'Charges', next: 'Follow-up', slot: 'Attack slot', dash: 'Movement in it' } as const;

/** Whom an aid may be for. */
const FRIENDS = fieldWords(Unit, ['attacks', '0', 'targets']).filter(({ id }) => id !== 'foes');

/** Every field of an attack that applies to its delivery. */
export const AttackFields = guarded(
  'The attack’s fields',
  function AttackFields({ editor, attack }: { editor: UnitEditor; attack: Attack }) {
    const { base, project } = editor;
    const at = `/attacks/${attack.id}`;
    const { delivery } = attack;
    const { strikes, aids, needsTarget, chosen, part, escape } = traitsOf(delivery);
    const aims = needsTarget && chosen;
    const units = unitHeads(project).map(({ id, name }) => ({ id, name }));
    const others = base.attacks.filter(({ id }) => id !== attack.id).map(({ id, name }) => ({ id, name }));
    const pools = [...new Set(project.encounters.flatMap(({ slots }) => slots.map(({ id }) => id)))];
    const kinds = damageKinds(editor);
    const summonable = units.filter(({ id }) => id !== base.id);
    // Somebody must be there to be summoned.
    const deliveries = fieldWords(Unit, ['attacks', '0', 'delivery']).filter(({ id }) => id !== 'summon' || summonable.length > 0);
    const offered = effectsFor(strikes).filter((effect) => !attack.effects[effect]);
    return (
      <div className="mb-1">
        <Part title="When">
          <div className="w-[132px]">
            <Choose
              label="Delivery"
              value={delivery}
              options={deliveries}
              onChoose={(word) =>
                editor.change(`${base.name} ${attack.name} delivery: ${deliveries.find(({ id }) => id === word)?.name}`, (unit) => {
                  const { attacks, choice } = withDelivery(unit, attack.id, word as Delivery, summonable[0]?.id);
                  Object.assign(unit, { attacks, choice });
                })
              }
            />
          </div>
          {aids && needsTarget && <Field editor={editor} path={`${at}/targets`} offers={FRIENDS} />}
          {aims && <Fields editor={editor} at={at} of={['facing', 'needsLine']} />}
          {escape === 'reach' && <FieldNumber tight editor={editor} path={`${at}/arc`} width={84} />}
          <Fields
            editor={editor}
            at={`${at}/beat`}
            of={['initialDelay/min', 'initialDelay/max']}
            labels={{ 'initialDelay/min': 'First use from', 'initialDelay/max': 'First use to' }}
          />
          <div className="flex min-w-0 pt-[18px] text-table">
            <span className="text-ink-3">if&nbsp;</span>
            <ConditionField
              label={`${attack.name} is usable if`}
              condition={attack.condition}
              unit={base}
              project={project}
              onChange={(condition) => editor.set(`${at}/condition`, condition, condition ? 'changed' : 'none')}
            />
          </div>
        </Part>
        {attack.rounds && (
          <Part title="In turns" note="what it is in fights that take turns">
            <p className="note basis-full">{attackSentence(attack, (id) => units.find((one) => one.id === id)?.name ?? id, 'rounds')}</p>
            <InTurns editor={editor} at={at} of={attackTurnFields(attack)} />
          </Part>
        )}
        <Part title="Beat">
          <Fields editor={editor} at={`${at}/beat`} of={['cooldownFrom', 'moving', 'tracking', 'cue']} />
        </Part>
        {part && (
          <Part title={fieldLabel(Unit, ['attacks', '0', part])}>
            {[...classFields(PART_CLASSES[part])!.kinds].map(([field, kind]) =>
              kind.kind === 'list' ? (
                <Muzzles key={field} editor={editor} attack={attack} />
              ) : (
                <Field key={field} editor={editor} path={`${at}/${part}/${field}`} offers={kind.kind === 'id' ? units : undefined} />
              ),
            )}
          </Part>
        )}
        {EFFECT_NAMES.filter((effect) => attack.effects[effect]).map((effect) => (
          <Part key={effect} title={EFFECTS[effect].label} onRemove={() => editor.set(`${at}/effects/${effect}`, undefined, 'none')}>
            <EffectFields editor={editor} effect={effect} attack={attack} kinds={kinds} />
          </Part>
        ))}
        {aims && (
          <Part title="Hits">
            <Fields editor={editor} at={`${at}/hits`} />
            <Fields editor={editor} at={`${at}/aim`} />
          </Part>
        )}
        <Part title="Costs">
          <FieldNumber tight editor={editor} path={`${at}/energy`} width={84} />
          {attack.charges && <Fields editor={editor} at={`${at}/charges`} />}
          {attack.charges && <Without what="charges" onRemove={() => editor.set(`${at}/charges`, undefined, 'none')} />}
          {attack.slot && (
            <>
              <Field editor={editor} path={`${at}/slot/pool`} offers={withOwn(pools, attack.slot.pool)} />
              <FieldNumber tight editor={editor} path={`${at}/slot/takes`} width={72} />
              <Without what="attack slot" onRemove={() => editor.set(`${at}/slot`, undefined, 'none')} />
            </>
          )}
        </Part>
        <Part title="Broken off">
          <Fields editor={editor} at={`${at}/interruptible`} />
        </Part>
        {strikes && base.side === 'enemy' && (
          <Part title="Answered by">
            <Field editor={editor} path={`${at}/answers`} />
          </Part>
        )}
        {attack.dash && (
          <Part title="Movement in it" onRemove={() => editor.set(`${at}/dash`, undefined, 'none')}>
            <Fields editor={editor} at={`${at}/dash`} />
          </Part>
        )}
        {attack.next && (
          <Part title="Follow-up" onRemove={() => editor.set(`${at}/next`, undefined, 'none')}>
            <Field editor={editor} path={`${at}/next/attack`} offers={others} />
            <FieldNumber tight editor={editor} path={`${at}/next/window`} width={84} />
          </Part>
        )}
        <AddParts
          what="effects"
          parts={offered.map((id) => ({ id, name: EFFECTS[id].label }))}
          onAdd={(effect) => addEffect(editor, attack, effect as EffectName)}
        />
        <AddParts
          what="it may also have"
          parts={(Object.keys(PARTS) as (keyof typeof PARTS)[])
            .filter((part) => !attack[part] && (part !== 'next' || others.length > 0) && (part !== 'dash' || chosen))
            .map((id) => ({ id, name: PARTS[id] }))}
          onAdd={(part) => {
            const first = { next: { attack: others[0]?.id }, slot: { pool: pools[0] ?? 'close' }, charges: {}, dash: {} }[
              part as keyof typeof PARTS
            ];
            editor.set(`${at}/${part}`, { ...blankAt(Unit, ['attacks', '0', part]), ...first }, 'added');
          }}
        />
      </div>
    );
  },
);

/** Every field of an effect, as its class declares them. */
function EffectFields({ editor, effect, attack, kinds }: { editor: UnitEditor; effect: EffectName; attack: Attack; kinds: Offers }) {
  const at = `/attacks/${attack.id}/effects/${effect}`;
  return [...classFields(EFFECTS[effect].type)!.kinds].map(([field, kind]) => {
    const path = `${at}/${field}`;
    if (kind.kind === 'list')
      return (
        <TweaksField
          key={field}
          label={EFFECTS[effect].label}
          tweaks={valueAt(editor.base, path) as FieldTweak[]}
          unit={editor.base}
          onChange={(tweaks) => editor.set(path, tweaks, 'changed')}
        />
      );
    if (kind.kind === 'group') return <InTurns key={field} editor={editor} at={at} />;
    if (kind.kind === 'text') return <Field key={field} editor={editor} path={path} none="any" offers={kinds} width={110} />;
    return <Field key={field} editor={editor} path={path} />;
  });
}

function Without({ what, onRemove }: { what: string; onRemove: () => void }) {
  return (
    <span className="pt-[15px]">
      <Mini sign="remove" label={`Take ${what} away`} onClick={onRemove} />
    </span>
  );
}

const withOwn = (ids: readonly string[], own: string) => [...new Set([...ids, own])].map((id) => ({ id, name: id }));

/** Kinds of damage that attacks deal or units resist. */
function damageKinds({ project }: UnitEditor): Offers {
  const kinds = new Set<string>();
  for (const { attacks, armour } of project.units) {
    for (const { id } of armour.resist) kinds.add(id);
    for (const { effects } of attacks) for (const type of [effects.damage?.type, effects.overTime?.type]) if (type) kinds.add(type);
  }
  return [...kinds].map((id) => ({ id, name: id }));
}

function Muzzles({ editor, attack }: { editor: UnitEditor; attack: Attack }) {
  const { base } = editor;
  const at = `/attacks/${attack.id}/projectile/muzzles`;
  const muzzles = base.attacks.find(({ id }) => id === attack.id)?.projectile?.muzzles ?? [];
  const change = (how: (list: typeof muzzles) => typeof muzzles, what: string) => editor.set(at, how(muzzles), what);
  return (
    <div className="flex basis-full flex-wrap items-end gap-x-3">
      {muzzles.map(({ id }, i) => (
        <span key={id} className="flex items-end gap-1">
          <FieldNumber tight editor={editor} path={`${at}/${id}/ahead`} label={`Muzzle ${i + 1} ahead`} width={96} />
          <FieldNumber tight editor={editor} path={`${at}/${id}/left`} width={64} />
          <span className="pb-[2px]">
            <Mini
              sign="remove"
              label={`Remove muzzle ${i + 1}`}
              onClick={() => change((list) => list.filter((_, j) => j !== i), 'one less')}
            />
          </span>
        </span>
      ))}
      <button
        type="button"
        className="link"
        title="where shots leave; absent: the middle of the body"
        onClick={() =>
          change((list) => {
            const id =
              ['left', 'right', 'third', 'fourth'].find((one) => !list.some((muzzle) => muzzle.id === one)) ?? `muzzle-${list.length + 1}`;
            return [...list, { id, ahead: base.body.radius, left: list.length ? -0.3 : 0.3 }];
          }, 'one more')
        }
      >
        add a muzzle
      </button>
    </div>
  );
}
