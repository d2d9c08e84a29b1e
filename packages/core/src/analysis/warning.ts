/** A design problem by name: where it lies, one sentence, what to do, and, where they can be made at once, the mends themselves. */
import { setAt, withEffective } from '../model/edit';
import { type Lens, effectiveUnit } from '../model/effective';
import { sameJson } from '../model/patch';
import { pointerSteps, valueAt } from '../model/pointer';
import type { Acceptance, Project } from '../model/project';
import { hasUnit } from '../model/variants';
import { BY_COST, type WarningRule } from './rules';

export type Severity = 'problem' | 'notice';

/** A mend that can be made at once. */
export type Fix = { name: string } & (
  | {
      /** Effective values a unit should have. An undefined value takes the field away. */
      unit: string;
      set: { path: string; value: unknown }[];
    }
  | {
      /** A value of the document. */
      path: string;
      value: unknown;
    }
  | {
      /** A tweak to be taken out of its list. */
      list: 'traits' | 'tiers' | 'skills' | 'styles';
      id: string;
      index: number;
    }
);

export interface Warning {
  rule: WarningRule;
  severity: Severity;
  /** Pointer into the project; a variant's parts are pointed at like a unit's. */
  path: string;
  message: string;
  mend: string;
  /** Mends that make sense, the likeliest first. */
  fixes?: Fix[];
  /** Pointers to what brought it about; absent: the place itself. */
  causes?: string[];
}

/**
 * What a warning rests on, as text: it stays the same as long as nothing that brought the warning about changes, at any
 * tier. An acceptance holds for one cause only.
 */
export function causeOf(project: Project, { path, causes }: Pick<Warning, 'path' | 'causes'>): string {
  const parts = (causes ?? [path]).map((cause) => {
    const [collection, id, ...rest] = pointerSteps(cause);
    if (collection !== 'units' || !hasUnit(project, id)) return JSON.stringify(valueAt(project, cause) ?? null);
    const pointer = rest.map((step) => `/${step}`).join('');
    const seen = [undefined, ...project.tiers.map((tier) => tier.id)].map((tier) =>
      JSON.stringify(valueAt(effectiveUnit(project, id, { tier }).unit, pointer) ?? null),
    );
    return seen.every((value) => value === seen[0]) ? seen[0] : seen.join(' ');
  });
  const text = parts.join('; ');
  return text.length <= 400 ? text : `${text.length}:${hashOf(text)}`;
}

/** FNV-1a, 32 bits: enough to tell that a long text has changed. */
function hashOf(text: string): string {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return (hash >>> 0).toString(16);
}

/** The acceptance that still holds for a warning; undefined where there is none or its cause has changed. */
export function acceptanceOf(project: Project, warning: Warning): Acceptance | undefined {
  const found = (project.accepted ?? []).find(({ rule, path }) => rule === warning.rule && path === warning.path);
  return found && found.cause === causeOf(project, warning) ? found : undefined;
}

/** Those not accepted, and those that are. */
export function sortedOut(project: Project, warnings: readonly Warning[]): { open: Warning[]; accepted: Warning[] } {
  const open: Warning[] = [];
  const accepted: Warning[] = [];
  for (const warning of warnings) (acceptanceOf(project, warning) ? accepted : open).push(warning);
  return { open, accepted };
}

/** Warnings by what they cost: problems before notices, each in the order of `BY_COST`; of one rule in the order they came in. */
export function byCost<W extends Pick<Warning, 'rule' | 'severity'>>(warnings: readonly W[]): W[] {
  const cost = ({ rule, severity }: W) => BY_COST.indexOf(rule) + (severity === 'notice' ? BY_COST.length : 0);
  return [...warnings].sort((a, b) => cost(a) - cost(b));
}

/** Several lists as one: the same warning seen through several lenses counts once. */
export function distinct(warnings: readonly Warning[]): Warning[] {
  const kept: Warning[] = [];
  for (const warning of warnings)
    if (!kept.some((one) => one.rule === warning.rule && one.path === warning.path && sameJson(one.causes, warning.causes)))
      kept.push(warning);
  return kept;
}

/** A project with a warning's mend made, seen through the lens it was found through. */
export function mended(project: Project, fix: Fix, lens: Lens): Project {
  if ('unit' in fix) return withEffective(project, fix.unit, lens, fix.set);
  const next = structuredClone(project);
  if ('list' in fix) next[fix.list].find(({ id }) => id === fix.id)?.tweaks.splice(fix.index, 1);
  else setAt(next, fix.path, structuredClone(fix.value));
  return next;
}
