import { applied, type DeviceState, type Mechanism, type Rules, isLegalNow, withHost } from '../holds/index.ts';
import type { Admission } from '../order/index.ts';
import type { Task } from '../drafts/index.ts';

/** What the admission remembers on the way: the block it is in, a live joint not yet followed by isolation, the device. */
export interface Place {
  readonly block: string | null;
  readonly blockLeft: number;
  readonly live: boolean;
  readonly isolatingLeft: number;
  readonly device: DeviceState | null;
}

/**
 * Blocks are not interrupted, and what leads to a dead device follows a live joint directly. With a device to start from,
 * every physical operation is also judged against its state.
 */
export function admissionFor(
  mechanism: Mechanism,
  tasks: readonly Task[],
  isolating: ReadonlySet<string>,
  rules: Rules,
) {
  const sizes = new Map<string, number>();
  for (const { block } of tasks) if (block) sizes.set(block, (sizes.get(block) ?? 0) + 1);
  const towards = new Set(isolating);
  for (const task of tasks) if (isolating.has(task.id)) task.after.forEach((id) => towards.add(id));
  const anyLive = tasks.some((task) => task.live);

  return (device: DeviceState | null): Admission<Place> => ({
    start: { block: null, blockLeft: 0, live: false, isolatingLeft: isolating.size, device },
    key: (place) => (place.device ? place.device.group.join() : ''),
    commits: (op) => tasks[op]!.starts === true || tasks[op]!.live === true,
    admits(place, op) {
      const task = tasks[op]!;
      if (place.block !== null && task.block !== place.block) return false;
      if (place.block === null && task.block !== undefined && !task.starts) return false;
      if (place.live && !towards.has(task.id)) return false;
      if (!place.device || !task.physical) return true;
      return isLegalNow(mechanism, place.device, withHost(mechanism, place.device, task.physical), rules);
    },
    after(place, op) {
      const task = tasks[op]!;
      const members = task.block === undefined ? 0 : sizes.get(task.block)!;
      const blockLeft = place.block === null ? members - 1 : place.blockLeft - 1;
      const isolatingLeft = place.isolatingLeft - (isolating.has(task.id) ? 1 : 0);
      return {
        block: blockLeft > 0 && task.block ? task.block : null,
        blockLeft: Math.max(0, blockLeft),
        live: anyLive && (place.live || task.live === true) && isolatingLeft > 0,
        isolatingLeft,
        device:
          place.device && task.physical
            ? applied(mechanism, place.device, withHost(mechanism, place.device, task.physical))
            : place.device,
      };
    },
  });
}
