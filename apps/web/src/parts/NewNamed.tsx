import { NewSheet } from './NewSheet';

interface Props {
  /** What is made: "New tier". */
  label: string;
  suggested: string;
  onName: (name: string) => void;
  primary?: boolean;
}

/** A button that makes something once it has a name. */
export function NewNamed({ label, suggested, onName, primary }: Props) {
  return (
    <NewSheet
      label={label}
      suggested={suggested}
      onName={onName}
      trigger={
        <button type="button" className={primary ? 'btn btn-primary' : 'btn'}>
          {label}
        </button>
      }
    />
  );
}
