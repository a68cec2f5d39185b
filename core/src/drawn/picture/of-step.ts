import type { JobState } from '../../job/state/index.ts';
import { type DeviceMap, jointById } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import type { Side } from '../places/index.ts';
import { onTheMat, shownOf } from '../shown/index.ts';
import type { Drawn } from './picture.ts';

/** A step at the bench, as its drawing has to know it. */
export interface StepDrawn {
  /** the one in hand, or looked ahead to */
  readonly op: Op | undefined;
  /** what one press does with it */
  readonly together: readonly Op[];
  readonly list: readonly { readonly at: string | null }[];
  /** the face that is up */
  readonly side: Side;
  /** other marks and words stand on it: edges of a cut, a field */
  readonly isMarked: boolean;
}

/** What is drawn of a step. */
export interface StepPicture {
  readonly drawn: Drawn;
  /** *On the mat: the new Display*; null where it is the device */
  readonly matLabel: string | null;
  /** a tray that a pin is put into: its hole is marked, and those that are none */
  readonly tray: string | undefined;
}

/** The device, or the part on the mat that is worked on, drawn as near as hands are. */
export function stepPicture(mechanism: Mechanism, state: JobState, step: StepDrawn): StepPicture {
  const { op, side, isMarked } = step;
  const { map } = mechanism;
  const mat = onTheMat(mechanism, state, op);
  // what lies on the other face is not in sight
  const joined = step.together.filter((each) => each.face === op?.face);
  const tray = trayOf(map, op);
  const isWhole = tray !== undefined || op?.name === 'compare' || op?.name === 'take-up';
  const ops = joined.length > 0 ? joined : op ? [op] : [];
  return {
    drawn: {
      map: mat?.map ?? map,
      side: mat?.side ?? side,
      ...(mat?.shown ?? shownOf(mechanism, state, op, joined)),
      near: isWhole ? [] : nearOf(map, op, joined),
      ...(isMarked ? { marked: NONE, isNameless: true } : { ops, list: step.list }),
    },
    matLabel: mat?.label ?? null,
    tray,
  };
}

const NONE: ReadonlySet<string> = new Set();

function trayOf(map: DeviceMap, op: Op | undefined): string | undefined {
  const joint = jointById(map, op?.joint);
  return joint?.type === 'clip' && joint.eject ? joint.holds[0] : undefined;
}

/** The parts that hands are on. */
function nearOf(map: DeviceMap, op: Op | undefined, joined: readonly Op[]): readonly string[] {
  return [op, ...joined].flatMap((each) => {
    const joint = jointById(map, each?.joint);
    return each?.part === undefined ? [...(joint?.holds ?? []), ...(joint ? [joint.id] : [])] : [each.part];
  });
}
