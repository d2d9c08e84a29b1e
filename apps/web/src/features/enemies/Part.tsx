import type { ReactNode } from 'react';
import { Mini } from '../../fields/Mini';

interface Props {
  title: string;
  children: ReactNode;
  /** Takes the whole part away, where a unit may be without. */
  onRemove?: () => void;
  note?: string;
}

/** A group of fields that a designer thinks of together: its name at the left, the fields in a row that wraps. */
export function Part({ title, children, onRemove, note }: Props) {
  return (
    <div role="group" aria-label={title} className="grid grid-cols-[92px_minmax(0,1fr)] gap-x-2 border-t border-hair pb-1.5 pt-0.5">
      <div className="flex items-start gap-0.5 pt-[16px] text-table">
        <span className="min-w-0 leading-5" title={note}>
          {title}
        </span>
        {onRemove && <Mini sign="remove" label={`Take ${title.toLowerCase()} away`} onClick={onRemove} />}
      </div>
      <div className="flex min-w-0 flex-wrap items-start gap-x-2 gap-y-1">{children}</div>
    </div>
  );
}

/** Parts that are not there yet, to be added. */
export function AddParts({
  parts,
  onAdd,
  what,
}: {
  parts: readonly { id: string; name: string }[];
  onAdd: (id: string) => void;
  what: string;
}) {
  if (!parts.length) return null;
  return (
    <div className="flex flex-wrap items-center gap-1 border-t border-hair py-1.5 pl-[100px]">
      <span className="pr-1 text-label text-ink-3">{what}</span>
      {parts.map(({ id, name }) => (
        <button key={id} type="button" className="switch" onClick={() => onAdd(id)} aria-label={`Add ${name.toLowerCase()}`}>
          + {name.toLowerCase()}
        </button>
      ))}
    </div>
  );
}
