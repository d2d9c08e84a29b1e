import { type NumberTweak, TWEAK_OPERATIONS, Unit, fieldLabel, placesOfNumbers, pointerSteps } from '@insidia/core';
import { useMemo } from 'react';
import { Choose } from './Choose';
import { Mini } from './Mini';
import { NumberField } from './NumberField';
import { infoAt, nameOfPlace } from './edits';

interface Props {
  label: string;
  tweaks: readonly NumberTweak[];
  unit: Unit;
  onChange: (tweaks: NumberTweak[]) => void;
}

/** Numbers of all attacks or states at once that are worth offering by themselves. */
const WIDE = [
  '/attacks/*/effects/damage/amount',
  '/attacks/*/beat/cooldown',
  '/attacks/*/beat/windup',
  '/attacks/*/beat/recovery',
  '/attacks/*/range/max',
  '/attacks/*/aim/near',
  '/attacks/*/aim/far',
  '/states/*/near',
  '/states/*/far',
];

/** "cooldown of all attacks". */
function wideName(path: string): string {
  const steps = pointerSteps(path);
  const label = fieldLabel(Unit, steps).toLowerCase();
  return steps.includes('*') ? `${label} of all ${steps[steps.indexOf('*') - 1]}` : label;
}

/** Changes to numbers that hold for a while: which number, how, how much. */
export function TweaksField({ label, tweaks, unit, onChange }: Props) {
  const options = useMemo(() => {
    const own = placesOfNumbers(unit).map((path) => ({ id: path, name: nameOfPlace(unit, path).slice(unit.name.length + 1) }));
    return [...WIDE.map((id) => ({ id, name: wideName(id) })), ...own];
  }, [unit]);
  const set = (index: number, more: Partial<NumberTweak>) => onChange(tweaks.map((one, i) => (i === index ? { ...one, ...more } : one)));
  return (
    <div role="group" aria-label={label} className="min-w-0">
      <span className="block text-label text-ink-3">{label}</span>
      {tweaks.map((tweak, i) => (
        <div key={i} className="mb-1 flex items-end gap-1.5">
          <div className="w-[210px]">
            <Choose
              quiet
              label={`${label} ${i + 1}: number`}
              value={tweak.path}
              options={options.some(({ id }) => id === tweak.path) ? options : [{ id: tweak.path, name: wideName(tweak.path) }, ...options]}
              onChoose={(path) => set(i, { path })}
            />
          </div>
          <div className="w-[46px]">
            <Choose
              quiet
              label={`${label} ${i + 1}: how`}
              value={tweak.op}
              options={TWEAK_OPERATIONS.map((id) => ({ id, name: id }))}
              onChoose={(op) => set(i, { op: op as NumberTweak['op'] })}
            />
          </div>
          <NumberField
            bare
            compact
            info={{
              label: `${label} ${i + 1}: how much`,
              unit: tweak.op === '×' ? '' : (infoAt(tweak.path)?.unit ?? ''),
              min: -1e7,
              max: 1e7,
              about: '',
            }}
            base={tweak.value}
            width={80}
            onCommit={(value) => set(i, { value })}
          />
          <Mini sign="remove" label={`Remove tweak ${i + 1}`} onClick={() => onChange(tweaks.filter((_, j) => j !== i))} />
        </div>
      ))}
      <button type="button" className="link" onClick={() => onChange([...tweaks, { path: '/movement/run', op: '×', value: 1.25 }])}>
        add a tweak
      </button>
    </div>
  );
}
