import type { ReactNode } from 'react';

interface BlockProps {
  readonly title: string;
  /** what it is called for who hears it, where the heading is longer */
  readonly name?: string;
  readonly children: ReactNode;
}

/** A few lines under a quiet heading. */
export function Block({ title, name = title, children }: BlockProps) {
  return (
    <section aria-label={name} className="text-body">
      <h2 className="text-note text-quiet">{title}</h2>
      {children}
    </section>
  );
}
