import { type Chain, type Effective, type Project, type Unit, effectiveUnit, valueAt } from '@insidia/core';
import { useCallback, useMemo } from 'react';
import type { View } from '../app/view';
import { changed } from '../store/document';
import { useAppDispatch } from '../store/store';
import { type Edit, baseFor, hasOwnTweak, resetThroughTier, setBase, setThroughTier } from './edits';

/** A unit as a workbench handles it: base, effective values with their chains, and the one way to change a number. */
export interface UnitEditor {
  project: Project;
  /** As it is written. */
  base: Unit;
  /** As the lens shows it. */
  unit: Unit;
  view: View;
  chain: (path: string) => Chain | undefined;
  baseValue: (path: string) => number | undefined;
  value: (path: string) => number | undefined;
  /** Writes what was typed: to the base, or to the lens's tier, as the switch says. */
  write: (path: string, value: number, mark?: string) => void;
  /** Writes so that the lens shows `value`: for edges dragged on a strip, which show effective values. */
  writeEffective: (path: string, value: number, mark?: string) => void;
  /** Takes the tier's own value away; undefined where it has none. */
  reset: (path: string) => (() => void) | undefined;
  apply: (edit: Edit, mark?: string) => void;
}

export function useUnitEditor(project: Project, unitId: string, view: View): UnitEditor {
  const dispatch = useAppDispatch();
  const lens = useMemo(() => ({ tier: view.tier, skill: view.skill }), [view.tier, view.skill]);
  const effective: Effective<Unit> = useMemo(() => effectiveUnit(project, unitId, lens), [project, unitId, lens]);
  const apply = useCallback((edit: Edit, mark?: string) => void dispatch(changed({ ...edit, mark })), [dispatch]);
  return useMemo(() => {
    const base = project.units.find(({ id }) => id === unitId) as Unit;
    const chain = (path: string) => effective.chains.get(path);
    const tier = view.edit === 'tier' ? view.tier : undefined;
    const write = (path: string, value: number, mark?: string) =>
      apply(tier ? setThroughTier(project, tier, unitId, path, value) : setBase(project, unitId, path, value), mark);
    return {
      project,
      base,
      unit: effective.unit,
      view,
      chain,
      baseValue: (path) => valueAt(base, path) as number | undefined,
      value: (path) => valueAt(effective.unit, path) as number | undefined,
      write,
      writeEffective: (path, value, mark) => write(path, tier ? value : baseFor(value, chain(path)), mark),
      reset: (path) =>
        tier && hasOwnTweak(project, tier, unitId, path) ? () => apply(resetThroughTier(project, tier, unitId, path)) : undefined,
      apply,
    };
  }, [project, unitId, view, effective, apply]);
}
