import Joi from 'joi';
import { MATERIALS, materialNamed } from './materials.ts';

/** A layer as it is asked for: a material by name, or its three figures. */
export type LayerRequest =
  | { readonly material: string; readonly thickness_mm: number }
  | { readonly k: number; readonly rho: number; readonly cp: number; readonly thickness_mm: number };

export interface Boundary {
  readonly h_W_m2K: number;
  readonly temp_C: number;
}

export type HeatSource =
  | { readonly kind: 'plate'; readonly temp_C: number; readonly contact_W_m2K: number }
  | { readonly kind: 'air'; readonly temp_C: number; readonly h_W_m2K: number }
  /** holds this much heat for each square metre and degree, and gives it to the face only */
  | {
      readonly kind: 'pack';
      readonly temp_C: number;
      readonly capacity_J_m2K: number;
      readonly contact_W_m2K: number;
    }
  | { readonly kind: 'none' };

export interface Probe {
  readonly id: string;
  /** counted from the heated face, from 0 */
  readonly layer: number;
  /** of the layer's thickness, 0 at its heated side */
  readonly fraction: number;
}

/** docs/http.md, compute/heat. */
export interface HeatRequest {
  readonly layers: readonly LayerRequest[];
  readonly source: HeatSource;
  /** what the heated face meets once the source is gone */
  readonly after: Boundary;
  readonly far: Boundary;
  readonly initial_C: number;
  readonly heat_s: number;
  readonly total_s: number;
  readonly probes: readonly Probe[];
  readonly bond?: { readonly probe: string; readonly soften_C: number };
  readonly limits?: readonly { readonly probe: string; readonly max_C: number }[];
}

const temp_C = Joi.number().min(-273.15).max(5000);
const h = Joi.number().min(0).max(1e12);
const contact = Joi.number().greater(0).max(1e12);
const id = Joi.string().min(1).max(200);
/** Far below any material in SI units, and thinner than any atom in millimetres: below it figures are lost. */
const LEAST = 1e-9;
const thickness_mm = Joi.number()
  .min(LEAST)
  .max(1e6)
  .messages({ 'number.min': '{{#label}} must be more than 0 mm, {{#limit}} mm at the least: a layer has a thickness' });
const face = Joi.object({ h_W_m2K: h.required(), temp_C: temp_C.required() }).unknown(true);

const layer = Joi.object({
  material: Joi.string()
    .max(100)
    .custom((name: string, helpers) => (materialNamed(name) ? name : helpers.error('material.none')))
    .messages({ 'material.none': `{{#label}} must be one of ${MATERIALS.map((each) => each.id).join(', ')}` }),
  k: Joi.number().min(LEAST).max(1e9),
  rho: Joi.number().min(LEAST).max(1e6),
  cp: Joi.number().min(LEAST).max(1e6),
  thickness_mm: thickness_mm.required(),
})
  .xor('material', 'k')
  .and('k', 'rho', 'cp')
  .unknown(true);

const source = Joi.object({
  kind: Joi.string().valid('plate', 'air', 'pack', 'none').required(),
  temp_C: temp_C.when('kind', { not: 'none', then: Joi.required() }),
  contact_W_m2K: contact.when('kind', { is: Joi.valid('plate', 'pack'), then: Joi.required() }),
  h_W_m2K: h.when('kind', { is: 'air', then: Joi.required() }),
  capacity_J_m2K: Joi.number().greater(0).max(1e12).when('kind', { is: 'pack', then: Joi.required() }),
}).unknown(true);

/** Longest time that can be asked for: some three years. */
const seconds = Joi.number().min(0).max(1e8);

export const heatRequest = Joi.object({
  layers: Joi.array().min(1).max(60).items(layer).required(),
  source: source.required(),
  after: face.required(),
  far: face.required(),
  initial_C: temp_C.required(),
  heat_s: seconds.required(),
  total_s: seconds.greater(0).required(),
  probes: Joi.array()
    .max(60)
    .unique('id')
    .items(
      Joi.object({
        id: id.required(),
        layer: Joi.number().integer().min(0).less(Joi.ref('....layers.length')).required(),
        fraction: Joi.number().min(0).max(1).required(),
      }).unknown(true),
    )
    .required(),
  bond: Joi.object({ probe: id.required(), soften_C: temp_C.required() }).unknown(true),
  limits: Joi.array()
    .max(60)
    .items(Joi.object({ probe: id.required(), max_C: temp_C.required() }).unknown(true)),
})
  .unknown(true)
  .custom((request: HeatRequest, helpers) => {
    const known = new Set(request.probes.map((each) => each.id));
    const asked = [...(request.bond ? [request.bond.probe] : []), ...(request.limits ?? []).map((each) => each.probe)];
    const strange = asked.find((each) => !known.has(each));
    return strange === undefined ? request : helpers.error('probe.none', { probe: strange });
  })
  .messages({ 'probe.none': 'There is no probe {{#probe}} among the probes' });
