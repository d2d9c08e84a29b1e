import { type ReactNode, useState } from 'react';

export interface NewFormProps {
  /** What it is called where nothing is typed. */
  suggested: string;
  onName: (name: string) => void;
  submit?: string;
  /** Fields beside the name, and beneath it. */
  beside?: ReactNode;
  children?: ReactNode;
}

/** What a sheet that makes something asks: its name, what else is asked, and it is there. Enter takes the name that stands there. */
export function NewForm({ suggested, onName, submit = 'Add', beside, children, close }: NewFormProps & { close: () => void }) {
  const [name, setName] = useState('');
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        close();
        onName(name.trim() || suggested);
      }}
    >
      <div className="flex items-end gap-2">
        <label className="min-w-0 flex-1 text-label text-ink-3">
          Name
          <input
            className="field-box w-full text-body text-ink"
            value={name}
            placeholder={suggested}
            maxLength={80}
            autoFocus
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        {beside}
      </div>
      {children}
      <div className="sheet-foot">
        <button type="submit" className="btn btn-primary">
          {submit}
        </button>
      </div>
    </form>
  );
}
