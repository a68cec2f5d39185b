import type { DeviceMap, Fastener, ScrewPoint } from '../../model/device-map/index.ts';
import type { Limits } from '../../model/limits/index.ts';
import { swapped } from '../screws/index.ts';

/** What a screw does in a hole that is not its own. */
export interface Harm {
  /** of work that it costs to put right (settings, common practice) */
  readonly minutes: number;
  /** *sticks out 1.9 mm, into the board* */
  readonly text: string;
}

export type Hurts = Pick<
  Limits,
  | 'hurtBoard_min'
  | 'hurtBattery_min'
  | 'hurtDisplay_min'
  | 'hurtPlastic_min'
  | 'hurtMetal_min'
  | 'hurtShort_min'
  | 'hurtThread_min'
>;

/** Nobody who turns a screw feels that it is shorter by so much (guess). */
const NO_SHORTER_MM = 0.1;

type Kind = Pick<Fastener, 'drive' | 'thread' | 'length'>;
type Hole = Pick<ScrewPoint, 'depth' | 'below'>;

const BELOW: Readonly<Record<ScrewPoint['below'], { readonly hurt: keyof Hurts; readonly into: string }>> = {
  board: { hurt: 'hurtBoard_min', into: 'into the board' },
  battery: { hurt: 'hurtBattery_min', into: 'toward the cell' },
  display: { hurt: 'hurtDisplay_min', into: 'against the display' },
  plastic: { hurt: 'hurtPlastic_min', into: 'through the plastic' },
  metal: { hurt: 'hurtMetal_min', into: 'against metal' },
};

/**
 * What happens where a screw is driven into a hole that is meant for another; null where it does no harm. A drive that
 * differs does none by itself.
 */
export function harmOf(screw: Kind, right: Kind, hole: Hole, hurts: Hurts): Harm | null {
  const [own, meant] = [diameterOf(screw.thread), diameterOf(right.thread)];
  if (own < meant) {
    return { minutes: hurts.hurtShort_min, text: `too thin: ${screw.thread} holds nothing in ${right.thread}` };
  }
  const { verdict, protrudes_mm, engagementLost_mm } = swapped({ ...screw, drive: right.drive }, right, hole.depth);
  if (verdict === 'wrong-thread') {
    return { minutes: hurts.hurtThread_min, text: `cuts ${screw.thread} into ${right.thread}` };
  }
  if (verdict === 'long') {
    const { hurt, into } = BELOW[hole.below];
    return { minutes: hurts[hurt], text: `sticks out ${protrudes_mm} mm, ${into}` };
  }
  if (verdict === 'short' && engagementLost_mm! > NO_SHORTER_MM) {
    // half of its length less, and the boss strips as surely as with none
    const share = Math.min(1, engagementLost_mm! / (right.length / 2));
    return { minutes: hurts.hurtShort_min * share, text: `holds by ${engagementLost_mm} mm less` };
  }
  return null;
}

/** A screw of this measured length in a hole: what stands in the way; null where nothing does. */
export function harmOfLength(
  map: DeviceMap,
  fastener: string,
  length_mm: number,
  hole: Hole,
  hurts: Hurts,
): Harm | null {
  const kind = map.fasteners.find(({ id }) => id === fastener);
  return kind ? harmOf({ ...kind, length: length_mm }, kind, hole, hurts) : null;
}

/** Of a metric thread, mm: *M1.4x0.3*. 0 where it is written in another way. */
function diameterOf(thread: string): number {
  return Number(/^M(\d+(?:\.\d+)?)/.exec(thread)?.[1] ?? 0);
}
