import { type FieldTweak, Unit, fieldLabel, placeName, placesOfTweaked, pointerSteps, widePlaces } from '@insidia/core';
import { useMemo } from 'react';
import { Choose } from './Choose';
import { Mini } from './Mini';
import { TweakValue } from './TweakValue';
import { nameOfPlace } from './edits';
import { changeOf } from './tweakPlaces';

interface Props {
  label: string;
  tweaks: readonly FieldTweak[];
  unit: Unit;
  onChange: (tweaks: FieldTweak[]) => void;
}

/** Numbers of all attacks or states at once that are worth offering first. */
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

/** Changes that hold for a while: to which number or word, how, how much. */
export function TweaksField({ label, tweaks, unit, onChange }: Props) {
  const options = useMemo(() => {
    const wide = widePlaces(unit).filter((path) => path.includes('*') && !WIDE.includes(path));
    const own = placesOfTweaked(unit).map((path) => ({ id: path, name: nameOfPlace(unit, path).slice(unit.name.length + 1) }));
    return [...WIDE.map((id) => ({ id, name: wideName(id) })), ...wide.map((id) => ({ id, name: placeName(id) })), ...own];
  }, [unit]);
  const set = (index: number, more: Partial<FieldTweak>) => onChange(tweaks.map((one, i) => (i === index ? { ...one, ...more } : one)));
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
              onChoose={(path) => set(i, changeOf(Unit, path, tweak))}
            />
          </div>
          <TweakValue label={`${label} ${i + 1}`} root={Unit} tweak={tweak} width={80} onChange={(more) => set(i, more)} />
          <Mini sign="remove" label={`Remove tweak ${i + 1}`} onClick={() => onChange(tweaks.filter((_, j) => j !== i))} />
        </div>
      ))}
      <button type="button" className="link" onClick={() => onChange([...tweaks, { path: '/movement/run', op: '×', value: 1.25 }])}>
        add a tweak
      </button>
    </div>
  );
}
