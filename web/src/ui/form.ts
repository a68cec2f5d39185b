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
