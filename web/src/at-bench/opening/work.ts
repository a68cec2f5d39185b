import type { BondCut } from '@nibrel/core/planner/cut';
import type { WarmBond } from '@nibrel/core/bench/in-hand';
import type { JobState, Zone } from '@nibrel/core/job/state';
import type { BondJoint, DeviceMap } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import type { ShopNow } from '@nibrel/core/api';
import type { Session } from '../../job/session.ts';

/** What warming, cutting and soaking start from. */
export interface OpeningWork {
  readonly bench: Session;
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly op: Op | undefined;
  readonly bond: BondJoint | null;
  /** of a bond whose zones are heated one after another: the one in hand */
  readonly zone: Zone | undefined;
  readonly shop: ShopNow | undefined;
  readonly warm: WarmBond | null;
  /** the cut that is planned, where the bond is cut edge by edge */
  readonly cut: BondCut | null;
}
