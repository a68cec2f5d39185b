import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';

interface PanelProps {
  readonly title: string;
  readonly said?: ReactNode;
  readonly open: boolean;
  /** laid over another panel, which waits for it */
  readonly isAbove?: boolean;
  onClose(): void;
  readonly children: ReactNode;
}

/** A sheet laid over the view; Escape puts it away. */
export function Panel({ title, said, open, isAbove = false, onClose, children }: PanelProps) {
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className={`fixed inset-0 bg-veil ${isAbove ? 'z-30' : 'z-10'}`} />
        <Dialog.Content
          className={`fixed inset-x-0 bottom-0 mx-auto max-h-[92dvh] w-full max-w-3xl overflow-y-auto border-t-4 border-ink bg-sheet px-7 py-6 text-ink sm:bottom-auto sm:top-[7dvh] sm:border ${isAbove ? 'z-40' : 'z-20'}`}
          {...(said ? {} : { 'aria-describedby': undefined })}
        >
          <Dialog.Title className="text-far leading-tight font-bold">{title}</Dialog.Title>
          {said && <Dialog.Description className="mt-1 text-body text-quiet">{said}</Dialog.Description>}
          <div className="mt-5">{children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
