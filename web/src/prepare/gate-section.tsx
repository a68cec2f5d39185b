import type { ReactNode } from 'react';

/** Which section is spread out: the one whose turn it is, until another is pressed. */
export interface Spread {
  readonly open: boolean;
  /** is what it shows what holds now? */
  readonly takesKeys: boolean;
  onPress(): void;
}

interface GateSectionProps {
  readonly title: string;
  /** what there is to say in one line */
  readonly said: string;
  readonly done: boolean;
  readonly spread?: Spread;
  readonly children?: ReactNode;
}

/** One thing to be settled before opening: one line, spread out when it is its turn. */
export function GateSection({ title, said, done, spread, children }: GateSectionProps) {
  const isOpen = spread?.open === true && Boolean(children);
  return (
    <section aria-label={title} className={`border-b border-hair ${isOpen ? 'bg-sheet' : ''}`}>
      <h2>
        <button
          type="button"
          aria-expanded={children ? isOpen : undefined}
          disabled={!children}
          onClick={spread?.onPress}
          className="flex min-h-14 w-full flex-wrap items-baseline justify-between gap-x-6 px-6 py-3 text-left"
        >
          <span className={isOpen ? 'text-far leading-tight font-bold' : done ? 'text-lead' : 'text-lead font-bold'}>
            <span aria-hidden="true" className={`mr-1 inline-block w-6 ${done ? 'text-done' : 'text-now'}`}>
              {done ? '✓' : '›'}
            </span>
            {title}
          </span>
          <span className={`text-body ${done ? 'text-done' : 'text-quiet'}`}>{said}</span>
        </button>
      </h2>
      {isOpen && <div className="px-6 pb-4 pl-13">{children}</div>}
    </section>
  );
}
