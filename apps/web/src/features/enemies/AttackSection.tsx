import { type Attack, type Unit, effectiveUnit, paperAttack, sameJson } from '@insidia/core';
import { useMemo, useState } from 'react';
import { UnitNumber } from '../../fields/UnitNumber';
import { setValue } from '../../fields/edits';
import { fixed, shown } from '../../fields/number';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { Choose } from '../../fields/Choose';
import { useAppSelector } from '../../store/store';
import { BeatStrip } from '../../visuals/BeatStrip';
import { beatSentence } from '../../visuals/beat';

interface Props {
  editor: UnitEditor;
  attackId: string;
  other?: Unit;
  onAttack: (id: string) => void;
}

/** One attack: its beat on the strip, its numbers beneath, everything else one click away. */
export function AttackSection({ editor, attackId, other, onAttack }: Props) {
  const { unit, view, project } = editor;
  const [all, setAll] = useState(false);
  const attack = unit.attacks.find(({ id }) => id === attackId) as Attack;
  const before = useBefore(editor, attackId);
  const skill = project.skills.find(({ id }) => id === view.skill)?.name;
  const reader = unit.side === 'enemy' &&
    other && {
      name: skill ? `${/^[aeiou]/i.test(skill) ? 'an' : 'a'} ${skill} ${other.name}` : other.name,
      mean: (other.player?.attention ?? other.senses.reaction).mean,
      spread: (other.player?.attention ?? other.senses.reaction).spread,
    };
  const at = (field: string) => `/attacks/${attackId}/${field}`;
  const damage = attack.effects.damage;
  const paper = paperAttack(attack, unit, other);
  return (
    <section className="mt-1 border-t px-4 pt-1.5" aria-label="Beat">
      <div className="section-head">
        <h3>Beat</h3>
        <span className="ml-1 flex" role="tablist" aria-label="Attacks">
          {unit.attacks.map(({ id, name }) => (
            <button
              key={id}
              type="button"
              role="tab"
              aria-selected={id === attackId}
              aria-current={id === attackId ? 'page' : undefined}
              className="switch !inline-block max-w-[130px] truncate"
              title={name}
              onClick={() => onAttack(id)}
            >
              {name}
            </button>
          ))}
        </span>
        <span className="note min-w-0 flex-1 truncate">{beatSentence(attack, unit)}</span>
        <span className="text-table text-ink-2" title="on paper: in range all the time, at the accuracy of half its range">
          {shown(paper.damagePerCycle, 1)} hp a cycle, <b className="text-ink">{fixed(paper.damagePerSecond, 1)}</b> dps on paper
        </span>
        <button type="button" className="text-table underline decoration-rule" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? 'fewer fields' : 'all fields'}
        </button>
      </div>
      <div className="mt-1.5">
        <BeatStrip
          attack={attack}
          unit={unit}
          before={before}
          reader={reader || undefined}
          onDrag={(part, value, mark) => editor.writeEffective(at(`beat/${part}`), value, mark)}
        />
      </div>
      <div className="flex gap-2">
        <UnitNumber editor={editor} path={at('beat/windup')} width={78} />
        <UnitNumber editor={editor} path={at('beat/active')} width={70} />
        <UnitNumber editor={editor} path={at('beat/every')} width={70} label="Hits every" />
        <UnitNumber editor={editor} path={at('beat/recovery')} width={70} />
        <UnitNumber editor={editor} path={at('beat/cooldown')} width={104} label={`Cooldown, from its ${attack.beat.cooldownFrom}`} />
        <span className="flex-1" />
        <UnitNumber editor={editor} path={at('range/min')} width={70} />
        <UnitNumber editor={editor} path={at('range/max')} width={70} />
        {damage && <UnitNumber editor={editor} path={at('effects/damage/amount')} width={92} />}
      </div>
      {all && <AllFields editor={editor} attack={attack} at={at} />}
    </section>
  );
}

/** The attack before the last change, where that change touched it. */
function useBefore({ unit, view }: UnitEditor, attackId: string): Attack | undefined {
  const before = useAppSelector((state) => state.document.before);
  return useMemo(() => {
    if (!before?.units.some(({ id }) => id === unit.id)) return undefined;
    const old = effectiveUnit(before, unit.id, { tier: view.tier, skill: view.skill }).unit.attacks.find(({ id }) => id === attackId);
    const now = unit.attacks.find(({ id }) => id === attackId);
    return old && now && !sameJson(old.beat, now.beat) ? old : undefined;
  }, [before, unit, view.tier, view.skill, attackId]);
}

function AllFields({ editor, attack, at }: { editor: UnitEditor; attack: Attack; at: (field: string) => string }) {
  const numbers = [
    'facing',
    ...(attack.delivery === 'melee' ? ['arc', 'hits/limit'] : []),
    ...(attack.area ? ['area/radius', 'area/angle', 'area/delay', 'hits/limit'] : []),
    ...(attack.summon ? ['summon/count', 'summon/cap', 'summon/around'] : []),
    'beat/initialDelay/min',
    'beat/initialDelay/max',
  ];
  if (attack.effects.damage) numbers.push('effects/damage/spread', 'effects/damage/critChance', 'effects/damage/critMultiplier');
  if (attack.effects.overTime) numbers.push('effects/overTime/amount', 'effects/overTime/every', 'effects/overTime/for');
  if (attack.effects.heal) numbers.push('effects/heal/amount', 'effects/heal/share');
  if (attack.effects.knockback) numbers.push('effects/knockback/distance');
  if (attack.effects.slow) numbers.push('effects/slow/share', 'effects/slow/for');
  if (attack.effects.stagger) numbers.push('effects/stagger/for');
  if (editor.unit.energy) numbers.push('energy');
  numbers.push('aim/near', 'aim/far');
  if (attack.projectile)
    numbers.push(
      'projectile/speed',
      'projectile/radius',
      'projectile/lifetime',
      'projectile/count',
      'projectile/spread',
      'projectile/lead',
    );
  const labels: Record<string, string> = {
    'beat/initialDelay/min': 'First use from',
    'beat/initialDelay/max': 'First use to',
    'effects/damage/spread': 'Damage ±',
    'projectile/spread': 'Shot spread',
  };
  const choose = (field: string, label: string, value: string, words: [string, string][]) => (
    <Choose
      label={label}
      value={value}
      options={words.map(([id, name]) => ({ id, name }))}
      onChoose={(word) =>
        editor.apply(
          setValue(
            editor.project,
            editor.unit.id,
            at(field),
            word,
            `${editor.unit.name} ${attack.name} ${label.toLowerCase()}: ${words.find(([id]) => id === word)?.[1]}`,
          ),
        )
      }
    />
  );
  return (
    <div className="grid grid-cols-8 items-start gap-x-2">
      {numbers.map((field) => (
        <UnitNumber key={field} editor={editor} path={at(field)} label={labels[field]} />
      ))}
      {choose('beat/cooldownFrom', 'Cooldown from', attack.beat.cooldownFrom, [
        ['start', 'its start'],
        ['end', 'its end'],
      ])}
      {choose('beat/moving', 'Moving', attack.beat.moving, [
        ['no', 'stands'],
        ['slow', 'slowly'],
        ['free', 'freely'],
      ])}
      {choose('beat/tracking', 'Aim', attack.beat.tracking, [
        ['turns', 'turns'],
        ['fixed', 'fixed'],
      ])}
      {attack.effects.overTime &&
        choose('effects/overTime/stacking', 'Again while it runs', attack.effects.overTime.stacking, [
          ['refresh', 'moves the end'],
          ['stack', 'adds another'],
          ['ignore', 'does nothing'],
        ])}
      {attack.delivery === 'melee' &&
        choose('hits/perTarget', 'Each target', attack.hits.perTarget, [
          ['once', 'once a use'],
          ['every', 'every hit'],
        ])}
    </div>
  );
}
