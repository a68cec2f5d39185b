import { type DeviceMap, fastenerAt, type ScrewJoint, type ScrewPoint } from '../../model/device-map/index.ts';
import { Refusal } from '../../model/refusal/index.ts';
import { torqueOf } from '../../physics/torque/index.ts';

/** What a screw is tightened to, N·cm. */
export interface TorqueWindow {
  readonly least_Ncm: number;
  readonly most_Ncm: number;
  /** `map`, or computed from its thread and what it is screwed into (guess) */
  readonly from: 'map' | 'thread';
  /** how much more preload its boss takes before it strips; of computed windows only */
  readonly stripMargin?: number;
}

/** Shear strength of what a hole is cut into, MPa: filled plastic, brass or aluminium of inserts and bosses (from memory, round). */
const SHEAR_MPa: Readonly<Record<ScrewPoint['below'], number>> = {
  plastic: 35,
  board: 120,
  battery: 120,
  display: 120,
  metal: 120,
};
/** Small dry screws of steel (VDI 2230, table of friction classes, from memory). */
const MU = 0.16;
/** The boss takes so many times the preload (guess), and the screw this much of its strength, MPa (ISO 898-1, class 4.8, from memory). */
const MARGIN = 2.5;
const PROOF_MPa = 310;
const SPARED = 0.6;
/** A computed figure is held to within this (guess). */
const WITHIN = 0.1;

/** The window of a screw: the map's, else one computed from its thread; null where its thread is written in another way. */
export function windowOf(map: DeviceMap, joint: ScrewJoint, point: ScrewPoint): TorqueWindow | null {
  const kind = map.fasteners.find(({ id }) => id === fastenerAt(joint, point));
  if (!kind) return null;
  if (kind.torque) return { least_Ncm: kind.torque.min, most_Ncm: kind.torque.max, from: 'map' };
  const [, d, pitch] = /^M(\d+(?:\.\d+)?)x(\d+(?:\.\d+)?)$/.exec(kind.thread) ?? [];
  if (d === undefined || pitch === undefined) return null;
  const thread = { d: Number(d), pitch: Number(pitch) };
  const shape = {
    thread,
    headBearing_mm: (Math.max(kind.head, thread.d) + thread.d) / 2,
    muThread: MU,
    muHead: MU,
    engagement_mm: kind.length / 2,
    shearStrength_MPa: SHEAR_MPa[point.below],
  };
  try {
    const { strip_N, stressArea_mm2 } = torqueOf({ ...shape, preload_N: 1 });
    const preload_N = Math.min(strip_N! / MARGIN, SPARED * PROOF_MPa * stressArea_mm2);
    const { torque, stripMargin } = torqueOf({ ...shape, preload_N });
    return {
      least_Ncm: torque.N_cm * (1 - WITHIN),
      most_Ncm: torque.N_cm * (1 + WITHIN),
      from: 'thread',
      stripMargin: stripMargin!,
    };
  } catch (error) {
    if (error instanceof Refusal) return null;
    throw error;
  }
}

export type PeakVerdict = 'in' | 'low' | 'high' | 'slips';

/** What a driver's peak says of a screw. A thread that slips reaches no torque however far it is turned. */
export function peakVerdict(peak_Ncm: number, slipped: boolean, { least_Ncm, most_Ncm }: TorqueWindow): PeakVerdict {
  if (slipped) return 'slips';
  return peak_Ncm < least_Ncm ? 'low' : peak_Ncm > most_Ncm ? 'high' : 'in';
}
