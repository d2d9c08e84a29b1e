import { type Project, SETTING_LISTS } from '@insidia/core';
import type { ReactNode } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { ListButtons, moved } from '../../fields/Mini';

const LISTS = [...SETTING_LISTS, 'traits'] as const;
export type NamedLists = (typeof LISTS)[number];

/** What each list is called, and what it is for. */
export const WORDS: Record<NamedLists, { one: string; many: string; about: string }> = {
  tiers: { one: 'tier', many: 'Tiers', about: 'difficulty settings, from the gentlest to the hardest: a column each' },
  skills: { one: 'skill', many: 'Skills', about: 'how well the simulated player plays' },
  styles: { one: 'style', many: 'Styles', about: 'how the simulated player likes to play' },
  traits: { one: 'trait', many: 'Traits', about: 'named changes that are given to units, groups, waves, at tiers or by events' },
};

export const listBy = (word: string | undefined): NamedLists => LISTS.find((one) => one === word) ?? 'tiers';

interface Item {
  id: string;
  name: string;
  tweaks: readonly unknown[];
  traits?: readonly unknown[];
}

/** "7 tweaks, 1 trait". */
function sizeOf({ tweaks, traits = [] }: Item): string {
  const counted = (count: number, what: string) => `${count} ${what}${count === 1 ? '' : 's'}`;
  return [counted(tweaks.length, 'tweak'), ...(traits.length ? [counted(traits.length, 'trait')] : [])].join(', ');
}

interface Props<T> {
  project: Project;
  list: NamedLists;
  items: readonly T[];
  selected: T | undefined;
  onSelect: (id: string) => void;
  onOrder: (items: T[], name: string) => void;
  onRemove: (item: T) => void;
  /** What is said of the selected one, and the buttons below. */
  form: ReactNode;
  buttons: ReactNode;
}

/** The lists of named changes: which of them is looked at, its items, what is said of the selected one. */
export function NamedList<T extends Item>({ project, list, items, selected, onSelect, onOrder, onRemove, form, buttons }: Props<T>) {
  const navigate = useNavigate();
  const { search } = useLocation();
  return (
    <aside aria-label={WORDS[list].many} className="flex min-h-0 flex-col border-r bg-well">
      <div className="flex px-4 pb-2 pt-3" role="tablist" aria-label="What is set">
        {LISTS.map((each) => (
          <button
            key={each}
            type="button"
            role="tab"
            aria-selected={each === list}
            aria-current={each === list ? 'page' : undefined}
            className="switch !px-1.5"
            onClick={() => void navigate({ pathname: `/projects/${project.id}/difficulty/${each}`, search })}
          >
            {WORDS[each].many}
          </button>
        ))}
      </div>
      <ul className="scroll min-h-0 border-t">
        {items.map((each, i) => (
          <li
            key={each.id}
            className={`flex h-11 items-center border-b border-hair pr-1 ${each === selected ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : ''}`}
          >
            <button
              type="button"
              aria-current={each === selected ? 'true' : undefined}
              className="flex min-w-0 flex-1 items-center gap-2 pl-4 text-left"
              onClick={() => onSelect(each.id)}
            >
              {list === 'tiers' && <span className="tier">{i + 1}</span>}
              <span className="min-w-0">
                <span className={`block truncate leading-4 ${each === selected ? 'font-semibold' : ''}`} title={each.name}>
                  {each.name}
                </span>
                <span className="block text-label text-ink-3">{sizeOf(each)}</span>
              </span>
            </button>
            {each === selected && (
              <ListButtons
                what={each.name}
                index={i}
                count={items.length}
                onMove={(by) => onOrder(moved(items, i, by), `${each.name} ${by < 0 ? 'earlier' : 'later'}`)}
                onRemove={() => onRemove(each)}
              />
            )}
          </li>
        ))}
      </ul>
      {selected && (
        <div className="scroll flex shrink-0 flex-col gap-1.5 border-t px-4 py-2" role="group" aria-label={selected.name}>
          {form}
        </div>
      )}
      <span className="flex-1" />
      <div className="flex flex-wrap gap-1.5 px-4 pb-3 pt-2">{buttons}</div>
    </aside>
  );
}
