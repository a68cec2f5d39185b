import { type JobState, lastWarmed, type Zone, zoneToWarm } from '@nibrel/core/job';
import type { BondJoint, DeviceMap } from '@nibrel/core/device-map';
import type { Op } from '@nibrel/core/drafts';
import { useQuery } from '@tanstack/react-query';
import { shopQuery } from '../../app/queries.ts';
import type { Side } from '../../drawing/geometry.ts';
import type { Session } from '../../job/session.ts';
import { cutFor, useCutting } from './cutting.tsx';
import type { Hand } from './hand.ts';
import { useHeating } from './heating.tsx';
import { useSoaking } from './soaking.tsx';
import { useWarmBond } from './use-warm-bond.ts';

interface InHand {
  readonly bench: Session;
  readonly map: DeviceMap;
  readonly state: JobState;
  /** the operation in hand */
  readonly op: Op | undefined;
  readonly isNow: boolean;
  /** a clock of this operation runs */
  readonly waiting: boolean;
  readonly side: Side;
  readonly now: number;
}

/** What an opening asks of the hand just now: warming, cutting, soaking; null where one press does. */
export function useHand({ bench, map, state, op, isNow, waiting, side, now }: InHand): Hand | null {
  const shop = useQuery(shopQuery).data;
  const joint = map.joints.find((each) => each.id === op?.joint);
  const bond: BondJoint | null = joint?.type === 'bond' ? joint : null;
  const zone = bond ? zoneInHand(map, state, bond) : undefined;
  const near = op?.name === 'soak' && bond ? warmNearby(map, state, bond) : { bond, zone };
  const warmth = useWarmBond(map, near.bond, near.zone, state, shop, now);
  const cut = cutFor(map, bond, shop, warmth);
  const isCut = op?.kind === 'release' && cut !== null;
  const work = { bench, map, state, op, bond, zone, shop, warmth, cut_s: cut?.seconds ?? null };
  const heating = useHeating(work);
  const isHeating = bond !== null && state.opening.heating?.joint === bond.id;
  const cutting = useCutting({
    ...work,
    cut,
    side,
    isNow: isNow && isCut && !isHeating,
    again_s: heating.again_s,
    onHeatAgain: heating.begin,
  });
  const soaking = useSoaking(work);
  if (!op || !bond || !shop) return null;
  if (isHeating) return heating;
  if (op.name === 'heat') return heating;
  if (isCut) return isCold(state, bond, zone) ? heating : cutting;
  return waiting ? null : soaking;
}

interface Place {
  readonly bond: BondJoint | null;
  readonly zone: Zone | undefined;
}

/** Solvent asks about whatever is warm nearby: the bond itself, else what was warmed last. */
function warmNearby(map: DeviceMap, { opening }: JobState, bond: BondJoint): Place {
  const last = opening.warmed.findLast(({ joint }) => joint === bond.id) ?? opening.warmed.at(-1);
  const joint = map.joints.find((each) => each.id === last?.joint);
  return joint?.type === 'bond' ? { bond: joint, zone: last?.zone } : { bond, zone: undefined };
}

/** The zone of a bond that is being warmed or cut. */
function zoneInHand(map: DeviceMap, { opening }: JobState, bond: BondJoint): Zone | undefined {
  return opening.heating?.joint === bond.id ? opening.heating.zone : zoneToWarm(map, opening, bond);
}

/** Has the cut come to a zone that was not warmed yet? */
function isCold({ opening }: JobState, bond: BondJoint, zone: Zone | undefined): boolean {
  return bond.heat === true && zone !== undefined && lastWarmed(opening, bond.id, zone) === undefined;
}
