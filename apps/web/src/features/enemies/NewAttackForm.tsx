import {
  ATTACK_BEGINNINGS,
  type Delivery,
  type Project,
  type Unit,
  Unit as UnitClass,
  beginAttack,
  blankAttack,
  fieldWords,
  fixed,
  idFor,
  nameFor,
  paperAttack,
  traitsOf,
  unitHeads,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { Beginnings, ON_PAPER } from '../../parts/Beginnings';
import { NewForm } from '../../parts/NewForm';
import type { NewPartProps } from './NewPart';
import { UnitMiniature } from '../../visuals/Miniature';

/** Before the delivery of a plain attack. */
const PLAIN = 'plain ';

/** Its name and what it begins as, and the attack is there and in the choice. */
export function NewAttackForm({ editor, onMade, close }: NewPartProps & { close: () => void }) {
  const [begins, setBegins] = useState(ATTACK_BEGINNINGS[0].id);
  const { base, project } = editor;
  const pattern = ATTACK_BEGINNINGS.find(({ id }) => id === begins);
  const taken = base.attacks.map((attack) => attack.name);
  const add = (name: string) => {
    const own = nameFor(name, taken);
    const id = idFor(
      own,
      base.attacks.map((attack) => attack.id),
    );
    editor.change(`${base.name}: new attack ${own}`, (unit) => {
      const plain = begins.slice(PLAIN.length) as Delivery;
      const attack = pattern ? beginAttack(pattern, { id, name: own }) : blankAttack(id, own, plain, summoned(project, unit));
      unit.attacks.push(attack);
      if (!traitsOf(attack.delivery).chosen) return;
      if (!unit.choice.priorities.length) unit.choice.priorities.push({ entries: [] });
      unit.choice.priorities[unit.choice.priorities.length - 1].entries.push({ attack: id, weight: 1 });
    });
    onMade(id);
  };
  return (
    <NewForm close={close} suggested={nameFor(pattern?.name ?? 'Attack', taken)} submit="Add attack" onName={add}>
      <BeginsAs unit={editor.unit} value={begins} onChoose={setBegins} />
    </NewForm>
  );
}

/** Whom a new summon calls, until somebody else is chosen. */
const summoned = (project: Project, unit: Unit) =>
  unitHeads(project).find((head) => head.id !== unit.id && head.side === unit.side)?.id ?? unit.id;

/** Patterns, then a plain one of each delivery. */
function BeginsAs({ unit, value, onChoose }: { unit: Unit; value: string; onChoose: (id: string) => void }) {
  const offers = useMemo(() => {
    return [
      ...ATTACK_BEGINNINGS.map((one) => {
        const attack = beginAttack(one, { id: one.id, name: one.name });
        const alone = {
          ...unit,
          attacks: [attack],
          states: [],
          choice: { ...unit.choice, priorities: [{ entries: [{ attack: one.id, weight: 1 }] }] },
        };
        const { damage, overTime } = attack.effects;
        const figures = damage || overTime ? `${fixed(paperAttack(attack, unit).damagePerSecond, 1)} dps` : undefined;
        return { id: one.id, called: one.called, about: one.about, picture: <UnitMiniature unit={alone} />, figures };
      }),
      ...fieldWords(UnitClass, ['attacks', '0', 'delivery']).map(({ id, name }) => ({
        id: `${PLAIN}${id}`,
        called: `plain: ${name}`,
        about: traitsOf(id as Delivery).about,
      })),
    ];
  }, [unit]);
  const heads = [
    [ON_PAPER, 92],
    ['reach, to 16 m', 124],
    ['beat, 5 s', 118],
  ] as const;
  return <Beginnings heads={heads} offers={offers} value={value} onChoose={onChoose} />;
}
