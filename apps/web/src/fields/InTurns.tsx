import { fieldAt, fieldLabel, plainFields, pointerSteps, valueAt } from '@insidia/core';
import { Fields } from './Field';
import type { FieldEditor } from './editor';

interface Props {
  editor: FieldEditor;
  /** What has the group: `/attacks/bite`. */
  at: string;
  /** Absent: all that its class has for a form. */
  of?: readonly string[];
}

/** Whether what lies at a place says something in turns. */
export const saysTurns = ({ base }: FieldEditor, at: string): boolean => valueAt(base, `${at}/rounds`) !== undefined;

/** What something is where a fight takes turns, beside its seconds and metres; nothing where it says nothing of turns. */
export function InTurns({ editor, at, of }: Props) {
  if (!saysTurns(editor, at)) return null;
  const path = `${at}/rounds`;
  return (
    <div role="group" aria-label={`${nameOf(editor, at)} in turns`} className="flex min-w-0 flex-wrap items-start gap-x-2 gap-y-1">
      <Fields
        editor={editor}
        at={path}
        of={of ?? plainFields(editor.root, pointerSteps(path), valueAt(editor.base, path) as object | undefined)}
      />
    </div>
  );
}

/** What a place is called: by its own name, else by its field's. */
function nameOf({ base, root }: FieldEditor, at: string): string {
  const { name } = (at === '' ? base : (valueAt(base, at) ?? {})) as { name?: unknown };
  if (typeof name === 'string') return name;
  const steps = pointerSteps(at);
  return fieldAt(root, steps) ? fieldLabel(root, steps) : 'It';
}
