import { TextField } from './TextField';

interface Props {
  label?: string;
  of: { id: string; name: string };
  /** All that must be told apart by their names; itself may be among them. */
  among: readonly { id: string; name: string }[];
  onName: (name: string) => void;
  width?: number;
  quiet?: boolean;
}

/** What something in a list is called: a name that no other has. */
export function NameField({ label = 'Name', of, among, onName, width, quiet }: Props) {
  return (
    <TextField
      // What was refused of one is nothing of another that takes its place.
      key={of.id}
      label={label}
      value={of.name}
      limit={80}
      width={width}
      quiet={quiet}
      refused={(text) => {
        const name = text.trim();
        if (!name) return 'A name is needed';
        return among.some((each) => each.id !== of.id && each.name === name) ? `Another is called ${name}` : undefined;
      }}
      onCommit={(text) => {
        if (text.trim() !== of.name) onName(text.trim());
      }}
    />
  );
}
