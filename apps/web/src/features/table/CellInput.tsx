import { useRef } from 'react';

interface CellInputProps {
  label: string;
  text: string;
  onCommit: (text: string) => void;
  /** Nothing is changed. */
  onLeave: () => void;
  onGo: (down: number, right: number) => void;
}

/** A cell that is being typed into: Enter goes on below, Tab beside, Escape leaves it as it was. */
export function CellInput({ label, text, onCommit, onLeave, onGo }: CellInputProps) {
  // Leaving it takes the focus away, which is no second answer.
  const done = useRef(false);
  const once = (act: () => void) => {
    if (done.current) return;
    done.current = true;
    act();
  };
  return (
    <input
      autoFocus
      aria-label={label}
      className="w-full bg-sheet text-right outline-none ring-1 ring-ink"
      defaultValue={text}
      onBlur={(event) => once(() => onCommit(event.target.value))}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Escape') once(onLeave);
        if (event.key !== 'Enter' && event.key !== 'Tab') return;
        event.preventDefault();
        const { value } = event.currentTarget;
        once(() => onCommit(value));
        onGo(event.key === 'Enter' ? 1 : 0, event.key === 'Tab' ? 1 : 0);
      }}
    />
  );
}
