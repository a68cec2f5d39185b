import type { JobState } from '../../job/state/index.ts';
import { type DeviceMap, type Face, isOuter, jointById } from '../../model/device-map/index.ts';
import { carried, madeBetween, type Mechanism, OFF, OPEN } from '../../planner/holds/index.ts';
import type { Op } from '../../planner/drafts/index.ts';

/** A part that stands open at the device, with the joints that still tether it. */
export interface StandsOpen {
  readonly part: string;
  readonly tethers: readonly string[];
}

/** What is drawn of a device: what is off, what stands open, what hands are on. */
export interface Shown {
  /** parts that are no longer in the device: only their outline is left */
  readonly gone?: ReadonlySet<string>;
  readonly standing?: readonly StandsOpen[];
  readonly now?: ReadonlySet<string>;
  readonly selected?: string | null;
  /** joints to be drawn with their marks */
  readonly marked?: ReadonlySet<string>;
  /** how many of the top layers are peeled away */
  readonly peeled?: number;
}

/**
 * The face that is looked at: the operation's own, that of a bond while it dries and is pressed, that of a lens while it is
 * wiped; null where any is as good.
 */
export function faceOf({ joints, parts }: DeviceMap, op: Op): Face | null {
  if (op.face !== null || op.kind !== 'procedure') return op.face;
  const bond = joints.find(({ id, type }) => id === op.joint && type === 'bond');
  return bond?.face ?? (op.name === 'wipe' ? (parts.find(({ id }) => id === op.part)?.face ?? null) : null);
}

/**
 * What the drawing shows of a device in this state, with an operation in hand.
 * @param joined what one press does with it: each of its places is marked as well
 */
export function shownOf(mechanism: Mechanism, state: JobState, op: Op | undefined, joined: readonly Op[] = []): Shown {
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
  const joint = jointById(map, op?.joint);
  const places = joined.flatMap((each) => (each.kind === 'procedure' || !each.joint ? [] : [each.joint]));
  const now = new Set([op?.part, op?.joint, ...places, ...(joint?.holds ?? [])].filter((each) => each !== undefined));
  return {
    gone: new Set([
      ...gone.filter((id) => !now.has(id)),
      ...riding.filter((id) => !standing.some((each) => each.part === id)),
    ]),
    standing,
    now,
    marked: new Set([...(joint ? [joint.id] : []), ...places]),
  };
}
