import type { ButtonHTMLAttributes, ReactNode } from 'react';

type Weight = 'loud' | 'plain' | 'quiet';

const LOOKS: Readonly<Record<Weight, string>> = {
  loud: 'bg-ink text-paper border-ink hover:bg-now hover:border-now',
  plain: 'bg-sheet text-ink border-ink hover:bg-mat',
  quiet: 'bg-transparent text-ink border-transparent underline decoration-hair underline-offset-4 hover:decoration-ink',
};

export interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  readonly weight?: Weight;
  /** the key that does the same */
  readonly keyName?: string;
  readonly children: ReactNode;
}

export function Button({ weight = 'plain', keyName, children, className = '', type = 'button', ...rest }: ButtonProps) {
  return (
    <button
      type={type}
      className={`inline-flex min-h-12 items-center justify-between gap-4 border px-4 text-left text-body font-semibold transition-colors disabled:opacity-45 ${LOOKS[weight]} ${className}`}
      {...rest}
    >
      <span>{children}</span>
      {keyName && <Key name={keyName} />}
    </button>
  );
}

/** A key as it is written on the board; a mark for the eye, not for a screen reader. */
export function Key({ name }: { readonly name: string }) {
  return (
    <kbd
      aria-hidden="true"
      className="inline-block min-w-7 border border-current px-1.5 text-center text-note font-normal opacity-90"
    >
      {name}
    </kbd>
  );
}
