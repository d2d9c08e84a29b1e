import {
  type Clock,
  type Condition,
  type Encounter,
  LIMITS,
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
import { Choose } from './Choose';
import { Mini } from './Mini';
import { NumberField } from './NumberField';
import { useClockInView } from './clock';
import { Popover } from './Popover';
import { TextField } from './TextField';

interface Props {
  /** What the condition is for, read out: "Close in leaves for Keep band when". */
  label: string;
  condition: Condition | undefined;
  /** Who asks it: a unit; or the encounter, which can ask only what speaks of the whole. */
  unit?: Unit;
  encounter?: Encounter;
  project: Project;
  /** Undefined takes it away, where it may be absent. */
  onChange: (condition: Condition | undefined) => void;
  /** Shown where there is none: "always". */
  none?: string;
  /** It can't be taken away. */
  needed?: boolean;
}

/** A condition as a sentence; a click opens its builder. */
export function ConditionField({ label, condition, unit, encounter, project, onChange, none = 'always', needed }: Props) {
  const inView = useClockInView();
  const asker = { unit, encounter, project };
  const words = condition ? sentence(condition, asker, encounter?.clock ?? inView) : none;
  return (
    <Popover
      width={430}
      label={label}
      trigger={
        <button type="button" className="link min-w-0 !whitespace-normal text-left" aria-label={`${label}: ${words}`}>
          {words}
        </button>
      }
    >
      {(close) => (
        <div className="flex flex-col gap-2">
          <p className="text-table text-ink-2">
            {label} <b>{words}</b>
          </p>
          {condition ? (
            <Part condition={condition} asker={asker} depth={1} onChange={onChange} />
          ) : (
            <button type="button" className="btn self-start" onClick={() => onChange(firstOf(first('distance', asker), asker))}>
              Add a condition
            </button>
          )}
          <div className="flex gap-2 border-t border-hair pt-2">
            {condition && condition.subject !== 'all' && (
              <button
                type="button"
                className="btn"
                onClick={() => onChange({ subject: 'all', parts: [condition, firstOf(first('sinceAttack', asker), asker)] })}
              >
                and …
              </button>
            )}
            {condition && condition.subject !== 'any' && (
              <button
                type="button"
                className="btn"
                onClick={() => onChange({ subject: 'any', parts: [condition, firstOf(first('healthShare', asker), asker)] })}
              >
                or …
              </button>
            )}
            {condition && condition.subject !== 'not' && (
              <button type="button" className="btn" onClick={() => onChange({ subject: 'not', parts: [condition] })}>
                not …
              </button>
            )}
            <span className="flex-1" />
            {condition && !needed && (
              <button type="button" className="btn" onClick={() => (close(), onChange(undefined))}>
                Take away
              </button>
            )}
            <button type="button" className="btn btn-primary" onClick={close}>
              Done
            </button>
          </div>
        </div>
      )}
    </Popover>
  );
}

/** The sentence with what it speaks of by name. */
function sentence(condition: Condition, asker: Asker, clock: Clock): string {
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
function offersOf(of: NonNullable<SubjectInfo['of']>, { unit, encounter, project }: Asker): { id: string; name: string }[] {
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

interface Asker {
  unit?: Unit;
  encounter?: Encounter;
  project: Project;
}

/** Whether it may be asked in a fight that takes turns; whether it is asked nowhere else. */
const inTurns = ({ unit, encounter }: Asker) => (encounter ? encounter.clock === 'rounds' : unit?.rounds !== undefined);
const onlyInTurns = ({ encounter }: Asker) => encounter?.clock === 'rounds';

/** The subject a new comparison begins with: one that the asker can tell. */
function first(subject: Subject, { encounter }: Asker): Subject {
  const info: SubjectInfo = SUBJECTS[subject];
  return encounter && !info.encounter ? 'clock' : subject;
}

const optionsFor = ({ encounter }: Asker, deep: boolean) =>
  SUBJECT_NAMES.filter((id) => {
    const info: SubjectInfo = SUBJECTS[id];
    return (!encounter || info.encounter) && (!deep || info.asked !== 'group');
  }).map((id) => ({ id, name: SUBJECTS[id].label }));

interface PartProps {
  condition: Condition;
  asker: Asker;
  depth: number;
  onChange: (condition: Condition) => void;
  onRemove?: () => void;
}

/** One comparison, or a group of them. */
function Part({ condition, asker, depth, onChange, onRemove }: PartProps) {
  const info: SubjectInfo = SUBJECTS[condition.subject];
  const change = (more: Partial<Condition>) => onChange({ ...condition, ...more });
  const deep = depth >= LIMITS.conditionDepth;
  const number = (label: string, value: number | undefined, unitName: string, max: number, field: 'value' | 'within') => (
    <NumberField
      compact
      info={{ label, unit: unitName, min: 0, max, about: '' }}
      base={value}
      width={84}
      onCommit={(next) => change({ [field]: next })}
    />
  );
  /** What it is compared with, or looks back or around, where a fight takes turns. */
  const ofTurns = (label: string, field: 'value' | 'within', unit: string) => (
    <NumberField
      compact
      info={{
        label,
        unit: unit === 'm' ? 'cells' : condition.subject === 'clock' ? 'rounds' : 'turns',
        min: 0,
        max: 500,
        whole: true,
        about: '',
      }}
      base={condition.rounds?.[field] ?? 0}
      width={92}
      onCommit={(next) => change({ rounds: { value: 0, within: 0, ...condition.rounds, [field]: next } })}
    />
  );
  const timed = info.unit === 's' || info.unit === 'm';
  const offers = info.of ? offersOf(info.of, asker) : [];
  return (
    <div role="group" aria-label={info.label} className={depth > 1 ? 'border-l-2 border-hair pl-2' : ''}>
      <div className="flex flex-wrap items-end gap-2">
        <div className="w-[196px]">
          <Choose
            label="What"
            value={condition.subject}
            options={optionsFor(asker, deep)}
            onChoose={(id) => onChange(kept(condition, firstOf(id as Subject, asker)))}
          />
        </div>
        {info.of && info.of !== 'flag' && (
          <div className="w-[130px]">
            <Choose
              label="Which"
              value={condition.of ?? ANY}
              options={info.ofOptional ? [{ id: ANY, name: 'any' }, ...offers] : offers}
              onChoose={(id) => onChange(id === ANY ? without(condition) : { ...condition, of: id })}
            />
          </div>
        )}
        {info.of === 'flag' && (
          <TextField
            label="Flag"
            width={130}
            value={condition.of ?? ''}
            offers={offers.map(({ id }) => id)}
            onCommit={(of) => change({ of })}
          />
        )}
        {info.asked === 'number' && (
          <>
            <div className="w-[76px]">
              <Choose
                label="Is"
                value={condition.is}
                options={[
                  { id: 'below', name: 'below' },
                  { id: 'above', name: 'above' },
                ]}
                onChoose={(is) => change({ is: is as Condition['is'] })}
              />
            </div>
            {!(timed && onlyInTurns(asker)) && number('Value', condition.value, info.unit, 1e6, 'value')}
            {timed && inTurns(asker) && ofTurns('In turns', 'value', info.unit)}
          </>
        )}
        {info.asked === 'yesNo' && (
          <div className="w-[76px]">
            <Choose
              label="Is so"
              value={condition.is}
              options={[
                { id: 'yes', name: 'yes' },
                { id: 'no', name: 'no' },
              ]}
              onChoose={(is) => change({ is: is as Condition['is'] })}
            />
          </div>
        )}
        {info.asked === 'chance' && number('Chance', condition.value, '', 1, 'value')}
        {info.within && (
          <>
            {!onlyInTurns(asker) && number(info.within === 's' ? 'In the last' : 'Within', condition.within, info.within, 1000, 'within')}
            {inTurns(asker) && ofTurns(info.within === 's' ? 'In the last' : 'Within', 'within', info.within)}
          </>
        )}
        {onRemove && <Mini sign="remove" label={`Remove ${info.label}`} onClick={onRemove} />}
      </div>
      {info.asked === 'group' && (
        <div className="mt-1.5 flex flex-col gap-1.5">
          {condition.parts?.map((part, i, all) => (
            <Part
              key={i}
              condition={part}
              asker={asker}
              depth={depth + 1}
              onChange={(next) => change({ parts: all.map((one, j) => (j === i ? next : one)) })}
              onRemove={all.length > 1 ? () => change({ parts: all.filter((_, j) => j !== i) }) : undefined}
            />
          ))}
          {condition.subject !== 'not' && (condition.parts?.length ?? 0) < LIMITS.conditions && (
            <button
              type="button"
              className="link self-start"
              onClick={() => change({ parts: [...(condition.parts ?? []), firstOf(first('distance', asker), asker)] })}
            >
              {condition.subject === 'all' ? 'and another' : 'or another'}
            </button>
          )}
        </div>
      )}
    </div>
  );
}

const ANY = '*';

function without(condition: Condition): Condition {
  const next = { ...condition };
  delete next.of;
  return next;
}

/** A new subject keeps what both have: the comparison and its value where the unit is the same, the parts of a group. */
function kept(old: Condition, next: Condition): Condition {
  const [from, to]: SubjectInfo[] = [SUBJECTS[old.subject], SUBJECTS[next.subject]];
  if (from.asked === 'group' && to.asked === 'group')
    return { ...next, parts: next.subject === 'not' ? old.parts?.slice(0, 1) : old.parts };
  if (from.asked !== to.asked) return next;
  return {
    ...next,
    ...(old.is && { is: old.is }),
    ...(from.unit === to.unit && old.value !== undefined && next.value !== undefined && { value: old.value }),
  };
}
