import { type DeviceMap, type Joint, jointById, type Part, type Point } from '../../model/device-map/index.ts';
import { assembled, carried, type Mechanism, OFF } from '../../planner/holds/index.ts';
import type { JobState } from '../../job/state/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import { partName } from '../../planner/words/index.ts';
import type { Shown } from './shown.ts';
import type { Side } from '../places/index.ts';

/** A part that lies on the mat, drawn alone with what belongs on it. */
export interface OnTheMat {
  /** the part as a device of its own */
  readonly map: DeviceMap;
  readonly side: Side;
  readonly shown: Shown;
  /** *On the mat: the new Display* */
  readonly label: string;
}

/** What is worked on away from the device: pieces that move over, or go on a part before it goes in. Null for all else. */
export function onTheMat(mechanism: Mechanism, state: JobState, op: Op | undefined): OnTheMat | null {
  const host = hostOf(mechanism, state, op);
  if (!op || host === null) return null;
  const { map } = mechanism;
  const part = map.parts[host]!;
  const along = [...carried(mechanism, assembled(mechanism), host)];
  const ids = new Set(along.map((each) => map.parts[each]!.id));
  const joint = jointById(map, op.joint);
  const now = new Set([op.part, op.joint, ...(joint?.holds ?? [])].filter((id) => id !== undefined && id !== part.id));
  const gone = along.flatMap((each) => {
    const { id } = map.parts[each]!;
    return each === host || state.device.group[each] === host || now.has(id) ? [] : [id];
  });
  // the side that hands are on: what it carries is mostly on its inside
  const side = op.face === 'front' || op.face === 'back' ? op.face : insideOf(part);
  const isReplaced = state.targets.some((each) => 'replace' in each && each.replace === part.id);
  const age = !isReplaced ? '' : takesOff(op) ? 'the old ' : 'the new ';
  return {
    map: alone(map, part, ids, side),
    side,
    shown: { gone: new Set(gone), now: now as Set<string>, marked: new Set(joint ? [joint.id] : []) },
    label: `On the mat: ${age}${partName(map, part.id)}`,
  };
}

/** Taken off the old part, or softened for that; all else is done to the new one. */
function takesOff({ kind, name }: Op): boolean {
  return kind === 'release' || kind === 'lift' || name === 'heat' || name === 'soak' || name === 'inspect';
}

/** The part that is off the device and worked on. */
function hostOf({ map, part, base }: Mechanism, { device }: JobState, op: Op | undefined): number | null {
  const joint = jointById(map, op?.joint);
  const about = op?.onto ?? joint?.to ?? (op?.kind === 'fit' ? undefined : op?.part);
  const number = about === undefined ? undefined : part.get(about);
  if (number === undefined) return null;
  const host = device.group[number]!;
  return host === base || device.status[host] !== OFF ? null : host;
}

/** The side of a part that what belongs on it is on; of the base its front. */
export function insideOf({ base, face }: Part): Side {
  return !base && face === 'front' ? 'back' : 'front';
}

/** The part as a device of its own: its box is the outline, and every place is counted from its corner. */
export function alone(map: DeviceMap, host: Part, ids: ReadonlySet<string>, side: Side): DeviceMap {
  const { x: left, y: top, w, h } = host.box;
  const at = <T extends Point>(point: T): T => ({ ...point, x: point.x - left, y: point.y - top });
  const parts = map.parts
    .filter(({ id }) => ids.has(id))
    .map((part): Part => ({
      ...part,
      // whichever side is up, all that belongs on it is drawn
      face: part.id === host.id ? part.face : side,
      box: at(part.box),
      ...(part.outline ? { outline: part.outline.map(([x, y]) => [x - left, y - top] as const) } : {}),
      base: part.id === host.id,
    }));
  const joints = map.joints
    .filter(({ holds, to }) => holds.every((id) => ids.has(id)) && ids.has(to))
    .map((joint): Joint => ({ ...moved(joint, at), face: side }));
  const corner = Math.min(map.outline.corner, w / 8, h / 8);
  return { ...map, parts, joints, outline: { ...map.outline, width: w, height: h, corner } };
}

function moved(joint: Joint, at: <T extends Point>(point: T) => T): Joint {
  const places = {
    ...(joint.at ? { at: at(joint.at) } : {}),
    ...('points' in joint && joint.points ? { points: (joint.points as readonly Point[]).map(at) } : {}),
    ...('segments' in joint && joint.segments
      ? { segments: joint.segments.map((each) => ({ ...each, from: at(each.from), to: at(each.to) })) }
      : {}),
  };
  return { ...joint, ...places } as Joint;
}
