import { Popover as Radix } from 'radix-ui';
import { type ReactNode, useState } from 'react';

interface Props {
  /** What is clicked to open it. */
  trigger: ReactNode;
  label: string;
  children: ReactNode | ((close: () => void) => ReactNode);
  width?: number;
  align?: 'start' | 'center' | 'end';
}

/** A small sheet beside what opened it. */
export function Popover({ trigger, label, children, width = 320, align = 'start' }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <Radix.Root open={open} onOpenChange={setOpen}>
      <Radix.Trigger asChild>{trigger}</Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          aria-label={label}
          align={align}
          sideOffset={4}
          collisionPadding={8}
          style={{ width }}
          className="scroll sheet z-50 max-h-[var(--radix-popover-content-available-height)] p-3"
        >
          {typeof children === 'function' ? children(() => setOpen(false)) : children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
