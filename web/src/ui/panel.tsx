import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';

interface PanelProps {
  readonly title: string;
  readonly said?: ReactNode;
  readonly open: boolean;
  /** laid over another panel, which waits for it */
  readonly isAbove?: boolean;
  onClose(): void;
  /** a key that means something while it is open. @returns was it meant? */
  onKey?(key: string): boolean;
  readonly children: ReactNode;
}

/** A sheet laid over the view; *Close*, always in sight at its top, and Escape put it away. */
export function Panel({ title, said, open, isAbove = false, onClose, onKey, children }: PanelProps) {
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className={`fixed inset-0 bg-veil ${isAbove ? 'z-30' : 'z-10'}`} />
        <Dialog.Content
          className={`fixed inset-x-0 bottom-0 mx-auto flex max-h-[92dvh] w-full max-w-3xl flex-col border-t-4 border-ink bg-sheet text-ink sm:bottom-auto sm:top-[7dvh] sm:border ${isAbove ? 'z-40' : 'z-20'}`}
          {...(said ? {} : { 'aria-describedby': undefined })}
          onKeyDown={(event) => {
            if (event.ctrlKey || event.metaKey || event.altKey) return;
            if (onKey?.(event.key.length === 1 ? event.key.toLowerCase() : event.key)) event.preventDefault();
          }}
        >
          {/* what is asked is focused first, not the way out */}
          <div className="order-last min-h-0 overflow-y-auto px-7 pt-5 pb-6" tabIndex={-1}>
            {children}
          </div>
          <div className="flex items-start justify-between gap-4 px-7 pt-5">
            <div>
              <Dialog.Title className="text-far leading-tight font-bold">{title}</Dialog.Title>
              {said && <Dialog.Description className="mt-1 text-body text-quiet">{said}</Dialog.Description>}
            </div>
            <Dialog.Close className="min-h-12 shrink-0 border border-ink px-4 text-body font-semibold hover:bg-mat">
              Close
            </Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
