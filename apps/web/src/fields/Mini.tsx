import type { ButtonHTMLAttributes } from 'react';

const SIGNS = {
  up: 'M3 8 L6 4.5 L9 8',
  down: 'M3 4.5 L6 8 L9 4.5',
  remove: 'M3 3 L9 9 M9 3 L3 9',
  add: 'M6 2.5 V9.5 M2.5 6 H9.5',
  copy: 'M2.5 2.5 H7.5 V7.5 H2.5 Z M5 7.5 V9.5 H9.5 V5 H7.5',
  start: 'M4 2.5 L9 6 L4 9.5 Z',
} as const;

interface Props extends Omit<ButtonHTMLAttributes<HTMLButtonElement>, 'children'> {
  sign: keyof typeof SIGNS;
  label: string;
}

/** A small button with a sign; its label is read out and shown on hover. */
export function Mini({ sign, label, className = '', ...rest }: Props) {
  return (
    <button type="button" title={label} aria-label={label} className={`mini ${className}`} {...rest}>
      <svg width={12} height={12} aria-hidden>
        <path d={SIGNS[sign]} fill={sign === 'start' ? 'currentColor' : 'none'} stroke="currentColor" strokeWidth={1.4} />
      </svg>
    </button>
  );
}

/** Up, down, once more and away for one of a list. */
export function ListButtons({
  what,
  index,
  count,
  onMove,
  onCopy,
  onRemove,
  kept,
}: {
  what: string;
  index: number;
  count: number;
  onMove?: (by: -1 | 1) => void;
  onCopy?: () => void;
  onRemove: () => void;
  /** Why it can't go now. */
  kept?: string;
}) {
  return (
    <span className="flex shrink-0">
      {onMove && (
        <>
          <Mini sign="up" label={`Move ${what} up`} disabled={index === 0} onClick={() => onMove(-1)} />
          <Mini sign="down" label={`Move ${what} down`} disabled={index === count - 1} onClick={() => onMove(1)} />
        </>
      )}
      {onCopy && <Mini sign="copy" label={`Copy ${what}`} onClick={onCopy} />}
      <Mini
        sign="remove"
        label={kept === undefined ? `Remove ${what}` : `${what} ${kept}`}
        disabled={kept !== undefined}
        onClick={onRemove}
      />
    </span>
  );
}

/** A list with one item moved by one place. */
export function moved<T>(list: readonly T[], index: number, by: number): T[] {
  const next = [...list];
  const [item] = next.splice(index, 1);
  next.splice(index + by, 0, item);
  return next;
}
