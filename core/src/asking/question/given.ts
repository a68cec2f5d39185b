import type { Said } from '../../bench/in-hand/index.ts';
import { type Problem, wrong } from '../../model/refusal/index.ts';
import { type Answer, type AskedField, type Gives, NEW_PART } from './question.ts';

/**
 * What an answer does with what was typed into the question's field.
 * @param typed as it was typed; a comma is a decimal point
 * @param newId of a part that arrives with it
 * @returns a problem with what was typed, or what the answer gives
 */
export function given(
  { gives, takes }: Answer,
  field: AskedField | null,
  typed: string,
  newId: () => string,
): Problem | { readonly gives: Gives } {
  if (!takes || !field) return { gives: withIds(gives, newId) };
  const value = valueOf(field, typed);
  if (value === null) return wrong('', field.cure);
  if (gives.kind === 'mark') return { gives: { ...gives, reason: String(value) } };
  if (gives.kind !== 'say') return { gives };
  const [first, ...rest] = gives.events;
  const scaled = typeof value === 'number' ? value * (takes.factor ?? 1) : value;
  const filled = { ...first, data: withAt(first!.data, takes.name.split('.'), scaled) } as Said;
  return { gives: withIds({ ...gives, events: [filled, ...rest] }, newId) };
}

/** Null where it is missing, no figure, or out of its range. */
function valueOf(
  { kind, least = -Infinity, most = Infinity, isWhole = false }: AskedField,
  typed: string,
): string | number | null {
  const text = typed.trim();
  if (text === '') return null;
  if (kind === 'text') return text;
  const value = Number(text.replace(',', '.'));
  if (!Number.isFinite(value) || (isWhole && !Number.isInteger(value))) return null;
  return value >= least && value <= most ? value : null;
}

/** The same data with a value at a path: *screws*, *0*, *length*. */
function withAt(data: unknown, [name = '', ...rest]: readonly string[], value: string | number): unknown {
  const next = (of: unknown) => (rest.length === 0 ? value : withAt(of, rest, value));
  if (Array.isArray(data)) return data.map((each, at) => (String(at) === name ? next(each) : each));
  return { ...(data as object), [name]: next((data as Readonly<Record<string, unknown>>)[name]) };
}

/** A part that arrives has one id in all that is said of it. */
function withIds(gives: Gives, newId: () => string): Gives {
  if (gives.kind !== 'say') return gives;
  const isNew = ({ data }: Said) => 'part' in data && data.part === NEW_PART;
  if (!gives.events.some(isNew)) return gives;
  const part = newId();
  return {
    ...gives,
    events: gives.events.map((each) => (isNew(each) ? ({ ...each, data: { ...each.data, part } } as Said) : each)),
  };
}
