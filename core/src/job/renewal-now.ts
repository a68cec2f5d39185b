import type { BondJoint, DeviceMap, Renewal } from '../device-map/index.ts';
import { renewalFor } from '../drafts/index.ts';
import { settled } from '../policy/index.ts';
import type { JobState } from './state.ts';

/** How a bond is closed in this repair: as it was decided on sight, else by the school, else by its map. */
export function renewalNow(
  map: DeviceMap,
  { found, policy }: Pick<JobState, 'found' | 'policy'>,
  bond: BondJoint,
): Renewal {
  const way = found.closings.get(bond.id);
  if (way === 'glue') return 'liquid';
  return way === 'reuse' ? 'reuse' : renewalFor(bond, settled(map, policy).policy.closing);
}
