import Joi from 'joi';
import { type Material, type HeatSetting, settingSchema } from '../../physics/heat/index.ts';
import { isZone } from '../../model/calendar/index.ts';
import { type Policy, policySchema } from '../../model/policy/index.ts';
import { nameSchema } from '../../model/names/index.ts';
import { type Limits, limitsSchema } from '../../model/limits/index.ts';
import { type Role, ROLES, UNNAMED } from './people.ts';

export type StockUnit = 'piece' | 'mm' | 'drop';

/** Something used up, as it lies on the shelf. */
export interface StockItem {
  readonly id: string;
  readonly name: string;
  readonly unit: StockUnit;
  /** what a plan calls it (`supplyKey`), so that it can be counted down */
  readonly key: string;
  /** at this much or less it is low */
  readonly lowAt: number;
}

/** What an event of the workshop says; a job's own are bench events. */
export interface ShopEventData {
  readonly tool: { readonly name: string; readonly owned: boolean };
  readonly item: StockItem;
  /** counted by hand: from here on this is what was there */
  readonly counted: { readonly item: string; readonly quantity: number };
  readonly arrived: { readonly item: string; readonly quantity: number };
  readonly limits: Partial<Limits>;
  readonly schools: Partial<Policy>;
  readonly zone: { readonly zone: string };
  /** somebody who works here, and as what; null: no longer */
  readonly person: { readonly name: string; readonly role: Role | null };
  /** a material of the workshop's own, or its own figures for one that everybody has */
  readonly material: Material;
  /** a heat source whose transfer was measured here */
  readonly source: {
    readonly setting: HeatSetting;
    readonly residual_C: number;
    /** the bond it was measured on */
    readonly map: string;
    readonly joint: string;
    readonly simulated?: boolean;
  };
  /** an open seam dragged at this temperature: what a pick has felt of this bond on this device */
  readonly drag: {
    readonly map: string;
    readonly joint: string;
    readonly temp_C: number;
    readonly simulated?: boolean;
  };
}

export type ShopEventType = keyof ShopEventData;

export type ShopEvent = {
  readonly [Type in ShopEventType]: {
    readonly id: string;
    readonly type: Type;
    /** ISO 8601 */
    readonly at: string;
    readonly by: string;
    readonly data: ShopEventData[Type];
    /** ISO 8601, by the server's clock */
    readonly receivedAt?: string;
  };
}[ShopEventType];

const id = Joi.string().min(1).max(200);
const figure = Joi.number().greater(0);
const quantity = Joi.number().min(0).max(10_000_000);

/** The shape of each type's data. */
export const SHOP_EVENT_DATA: { readonly [Type in ShopEventType]: Joi.ObjectSchema } = {
  tool: Joi.object({ name: id.required(), owned: Joi.boolean().required() }),
  item: Joi.object({
    id: id.required(),
    name: id.required(),
    unit: Joi.string().valid('piece', 'mm', 'drop').required(),
    key: id.required(),
    lowAt: quantity.required(),
  }),
  counted: Joi.object({ item: id.required(), quantity: quantity.required() }),
  arrived: Joi.object({ item: id.required(), quantity: quantity.required() }),
  limits: limitsSchema.min(1),
  schools: policySchema.min(1),
  zone: Joi.object({
    zone: Joi.string()
      .max(100)
      .custom((value: string, helpers) => (isZone(value) ? value : helpers.error('zone.none')))
      .messages({ 'zone.none': '{{#label}} is no time zone; write it as Europe/London' })
      .required(),
  }),
  person: Joi.object({
    name: nameSchema(60).trim().invalid(UNNAMED).required(),
    role: Joi.string()
      .valid(...ROLES, null)
      .required(),
  }),
  material: Joi.object({
    id: Joi.string().trim().min(1).max(60).required(),
    k: figure.max(10_000).required(),
    rho: figure.max(30_000).required(),
    cp: figure.max(20_000).required(),
    kInPlane: figure.max(10_000),
    source: Joi.string().trim().min(1).max(200).required(),
  }),
  source: Joi.object({
    setting: settingSchema.required(),
    residual_C: Joi.number().min(0).max(1000).required(),
    map: id.required(),
    joint: id.required(),
    simulated: Joi.boolean(),
  }),
  drag: Joi.object({
    map: id.required(),
    joint: id.required(),
    temp_C: Joi.number().min(-50).max(300).required(),
    simulated: Joi.boolean(),
  }),
};
