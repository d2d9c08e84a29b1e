import { type Project, type Unit, effectiveUnit, paperDuel, plannedOf } from '@insidia/core';
import { type KeyboardEvent, useMemo, useState } from 'react';
import type { View } from '../../app/view';
import { fixed, shown } from '../../fields/number';
import { Glyph } from '../../visuals/Glyph';

interface Props {
  project: Project;
  side: Unit['side'];
  units: Unit[];
  selected: string;
  view: View;
  onSelect: (id: string) => void;
}

const WORDS = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten', 'Eleven', 'Twelve'];
const SEARCH_FROM = 12;

/** Each unit with its own small facts, as the lens shows them. */
export function UnitList({ project, side, units, selected, view, onSelect }: Props) {
  const [search, setSearch] = useState('');
  const facts = useMemo(() => {
    const lens = { tier: view.tier, skill: view.skill };
    const victim = project.units.find((unit) => unit.side !== side);
    const against = victim && effectiveUnit(project, victim.id, lens).unit;
    return units.map((unit) => {
      const effective = effectiveUnit(project, unit.id, lens).unit;
      return { unit, health: effective.health.max, dps: against && paperDuel(effective, against)?.damagePerSecond };
    });
  }, [project, side, units, view.tier, view.skill]);
  const found = facts.filter(({ unit }) => `${unit.name} ${unit.role}`.toLowerCase().includes(search.toLowerCase()));
  const noun = side === 'enemy' ? (units.length === 1 ? 'enemy' : 'enemies') : units.length === 1 ? 'party member' : 'party members';
  const through = [project.tiers.find(({ id }) => id === view.tier)?.name, project.skills.find(({ id }) => id === view.skill)?.name]
    .filter(Boolean)
    .join(', ');
  const appearances = project.encounters
    .map((encounter) => ({ name: encounter.name, ...plannedOf(encounter, selected) }))
    .filter(({ most }) => most > 0);
  const keys = (event: KeyboardEvent) => {
    const way = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    const at = found.findIndex(({ unit }) => unit.id === selected);
    const next = found[Math.min(Math.max(at + way, 0), found.length - 1)];
    if (!next) return;
    onSelect(next.unit.id);
    document.getElementById(`unit-${next.unit.id}`)?.focus();
  };
  return (
    <aside aria-label={side === 'enemy' ? 'Enemies' : 'Party'} className="flex min-h-0 flex-col border-r bg-well">
      <div className="flex items-baseline px-4 pb-2 pt-3">
        <h2 className="text-section">
          {WORDS[units.length] ?? units.length} {noun}
        </h2>
      </div>
      {units.length > SEARCH_FROM && (
        <div className="px-4 pb-2">
          <input
            aria-label="Search"
            placeholder="search"
            className="field-box w-full text-table"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
        </div>
      )}
      <div className="grid grid-cols-[26px_minmax(0,1fr)_40px_38px] border-b px-3 pb-1 pl-4 text-label text-ink-3" aria-hidden>
        <span />
        <span>name, role</span>
        <span className="text-right">health</span>
        <span className="text-right">dps</span>
      </div>
      <ul className="scroll min-h-0" onKeyDown={keys}>
        {found.map(({ unit, health, dps }) => {
          const on = unit.id === selected;
          return (
            <li key={unit.id}>
              <button
                id={`unit-${unit.id}`}
                type="button"
                tabIndex={on ? 0 : -1}
                aria-current={on ? 'true' : undefined}
                onClick={() => onSelect(unit.id)}
                className={`grid h-11 w-full grid-cols-[26px_minmax(0,1fr)_40px_38px] items-center border-b border-hair px-3 pl-4 text-left -outline-offset-2 ${on ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : 'hover:bg-sheet/50'}`}
              >
                <Glyph unit={unit} size={18} />
                <span className="min-w-0">
                  <span className={`block truncate leading-4 ${on ? 'font-semibold' : ''}`} title={unit.name}>
                    {unit.name}
                  </span>
                  <span className="block truncate text-label text-ink-3">{unit.role}</span>
                </span>
                <span className="text-right text-table">{shown(health, 0)}</span>
                <span className="text-right text-table text-ink-2">{dps === undefined ? '—' : fixed(dps, 1)}</span>
              </button>
            </li>
          );
        })}
        {!found.length && <li className="px-4 py-2 text-table text-ink-3">Nobody by that name.</li>}
      </ul>
      <p className="px-4 py-2 text-label text-ink-3">Health and paper dps{through ? `, viewing as ${through}` : ', as written'}.</p>
      <div className="border-t px-4 pt-2 text-table">
        <b>Where it appears</b>
        {appearances.length ? (
          <table className="mt-1 w-full">
            <tbody>
              {appearances.map(({ name, least, most }) => (
                <tr key={name}>
                  <td className="truncate">{name}</td>
                  <td className="text-right">{least === most ? most : `${least}–${most}`}</td>
                </tr>
              ))}
            </tbody>
          </table>
        ) : (
          <p className="text-ink-2">In no encounter yet.</p>
        )}
      </div>
    </aside>
  );
}
