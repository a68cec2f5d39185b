import type { ReactNode } from 'react';

/** Stands before the step it belongs to and names the harm. */
export function Caution({ children }: { readonly children: ReactNode }) {
  return (
    <div role="note" aria-label="Caution" className="flex bg-care-wash text-care">
      <div aria-hidden="true" className="striped w-2.5 shrink-0" />
      <div className="px-4 py-2.5 text-body">{children}</div>
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
