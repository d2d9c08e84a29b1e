import {
  type Project,
  type Unit,
  UNIT_BEGINNINGS,
  beginUnit,
  beginningOf,
  effectiveUnit,
  fixed,
  idFor,
  independent,
  nameFor,
  ordinaryOpponent,
  paperDuel,
  shown,
  takenIds,
  unitHeads,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { type BeginningOffer, Beginnings, ON_PAPER } from '../../parts/Beginnings';
import { NewForm } from '../../parts/NewForm';
import type { NewUnitProps } from './NewUnit';
import { UnitMiniature } from '../../visuals/Miniature';
import { freeColour, withNewUnit } from './unitMade';

const WHAT = {
  copy: 'Everything as it is now; later changes to the original do not reach it.',
  variant: 'Follows the original: later changes reach it, except where it has a value of its own.',
};

const EMPTY = 'empty';

/** What a new unit of a side may begin as, each with what it comes to against somebody of the other. */
function offersFor(project: Project, side: Unit['side'], colour: Unit['colour']): BeginningOffer[] {
  const other = unitHeads(project).find((head) => head.side !== side);
  const rival =
    (other && effectiveUnit(project, other.id, {}).unit) ??
    (side === 'enemy' ? ordinaryOpponent() : beginUnit(UNIT_BEGINNINGS[0], { id: 'rival', name: 'Rival' }));
  const figures = (unit: Unit) => {
    const [out, back] = [paperDuel(unit, rival), paperDuel(rival, unit)];
    return `${out ? `${fixed(out.damagePerSecond, 1)} dps` : 'strikes nobody'}${back ? `, falls in ${shown(back.timeToKill, 0)} s` : ''}`;
  };
  return [
    ...UNIT_BEGINNINGS.filter((one) => one.side === side).map((one) => {
      const unit = beginUnit(one, { id: one.id, name: one.name, colour });
      return { id: one.id, called: one.called, about: one.about, picture: <UnitMiniature unit={unit} />, figures: figures(unit) };
    }),
    { id: EMPTY, called: 'empty', about: 'a body without attacks or states: all of it is yours' },
  ];
}

/** A new unit, begun as a pattern or empty; an independent copy; or a linked variant. Each asks for its name. */
export function NewUnitForm({ project, kind, of, side = of?.side ?? 'enemy', apply, onUnit, close }: NewUnitProps & { close: () => void }) {
  const [begins, setBegins] = useState(UNIT_BEGINNINGS.find((one) => one.side === side)!.id);
  const heads = unitHeads(project);
  const pattern = kind === 'new' && begins !== EMPTY ? beginningOf(UNIT_BEGINNINGS, begins) : undefined;
  const taken = heads.map((head) => head.name);
  const make = (name: string) => {
    if (kind === 'new') {
      const { document, unit } = withNewUnit(project, side, pattern, name);
      apply({ document, name: `New: ${unit.name}` });
      return onUnit(unit.id);
    }
    if (!of) return;
    const own = nameFor(name, taken);
    const id = idFor(own, takenIds(project));
    const document = { ...project };
    if (kind === 'variant') document.variants = [...project.variants, { id, name: own, basedOn: of.id, changes: [], tweaks: [] }];
    else {
      const after = project.units.findIndex((one) => one.id === of.id);
      document.units = [...project.units];
      document.units.splice(after >= 0 ? after + 1 : document.units.length, 0, independent(project, of.id, { id, name: own }));
    }
    apply({ document, name: `${own}, ${kind === 'copy' ? 'a copy of' : 'a variant of'} ${of.name}` });
    onUnit(id);
  };
  return (
    <NewForm
      close={close}
      suggested={nameFor(of?.name ?? pattern?.name ?? (side === 'enemy' ? 'Enemy' : 'Member'), taken)}
      submit={kind === 'new' ? 'Add' : 'Make it'}
      onName={make}
    >
      {kind === 'new' ? (
        <BeginsAs project={project} side={side} value={begins} onChoose={setBegins} />
      ) : (
        <p className="text-table text-ink-2">{WHAT[kind]}</p>
      )}
    </NewForm>
  );
}

function BeginsAs({
  project,
  side,
  value,
  onChoose,
}: {
  project: Project;
  side: Unit['side'];
  value: string;
  onChoose: (id: string) => void;
}) {
  const offers = useMemo(() => offersFor(project, side, freeColour(project)), [project, side]);
  const heads = [
    [ON_PAPER, 92],
    ['reach, to 16 m', 124],
    ['first attack, 5 s', 118],
  ] as const;
  return <Beginnings heads={heads} offers={offers} value={value} onChoose={onChoose} />;
}
