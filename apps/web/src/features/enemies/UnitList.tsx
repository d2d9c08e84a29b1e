import {
  type Project,
  type Unit,
  type UnitHead,
  type Warning,
  effectiveUnit,
  paperDuel,
  plannedOf,
  sameJson,
  unitHeads,
  writtenUnit,
  fixed,
  shown,
} from '@insidia/core';
import { type KeyboardEvent, useMemo, useState } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import type { View } from '../../app/view';
import { Choose } from '../../fields/Choose';
import type { Edit } from '../../fields/edits';
import { useFetched } from '../../store/fetched';
import { useAppSelector } from '../../store/store';
import { Glyph } from '../../visuals/Glyph';
import { WarnMark } from '../../visuals/WarnMark';
import { NewUnit } from './NewUnit';
import { guarded } from '../../parts/guarded';

interface Props {
  project: Project;
  side: Unit['side'];
  /** In the list's order: variants after what they are based on. */
  units: readonly UnitHead[];
  selected: string;
  view: View;
  warnings: readonly Warning[];
  apply: (edit: Edit) => void;
  onSelect: (id: string) => void;
}

const WORDS = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten', 'Eleven', 'Twelve'];
const SEARCH_FROM = 12;
const EVERYBODY = '*';

/** Each unit with its own small facts, as the lens shows them. */
export const UnitList = guarded('The list', function UnitList({ project, side, units, selected, view, warnings, apply, onSelect }: Props) {
  const [search, setSearch] = useState('');
  const [only, setOnly] = useState(EVERYBODY);
  const { search: query } = useLocation();
  const opened = useAppSelector((state) => state.document.opened);
  const facts = useMemo(() => {
    const lens = { tier: view.tier, skill: view.skill };
    const victim = unitHeads(project).find((unit) => unit.side !== side);
    const against = victim && effectiveUnit(project, victim.id, lens).unit;
    return units.map((head) => {
      const effective = effectiveUnit(project, head.id, lens).unit;
      return { head, health: effective.health.max, dps: against && paperDuel(effective, against)?.damagePerSecond };
    });
  }, [project, side, units, view.tier, view.skill]);
  const counts = useMemo(() => {
    const found = new Map<string, Warning[]>();
    for (const warning of warnings) {
      const [, collection, id] = warning.path.split('/');
      if (collection === 'units') found.set(id, [...(found.get(id) ?? []), warning]);
    }
    return found;
  }, [warnings]);
  const wanted = (head: UnitHead) => {
    if (!`${head.name} ${head.role}`.toLowerCase().includes(search.toLowerCase())) return false;
    if (only === EVERYBODY) return true;
    if (only === 'changed') return opened !== null && isChanged(project, opened, head.id);
    if (only === 'warned') return (counts.get(head.id)?.length ?? 0) > 0;
    return `role ${head.role}` === only;
  };
  const found = facts.filter(({ head }) => wanted(head));
  const roles = [...new Set(units.map(({ role }) => role))].filter(Boolean).sort();
  const noun = side === 'enemy' ? (units.length === 1 ? 'enemy' : 'enemies') : units.length === 1 ? 'party member' : 'party members';
  const through = [project.tiers.find(({ id }) => id === view.tier)?.name, project.skills.find(({ id }) => id === view.skill)?.name]
    .filter(Boolean)
    .join(', ');
  const keys = (event: KeyboardEvent) => {
    const way = { ArrowDown: 1, ArrowUp: -1, Home: -found.length, End: found.length }[event.key];
    if (!way) return;
    event.preventDefault();
    const at = found.findIndex(({ head }) => head.id === selected);
    const next = found[Math.min(Math.max(at + way, 0), found.length - 1)];
    if (!next) return;
    onSelect(next.head.id);
    document.getElementById(`unit-${next.head.id}`)?.focus();
  };
  return (
    <aside aria-label={side === 'enemy' ? 'Enemies' : 'Party'} className="flex min-h-0 flex-col border-r bg-well">
      <div className="flex items-baseline gap-2 px-4 pb-2 pt-3">
        <h2 className="min-w-0 flex-1 truncate text-section">
          {WORDS[units.length] ?? units.length} {noun}
        </h2>
        <Link className="link" to={{ pathname: `/projects/${project.id}/table/${side === 'enemy' ? 'enemies' : 'party'}`, search: query }}>
          table
        </Link>
      </div>
      {units.length > SEARCH_FROM && (
        <div className="flex gap-1 px-4 pb-2">
          <input
            aria-label="Search"
            placeholder="search"
            className="field-box w-full min-w-0 flex-1 text-table"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
          <div className="w-[76px]">
            <Choose
              quiet
              label="Which"
              value={only}
              options={[
                { id: EVERYBODY, name: 'all' },
                { id: 'changed', name: 'changed since it was opened' },
                { id: 'warned', name: 'with warnings' },
                ...roles.map((role) => ({ id: `role ${role}`, name: role })),
              ]}
              onChoose={setOnly}
            />
          </div>
        </div>
      )}
      <div
        className="grid grid-cols-[26px_minmax(0,1fr)_36px_14px] border-b min-[1180px]:grid-cols-[26px_minmax(0,1fr)_36px_34px_14px] px-2 pb-1 pl-4 text-label text-ink-3"
        aria-hidden
      >
        <span />
        <span>name, role</span>
        <span className="text-right">health</span>
        <span className="text-right max-[1179px]:hidden">dps</span>
        <span />
      </div>
      <ul className="scroll min-h-[88px]" onKeyDown={keys}>
        {found.map(({ head, health, dps }) => {
          const on = head.id === selected;
          const own = counts.get(head.id);
          return (
            <li key={head.id}>
              <button
                id={`unit-${head.id}`}
                type="button"
                tabIndex={on ? 0 : -1}
                aria-current={on ? 'true' : undefined}
                onClick={() => onSelect(head.id)}
                className={`grid h-11 w-full grid-cols-[26px_minmax(0,1fr)_36px_14px] min-[1180px]:grid-cols-[26px_minmax(0,1fr)_36px_34px_14px] items-center border-b border-hair px-2 pl-4 text-left -outline-offset-2 ${on ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : 'hover:bg-sheet/50'}`}
              >
                <Glyph unit={head} size={18} />
                <span className="min-w-0">
                  <span className={`block truncate leading-4 ${on ? 'font-semibold' : ''}`} title={head.name}>
                    {head.name}
                  </span>
                  <span className="block truncate text-label text-ink-3">
                    {head.basedOn ? `from ${units.find(({ id }) => id === head.basedOn)?.name ?? head.basedOn}` : head.role}
                  </span>
                </span>
                <span className="text-right text-table">{shown(health, 0)}</span>
                <span className="text-right text-table text-ink-2 max-[1179px]:hidden">{dps === undefined ? '—' : fixed(dps, 1)}</span>
                <span className="justify-self-end">
                  {own && (
                    <WarnMark
                      quiet={!own.some(({ severity }) => severity === 'problem')}
                      label={`${own.length} ${own.length === 1 ? 'warning' : 'warnings'}: ${own.map(({ message }) => message).join('; ')}`}
                    />
                  )}
                </span>
              </button>
            </li>
          );
        })}
        {!found.length && <li className="px-4 py-2 text-table text-ink-3">Nobody like that.</li>}
      </ul>
      <p
        className="px-4 py-1.5 text-label text-ink-3"
        title="damage a second by the numbers alone: in range all the time, at the accuracy of half its range, no run"
      >
        Health, and dps on paper{through ? `, viewing as ${through}` : ', as written'}.
      </p>
      <div className="scroll min-h-0 shrink border-t px-4 pt-2 text-table">
        <Appearances project={project} id={selected} side={side} apply={apply} />
        <Variants project={project} id={selected} onSelect={onSelect} />
      </div>
      <span className="flex-1" />
      <div className="flex flex-wrap gap-1.5 px-4 pb-3 pt-2">
        <NewUnit
          project={project}
          kind="new"
          side={side}
          apply={apply}
          onUnit={(id) => id && onSelect(id)}
          trigger={
            <button type="button" className="btn">
              New {side === 'enemy' ? 'enemy' : 'member'}
            </button>
          }
        />
        <NewUnit project={project} kind="variant" of={writtenUnit(project, selected)} apply={apply} onUnit={(id) => id && onSelect(id)} />
        <NewUnit project={project} kind="copy" of={writtenUnit(project, selected)} apply={apply} onUnit={(id) => id && onSelect(id)} />
      </div>
    </aside>
  );
});

function isChanged(project: Project, opened: Project, id: string): boolean {
  if (!unitHeads(opened).some((head) => head.id === id)) return true;
  return !sameJson(writtenUnit(opened, id), writtenUnit(project, id));
}

function Appearances({ project, id, side, apply }: Pick<Props, 'project' | 'side' | 'apply'> & { id: string }) {
  const navigate = useNavigate();
  const fetched = useFetched();
  const { search } = useLocation();
  const appearances = project.encounters
    .map((encounter) => ({ name: encounter.name, ...plannedOf(encounter, id) }))
    .filter(({ most }) => most > 0);
  return (
    <>
      <b>Where it appears</b>
      {appearances.length ? (
        <table className="w-full table-fixed">
          <tbody>
            {appearances.map(({ name, least, most }) => (
              <tr key={name}>
                <td className="truncate" title={name}>
                  {name}
                </td>
                <td className="w-12 text-right">{least === most ? most : `${least}–${most}`}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <>
          <p className="text-ink-2">In no encounter yet.</p>
          {side === 'enemy' && project.arenas.some(({ spawnPoints }) => spawnPoints.length) && (
            <button
              type="button"
              className="btn mt-1"
              onClick={() =>
                fetched(
                  'A new encounter',
                  () => import('./unitMade'),
                  ({ withEncounterFor }) => {
                    const made = withEncounterFor(
                      project,
                      unitHeads(project).find((head) => head.id === id)!,
                    );
                    if (!made) return;
                    apply({ document: made.document, name: `New: ${made.encounter.name}` });
                    void navigate({ pathname: `/projects/${project.id}/encounters/${made.encounter.id}`, search });
                  },
                )
              }
            >
              Give it one
            </button>
          )}
        </>
      )}
    </>
  );
}

function Variants({ project, id, onSelect }: { project: Project; id: string; onSelect: (id: string) => void }) {
  const variants = project.variants.filter(({ basedOn }) => basedOn === id);
  if (!variants.length) return null;
  return (
    <div className="mt-1.5">
      <b>Variants of it</b>
      {variants.map((variant) => (
        <button key={variant.id} type="button" className="link block max-w-full truncate" onClick={() => onSelect(variant.id)}>
          {variant.name}
        </button>
      ))}
    </div>
  );
}
