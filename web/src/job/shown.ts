import type { JobState } from '@nibrel/core/job';
import { isOuter } from '@nibrel/core/device-map';
import { carried, madeBetween, type Mechanism, OFF, OPEN } from '@nibrel/core/holds';
import type { Op } from '@nibrel/core/drafts';
import type { Shown } from '../drawing/device-drawing.tsx';

/** What the drawing shows of a device in this state, with an operation in hand. */
export function shownOf(mechanism: Mechanism, state: JobState, op: Op | undefined): Shown {
  const { map } = mechanism;
  const { status, group } = state.device;
  const gone = map.parts.flatMap((part, index) =>
    !part.base && (status[index] === OFF || group[index] !== mechanism.base) ? [part.id] : [],
  );
  const standing = map.parts.flatMap((part, index) => {
    if (status[index] !== OPEN || group[index] !== mechanism.base || !isOuter(part)) return [];
    const along = carried(mechanism, state.device, index);
    const tethers = madeBetween(mechanism, state.device, along).map((joint) => map.joints[joint]!.id);
    return [{ part: part.id, tethers }];
  });
  const riding = standing.flatMap(({ part }) =>
    [...carried(mechanism, state.device, mechanism.part.get(part)!)].map((each) => map.parts[each]!.id),
  );
  const joint = map.joints.find((each) => each.id === op?.joint);
  const now = new Set([op?.part, op?.joint, ...(joint?.holds ?? [])].filter((each) => each !== undefined));
  return {
    gone: new Set([
      ...gone.filter((id) => !now.has(id)),
      ...riding.filter((id) => !standing.some((each) => each.part === id)),
    ]),
    standing,
    now,
    marked: new Set(joint ? [joint.id] : []),
  };
}
