import type { FieldTweak } from '@insidia/core';
import type { ReactElement } from 'react';
import { NumberField } from './NumberField';
import { Popover } from './Popover';

interface Props {
  label: string;
  tweak: FieldTweak;
  unit: string;
  trigger: ReactElement;
  align?: 'start' | 'end';
  onChange: (key: 'min' | 'max' | 'round', value: number | undefined) => void;
}

const LABELS = { min: 'At least', max: 'At most', round: 'Rounded to' } as const;
const ABOUT = { min: 'kept at or above', max: 'kept at or below', round: 'a multiple of this, half up' } as const;

/** What keeps the result of a tweak within bounds. */
export function TweakLimits({ label, tweak, unit, trigger, align = 'start', onChange }: Props) {
  return (
    <Popover label={label} width={250} align={align} trigger={trigger}>
      <div className="flex gap-1.5">
        {(['min', 'max', 'round'] as const).map((key) => (
          <NumberField
            key={key}
            compact
            info={{ label: LABELS[key], unit, min: key === 'round' ? 1e-6 : -1e7, max: 1e7, about: ABOUT[key] }}
            base={tweak[key]}
            width={74}
            onCommit={(value) => onChange(key, value)}
            onClear={() => onChange(key, undefined)}
          />
        ))}
      </div>
    </Popover>
  );
}
