import { isOuter, type Joint, jointById, type Part, partById } from '../../model/device-map/index.ts';
import { type Mechanism, SEATED } from '../../planner/holds/index.ts';
import type { JobState } from '../../job/state/index.ts';

/** The part that closes the device and was closed last in this repair: the one to run a thumb round. Null where none is. */
export function justClosed({ map, part }: Mechanism, { done, device }: JobState): Part | null {
  const last = done.findLast(({ kind, joint, part: id }) => {
    if (kind !== 'close' && kind !== 'fit' && kind !== 'make') return false;
    const about = id === undefined ? (jointById(map, joint)?.holds ?? []) : [id];
    return about.some((each) => isClosing(partById(map, each)));
  });
  if (!last) return null;
  const about = last.part === undefined ? jointById(map, last.joint)!.holds : [last.part];
  const found = map.parts.find((each) => about.includes(each.id) && isClosing(each));
  if (!found || device.status[part.get(found.id)!] !== SEATED) return null;
  // nothing is felt for before something seals it
  const isSealed = map.joints.some(
    (each, at) => each.holds.includes(found.id) && isSealing(each) && !device.released[at],
  );
  return isSealed ? found : null;
}

function isSealing(joint: Joint): boolean {
  return joint.type === 'clip' || (joint.type === 'bond' && (joint.style === 'perimeter' || joint.style === 'gasket'));
}

function isClosing(part: Part | undefined): boolean {
  return part !== undefined && isOuter(part) && part.kind !== 'tray' && !part.base;
}
