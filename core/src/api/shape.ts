import Joi from 'joi';

type OptionalKeys<T> = { [Key in keyof T]-?: object extends Pick<T, Key> ? Key : never }[keyof T];
type RequiredKeys<T> = Exclude<keyof T, OptionalKeys<T>>;

/**
 * The schema of a type: it names every field of it and no other, those that may be left out apart, or it does not
 * compile.
 */
export function shape<T extends object>(
  required: Readonly<Record<RequiredKeys<T>, Joi.Schema>>,
  ...[optional]: [OptionalKeys<T>] extends [never] ? [] : [Readonly<Record<OptionalKeys<T>, Joi.Schema>>]
): Joi.ObjectSchema<T> {
  const fields = Object.entries<Joi.Schema>(required).map(([key, schema]) => [key, schema.required()] as const);
  const all: Joi.SchemaMap = { ...Object.fromEntries(fields), ...(optional as Joi.SchemaMap | undefined) };
  return Joi.object(all) as Joi.ObjectSchema<T>;
}

/** Stands for a schema that the description has under its name; as a request it is looked at elsewhere. */
export function named(name: string): Joi.Schema {
  return Joi.any().description(`${NAMED}${name}`);
}

export const NAMED = '#/components/schemas/';

export const text = Joi.string().allow('');
export const figure = Joi.number();
export const count = Joi.number().integer();
export const yes = Joi.boolean();
export const moment = Joi.string().isoDate();
export const date = Joi.string().pattern(/^\d{4}-\d{2}-\d{2}$/);
export const listOf = (schema: Joi.Schema) => Joi.array().items(schema);
export const oneOf = (...values: readonly (string | null)[]) => Joi.valid(...values);
