import {
  type Constructor,
  type Effective,
  type Project,
  type RefersTo,
  type Warning,
  fieldLabel,
  pointerSteps,
  quantityAt,
  setAt,
  setInOrder,
  stepInto,
  usesOf,
  valueAt,
  withFittingReferences,
  without,
  shown,
} from '@insidia/core';
import { useCallback, useMemo } from 'react';
import { type Moved, changed, movedWords } from '../store/document';
import { useAppDispatch } from '../store/store';
import type { FieldEditor } from './editor';

type Collection = 'arenas' | 'encounters';
type Item<C extends Collection> = Project[C][number];

/** An arena or an encounter as a bench handles it: as written, and the one way to change it. */
export interface ObjectEditor<C extends Collection> extends FieldEditor {
  project: Project;
  base: Item<C>;
  /** Changes it; the name says what was done. */
  change: (name: string | Moved, how: (item: Item<C>) => void, mark?: string) => void;
  /** Takes something out of it that others may speak of, and what goes with that. */
  remove: (kind: RefersTo, id: string, name: string) => void;
  /** What must be changed before that: "Evening Shift › Second: Which". */
  holding: (kind: RefersTo, id: string) => string[];
}

const NONE: readonly Warning[] = [];
type Led = Pick<Effective<object>, 'chains' | 'words'>;
const NO_CHAINS: Led = { chains: new Map(), words: new Map() };

/** @param led what the lens makes of its numbers and words */
export function useObjectEditor<C extends Collection>(
  project: Project,
  collection: C,
  root: Constructor,
  id: string,
  warnings: readonly Warning[] = NONE,
  { chains, words }: Led = NO_CHAINS,
): ObjectEditor<C> {
  const dispatch = useAppDispatch();
  const change = useCallback(
    (name: string | Moved, how: (item: Item<C>) => void, mark?: string) => {
      const list = project[collection] as Item<C>[];
      const next = list.map((item) => {
        if (item.id !== id) return item;
        const copy = structuredClone(item);
        how(copy);
        return copy;
      });
      const called = typeof name === 'string' ? { name } : { name: movedWords(name), moved: name };
      dispatch(changed({ document: withFittingReferences({ ...project, [collection]: next }), ...called, mark }));
    },
    [dispatch, project, collection, id],
  );
  return useMemo(() => {
    const base = (project[collection] as Item<C>[]).find((item) => item.id === id) as Item<C>;
    const named = (path: string) => nameOf(root, base, path);
    return {
      root,
      place: `/${collection}/${id}`,
      project,
      base,
      warnings,
      chain: (path) => chains.get(path),
      wordChain: (path) => words.get(path),
      baseValue: (path) => valueAt(base, path) as number | undefined,
      write: (path, value, mark) => {
        const before = valueAt(base, path) as number | undefined;
        const unit = quantityAt(root, pointerSteps(path))?.unit;
        const told = (number: number | undefined) => (number === undefined ? 'none' : shown(number));
        const to = `${told(value)}${unit && value !== undefined ? ` ${unit}` : ''}`;
        change({ what: named(path), from: told(before), to }, (item) => setInOrder(item, path, value), mark);
      },
      set: (path, value, what) => change(`${named(path)}: ${what}`, (item) => setAt(item, path, value)),
      reset: () => undefined,
      change,
      remove: (kind, part, what) =>
        dispatch(changed({ document: without(project, { kind, id: part, in: id }), name: `${base.name}: ${what} removed` })),
      holding: (kind, part) =>
        usesOf(project, { kind, id: part, in: id })
          .filter(({ goes }) => !goes)
          .map(({ where }) => where),
    };
  }, [dispatch, project, collection, root, id, warnings, chains, words, change]);
}

/** "Evening Shift Third delay": the object, the named thing within it, the field. */
function nameOf(root: Constructor, base: { name: string }, path: string): string {
  const steps = pointerSteps(path);
  const within: string[] = [];
  let at: unknown = base;
  for (const step of steps.slice(0, -1)) {
    at = stepInto(at, step);
    const name = (at as { name?: unknown } | undefined)?.name;
    if (typeof name === 'string') within.push(name);
  }
  const label = fieldLabel(root, steps);
  return [base.name, ...within, label.charAt(0).toLowerCase() + label.slice(1)].join(' ');
}
