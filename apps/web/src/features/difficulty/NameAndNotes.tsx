import { NameField } from '../../fields/NameField';
import { TextField } from '../../fields/TextField';

interface Named {
  id: string;
  name: string;
  notes?: string;
}

/** What something in a list is called, a name that no other has, and what is noted of it. */
export function NameAndNotes({
  of,
  others,
  onChange,
  onNoNotes,
}: {
  of: Named;
  others: readonly Named[];
  onChange: (name: string, next: { name: string } | { notes: string }) => void;
  onNoNotes: (name: string) => void;
}) {
  return (
    <>
      <NameField of={of} among={others} onName={(name) => onChange(`${of.name} is called ${name}`, { name })} />
      <TextField
        label="Notes"
        lines={3}
        value={of.notes ?? ''}
        limit={2000}
        onCommit={(notes) => (notes.trim() ? onChange(`${of.name}: notes`, { notes: notes.trim() }) : onNoNotes(`${of.name}: notes`))}
      />
    </>
  );
}
