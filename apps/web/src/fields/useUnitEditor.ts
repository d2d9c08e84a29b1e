import {
  type Effective,
  type OwnValue,
  type Project,
  type Unit,
  Unit as UnitClass,
  type Warning,
  asBase,
  baseFor,
  changeableAt,
  dropPart,
  editUnit,
  effectiveUnit,
  fitsField,
  ownValues,
  pointerSteps,
  setAt,
  valueAt,
  without,
  writtenUnit,
} from '@insidia/core';
import { useCallback, useMemo } from 'react';
import type { View } from '../app/view';
import { changed } from '../store/document';
import { useAppDispatch } from '../store/store';
import type { FieldEditor } from './editor';
import { type Edit, hasOwnTweak, nameOfPlace, resetThroughTier, setNumber, setThroughTier } from './edits';

/** A unit or variant as a workbench handles it: as written, as the lens shows it, and the one way to change it. */
export interface UnitEditor extends FieldEditor {
  project: Project;
  /** As it is written. */
  base: Unit;
  /** As the lens shows it. */
  unit: Unit;
  view: View;
  /** In what it differs from its base; empty for an original. */
  own: OwnValue[];
  /** The name of its base; undefined for an original. */
  basedOn?: string;
  /** Writes so that the lens shows `value`: for edges dragged on a strip, which show effective values. */
  writeEffective: (path: string, value: number, mark?: string) => void;
  /** Changes the unit as it is written; the name says what was done. */
  change: (name: string, how: (unit: Unit) => void, mark?: string) => void;
  /** Takes out an attack or a state, and whatever spoke of it. */
  remove: (kind: 'attack' | 'state', id: string, name: string) => void;
  apply: (edit: Edit, mark?: string) => void;
}

const NONE: readonly Warning[] = [];

export function useUnitEditor(project: Project, unitId: string, view: View, warnings: readonly Warning[] = NONE): UnitEditor {
  const dispatch = useAppDispatch();
  const lens = useMemo(() => ({ tier: view.tier, skill: view.skill }), [view.tier, view.skill]);
  const effective: Effective<Unit> = useMemo(() => effectiveUnit(project, unitId, lens), [project, unitId, lens]);
  const apply = useCallback((edit: Edit, mark?: string) => void dispatch(changed({ ...edit, mark })), [dispatch]);
  return useMemo(() => {
    const base = writtenUnit(project, unitId);
    const own = ownValues(project, unitId);
    const variant = project.variants.find(({ id }) => id === unitId);
    const chain = (path: string) => effective.chains.get(path);
    const tier = view.edit === 'tier' ? view.tier : undefined;
    const change = (name: string, how: (unit: Unit) => void, mark?: string) => {
      const document = editUnit(project, unitId, how);
      if (document !== project) apply({ document, name }, mark);
    };
    const write = (path: string, value: number | undefined, mark?: string) =>
      apply(
        tier && value !== undefined ? setThroughTier(project, tier, unitId, path, value) : setNumber(project, unitId, path, value),
        mark,
      );
    return {
      root: UnitClass,
      place: `/units/${unitId}`,
      ...(tier && { throughTier: tier }),
      project,
      base,
      unit: effective.unit,
      view,
      own,
      ...(variant && { basedOn: writtenUnit(project, variant.basedOn).name }),
      warnings,
      chain,
      wordChain: (path) => effective.words.get(path),
      baseValue: (path) => valueAt(base, path) as number | undefined,
      write,
      writeEffective: (path, value, mark) => write(path, tier ? value : baseFor(value, chain(path)), mark),
      set: (path, value, what) => {
        const field = tier && changeableAt(UnitClass, pointerSteps(path));
        if (field && fitsField(field, value)) apply(setThroughTier(project, tier, unitId, path, value), undefined);
        else change(`${nameOfPlace(base, path)}: ${what}`, (unit) => setAt(unit, path, value));
      },
      change,
      remove: (kind, id, what) => {
        const name = `${base.name}: ${what} removed`;
        if (variant) change(name, (unit) => dropPart(unit, kind, id));
        else apply({ document: without(project, { kind, id, in: unitId }), name });
      },
      reset: (path) => {
        if (tier) return hasOwnTweak(project, tier, unitId, path) ? () => apply(resetThroughTier(project, tier, unitId, path)) : undefined;
        if (!variant || !own.some((each) => each.path === path || each.path.startsWith(`${path}/`))) return undefined;
        return () =>
          change(`${nameOfPlace(base, path)} as its base has it`, (unit) => {
            const wanted = asBase(project, variant, path);
            for (const key of Object.keys(unit)) delete (unit as unknown as Record<string, unknown>)[key];
            Object.assign(unit, wanted);
          });
      },
      apply,
    };
  }, [project, unitId, view, effective, apply, warnings]);
}
