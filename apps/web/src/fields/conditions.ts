/** Conditions: as sentences, what they may name, and with what a new one begins. */
import {
  type Clock,
  type Condition,
  type Encounter,
  type Project,
  SUBJECTS,
  SUBJECT_NAMES,
  type Subject,
  type SubjectInfo,
  TARGET_DOES,
  type Unit,
  conditionSentence,
  unitHeads,
} from '@insidia/core';

/** The sentence with what it speaks of by name. */
export function sentence(condition: Condition, asker: Asker, clock: Clock): string {
  const named = (one: Condition): Condition => {
    const { of: what }: SubjectInfo = SUBJECTS[one.subject];
    const called = what && offersOf(what, asker).find(({ id }) => id === one.of)?.name;
    return { ...one, ...(called !== undefined && { of: called }), ...(one.parts && { parts: one.parts.map(named) }) };
  };
  return conditionSentence(named(condition), clock);
}

const START_VALUES: Partial<Record<Subject, number>> = {
  healthShare: 0.5,
  shieldShare: 0.5,
  targetHealthShare: 0.5,
  kindHealthShare: 0.5,
  waveShare: 0.5,
  chance: 0.5,
  damageTaken: 20,
  energy: 20,
};

/** A condition of a subject with everything that it needs. */
export function firstOf(subject: Subject, asker: Asker): Condition {
  const info: SubjectInfo = SUBJECTS[subject];
  const condition: Condition = { subject };
  if (info.asked === 'number') Object.assign(condition, { is: 'below', value: START_VALUES[subject] ?? (info.unit === 'm' ? 5 : 1) });
  if (info.asked === 'yesNo') condition.is = 'yes';
  if (info.asked === 'chance') condition.value = 0.5;
  if (info.asked === 'group') condition.parts = [firstOf(first('distance', asker), asker)];
  if (info.within) condition.within = info.within === 's' ? 3 : 8;
  if (info.of && !info.ofOptional) condition.of = offersOf(info.of, asker)[0]?.id ?? 'name';
  return condition;
}

/** What `of` may name. */
export function offersOf(of: NonNullable<SubjectInfo['of']>, { unit, encounter, project }: Asker): { id: string; name: string }[] {
  switch (of) {
    case 'attack':
      return (unit?.attacks ?? []).map(({ id, name }) => ({ id, name }));
    case 'doing':
      return TARGET_DOES.map((id) => ({ id, name: id }));
    case 'role':
      return [...new Set(unitHeads(project).map(({ role }) => role))].filter(Boolean).map((role) => ({ id: role, name: role }));
    case 'unit':
      return unitHeads(project).map(({ id, name }) => ({ id, name }));
    case 'wave':
      if (encounter) return encounter.waves.map(({ id, name }) => ({ id, name }));
      return project.encounters.flatMap(({ name, waves }) => waves.map((wave) => ({ id: wave.id, name: `${wave.name} (${name})` })));
    case 'point':
      return project.arenas
        .filter(({ id }) => !encounter || id === encounter.arena)
        .flatMap(({ name, points }) =>
          points
            .filter(({ health }) => health !== undefined)
            .map((point) => ({ id: point.id, name: encounter ? point.name : `${point.name} (${name})` })),
        );
    case 'counter':
      if (encounter) return encounter.counters.map(({ id, name }) => ({ id, name }));
      return project.encounters.flatMap(({ name, counters }) => counters.map((one) => ({ id: one.id, name: `${one.name} (${name})` })));
    case 'flag':
      return [...flagsOf(project)].map((id) => ({ id, name: id }));
  }
}

function flagsOf(project: Project): Set<string> {
  const flags = new Set<string>();
  for (const { zones } of project.arenas) for (const { flag } of zones) flags.add(flag);
  for (const { events } of project.encounters)
    for (const { then } of events) for (const { does, of } of then) if (of && (does === 'raise' || does === 'lower')) flags.add(of);
  for (const { states } of project.units) for (const { onEnter } of states) if (onEnter?.raise) flags.add(onEnter.raise);
  return flags;
}

export interface Asker {
  unit?: Unit;
  encounter?: Encounter;
  project: Project;
}

/**
 * What can be asked there: nothing of what there is none of.
 * @param deep within as many groups as there may be: no further group
 */
export const subjectsFor = (asker: Asker, deep: boolean): Subject[] =>
  SUBJECT_NAMES.filter((id) => {
    const { asked, encounter, of, ofOptional }: SubjectInfo = SUBJECTS[id];
    const named = of === undefined || ofOptional || of === 'flag' || offersOf(of, asker).length > 0;
    return named && (!asker.encounter || encounter) && (!deep || asked !== 'group');
  });

/** The subject a new comparison begins with: one that the asker can tell. */
export function first(subject: Subject, { encounter }: Asker): Subject {
  const info: SubjectInfo = SUBJECTS[subject];
  return encounter && !info.encounter ? 'clock' : subject;
}
