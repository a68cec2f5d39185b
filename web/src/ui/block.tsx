import type { ReactNode } from 'react';

/** A few lines under a quiet heading. */
export function Block({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section aria-label={title} className="text-body">
      <h2 className="text-note text-quiet">{title}</h2>
      {children}
    </section>
  );
}
