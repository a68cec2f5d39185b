import Joi from 'joi';
import { TORQUE_N_CM } from './units.ts';
import { Refusal, wrong } from '../../model/refusal/index.ts';

export interface TorqueRequest {
  /** of a metric thread, mm */
  readonly thread: { readonly d: number; readonly pitch: number };
  /** mean bearing diameter of the head */
  readonly headBearing_mm: number;
  readonly muThread: number;
  readonly muHead: number;
  /** one of the two */
  readonly preload_N?: number;
  readonly torque_Ncm?: number;
  /** of the internal thread, and what it is cut into */
  readonly engagement_mm?: number;
  readonly shearStrength_MPa?: number;
}

export interface Torque {
  readonly d2: number;
  readonly d3: number;
  readonly stressArea_mm2: number;
  readonly torque: { readonly N_m: number; readonly N_cm: number; readonly kgf_cm: number; readonly ozf_in: number };
  readonly preload_N: number;
  readonly tensile_MPa: number;
  /** the preload at which the internal thread strips, and how often that is the one given */
  readonly strip_N?: number;
  readonly stripMargin?: number;
}

const FLANK = Math.tan(Math.PI / 6);

const mu = Joi.number().min(0).max(2).required();
/** What is smaller is no screw, and what it carries can't be told from nothing. */
const LEAST = 0.001;
const LEAST_LOAD = 1e-6;

const mm = Joi.number().min(LEAST).max(200);

export const torqueRequest = Joi.object<TorqueRequest>({
  thread: Joi.object({ d: mm.required(), pitch: mm.required() }).required(),
  headBearing_mm: mm.required(),
  muThread: mu,
  muHead: mu,
  preload_N: Joi.number().min(LEAST_LOAD).max(1e7),
  torque_Ncm: Joi.number().min(LEAST_LOAD).max(1e7),
  engagement_mm: mm,
  shearStrength_MPa: Joi.number().min(LEAST).max(10_000),
})
  .xor('preload_N', 'torque_Ncm')
  .and('engagement_mm', 'shearStrength_MPa')
  .messages({
    'object.missing': 'preload_N or torque_Ncm: give one of the two',
    'object.xor': 'preload_N or torque_Ncm: give one of the two, not both',
    'object.and': 'engagement_mm and shearStrength_MPa belong together',
  });

/**
 * Diameters by ISO 68-1 and 724, root by ISO 898-1; the tightening torque as VDI 2230 has it, and the stripping of the
 * internal thread.
 * @throws Refusal where the pitch leaves no core
 */
export function torqueOf(request: TorqueRequest): Torque {
  const { thread, headBearing_mm, muThread, muHead, engagement_mm, shearStrength_MPa } = request;
  const { d, pitch } = thread;
  const d2 = d - 0.6495 * pitch;
  const d3 = d - 1.2269 * pitch;
  if (d3 <= 0)
    throw new Refusal(wrong('thread.pitch', 'The pitch is too coarse for the diameter: nothing is left of the core.'));
  const stressArea_mm2 = (Math.PI / 4) * ((d2 + d3) / 2) ** 2;
  const lever_mm = 0.16 * pitch + 0.58 * d2 * muThread + (headBearing_mm / 2) * muHead;
  const preload_N = request.preload_N ?? (request.torque_Ncm! * 10) / lever_mm;
  const N_cm = request.torque_Ncm ?? (preload_N * lever_mm) / 10;
  const base = {
    d2,
    d3,
    stressArea_mm2,
    torque: {
      N_m: N_cm / TORQUE_N_CM['N·m'],
      N_cm,
      kgf_cm: N_cm / TORQUE_N_CM['kgf·cm'],
      ozf_in: N_cm / TORQUE_N_CM['ozf·in'],
    },
    preload_N,
    tensile_MPa: preload_N / stressArea_mm2,
  };
  if (engagement_mm === undefined || shearStrength_MPa === undefined) return base;
  const turns = engagement_mm / pitch;
  const strip_N = shearStrength_MPa * Math.PI * d * turns * (pitch / 2 + (d - d2) * FLANK);
  return { ...base, strip_N, stripMargin: strip_N / preload_N };
}
