import { Popover } from '../../fields/Popover';
import type { UnitEditor } from '../../fields/useUnitEditor';
import { laterWithin } from '../../parts/later';
import type { OnUnit } from './NewUnit';

const UnitMenuParts = laterWithin(async () => (await import('./UnitMenuParts')).UnitMenuParts, 200);

/** Opens what can be done with the unit on the bench as a whole. */
export function UnitMenu({ editor, onUnit }: { editor: UnitEditor; onUnit: OnUnit }) {
  const { name } = editor.base;
  return (
    <Popover
      label={`${name}: name, copies, deletion`}
      align="end"
      width={300}
      trigger={
        <button type="button" className="btn" aria-label={`${name}: more`}>
          …
        </button>
      }
    >
      {(close) => <UnitMenuParts editor={editor} onUnit={onUnit} close={close} />}
    </Popover>
  );
}
