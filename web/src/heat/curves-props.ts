import type { Foresight, Reading } from '@nibrel/core/physics/heat';

/** Another way of warming, laid over for comparison: its bond as is likely. */
export interface Overlay {
  readonly name: string;
  readonly foresight: Foresight;
}

export interface CurvesProps {
  readonly foresight: Foresight;
  readonly soften_C: number;
  readonly heat_s: number;
  readonly overlays?: readonly Overlay[];
  readonly readings?: readonly Reading[];
  /** seconds since the source was put on */
  readonly now_s?: number;
  /** to where it is shown; to its end where it is left out */
  readonly end_s?: number;
  readonly label: string;
}
