import { type BondJoint, type DeviceMap, type Renewal, renewalOf } from '../../model/device-map/index.ts';
import { renewalFor } from '../../planner/drafts/index.ts';
import { type Policy, settled } from '../../model/policy/index.ts';
import type { BondClosing } from '../events/index.ts';
import type { JobState } from './job-state.ts';

/** How a bond is closed in this repair: as it was decided on sight, else by the school, else by its map. */
export function renewalNow(
  map: DeviceMap,
  { deviations, policy }: Pick<JobState, 'deviations' | 'policy'>,
  bond: BondJoint,
): Renewal {
  const way = deviations.closings.get(bond.id);
  const { closing } = settled(map, policy).policy;
  return way ? renewalDecided(bond, way, closing) : renewalFor(bond, closing);
}

/** What a decision on sight means for a bond: *renew* is as the workshop would, with new adhesive in any case. */
export function renewalDecided(bond: BondJoint, way: BondClosing, school: Policy['closing']): Renewal {
  if (way === 'reuse') return 'reuse';
  if (way === 'glue') return 'liquid';
  const usual = renewalFor(bond, school);
  return usual === 'reuse' || usual === 'liquid' ? renewalOf({ ...bond, renew: undefined } as BondJoint) : usual;
}

const CLOSED_BY: Readonly<Record<Renewal, BondClosing>> = {
  precut: 'renew',
  tape: 'renew',
  'with-part': 'renew',
  liquid: 'glue',
  reuse: 'reuse',
};

/** The same in the words of a decision: kept, renewed, glued. It is the one word on it, whoever asks. */
export function closingNow(
  map: DeviceMap,
  state: Pick<JobState, 'deviations' | 'policy'>,
  bond: BondJoint,
): BondClosing {
  return CLOSED_BY[renewalNow(map, state, bond)];
}
