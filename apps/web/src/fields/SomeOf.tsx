import { ToggleGroup } from 'radix-ui';
import { useId } from 'react';

interface Props {
  label: string;
  options: readonly { id: string; name: string }[];
  value: readonly string[];
  onChange: (value: string[]) => void;
  empty?: string;
  /** The order in which they were chosen counts: each says its place. */
  numbered?: boolean;
}

/** Any number out of a few: each is on or off. The order of the options is kept; what is not among them stays. */
export function SomeOf({ label, options, value, onChange, empty = 'nothing to choose from', numbered = false }: Props) {
  const id = useId();
  const strangers = value.filter((one) => !options.some((option) => option.id === one));
  const all = [...options, ...strangers.map((one) => ({ id: one, name: one }))];
  return (
    <div className="min-w-0">
      <span id={id} className="block text-label text-ink-3">
        {label}
      </span>
      <ToggleGroup.Root
        type="multiple"
        aria-labelledby={id}
        value={[...value]}
        // What was chosen first stays first: an order that somebody meant is not lost.
        onValueChange={(next) => onChange([...value.filter((one) => next.includes(one)), ...next.filter((one) => !value.includes(one))])}
        className="flex min-h-6 flex-wrap items-center pl-px"
      >
        {all.map((option) => (
          <ToggleGroup.Item key={option.id} value={option.id} className="switch !h-6 max-w-full" title={option.name}>
            {numbered && value.length > 1 && value.includes(option.id) && (
              <span className="pr-1 text-label text-ink-3">{value.indexOf(option.id) + 1}</span>
            )}
            <span className="truncate">{option.name}</span>
          </ToggleGroup.Item>
        ))}
        {!all.length && <span className="text-table text-ink-3">{empty}</span>}
      </ToggleGroup.Root>
    </div>
  );
}
