import {
  type Attack,
  type Delivery,
  type Unit,
  attackSentence,
  answersOnPaper,
  blankAttack,
  effectiveUnit,
  fieldWords,
  idFor,
  nameFor,
  paperAttack,
  sameJson,
  sustainedDamage,
  unitHeads,
  Unit as UnitClass,
  fixed,
  shown,
  traitsOf,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { Choose } from '../../fields/Choose';
import { Mini, moved } from '../../fields/Mini';
import { Popover } from '../../fields/Popover';
import { TextField } from '../../fields/TextField';
import { FieldNumber } from '../../fields/FieldNumber';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { useAppSelector } from '../../store/store';
import { BeatStrip } from '../../visuals/BeatStrip';
import { AttackFields } from './AttackFields';
import { CopyPart, PastePart } from './Clipboard';
import { guarded } from '../../parts/guarded';

interface Props {
  editor: UnitEditor;
  attackId: string | undefined;
  other?: Unit;
  onAttack: (id: string | undefined) => void;
}

/** One attack: its beat on the strip, its numbers beneath, everything else one click away. */
export const AttackSection = guarded('The attack', function AttackSection({ editor, attackId, other, onAttack }: Props) {
  const { unit, base, project } = editor;
  const [all, setAll] = useState(false);
  const attack = unit.attacks.find(({ id }) => id === attackId);
  return (
    <section className="mt-1 border-t px-4 pt-1.5" aria-label="Beat">
      <div className="section-head">
        <h3>Beat</h3>
        <span className="scroll ml-1 flex min-w-0 overflow-y-hidden" role="tablist" aria-label="Attacks">
          {unit.attacks.map(({ id, name }) => {
            const warned = editor.warnings.some(({ path }) => path.startsWith(`/units/${unit.id}/attacks/${id}/`));
            return (
              <button
                key={id}
                type="button"
                role="tab"
                aria-selected={id === attackId}
                aria-current={id === attackId ? 'page' : undefined}
                className="switch !inline-block max-w-[130px] shrink-0 truncate"
                title={name}
                onClick={() => onAttack(id)}
              >
                {name}
                {warned && <span className={`pl-1 font-semibold ${id === attackId ? '' : 'text-warn'}`}>!</span>}
              </button>
            );
          })}
        </span>
        <NewAttack editor={editor} onAttack={onAttack} />
        {attack ? <PaperNote attack={attack} unit={unit} other={other} /> : <span className="flex-1" />}
        {attack && (
          <>
            <AttackMenu editor={editor} attack={attack} onAttack={onAttack} />
            <button type="button" className="link" aria-expanded={all} onClick={() => setAll(!all)}>
              {all ? 'fewer fields' : 'all fields'}
            </button>
          </>
        )}
      </div>
      {!attack && (
        <p className="py-2 text-table text-ink-2">
          {base.name} has no attack yet: it can only be in the way. Add one and it comes into the choice at once.
        </p>
      )}
      {attack && <One key={attack.id} editor={editor} attack={attack} other={other} all={all} project={project} />}
    </section>
  );
});

function One({
  editor,
  attack,
  other,
  all,
  project,
}: {
  editor: UnitEditor;
  attack: Attack;
  other?: Unit;
  all: boolean;
  project: UnitEditor['project'];
}) {
  const { unit, view } = editor;
  const before = useBefore(editor, attack.id);
  const skill = project.skills.find(({ id }) => id === view.skill)?.name;
  const at = (field: string) => `/attacks/${attack.id}/${field}`;
  const damage = attack.effects.damage;
  const reader =
    unit.side === 'enemy' && other && attack.targets === 'foes' && traitsOf(attack.delivery).needsTarget
      ? {
          name: skill ? `${/^[aeiou]/i.test(skill) ? 'an' : 'a'} ${skill} ${other.name}` : other.name,
          mean: (other.player?.attention ?? other.senses.reaction).mean,
          spread: (other.player?.attention ?? other.senses.reaction).spread,
          answers: answersOnPaper(attack, unit, other),
        }
      : undefined;
  const names = new Map(unitHeads(project).map(({ id, name }) => [id, name]));
  return (
    <>
      <div className="mt-0.5 text-table">
        <p className="truncate text-ink-2" title={attackSentence(attack, (id) => names.get(id) ?? id)}>
          {attackSentence(attack, (id) => names.get(id) ?? id)}
        </p>
      </div>
      <div className="mt-0.5">
        <BeatStrip
          attack={attack}
          unit={unit}
          before={before}
          reader={reader}
          onDrag={(part, value, mark) => editor.writeEffective(at(`beat/${part}`), value, mark)}
        />
      </div>
      <div className="flex gap-2">
        <FieldNumber editor={editor} path={at('beat/windup')} width={78} />
        <FieldNumber editor={editor} path={at('beat/active')} width={70} />
        <FieldNumber editor={editor} path={at('beat/every')} width={70} label="Hits every" />
        <FieldNumber editor={editor} path={at('beat/recovery')} width={70} />
        <FieldNumber editor={editor} path={at('beat/cooldown')} width={104} label={`Cooldown, from its ${attack.beat.cooldownFrom}`} />
        <span className="flex-1" />
        <FieldNumber editor={editor} path={at('range/min')} width={70} />
        <FieldNumber editor={editor} path={at('range/max')} width={70} />
        {damage && <FieldNumber editor={editor} path={at('effects/damage/amount')} width={92} />}
      </div>
      {all && <AttackFields editor={editor} attack={attack} />}
    </>
  );
}

/** What it deals on paper. */
function PaperNote({ attack, unit, other }: { attack: Attack; unit: Unit; other?: Unit }) {
  if (!attack.effects.damage && !attack.effects.overTime) return <span className="flex-1" />;
  const paper = paperAttack(attack, unit, other);
  const sustained = sustainedDamage(attack, unit, other);
  return (
    <span
      className="min-w-0 flex-1 truncate text-right text-table text-ink-2"
      title="on paper: in range all the time, at the accuracy of half its range"
    >
      {shown(paper.damagePerCycle, 1)} hp a cycle, <b className="text-ink">{fixed(paper.damagePerSecond, 1)}</b> dps on paper
      {sustained < paper.damagePerSecond - 0.05 && <>, {fixed(sustained, 1)} for long</>}
    </span>
  );
}

/** The attack before the last change, where that change touched it. */
function useBefore({ unit, view }: UnitEditor, attackId: string): Attack | undefined {
  const before = useAppSelector((state) => state.document.before);
  return useMemo(() => {
    if (!before || !unitHeads(before).some(({ id }) => id === unit.id)) return undefined;
    const old = effectiveUnit(before, unit.id, { tier: view.tier, skill: view.skill }).unit.attacks.find(({ id }) => id === attackId);
    const now = unit.attacks.find(({ id }) => id === attackId);
    return old && now && !sameJson(old.beat, now.beat) ? old : undefined;
  }, [before, unit, view.tier, view.skill, attackId]);
}

/** Name and delivery, and the attack is there and in the choice. */
function NewAttack({ editor, onAttack }: Pick<Props, 'editor' | 'onAttack'>) {
  const [name, setName] = useState('');
  const [delivery, setDelivery] = useState<Delivery>('melee');
  const { base, project } = editor;
  const taken = base.attacks.map((attack) => attack.name);
  const add = (close: () => void) => {
    const own = nameFor(name.trim() || 'Attack', taken);
    const id = idFor(
      own,
      base.attacks.map((attack) => attack.id),
    );
    editor.change(`${base.name}: new attack ${own}`, (unit) => {
      const summoned = unitHeads(project).find((head) => head.id !== unit.id && head.side === unit.side)?.id ?? unit.id;
      unit.attacks.push(blankAttack(id, own, delivery, summoned));
      if (!traitsOf(delivery).chosen) return;
      if (!unit.choice.priorities.length) unit.choice.priorities.push({ entries: [] });
      unit.choice.priorities[unit.choice.priorities.length - 1].entries.push({ attack: id, weight: 1 });
    });
    setName('');
    close();
    onAttack(id);
  };
  return (
    <Popover
      label="New attack"
      width={300}
      trigger={
        <button type="button" className="mini" aria-label="New attack" title="New attack">
          +
        </button>
      }
    >
      {(close) => (
        <form
          className="flex flex-col gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            add(close);
          }}
        >
          <label className="text-label text-ink-3">
            Name
            <input
              className="field-box w-full text-body text-ink"
              value={name}
              maxLength={80}
              autoFocus
              onChange={(event) => setName(event.target.value)}
            />
          </label>
          <Choose
            label="Delivery"
            value={delivery}
            options={fieldWords(UnitClass, ['attacks', '0', 'delivery'])}
            onChoose={(word) => setDelivery(word as Delivery)}
          />
          <div className="flex gap-2">
            <button type="submit" className="btn btn-primary">
              Add attack
            </button>
            <PastePart kind="attack" editor={editor} onDone={(id) => (close(), onAttack(id))} />
          </div>
        </form>
      )}
    </Popover>
  );
}

function AttackMenu({ editor, attack, onAttack }: { editor: UnitEditor; attack: Attack; onAttack: Props['onAttack'] }) {
  const { base } = editor;
  const index = base.attacks.findIndex(({ id }) => id === attack.id);
  const move = (by: -1 | 1) =>
    editor.change(
      `${base.name}: ${attack.name} ${by < 0 ? 'earlier' : 'later'}`,
      (unit) => (unit.attacks = moved(unit.attacks, index, by)),
    );
  return (
    <Popover
      label={`${attack.name}: name and place`}
      align="end"
      width={260}
      trigger={
        <button type="button" className="link">
          {attack.name} …
        </button>
      }
    >
      {(close) => (
        <div className="flex flex-col gap-2">
          <TextField
            label="Name"
            value={attack.name}
            limit={80}
            onCommit={(name) => {
              const own = name.trim();
              const free = own && !base.attacks.some((one) => one.id !== attack.id && one.name === own);
              if (free) editor.set(`/attacks/${attack.id}/name`, own, own);
            }}
          />
          <div className="flex flex-wrap items-center gap-1">
            <CopyPart kind="attack" editor={editor} value={attack} />
            <button
              type="button"
              className="btn"
              onClick={() => {
                const name = nameFor(
                  attack.name,
                  base.attacks.map((one) => one.name),
                );
                const id = idFor(
                  name,
                  base.attacks.map((one) => one.id),
                );
                editor.change(`${base.name}: ${name} after ${attack.name}`, (unit) => {
                  const own = unit.attacks.find((one) => one.id === attack.id)!;
                  unit.attacks.splice(index + 1, 0, { ...structuredClone(own), id, name });
                });
                close();
                onAttack(id);
              }}
            >
              Double it
            </button>
            <Mini sign="up" label={`Move ${attack.name} earlier`} disabled={index === 0} onClick={() => move(-1)} />
            <Mini sign="down" label={`Move ${attack.name} later`} disabled={index === base.attacks.length - 1} onClick={() => move(1)} />
            <span className="flex-1" />
            <button
              type="button"
              className="btn"
              onClick={() => {
                editor.remove('attack', attack.id, attack.name);
                close();
                onAttack(base.attacks[index === 0 ? 1 : index - 1]?.id);
              }}
            >
              Remove
            </button>
          </div>
        </div>
      )}
    </Popover>
  );
}
