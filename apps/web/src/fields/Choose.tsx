import { Select } from 'radix-ui';
import { type ReactNode, useId, useState } from 'react';

interface Option {
  id: string;
  name: string;
  mark?: ReactNode;
}

interface Props {
  label: string;
  value: string | undefined;
  options: readonly Option[];
  onChoose: (id: string) => void;
  /** The label is read out but not shown. */
  quiet?: boolean;
  /** In a cell of a table: up to three lines where it needs them, and the sign that it opens only while somebody is near. */
  cell?: boolean;
  className?: string;
}

/** Over the end of the words, for it takes no room from them. */
const CELL_SIGN =
  'absolute bottom-1 right-0 hidden bg-sheet px-0.5 text-ink-2 group-hover:block group-focus-visible:block group-data-[state=open]:block';

/** One out of a few, by name. */
export function Choose({ label, value, options, onChoose, quiet, cell, className }: Props) {
  const id = useId();
  // What can be chosen is drawn once somebody comes near: a bench has dozens of these, and draws itself anew at every edit.
  const [near, setNear] = useState(false);
  const come = () => setNear(true);
  const chosen = options.find((option) => option.id === value)?.name;
  return (
    <div className="min-w-0 flex-1">
      {!quiet && (
        <span id={id} className="block text-label text-ink-3">
          {label}
        </span>
      )}
      <Select.Root value={value} onValueChange={onChoose}>
        <Select.Trigger
          aria-label={quiet ? label : undefined}
          aria-labelledby={quiet ? undefined : id}
          className={`group ${className ?? 'field-box w-full gap-1'}`}
          onFocus={come}
          onPointerEnter={come}
        >
          <span className={`min-w-0 flex-1 text-left ${cell ? 'line-clamp-3 leading-[14px]' : 'truncate'}`} title={chosen}>
            <Select.Value>{chosen}</Select.Value>
          </span>
          <Select.Icon className={cell ? CELL_SIGN : 'text-ink-3'}>
            <svg width={8} height={5} aria-hidden>
              <path d="M0 0 L4 4 L8 0" fill="none" stroke="currentColor" />
            </svg>
          </Select.Icon>
        </Select.Trigger>
        {near && (
          <Select.Portal>
            <Select.Content
              position="popper"
              sideOffset={2}
              className="z-50 max-h-[320px] min-w-[var(--radix-select-trigger-width)] overflow-hidden border bg-sheet py-1 shadow-[0_2px_8px_rgb(0_0_0/0.15)]"
            >
              <Select.Viewport>
                {options.map(({ id: option, name, mark }) => (
                  <Select.Item
                    key={option}
                    value={option}
                    className="flex h-6 cursor-pointer items-center gap-1.5 px-2.5 text-table outline-none data-[highlighted]:bg-well data-[state=checked]:font-semibold"
                  >
                    {mark}
                    <Select.ItemText>{name}</Select.ItemText>
                  </Select.Item>
                ))}
              </Select.Viewport>
            </Select.Content>
          </Select.Portal>
        )}
      </Select.Root>
    </div>
  );
}
