import type { ReactNode } from 'react';

interface CautionProps {
  /** it was read in full before, in this stage: then it is only a mark */
  readonly isKnown?: boolean;
  readonly children: ReactNode;
}

/** Stands before the step it belongs to and names the harm. */
export function Caution({ isKnown = false, children }: CautionProps) {
  return (
    <div role="note" aria-label="Caution" className="flex bg-care-wash text-care">
      <div aria-hidden="true" className="striped w-2.5 shrink-0" />
      <div className={isKnown ? 'px-4 py-1 text-note' : 'px-4 py-2.5 text-body'}>{children}</div>
    </div>
  );
}

/** What went wrong, what is safe, what to do. */
export function Trouble({ title, children }: { readonly title: string; readonly children?: ReactNode }) {
  return (
    <div role="alert" className="border-l-4 border-now bg-now-wash px-4 py-3">
      <p className="font-bold">{title}</p>
      {children}
    </div>
  );
}
