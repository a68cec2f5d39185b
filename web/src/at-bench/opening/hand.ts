import type { ReactNode } from 'react';

/** Work that asks for more than one press: what is shown of it. What its press does is told by `nextPress`. */
export interface Hand {
  /** in place of the operation's own title */
  readonly title?: string;
  /** what is cautioned of before it: the operation itself where nothing else is said */
  readonly cautions?: readonly ('operation' | 'heat')[];
  /** the segment of the bond that is cut next */
  readonly edge?: string;
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
