import { type Attack, EFFECTS, effectsFor, traitsOf } from '@insidia/core';
import { Popover } from '../../fields/Popover';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { addEffect } from './effectAdded';

/** Everything that a hit of an attack may do besides, one click away however the fields are folded. */
export function AddEffect({ editor, attack, onAdded }: { editor: UnitEditor; attack: Attack; onAdded: () => void }) {
  const offered = effectsFor(traitsOf(attack.delivery).strikes).filter((effect) => !attack.effects[effect]);
  if (!offered.length) return null;
  return (
    <Popover
      label={`What ${attack.name} does besides`}
      align="end"
      width={200}
      trigger={
        <button type="button" className="link shrink-0">
          + effect …
        </button>
      }
    >
      {(close) => (
        <div className="flex flex-wrap gap-1">
          {offered.map((effect) => (
            <button
              key={effect}
              type="button"
              className="switch"
              onClick={() => {
                close();
                addEffect(editor, attack, effect);
                onAdded();
              }}
            >
              + {EFFECTS[effect].label.toLowerCase()}
            </button>
          ))}
        </div>
      )}
    </Popover>
  );
}
