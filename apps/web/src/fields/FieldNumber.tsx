import { classFields, fieldAt, pointerSteps, quantityAt } from '@insidia/core';
import { NumberField } from './NumberField';
import type { FieldEditor } from './editor';
import { useTurning } from './turning';

interface Props {
  editor: FieldEditor;
  path: string;
  label?: string;
  width?: number;
  compact?: boolean;
  tight?: boolean;
}

/** A number field for one number of what is edited. */
export function FieldNumber({ editor, path, label, width, compact, tight }: Props) {
  const info = quantityAt(editor.root, pointerSteps(path));
  const turn = useTurning();
  if (!info) return null;
  return (
    <NumberField
      info={info}
      label={label}
      base={editor.baseValue(path)}
      chain={editor.chain(path)}
      throughTier={editor.throughTier}
      width={width}
      compact={compact}
      tight={tight}
      onCommit={(value, mark) => editor.write(path, value, mark)}
      onClear={mayBeAbsent(editor, path) ? () => editor.write(path, undefined) : undefined}
      warning={warningAt(editor, path)}
      onReset={editor.reset(path)}
      onTurn={turn && (() => turn(editor.place + path))}
    />
  );
}

/** Whether the model lets a field be left out. */
function mayBeAbsent({ root }: FieldEditor, path: string): boolean {
  const steps = pointerSteps(path);
  const parent = fieldAt(root, steps.slice(0, -1));
  return parent?.kind === 'group' && (classFields(parent.type())?.optional.has(steps[steps.length - 1]) ?? false);
}

/** What inspection has to say about exactly this place. */
export function warningAt(editor: FieldEditor, path: string): string | undefined {
  return editor.warnings.find((warning) => warning.path === editor.place + path)?.message;
}
