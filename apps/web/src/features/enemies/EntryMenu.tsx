import { Popover } from '../../fields/Popover';
import { laterWithin } from '../../parts/later';
import type { EntriesProps } from './Entries';

const EntryMenuParts = laterWithin(async () => (await import('./EntryMenuParts')).EntryMenuParts, 150);

export interface EntryMenuProps extends EntriesProps {
  e: number;
  name: string;
}

/** All of one entry. */
export function EntryMenu(props: EntryMenuProps) {
  const { name, p } = props;
  return (
    <Popover
      label={`${name} in priority ${p + 1}`}
      align="end"
      width={420}
      trigger={
        <button type="button" className="mini !w-4" aria-label={`${name} in priority ${p + 1}: more`} title="condition, targeting, place">
          ⋮
        </button>
      }
    >
      {(close) => <EntryMenuParts {...props} close={close} />}
    </Popover>
  );
}
