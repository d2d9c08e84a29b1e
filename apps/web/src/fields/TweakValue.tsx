import { type Constructor, type FieldTweak, TWEAK_OPERATIONS, changeableAt, fieldWords, pointerSteps, valueWords } from '@insidia/core';
import { Choose } from './Choose';
import { NumberField } from './NumberField';

interface Props {
  /** What it is a value of, read out before "how" and "how much". */
  label: string;
  root: Constructor;
  tweak: FieldTweak;
  width: number;
  /** In a table: smaller, without boxes. */
  plain?: boolean;
  warning?: string;
  onChange: (more: Pick<FieldTweak, 'op' | 'value'>, mark?: string) => void;
  onClear?: () => void;
}

/** How a tweak changes what it speaks of, and by how much: a number by a factor, a sum or to a value, a word to another. */
export function TweakValue({ label, root, tweak, width, plain, warning, onChange, onClear }: Props) {
  const steps = pointerSteps(tweak.path);
  const field = changeableAt(root, steps);
  const { op, value } = tweak;
  if (field && field.kind !== 'number') {
    const options =
      field.kind === 'yesNo'
        ? [true, false].map((yes) => ({ id: String(yes), name: valueWords(root, steps, yes) }))
        : fieldWords(root, steps);
    return (
      <div style={{ width: width + (plain ? 34 : 48) }} className="flex shrink-0 items-center gap-1" title={warning}>
        <span className="text-ink-3">=</span>
        <Choose
          quiet
          className={plain ? 'flex h-6 w-full items-center gap-0.5 px-0.5' : undefined}
          label={plain ? label : `${label}: to what`}
          value={String(value)}
          options={onClear ? [...options, { id: CLEAR, name: 'leave it alone' }] : options}
          onChoose={(id) => (id === CLEAR ? onClear?.() : onChange({ op: '=', value: field.kind === 'yesNo' ? id === 'true' : id }))}
        />
      </div>
    );
  }
  return (
    <>
      <div className={`shrink-0 ${plain ? 'w-[34px]' : 'w-[46px]'}`}>
        <Choose
          quiet
          className={plain ? 'flex h-6 w-full items-center gap-0.5 px-0.5 text-ink-2' : undefined}
          label={`${label}: how`}
          value={op}
          options={TWEAK_OPERATIONS.map((id) => ({ id, name: id }))}
          onChoose={(next) => onChange({ op: TWEAK_OPERATIONS.find((one) => one === next) ?? op, value })}
        />
      </div>
      <NumberField
        bare
        compact
        info={{
          label: plain ? label : `${label}: how much`,
          unit: op === '×' ? '' : (field?.info.unit ?? ''),
          min: -1e7,
          max: 1e7,
          about: '',
        }}
        base={typeof value === 'number' ? value : undefined}
        width={width}
        warning={warning}
        onCommit={(next, mark) => onChange({ op, value: next }, mark)}
        onClear={onClear}
      />
    </>
  );
}

/** No word of the format. */
const CLEAR = ' ';
