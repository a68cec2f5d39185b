import type { ReactNode } from 'react';

/** Work that asks for more than one press: what is shown of it. What is asked of it, and its answers, are the core's. */
export interface Hand {
  /** what has to be seen beside the main button, before all else */
  readonly lead?: ReactNode;
  readonly body: ReactNode;
  /** in place of the drawing */
  readonly picture?: ReactNode;
  /** over the drawing */
  readonly marks?: ReactNode;
  /** the bond's temperature as foreseen, where one is warm */
  readonly bond_C?: number;
  /** said aloud, where that is wanted, in place of the operation */
  readonly spoken?: string;
  /** what has just come about and is sounded once: soft, a limit near, too stiff */
  readonly alarm?: 'soft' | 'limit' | 'stiff' | null;
}
