import { type CounterChange, CounterChange as CounterChangeClass, fieldAt, fieldWords } from '@insidia/core';
import { Choose } from './Choose';
import { NumberField } from './NumberField';

interface Props {
  /** What it belongs to: names of the fields begin with it. */
  label: string;
  value: CounterChange;
  counters: readonly { id: string; name: string }[];
  onChange: (value: CounterChange) => void;
}

const HOW = fieldWords(CounterChangeClass, ['how']);
const BY = fieldAt(CounterChangeClass, ['by']);

/** Which counter, how it changes, and by how much. */
export function CountFields({ label, value, counters, onChange }: Props) {
  const known = counters.some(({ id }) => id === value.counter);
  return (
    <>
      <div className="w-[100px]">
        <Choose
          quiet
          label={`${label} counter`}
          value={value.counter}
          options={[...counters, ...(known ? [] : [{ id: value.counter, name: value.counter }])]}
          onChoose={(counter) => onChange({ ...value, counter })}
        />
      </div>
      <div className="w-[84px]">
        <Choose
          quiet
          label={`${label} how`}
          value={value.how}
          options={HOW}
          onChoose={(how) => onChange({ ...value, how: how as CounterChange['how'] })}
        />
      </div>
      {BY?.kind === 'number' && (
        <NumberField
          bare
          compact
          width={58}
          info={{ ...BY.info, label: `${label} by` }}
          base={value.by}
          onCommit={(by) => onChange({ ...value, by })}
        />
      )}
    </>
  );
}
