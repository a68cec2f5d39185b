import { carried, type DeviceState, madeBetween, type Mechanism, OFF, OPEN } from '../holds/index.ts';
import type { Need } from './need.ts';

/**
 * What every set must bring along whatever its target: loose parts are lifted, used-up single-use parts come off.
 * @param refitted parts that were fitted again already: they are on their way back, not loose
 */
export function housekeeping(mechanism: Mechanism, state: DeviceState, refitted?: ReadonlySet<number>): Need[] {
  return mechanism.map.parts.flatMap((_, part): Need[] => {
    const lift = { options: [{ kind: 'lift', part } as const] };
    if (part === mechanism.base || state.status[part] === OFF || refitted?.has(part)) return [];
    return isLoose(mechanism, state, part) || isUsedUp(mechanism, state, part) ? [lift] : [];
  });
}

/** Open, its last tether lost, and carried by nothing else. */
function isLoose(mechanism: Mechanism, state: DeviceState, part: number): boolean {
  if (state.status[part] !== OPEN) return false;
  const leaving = carried(mechanism, state, part);
  if (madeBetween(mechanism, state, leaving).some((joint) => mechanism.tether[joint])) return false;
  return !mechanism.holding[part]!.some((joint) => {
    const host = mechanism.to[joint]!;
    return host !== mechanism.base && carried(mechanism, state, host).has(part);
  });
}

/** A single-use part of which a screw, bond or clip was released; one that a hinge keeps can't be lifted, ever. */
function isUsedUp(mechanism: Mechanism, state: DeviceState, part: number): boolean {
  if (mechanism.map.parts[part]!.reuse !== 'single-use') return false;
  if (mechanism.touching[part]!.some((joint) => mechanism.map.joints[joint]!.type === 'hinge')) return false;
  return mechanism.holding[part]!.some(
    (joint) => state.released[joint] === 1 && !mechanism.tether[joint] && mechanism.releasable[joint],
  );
}
