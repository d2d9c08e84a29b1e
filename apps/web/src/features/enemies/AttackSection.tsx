import {
  type Attack,
  type Clock,
  type Unit,
  attackSentence,
  answersOnPaper,
  effectiveUnit,
  hitInstants,
  paperAttack,
  sameJson,
  sustainedDamage,
  unitHeads,
  fixed,
  shown,
  traitsOf,
} from '@insidia/core';
import { useMemo } from 'react';
import { useKept } from '../../app/kept';
import { Popover } from '../../fields/Popover';
import { FieldNumber } from '../../fields/FieldNumber';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { useAppSelector } from '../../store/store';
import { BeatStrip } from '../../visuals/BeatStrip';
import { AddEffect } from './AddEffect';
import { addEffect } from './effectAdded';
import { PastePart } from './Clipboard';
import { NewAttack } from './NewPart';
import { guarded } from '../../parts/guarded';
import { laterWithin } from '../../parts/later';

const BeatInTurns = laterWithin(async () => (await import('../../visuals/BeatInTurns')).BeatInTurns, 60);
const AttackMenuParts = laterWithin(async () => (await import('./AttackMenuParts')).AttackMenuParts, 90);
const AttackFields = laterWithin(async () => (await import('./AttackFields')).AttackFields);

interface Props {
  editor: UnitEditor;
  /** The duel beside it takes turns. */
  turns: boolean;
  attackId: string | undefined;
  other?: Unit;
  onAttack: (id: string | undefined) => void;
}

/** One attack: its beat on the strip, its numbers beneath, everything else one click away. */
export const AttackSection = guarded('The attack', function AttackSection({ editor, turns, attackId, other, onAttack }: Props) {
  const { unit, base, project } = editor;
  const [all, setAll] = useKept('fields of the attack', false);
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
        <NewAttack editor={editor} onMade={onAttack} />
        <PastePart kind="attack" editor={editor} onDone={onAttack} />
        {attack && !turns ? <PaperNote attack={attack} unit={unit} other={other} /> : <span className="flex-1" />}
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
        <div className="flex items-center gap-3 py-2 text-table text-ink-2">
          <span>{base.name} has no attack: it can only be in the way. One that is added comes into the choice at once.</span>
          <NewAttack
            editor={editor}
            onMade={onAttack}
            trigger={
              <button type="button" className="btn btn-primary shrink-0">
                Give it an attack …
              </button>
            }
          />
        </div>
      )}
      {attack &&
        (turns && attack.rounds ? (
          <OneInTurns key={attack.id} editor={editor} attack={attack} all={all} project={project} onAll={() => setAll(true)} />
        ) : (
          <One key={attack.id} editor={editor} attack={attack} other={other} all={all} project={project} onAll={() => setAll(true)} />
        ))}
    </section>
  );
});

interface OneProps {
  editor: UnitEditor;
  attack: Attack;
  other?: Unit;
  all: boolean;
  project: UnitEditor['project'];
  onAll: () => void;
}

/** What reads it aloud, and the way to one more effect. */
function Sentence({ editor, attack, all, project, onAll, clock }: OneProps & { clock: Clock }) {
  const names = new Map(unitHeads(project).map(({ id, name }) => [id, name]));
  const words = attackSentence(attack, (id) => names.get(id) ?? id, clock);
  return (
    <div className="mt-0.5 flex gap-3 text-table">
      <p className="min-w-0 flex-1 truncate text-ink-2" title={words}>
        {words}
      </p>
      {!all && <AddEffect editor={editor} attack={attack} onAdded={onAll} />}
    </div>
  );
}

/** The same attack in turns and cells. */
function OneInTurns(props: OneProps) {
  const { editor, attack, all } = props;
  const at = (field: string) => `/attacks/${attack.id}/${field}`;
  return (
    <>
      <Sentence {...props} clock="rounds" />
      <div className="mt-0.5">
        <BeatInTurns
          attack={attack}
          unit={editor.unit}
          onDrag={(part, value, mark) => editor.writeEffective(at(`rounds/${part}`), value, mark)}
        />
      </div>
      <div className="flex flex-wrap gap-2">
        {(['windup', 'recovery', 'cooldown', 'firstUse', 'hits'] as const).map((field) => (
          <FieldNumber key={field} editor={editor} path={at(`rounds/${field}`)} width={72} />
        ))}
        <span className="flex-1" />
        <FieldNumber editor={editor} path={at('rounds/from')} width={70} />
        <FieldNumber editor={editor} path={at('rounds/to')} width={70} />
        <Damage editor={editor} attack={attack} />
      </div>
      {all && <AttackFields editor={editor} attack={attack} />}
    </>
  );
}

function Damage({ editor, attack }: Pick<OneProps, 'editor' | 'attack'>) {
  if (attack.effects.damage) return <FieldNumber editor={editor} path={`/attacks/${attack.id}/effects/damage/amount`} width={92} />;
  if (!traitsOf(attack.delivery).strikes) return null;
  return (
    <button type="button" className="btn mt-[15px] self-start" onClick={() => addEffect(editor, attack, 'damage')}>
      + damage
    </button>
  );
}

function One(props: OneProps) {
  const { editor, attack, other, all, project } = props;
  const { unit, view } = editor;
  const before = useBefore(editor, attack.id);
  const skill = project.skills.find(({ id }) => id === view.skill)?.name;
  const at = (field: string) => `/attacks/${attack.id}/${field}`;
  const reader =
    unit.side === 'enemy' && other && attack.targets === 'foes' && traitsOf(attack.delivery).needsTarget
      ? {
          name: skill ? `${/^[aeiou]/i.test(skill) ? 'an' : 'a'} ${skill} ${other.name}` : other.name,
          mean: (other.player?.attention ?? other.senses.reaction).mean,
          spread: (other.player?.attention ?? other.senses.reaction).spread,
          answers: answersOnPaper(attack, unit, other),
        }
      : undefined;
  return (
    <>
      <Sentence {...props} clock="continuous" />
      <div className="mt-0.5">
        <BeatStrip
          attack={attack}
          unit={unit}
          before={before}
          reader={reader}
          onDrag={(part, value, mark) => editor.writeEffective(at(`beat/${part}`), value, mark)}
        />
      </div>
      <div className="flex flex-wrap gap-2">
        <FieldNumber editor={editor} path={at('beat/windup')} width={78} />
        <FieldNumber editor={editor} path={at('beat/active')} width={70} />
        <FieldNumber editor={editor} path={at('beat/every')} width={70} label="Hits every" />
        <FieldNumber editor={editor} path={at('beat/recovery')} width={70} />
        <FieldNumber editor={editor} path={at('beat/cooldown')} width={104} label={`Cooldown, from its ${attack.beat.cooldownFrom}`} />
        <span className="flex-1" />
        <FieldNumber editor={editor} path={at('range/min')} width={70} />
        <FieldNumber editor={editor} path={at('range/max')} width={70} />
        <Damage editor={editor} attack={attack} />
      </div>
      <EachHit editor={editor} attack={attack} />
      {all && <AttackFields editor={editor} attack={attack} />}
    </>
  );
}

/** Whom several hits of one use strike, and what either way comes to: asked wherever it makes a difference. */
function EachHit({ editor, attack }: { editor: UnitEditor; attack: Attack }) {
  const { damage } = attack.effects;
  const instants = hitInstants(attack);
  if (!damage || attack.projectile || instants < 2 || !traitsOf(attack.delivery).strikes) return null;
  const ways = [
    { id: 'once', words: `each target once: ${shown(damage.amount, 1)} hp` },
    { id: 'every', words: `at every hit: ${shown(instants * damage.amount, 1)} hp` },
  ];
  return (
    <div className="mt-1 flex items-center gap-2 text-table text-ink-2">
      <span>{instants} hits in one use strike</span>
      <span role="radiogroup" aria-label="Hits of one use strike" className="flex">
        {ways.map(({ id, words }) => (
          <button
            key={id}
            type="button"
            role="radio"
            aria-checked={attack.hits.perTarget === id}
            className="switch"
            onClick={() => editor.set(`/attacks/${attack.id}/hits/perTarget`, id, words)}
          >
            {words}
          </button>
        ))}
      </span>
    </div>
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

function AttackMenu({ editor, attack, onAttack }: { editor: UnitEditor; attack: Attack; onAttack: Props['onAttack'] }) {
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
      {(close) => <AttackMenuParts editor={editor} attack={attack} onAttack={onAttack} close={close} />}
    </Popover>
  );
}
