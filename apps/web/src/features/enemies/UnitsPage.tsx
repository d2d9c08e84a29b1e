import { type DuelOptions, type Unit, effectiveUnit } from '@insidia/core';
import { useMemo } from 'react';
import { Navigate, useNavigate, useParams, useLocation } from 'react-router';
import { useView } from '../../app/view';
import { useReadout } from '../../readout/useReadout';
import { useAppSelector } from '../../store/store';
import { ReadoutPanel } from '../duel/ReadoutPanel';
import { UnitBench } from './UnitBench';
import { UnitList } from './UnitList';

/** Enemies, or the party: the list, the workbench of the selected unit, and its duel. */
export function UnitsPage({ side }: { side: Unit['side'] }) {
  const project = useAppSelector((state) => state.document.document);
  const params = useParams();
  const { search } = useLocation();
  const navigate = useNavigate();
  const [view, changeView] = useView(project);
  const own = useMemo(() => project?.units.filter((unit) => unit.side === side) ?? [], [project, side]);
  const others = useMemo(() => project?.units.filter((unit) => unit.side !== side) ?? [], [project, side]);
  const unit = own.find(({ id }) => id === params.unit);
  const other = others.find(({ id }) => id === view.against) ?? others[0];
  const lens = useMemo(() => ({ tier: view.tier, skill: view.skill }), [view.tier, view.skill]);
  const duel = useMemo<DuelOptions | undefined>(() => {
    if (!unit || !other) return undefined;
    const [enemy, against] = side === 'enemy' ? [unit.id, other.id] : [other.id, unit.id];
    return { enemy, against, copies: view.copies, distance: view.distance };
  }, [unit, other, side, view.copies, view.distance]);
  useReadout(lens, duel);
  const shown = useMemo(
    () =>
      duel && project && { enemy: effectiveUnit(project, duel.enemy, lens).unit, party: effectiveUnit(project, duel.against, lens).unit },
    [project, duel, lens],
  );
  if (!project) return null;
  const section = side === 'enemy' ? 'enemies' : 'party';
  const base = `/projects/${project.id}/${section}`;
  if (!unit) {
    if (own.length) return <Navigate to={{ pathname: `${base}/${own[0].id}`, search }} replace />;
    return <p className="p-8 text-ink-2">This project has nobody here yet. Open a project file that has, or add one through the API.</p>;
  }
  const attack = unit.attacks.find(({ id }) => id === params.attack) ?? unit.attacks[0];
  const open = (unitId: string, attackId?: string) =>
    void navigate({ pathname: `${base}/${unitId}${attackId ? `/attacks/${attackId}` : ''}`, search });
  return (
    <div className="grid min-h-0 grid-cols-[var(--list-w)_minmax(0,1fr)_var(--readout-w)]">
      <UnitList project={project} side={side} units={own} selected={unit.id} view={view} onSelect={open} />
      <UnitBench
        key={unit.id}
        project={project}
        unitId={unit.id}
        otherId={other?.id}
        attackId={attack?.id}
        view={view}
        onView={changeView}
        onAttack={(id) => open(unit.id, id)}
      />
      {shown && duel ? (
        <ReadoutPanel enemy={shown.enemy} party={shown.party} duel={duel} onView={changeView} others={others} />
      ) : (
        <aside className="border-l bg-sheet p-4 text-ink-2">There is nobody on the other side to duel with yet.</aside>
      )}
    </div>
  );
}
