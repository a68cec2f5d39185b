import type { SyntheticEvent } from 'react';

/** A panel is open or not, and asks to be closed. */
export interface Closing {
  readonly open: boolean;
  onClose(): void;
}

/** A form that is sent here and nowhere else. */
export function submitted(act: () => void) {
  return (event: SyntheticEvent) => {
    event.preventDefault();
    act();
  };
}

/** How a plain select looks in a form. */
export const select = 'mt-0.5 min-h-12 w-full border-b-2 border-ink bg-sheet px-1 text-body';
