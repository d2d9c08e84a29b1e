import { Dialog } from 'radix-ui';
import type { ReactNode, RefObject } from 'react';

interface Props {
  title: string;
  /** The title is read out but not shown. */
  quiet?: boolean;
  width: number;
  close: () => void;
  /** What opened it, and has the focus again when it closes. */
  from: RefObject<HTMLElement | null>;
  children: ReactNode;
}

/** A sheet over the page. */
export function TopSheet({ title, quiet, width, close, from, children }: Props) {
  return (
    <Dialog.Root open onOpenChange={close}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-50 bg-ink/20" />
        <Dialog.Content
          style={{ width }}
          className={`sheet fixed left-1/2 top-[13%] z-50 -translate-x-1/2 ${quiet ? '' : 'p-4'}`}
          aria-describedby={undefined}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            from.current?.focus();
          }}
        >
          <Dialog.Title className={quiet ? 'sr-only' : 'text-section'}>{title}</Dialog.Title>
          {children}
          {!quiet && <Dialog.Close className="btn mt-3">Close</Dialog.Close>}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
