import { NumberField } from './NumberField';
import { infoAt } from './edits';
import type { UnitEditor } from './useUnitEditor';

interface Props {
  editor: UnitEditor;
  path: string;
  label?: string;
  width?: number;
  compact?: boolean;
}

/** A number field for one number of a unit. */
export function UnitNumber({ editor, path, label, width, compact }: Props) {
  const info = infoAt(path);
  if (!info) return null;
  const { view } = editor;
  return (
    <NumberField
      info={info}
      label={label}
      base={editor.baseValue(path)}
      chain={editor.chain(path)}
      throughTier={view.edit === 'tier' ? view.tier : undefined}
      width={width}
      compact={compact}
      onCommit={(value, mark) => editor.write(path, value, mark)}
      onReset={editor.reset(path)}
    />
  );
}
