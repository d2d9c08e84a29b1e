import { type Attack, EFFECTS, type EffectName, Unit, blankAt } from '@insidia/core';
import type { UnitEditor } from '../../fields/useUnitEditor';

/** Gives an attack an effect that begins with something. */
export function addEffect(editor: UnitEditor, attack: Attack, effect: EffectName): void {
  const blank = blankAt(Unit, ['attacks', '0', 'effects', effect]);
  editor.set(`/attacks/${attack.id}/effects/${effect}`, { ...blank, ...EFFECTS[effect].begins }, 'added');
}
