import { useState } from 'react';
import { YesNo } from '../../fields/YesNo';
import type { Column } from './columns';

interface Props {
  all: Column[];
  chosen: readonly string[];
  /** Shown while nobody chooses otherwise. */
  first: readonly string[];
  onChange: (chosen: readonly string[]) => void;
}

/** Which columns a table shows. */
export function ColumnChoice({ all, chosen, first, onChange }: Props) {
  const [search, setSearch] = useState('');
  const found = all.filter(({ label }) => label.toLowerCase().includes(search.toLowerCase()));
  return (
    <div>
      <div className="flex gap-2">
        <input
          className="field-box min-w-0 flex-1"
          aria-label="Search columns"
          placeholder="search"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <button type="button" className="btn" onClick={() => onChange(first)}>
          As at first
        </button>
      </div>
      <ul className="scroll mt-2 max-h-[320px]">
        {found.map(({ id, label }) => (
          <li key={id}>
            <YesNo
              label={label}
              value={chosen.includes(id)}
              onChange={(on) =>
                onChange(
                  on
                    ? all.map((column) => column.id).filter((one) => one === id || chosen.includes(one))
                    : chosen.filter((one) => one !== id),
                )
              }
            />
          </li>
        ))}
      </ul>
    </div>
  );
}
