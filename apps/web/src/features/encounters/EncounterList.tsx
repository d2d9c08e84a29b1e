import { type Encounter, type Project, type UnitHead, effectiveUnit, idFor, nameFor, paperDuel, shown, takenIds } from '@insidia/core';
import type { KeyboardEvent, ReactNode } from 'react';
import { useView } from '../../app/view';
import { useAppSelector } from '../../store/store';
import { useWarnings } from '../../warnings/useWarnings';
import { WarnMark } from '../../visuals/WarnMark';
import { NewEncounter } from './NewEncounter';

interface Props {
  project: Project;
  selected: string;
  heads: ReadonlyMap<string, UnitHead>;
  onSelect: (id: string) => void;
  onAdd: (made: Encounter) => void;
  /** The form of the selected one. */
  children: ReactNode;
}

/** Every encounter with its own small facts; beneath, the form of the selected one and what it may bring. */
export function EncounterList({ project, selected, heads, onSelect, onAdd, children }: Props) {
  const warnings = useWarnings();
  const encounter = project.encounters.find(({ id }) => id === selected) as Encounter;
  const keys = (event: KeyboardEvent) => {
    const way = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    const at = project.encounters.findIndex(({ id }) => id === selected);
    const next = project.encounters[Math.min(Math.max(at + way, 0), project.encounters.length - 1)];
    onSelect(next.id);
    document.getElementById(`encounter-${next.id}`)?.focus();
  };
  return (
    <aside aria-label="Encounters" className="flex min-h-0 flex-col border-r bg-well">
      <h2 className="px-4 pb-2 pt-3 text-section">
        {project.encounters.length} {project.encounters.length === 1 ? 'encounter' : 'encounters'}
      </h2>
      <ul className="scroll max-h-[min(232px,32%)] min-h-[46px] shrink-0 border-t" onKeyDown={keys}>
        {project.encounters.map((one) => {
          const on = one.id === selected;
          const own = warnings.open.filter(({ path }) => path.startsWith(`/encounters/${one.id}/`));
          return (
            <li key={one.id}>
              <button
                id={`encounter-${one.id}`}
                type="button"
                tabIndex={on ? 0 : -1}
                aria-current={on ? 'true' : undefined}
                onClick={() => onSelect(one.id)}
                className={`grid h-11 w-full grid-cols-[minmax(0,1fr)_14px] items-center border-b border-hair px-2 pl-4 text-left -outline-offset-2 ${on ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : 'hover:bg-sheet/50'}`}
              >
                <span className="min-w-0">
                  <span className={`block truncate leading-4 ${on ? 'font-semibold' : ''}`} title={one.name}>
                    {one.name}
                  </span>
                  <span className="block truncate text-label text-ink-3" title={one.notes}>
                    {one.notes ?? `${one.waves.length} ${one.waves.length === 1 ? 'wave' : 'waves'}`}
                  </span>
                </span>
                {own.length > 0 && (
                  <WarnMark label={own.map(({ message }) => message).join('; ')} quiet={!own.some((w) => w.severity === 'problem')} />
                )}
              </button>
            </li>
          );
        })}
      </ul>
      <div className="scroll min-h-0 flex-1 border-t px-4 py-2 text-table">
        {children}
        <Budget project={project} encounter={encounter} heads={heads} />
      </div>
      <div className="flex flex-wrap gap-1.5 border-t px-4 pb-3 pt-2">
        <NewEncounter
          project={project}
          onEncounter={onAdd}
          trigger={
            <button type="button" className="btn">
              New encounter
            </button>
          }
        />
        <button
          type="button"
          className="btn"
          onClick={() => {
            const name = nameFor(
              encounter.name,
              project.encounters.map((one) => one.name),
            );
            onAdd({ ...structuredClone(encounter), id: idFor(name, takenIds(project)), name });
          }}
        >
          Copy
        </button>
      </div>
    </aside>
  );
}

/** Who is of the party: its members, or the units of groups that take its place. */
function standing({ party, waves }: Encounter): string[] {
  if (party.length) return party.map(({ unit }) => unit);
  const ours = waves.flatMap((wave) => wave.groups).filter(({ side }) => side === 'ours');
  return [...new Set(ours.flatMap(({ enemy, pool }) => (enemy === undefined ? pool.map((entry) => entry.enemy) : [enemy])))];
}

/** What each wave brings, at the most: units, health, worth. */
function Budget({ project, encounter, heads }: { project: Project; encounter: Encounter; heads: ReadonlyMap<string, UnitHead> }) {
  const [view] = useView(project);
  const answer = useAppSelector((state) => state.readout.encounter.answer);
  const came = answer?.scenario.id === encounter.id ? answer.now : undefined;
  const lens = { tier: view.tier, skill: view.skill };
  const [first] = standing(encounter);
  const victim = first !== undefined && heads.has(first) ? effectiveUnit(project, first, lens).unit : undefined;
  const rows = encounter.waves.map((wave) => {
    let [units, health, damage, worth] = [0, 0, 0, 0];
    for (const group of wave.groups) {
      if (group.side === 'ours') continue;
      const entries = group.pool.length ? group.pool : [{ enemy: group.enemy ?? '', weight: 1 }];
      const total = entries.reduce((sum, { weight }) => sum + weight, 0) || 1;
      const count = ((group.count.min + group.count.max) / 2) * (group.rule === 'each' ? group.at.length : 1);
      units += count;
      for (const { enemy, weight } of entries) {
        if (!heads.has(enemy)) continue;
        const { unit } = effectiveUnit(project, enemy, lens);
        health += (count * weight * (unit.health.max + (unit.shield?.max ?? 0))) / total;
        worth += (count * weight * unit.onDeath.worth) / total;
        if (victim) damage += ((count * weight) / total) * (paperDuel(unit, victim)?.damagePerSecond ?? 0);
      }
    }
    return {
      wave,
      units,
      health,
      damage,
      worth,
      came: came?.waves.find(({ id }) => id === wave.id)?.groups.reduce((sum, { count }) => sum + count, 0),
    };
  });
  if (!rows.length) return null;
  return (
    <div className="mt-1.5 border-t border-hair pt-1">
      <b>Budget</b>
      <table className="w-full text-right">
        <thead>
          <tr className="text-label text-ink-3">
            <th className="text-left font-normal">wave</th>
            <th className="font-normal" title="planned, and what came in the last runs">
              units
            </th>
            <th className="font-normal">health</th>
            <th className="font-normal" title="damage a second on paper, all of it at once">
              dps
            </th>
            <th className="font-normal">worth</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ wave, units, health, damage, worth, came: actual }) => (
            <tr key={wave.id}>
              <td className="max-w-[72px] truncate text-left" title={wave.name}>
                {wave.name}
              </td>
              <td title={actual === undefined ? undefined : `${shown(actual, 1)} came`}>{shown(units, 1)}</td>
              <td>{shown(health, 0)}</td>
              <td>{shown(damage, 0)}</td>
              <td>{shown(worth, 0)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
