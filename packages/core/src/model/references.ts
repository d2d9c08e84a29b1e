/** Where a unit is used, and what taking it out of a project takes with it. */
import { withFittingBrief } from './brief-relations';
import type { Condition } from './condition';
import type { WaveGroup } from './encounter';
import type { Project } from './project';
import type { Tweak } from './tweak';
import type { Priority, TargetFilter, Targeting, Unit } from './unit';
import { independent } from './variant-edit';

/** One place that speaks of a unit. */
export interface Use {
  /** "Evening Shift, wave Second: Clippers" */
  where: string;
  /** Goes with the unit when that is deleted; otherwise it must be changed first. */
  goes: boolean;
}

/** Every place that speaks of a unit, in the order of the document. */
export function usesOf(project: Project, id: string): Use[] {
  const uses: Use[] = [];
  const use = (where: string, goes = true) => uses.push({ where, goes });
  for (const variant of project.variants) if (variant.basedOn === id) use(`${variant.name} is based on it and becomes independent`);
  for (const variant of project.variants) {
    if (variant.id !== id && variant.changes.some(({ value }) => mentions(value, id)))
      use(`${variant.name}: a change of its own names it`, false);
  }
  for (const unit of project.units) {
    if (unit.id === id) continue;
    for (const attack of unit.attacks) if (attack.summon?.unit === id) use(`${unit.name}, ${attack.name}: summons it`, false);
    for (const state of unit.states) if (state.does === 'follow' && state.to === id) use(`${unit.name}, ${state.name}: follows it`, false);
    if (conditionsOf(unit).some((condition) => asks(condition, id))) use(`${unit.name}: a condition asks about it`, false);
    for (const { criteria, only, never } of targetingsOf(unit)) {
      if (criteria.some(({ by, of }) => by === 'unit' && of === id)) use(`${unit.name}: targeting looks for it`, false);
      // Taken off a list of one, "only it" would become "anybody".
      if (only?.units.includes(id)) use(`${unit.name}: targets it only`, only.units.length + only.roles.length > 1);
      if (never?.units.includes(id)) use(`${unit.name}: never targets it`);
    }
  }
  for (const encounter of project.encounters) {
    for (const wave of encounter.waves) {
      for (const group of wave.groups) {
        if (group.enemy === id) use(`${encounter.name}, wave ${wave.name}: ${countWords(group)}`);
        if (group.pool.some(({ enemy }) => enemy === id)) use(`${encounter.name}, wave ${wave.name}: in a pool`);
        if (group.target === id) use(`${encounter.name}, wave ${wave.name}: is its forced target`);
      }
      if (wave.when && asks(wave.when, id)) use(`${encounter.name}, wave ${wave.name}: its start asks about it`, false);
    }
    for (const event of encounter.events) {
      if (asks(event.when, id)) use(`${encounter.name}, event ${event.name}: asks about it`, false);
      const count = tweaksOf(
        event.then.flatMap(({ tweaks }) => tweaks),
        id,
      );
      if (count) use(`${encounter.name}, event ${event.name}: ${counted(count, 'tweak')}`);
    }
    for (const { members, tweaks } of encounter.bySize) {
      const count = tweaksOf(tweaks, id);
      if (count) use(`${encounter.name}, a party of ${members}: ${counted(count, 'tweak')}`);
    }
    if ([...encounter.party, ...encounter.allies].some(({ unit }) => unit === id)) use(`${encounter.name}: in the party`);
    if (encounter.alive?.perType.some(({ unit }) => unit === id)) use(`${encounter.name}: has a cap of its own`);
  }
  for (const list of [...project.tiers, ...project.skills, ...project.styles]) {
    const count = tweaksOf(list.tweaks, id);
    if (count) use(`${list.name}: ${counted(count, 'tweak')}`);
  }
  const goals = project.brief?.bands.filter(({ scope, of }) => scope === 'unit' && of === id).length ?? 0;
  if (goals) use(`the brief: ${counted(goals, 'goal')}`);
  return uses;
}

/** Ids are used once in a project: whatever text equals one speaks of it. */
function mentions(value: unknown, id: string): boolean {
  if (value === null || typeof value !== 'object') return value === id;
  return Object.values(value).some((one) => mentions(one, id));
}

const counted = (count: number, what: string) => `${count} ${what}${count === 1 ? '' : 's'}`;

function tweaksOf(tweaks: readonly Tweak[], id: string): number {
  return tweaks.filter(({ scope, of }) => scope === 'unit' && of === id).length;
}

function countWords({ count: { min, max } }: WaveGroup): string {
  return min === max ? String(min) : `${min}–${max}`;
}

function asks(condition: Condition, id: string): boolean {
  if ((condition.subject === 'killed' || condition.subject === 'kindHealthShare') && condition.of === id) return true;
  return condition.parts?.some((part) => asks(part, id)) ?? false;
}

function targetingsOf(unit: Unit) {
  return [unit.targeting, ...unit.choice.priorities.flatMap(({ entries }) => entries.flatMap(({ targeting }) => targeting ?? []))];
}

function conditionsOf(unit: Unit): Condition[] {
  return [
    ...unit.attacks.flatMap(({ condition }) => condition ?? []),
    ...unit.states.flatMap(({ leaves }) => leaves.map(({ when }) => when)),
    ...unit.choice.priorities.flatMap(({ condition, entries }) =>
      [condition ?? [], ...entries.map((entry) => entry.condition ?? [])].flat(),
    ),
  ];
}

/**
 * A project without a unit: variants of it become independent, groups, pool entries, party places, caps, tweaks and goals of
 * the brief that speak of it go too. What else speaks of it (`usesOf`, not `goes`) is left, and refused by validation.
 */
export function withoutUnit(project: Project, id: string): Project {
  const freed = project.variants
    .filter(({ basedOn }) => basedOn === id)
    .map((variant) => independent(project, variant.id, { id: variant.id, name: variant.name }));
  const notIt = ({ unit }: { unit: string }) => unit !== id;
  const withoutTweaks = <T extends { tweaks: { scope: string; of?: string }[] }>(list: T): T => ({
    ...list,
    tweaks: list.tweaks.filter(({ scope, of }) => !(scope === 'unit' && of === id)),
  });
  return withFittingBrief({
    ...project,
    units: [...project.units.filter((unit) => unit.id !== id).map((unit) => withoutTarget(unit, id)), ...freed],
    variants: project.variants.filter((variant) => variant.id !== id && variant.basedOn !== id),
    tiers: project.tiers.map(withoutTweaks),
    skills: project.skills.map(withoutTweaks),
    styles: project.styles.map(withoutTweaks),
    accepted: (project.accepted ?? []).filter(({ path }) => !path.startsWith(`/units/${id}/`)),
    encounters: project.encounters.map((encounter) => ({
      ...encounter,
      party: encounter.party.filter(notIt),
      allies: encounter.allies.filter(notIt),
      bySize: encounter.bySize.map(withoutTweaks),
      events: encounter.events.map((event) => ({
        ...event,
        // What changed nobody else has nothing left to do.
        then: event.then.map(withoutTweaks).filter(({ tweaks }, i) => tweaks.length > 0 || event.then[i].tweaks.length === 0),
      })),
      ...(encounter.alive && { alive: { ...encounter.alive, perType: encounter.alive.perType.filter(notIt) } }),
      waves: encounter.waves.map((wave) => ({ ...wave, groups: wave.groups.flatMap((group) => withoutEnemy(group, id)) })),
    })),
  });
}

/** A unit whose targeting speaks of another no more, where that was one of several or one it left alone. */
function withoutTarget(unit: Unit, id: string): Unit {
  const cleared = (targeting: Targeting): Targeting => {
    const { only, never } = targeting;
    const less = (filter: TargetFilter) => ({ ...filter, units: filter.units.filter((one) => one !== id) });
    return {
      ...targeting,
      ...(only && only.units.length + only.roles.length > 1 && { only: less(only) }),
      ...(never && { never: less(never) }),
    };
  };
  const entries = (all: Priority['entries']) =>
    all.map((entry) => (entry.targeting ? { ...entry, targeting: cleared(entry.targeting) } : entry));
  return {
    ...unit,
    targeting: cleared(unit.targeting),
    choice: {
      ...unit.choice,
      priorities: unit.choice.priorities.map((priority) => ({ ...priority, entries: entries(priority.entries) })),
    },
  };
}

function withoutEnemy(group: WaveGroup, id: string): WaveGroup[] {
  if (group.enemy === id) return [];
  const pool = group.pool.filter(({ enemy }) => enemy !== id);
  if (group.pool.length && !pool.length && group.enemy === undefined) return [];
  const kept: WaveGroup = { ...group, pool };
  if (kept.target === id) delete kept.target;
  return [kept];
}
