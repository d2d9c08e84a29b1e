import { type ReactNode, useState } from 'react';
import { Popover } from '../fields/Popover';

interface Props {
  /** What is made: "New tier". */
  label: string;
  trigger: ReactNode;
  /** What it is called where nothing is typed. */
  suggested: string;
  onName: (name: string) => void;
  submit?: string;
  width?: number;
  align?: 'start' | 'end';
  /** Fields beside the name, and beneath it. */
  beside?: ReactNode;
  children?: ReactNode;
}

/** A sheet that makes something: its name, what else is asked, and it is there. Enter takes the name that stands there. */
export function NewSheet({ label, trigger, suggested, onName, submit = 'Add', width = 240, align, beside, children }: Props) {
  const [name, setName] = useState('');
  return (
    <Popover label={label} width={width} align={align} trigger={trigger}>
      {(close) => (
        <form
          className="flex flex-col gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            close();
            onName(name.trim() || suggested);
            setName('');
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
      )}
    </Popover>
  );
}
