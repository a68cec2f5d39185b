import type { ReactNode } from 'react';
import { OnlyThis } from '../ui/only-this.tsx';

interface SectionProps {
  readonly title: string;
  readonly children: ReactNode;
}

/** A part of the report. One that can't be shown leaves the others as they are. */
export function Section({ title, children }: SectionProps) {
  return (
    <section aria-label={title} className="flex flex-col gap-3 border-t-2 border-ink pt-3">
      <h2 className="text-lead font-bold">{title}</h2>
      <OnlyThis broken={<p className="text-body">This part can not be shown.</p>}>{children}</OnlyThis>
    </section>
  );
}
