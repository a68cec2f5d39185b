import type { JobState } from '@nibrel/core/job/state';
import { type AtHand, bondInHand, bondWork, cutInHand, warmPlace, zoneInHand } from '@nibrel/core/bench/in-hand';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import { useQuery } from '@tanstack/react-query';
import { shopQuery } from '../../app/queries.ts';
import { atBench } from '../../app/settings.ts';
import type { Side } from '@nibrel/core/drawn/places';
import type { Session } from '../../job/session.ts';
import { useCutting } from './cutting.tsx';
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
  readonly side: Side;
  readonly now: number;
}

/** What is shown of a bond that is warmed, cut or soaked, null where one press does; and what a press has to know of it. */
export function useHand({ bench, map, state, op, side, now }: InHand): {
  readonly hand: Hand | null;
  readonly atHand: AtHand;
} {
  const shop = useQuery(shopQuery).data;
  const bond = bondInHand(map, op);
  const zone = bond ? zoneInHand(map, state, bond) : undefined;
  const near = warmPlace(map, state, op);
  const warm = useWarmBond(map, near.bond, near.zone, state, shop, now);
  const cut = bond && cutInHand(map, state, bond, warm);
  const doing = shop ? bondWork(map, state, op, cut) : null;
  const work = { bench, map, state, op, bond, zone, shop, warm, cut };
  const heating = useHeating(work);
  const cutting = useCutting({ ...work, side, again_s: heating.again_s });
  const soaking = useSoaking(work);
  const hands = { heating: heating.on, 'to-heat': heating.before, cut: cutting, soak: soaking.hand };
  const atHand = {
    warm,
    setting: heating.setting,
    standIn: heating.standIn,
    hopeless: heating.hopeless,
    drops: soaking.drops,
    ...atBench(),
  };
  return { hand: doing && hands[doing], atHand };
}
