import Joi from 'joi';
import type { BondJoint } from '../../model/device-map/index.ts';
import {
  isWarmSource,
  type Reach,
  type SourceKind,
  sourceNamed,
  WARM_SOURCES,
  type WarmSource,
} from '../../model/sources/index.ts';
import type { HeatSource } from './heat-request.ts';

/** A source as it is set up on the bench. */
export interface HeatSetting {
  readonly kind: WarmSource;
  readonly temp_C: number;
  /** what the source gives to a face for each degree between them, W/m²K */
  readonly transfer: Reach;
  /** what a pack holds for each degree, J/m²K */
  readonly capacity_J_m2K?: number;
  /** where the transfer comes from: a guess, or a fit with its date and what was left over */
  readonly origin: string;
}

/** A room, and what a bare face gives to it (free convection and radiation, Incropera & DeWitt, ch. 1, from memory). */
export const ROOM_C = 22;
export const BARE_W_m2K = 10;
/** A face that lies on a mat or hangs over the edge of a plate gives less (guess). */
export const FAR_W_m2K = 8;

const GUESS = 'guess';

/** Air from so far away is slower air (guess); a recipe may give its distance. */
const FAR_AIR_mm = 60;
export const FAR_AIR: Reach = { low: 50, likely: 70, high: 100 };

export function usualSetting(kind: WarmSource, temp_C = sourceNamed(kind).temp_C): HeatSetting {
  const { transfer, capacity_J_m2K } = sourceNamed(kind);
  return { kind, temp_C, transfer, origin: GUESS, ...(capacity_J_m2K === undefined ? {} : { capacity_J_m2K }) };
}

/** The setting as the solver takes it, with one transfer out of its reach. */
export function sourceOf({ kind, temp_C, capacity_J_m2K }: HeatSetting, transfer: number): HeatSource {
  const source = sourceNamed(kind);
  switch (source.gives) {
    case 'contact':
      return { kind: 'plate', temp_C, contact_W_m2K: transfer };
    case 'air':
      return { kind: 'air', temp_C, h_W_m2K: transfer };
    case 'stored': {
      const holds = { capacity_J_m2K: capacity_J_m2K ?? source.capacity_J_m2K! };
      return { kind: 'pack', temp_C, contact_W_m2K: transfer, ...holds };
    }
  }
}

const W_m2K = Joi.number().greater(0).max(100_000);

/** The shape of a setting; a low end above the high one is refused. */
export const settingSchema = Joi.object({
  kind: Joi.string()
    .valid(...WARM_SOURCES)
    .required(),
  temp_C: Joi.number().min(-50).max(1000).required(),
  transfer: Joi.object({
    low: W_m2K.required(),
    likely: W_m2K.min(Joi.ref('low')).required(),
    high: W_m2K.min(Joi.ref('likely')).required(),
  }).required(),
  capacity_J_m2K: W_m2K.max(10_000_000),
  origin: Joi.string().max(200).required(),
});

/** On another bond a source lies otherwise: the reach of what was measured is this much wider there (guess). */
const ELSEWHERE = 1.3;

/**
 * The newest source of a kind that was measured at this workshop: on this very bond; else on another, with a wider reach,
 * save hot air, which gives its heat by its distance.
 */
export function measuredSource<
  T extends { readonly setting: HeatSetting; readonly map: string; readonly joint: string },
>(sources: readonly T[], kind: WarmSource, on: { readonly map: string; readonly joint: string }): T | undefined {
  const same = sources.filter(({ setting }) => setting.kind === kind);
  const here = same.findLast(({ map, joint }) => map === on.map && joint === on.joint);
  const elsewhere = kind === 'air' ? undefined : same.at(-1);
  if (here || !elsewhere) return here;
  const { low, likely, high } = elsewhere.setting.transfer;
  const transfer = { low: low / ELSEWHERE, likely, high: high * ELSEWHERE };
  return { ...elsewhere, setting: { ...elsewhere.setting, transfer } };
}

/**
 * How a bond is warmed: by the source of the school, else of its recipe, else a plate; at the recipe's temperature where
 * that is for the same source; with the transfer measured at this workshop where there is one.
 */
export function settingFor(
  bond: Pick<BondJoint, 'recipe'>,
  school: SourceKind | null,
  measured?: { readonly setting: HeatSetting },
): HeatSetting {
  const kind = kindFor(bond, school);
  const recipe = bond.recipe?.source === kind ? bond.recipe : undefined;
  const usual = usualSetting(kind, recipe?.temp_C);
  const isFar = kind === 'air' && (recipe?.distance_mm ?? 0) >= FAR_AIR_mm;
  if (measured?.setting.kind !== kind) return isFar ? { ...usual, transfer: FAR_AIR } : usual;
  return { ...usual, ...measured.setting, temp_C: usual.temp_C };
}

export function kindFor({ recipe }: Pick<BondJoint, 'recipe'>, school: SourceKind | null): WarmSource {
  if (isWarmSource(school)) return school;
  return isWarmSource(recipe?.source) ? recipe.source : 'plate';
}
