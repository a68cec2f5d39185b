import type Joi from 'joi';

/**
 * What is true of every event of a type, whatever it says. Judge, fold, undo and docs read it; a type without a row does
 * not compile.
 */
export interface EventRow {
  /** the shape of its data */
  readonly data: Joi.ObjectSchema;
  /** what it tells, for who reads the docs */
  readonly tells: string;
  /** may it be told while a stop holds? `as-undone`: where what it takes back may be told then */
  readonly inStop: boolean | 'as-undone';
  /** may it be dated before the repair was taken in? What was written or photographed then, may */
  readonly beforeJob: boolean;
  /** may it be told of a repair that is finished? */
  readonly finished: boolean;
  /** of one that was handed over; `by-lead`: it changes what was recorded */
  readonly handedOver: boolean | 'by-lead';
  /** of one that has ended where it stood */
  readonly ended: boolean;
  /** what an undo does with it: takes it back, passes it over as said beside the work, or stops at it, as it can't be undone */
  readonly undo: 'takes-back' | 'passes-over' | 'stops-at';
  /** is the plan made anew after it? `as-it-says`: that depends on its data; `by-plan`: where it is not what came next */
  readonly turnsPlan: boolean | 'as-it-says' | 'by-plan';
  /** does it tell what the device is made of, so that its map becomes another? */
  readonly tellsMap?: true;
  /** does it use up supplies, or give them back? */
  readonly usesSupplies: boolean;
  /** who may say it; `lead-once-begun`: anybody, until something was done to the device or a stop holds */
  readonly saidBy: 'anyone' | 'lead' | 'lead-once-begun';
}

/** A row less its shape and its words. */
type Rule = Omit<EventRow, 'data' | 'tells'>;

/** Goes on with the work, or decides how: it waits while a stop holds, and is over once the repair is finished. */
export const WORK: Rule = {
  inStop: false,
  beforeJob: false,
  finished: false,
  handedOver: false,
  ended: false,
  undo: 'takes-back',
  turnsPlan: true,
  usesSupplies: false,
  saidBy: 'anyone',
};

/** The same, and the plan stays as it is. */
export const WORK_BESIDE: Rule = { ...WORK, turnsPlan: false };

/** What was seen, measured or written down: a stop is the moment to tell it. */
export const SEEN: Rule = { ...WORK, inStop: true };

/** Told at any moment of a repair, also afterwards: it adds to the record and changes nothing of it. */
export const ADDED: Rule = {
  ...SEEN,
  beforeJob: true,
  finished: true,
  handedOver: true,
  undo: 'passes-over',
  turnsPlan: false,
};

/** Heat and solvent: the device is warm and the vapour is in the air whatever the record says, so nothing undoes them. */
export const PHYSICS: Rule = { ...WORK, undo: 'stops-at' };

/** The rows of some types. */
export type EventRows<Data> = { readonly [Type in keyof Data]: EventRow };

/** Their shapes alone. */
export function shapesOf<Type extends string>(rows: Readonly<Record<Type, EventRow>>): Record<Type, Joi.ObjectSchema> {
  const entries = Object.entries<EventRow>(rows).map(([type, { data }]) => [type, data] as const);
  return Object.fromEntries(entries) as Record<Type, Joi.ObjectSchema>;
}
