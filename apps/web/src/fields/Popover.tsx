import { Popover as Radix, Slot } from 'radix-ui';
import { type ReactElement, type ReactNode, type RefObject, useId, useRef, useState } from 'react';

interface Props extends Omit<SheetProps, 'id' | 'beside' | 'close'> {
  /** What is clicked to open it. */
  trigger: ReactElement;
}

/** A small sheet beside what opened it. */
export function Popover({ trigger, ...sheet }: Props) {
  const id = useId();
  const [open, setOpen] = useState(false);
  const opener = useRef<HTMLElement>(null);
  return (
    <>
      <Slot.Root
        ref={opener}
        aria-haspopup="dialog"
        aria-expanded={open}
        aria-controls={open ? id : undefined}
        onClick={() => setOpen(!open)}
      >
        {trigger}
      </Slot.Root>
      {/* A bench has dozens of them and draws itself anew at every edit: what is not open is not there. */}
      {open && <Sheet id={id} beside={opener} close={() => setOpen(false)} {...sheet} />}
    </>
  );
}

interface SheetProps {
  id: string;
  beside: RefObject<HTMLElement | null>;
  close: () => void;
  label: string;
  children: ReactNode | ((close: () => void) => ReactNode);
  width?: number;
  align?: 'start' | 'center' | 'end';
}

function Sheet({ id, beside, close, label, children, width = 320, align = 'start' }: SheetProps) {
  /** Whoever went elsewhere is not called back to what opened it. */
  const left = useRef(false);
  return (
    <Radix.Root open onOpenChange={close}>
      <Radix.Anchor virtualRef={beside as RefObject<HTMLElement>} />
      <Radix.Portal>
        <Radix.Content
          id={id}
          aria-label={label}
          align={align}
          sideOffset={4}
          collisionPadding={8}
          style={{ width }}
          className="scroll sheet z-50 max-h-[var(--radix-popover-content-available-height)] p-3"
          onInteractOutside={(event) => {
            // What opened it closes it by itself.
            if (beside.current?.contains(event.target as Node)) event.preventDefault();
            else left.current = true;
          }}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            if (!left.current) beside.current?.focus();
          }}
        >
          {typeof children === 'function' ? children(close) : children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
