import {
  LIMITS,
  type DuelOptions,
  type Project,
  type Unit,
  type UnitHead,
  clockOfDuel,
  duelScenario,
  effectiveUnit,
  idFor,
  takenIds,
  unitHeads,
} from '@insidia/core';
import { useMemo } from 'react';
import { Navigate, useLocation, useNavigate, useParams } from 'react-router';
import { WHOLE_PARTY, useView } from '../../app/view';
import { useReadout } from '../../readout/useReadout';
import { changed } from '../../store/document';
import { useFetched } from '../../store/fetched';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { useWarnings } from '../../warnings/useWarnings';
import { ReadoutPanel } from '../readout/ReadoutPanel';
import { UnitBench } from './UnitBench';
import { UnitList } from './UnitList';
import { NewUnit } from './NewUnit';
import { NotHere } from '../../parts/NotHere';

/** Enemies, or the party: the list, the workbench of the selected unit, and its duel. */
export function UnitsPage({ side }: { side: Unit['side'] }) {
  const project = useAppSelector((state) => state.document.document);
  return project && <Units project={project} side={side} />;
}

function Units({ project, side }: { project: Project; side: Unit['side'] }) {
  const params = useParams();
  const { search } = useLocation();
  const navigate = useNavigate();
  const fetched = useFetched();
  const dispatch = useAppDispatch();
  const [view, changeView] = useView(project);
  const heads = useMemo(() => unitHeads(project), [project]);
  const own = useMemo(() => inFamilies(heads.filter((head) => head.side === side)), [heads, side]);
  const others = useMemo(() => heads.filter((head) => head.side !== side), [heads, side]);
  const head = own.find(({ id }) => id === params.unit);
  const whole = side === 'enemy' && view.against === WHOLE_PARTY && others.length > 1;
  const other = others.find(({ id }) => id === view.against) ?? others[0];
  const lens = useMemo(() => ({ tier: view.tier, skill: view.skill }), [view.tier, view.skill]);
  const warnings = useWarnings();
  const duel = useMemo<DuelOptions | undefined>(() => {
    if (!head || !other) return undefined;
    const members = whole ? others.slice(0, LIMITS.party).map(({ id }) => id) : [other.id];
    const [enemy, against] = side === 'enemy' ? [head.id, members] : [other.id, [head.id]];
    const { copies, distance, arena, with: company, from, wall, clock } = view;
    return { enemy, against, copies, distance, company, from, clock, ...(wall !== undefined && { wall }), ...(arena && { arena }) };
  }, [head, other, others, whole, side, view]);
  useReadout(duel && duelScenario(project, { ...lens, turned: view.turned }, duel));
  const shown = useMemo(
    () =>
      duel && {
        enemy: effectiveUnit(project, duel.enemy, lens).unit,
        party: (duel.against as readonly string[]).map((id) => effectiveUnit(project, id, lens).unit),
      },
    [project, duel, lens],
  );
  const section = side === 'enemy' ? 'enemies' : 'party';
  const base = `/projects/${project.id}/${section}`;
  const open = (unitId: string | undefined, attackId?: string) =>
    void navigate({ pathname: `${base}${unitId ? `/${unitId}` : ''}${attackId ? `/attacks/${attackId}` : ''}`, search });
  const apply = (edit: { document: Project; name: string }) => void dispatch(changed(edit));
  if (!head) {
    if (params.unit === undefined && own.length) return <Navigate to={{ pathname: `${base}/${own[0].id}`, search }} replace />;
    return (
      <NotHere
        asked={params.unit}
        nothing={side === 'enemy' ? 'No enemy yet' : 'No party yet'}
        about={
          side === 'enemy'
            ? 'An enemy has a body, attacks, states and a choice among its attacks. Begin with a pattern, and the readout shows its duel at once.'
            : 'Party members are units too, with a simulated player behind them. Add one to have somebody to fight.'
        }
        others={own}
        to={(id) => ({ pathname: `${base}/${id}`, search })}
      >
        <NewUnit
          project={project}
          kind="new"
          side={side}
          apply={apply}
          onUnit={open}
          trigger={
            <button type="button" className="btn btn-primary">
              New {side === 'enemy' ? 'enemy' : 'member'}
            </button>
          }
        />
      </NotHere>
    );
  }
  const clock = duel ? clockOfDuel(project, duel) : 'continuous';
  const attacks = effectiveUnit(project, head.id, {}).unit.attacks;
  const attack = attacks.find(({ id }) => id === params.attack) ?? attacks[0];
  return (
    <div className="grid min-h-0 grid-cols-[var(--list-w)_minmax(0,1fr)_var(--readout-w)]">
      <UnitList
        project={project}
        side={side}
        units={own}
        selected={head.id}
        view={view}
        warnings={warnings.open}
        apply={apply}
        onSelect={open}
      />
      <UnitBench
        key={head.id}
        project={project}
        clock={clock}
        unitId={head.id}
        otherId={other?.id}
        attackId={attack?.id}
        view={view}
        warnings={warnings}
        onView={changeView}
        onAttack={(id) => open(head.id, id)}
        onUnit={open}
      />
      {shown && duel ? (
        <ReadoutPanel
          project={project}
          enemy={shown.enemy}
          party={shown.party}
          duel={duel}
          onView={changeView}
          others={others}
          whole={whole}
          side={side}
        />
      ) : (
        <aside className="border-l bg-sheet p-4 text-ink-2" aria-label="Readout">
          <p>There is nobody on the other side to duel with yet.</p>
          <div className="mt-3 flex flex-wrap gap-1.5">
            {side === 'enemy' && (
              <button
                type="button"
                className="btn btn-primary"
                onClick={() =>
                  fetched(
                    'An ordinary opponent',
                    () => import('./unitMade'),
                    ({ ordinaryOpponent }) => {
                      const own = { ...ordinaryOpponent(), id: idFor('opponent', takenIds(project)) };
                      apply({ document: { ...project, units: [...project.units, own] }, name: `New: ${own.name}` });
                    },
                  )
                }
              >
                An ordinary opponent
              </button>
            )}
            <NewUnit
              project={project}
              kind="new"
              side={side === 'enemy' ? 'party' : 'enemy'}
              apply={apply}
              onUnit={() => undefined}
              trigger={
                <button type="button" className={side === 'enemy' ? 'btn' : 'btn btn-primary'}>
                  New {side === 'enemy' ? 'member' : 'enemy'} …
                </button>
              }
            />
          </div>
        </aside>
      )}
    </div>
  );
}

/** Variants stand behind what they are based on. */
function inFamilies(heads: readonly UnitHead[]): UnitHead[] {
  const behind = (head: UnitHead): UnitHead[] => [head, ...heads.filter(({ basedOn }) => basedOn === head.id).flatMap(behind)];
  return heads.filter(({ basedOn }) => basedOn === undefined || !heads.some(({ id }) => id === basedOn)).flatMap(behind);
}
