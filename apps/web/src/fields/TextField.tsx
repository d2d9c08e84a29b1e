import { type ReactNode, useId, useRef, useState } from 'react';

interface Props {
  label: string;
  value: string;
  onCommit: (value: string) => void;
  width?: number | string;
  limit?: number;
  /** More than one line. */
  lines?: number;
  placeholder?: string;
  /** Words offered while typing. */
  offers?: readonly string[];
  quiet?: boolean;
  after?: ReactNode;
  /** Why what was typed can't stand: then it is said, and what stood stays. */
  refused?: (value: string) => string | undefined;
}

/** Text: written down when the field is left or Enter is pressed; Esc restores it. */
export function TextField({ label, value, onCommit, width, limit, lines, placeholder, offers, quiet, after, refused }: Props) {
  const id = useId();
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string>();
  const cancelled = useRef(false);
  /** Something was typed. A field of one line shows no line breaks: passing through it is not to lose them. */
  const touched = useRef(false);
  const leave = (typed: string) => {
    const given = touched.current && !cancelled.current && typed !== value;
    touched.current = cancelled.current = false;
    const broken = given ? refused?.(typed) : undefined;
    setText(null);
    setWrong(broken);
    if (given && !broken) onCommit(typed);
  };
  const shared = {
    id,
    value: text ?? value,
    maxLength: limit,
    placeholder,
    'aria-label': quiet ? label : undefined,
    'aria-invalid': wrong ? true : undefined,
    onFocus: () => setWrong(undefined),
    onChange: (event: { target: { value: string } }) => {
      touched.current = true;
      setText(event.target.value);
    },
    onBlur: (event: { target: { value: string } }) => leave(event.target.value),
  };
  return (
    <div className="min-w-0" style={{ width }}>
      {!quiet && (
        <label htmlFor={id} className="block truncate text-label text-ink-3">
          {label}
        </label>
      )}
      <div className={`field-box ${lines ? '!h-auto !items-start' : ''} ${wrong ? 'wrong' : ''}`}>
        {lines ? (
          <textarea
            {...shared}
            rows={lines}
            className="w-full resize-y bg-transparent py-1 outline-none"
            onKeyDown={(event) => {
              if (event.key === 'Escape') {
                cancelled.current = true;
                event.currentTarget.blur();
              }
            }}
          />
        ) : (
          <input
            {...shared}
            list={offers ? `${id}-offers` : undefined}
            autoComplete="off"
            spellCheck={false}
            onKeyDown={(event) => {
              if (event.key === 'Enter') event.currentTarget.blur();
              if (event.key === 'Escape') {
                cancelled.current = true;
                event.currentTarget.blur();
              }
            }}
          />
        )}
        {after}
      </div>
      {wrong && (
        <div className="text-label text-warn [overflow-wrap:anywhere]" role="alert">
          {wrong}
        </div>
      )}
      {offers && (
        <datalist id={`${id}-offers`}>
          {offers.map((offer) => (
            <option key={offer} value={offer} />
          ))}
        </datalist>
      )}
    </div>
  );
}
