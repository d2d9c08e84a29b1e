import { Checkbox } from 'radix-ui';
import { useId } from 'react';

/** Yes or no. */
export function YesNo({
  label,
  value,
  onChange,
  title,
}: {
  label: string;
  value: boolean;
  onChange: (value: boolean) => void;
  title?: string;
}) {
  const id = useId();
  return (
    <div className="flex h-6 min-w-0 items-center gap-1.5 self-end whitespace-nowrap" title={title}>
      <Checkbox.Root
        id={id}
        checked={value}
        onCheckedChange={(checked) => onChange(checked === true)}
        className="grid h-3.5 w-3.5 shrink-0 place-items-center rounded-[2px] border border-rule bg-sheet hover:border-ink-2 data-[state=checked]:border-ink data-[state=checked]:bg-ink"
      >
        <Checkbox.Indicator>
          <svg width={10} height={8} aria-hidden>
            <path d="M1.5 4 L4 6.5 L8.5 1.5" fill="none" stroke="var(--paper)" strokeWidth={1.8} />
          </svg>
        </Checkbox.Indicator>
      </Checkbox.Root>
      <label htmlFor={id} className="text-table">
        {label}
      </label>
    </div>
  );
}
