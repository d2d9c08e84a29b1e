import { type Condition, LIMITS, SUBJECTS, type Subject, type SubjectInfo } from '@insidia/core';
import { Choose } from './Choose';
import { Mini } from './Mini';
import { NumberField } from './NumberField';
import { TextField } from './TextField';
import { type Asker, first, firstOf, offersOf, subjectsFor } from './conditions';

interface Props {
  label: string;
  /** The condition as a sentence. */
  words: string;
  condition: Condition | undefined;
  asker: Asker;
  needed?: boolean;
  onChange: (condition: Condition | undefined) => void;
  close: () => void;
}

/** Builds a condition of comparisons and groups of them. */
export function ConditionParts({ label, words, condition, asker, needed, onChange, close }: Props) {
  return (
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
  );
}

/** Whether it may be asked in a fight that takes turns; whether it is asked nowhere else. */
const inTurns = ({ unit, encounter }: Asker) => (encounter ? encounter.clock === 'rounds' : unit?.rounds !== undefined);
const onlyInTurns = ({ encounter }: Asker) => encounter?.clock === 'rounds';

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
            options={subjectsFor(asker, deep).map((id) => ({ id, name: SUBJECTS[id].label }))}
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
