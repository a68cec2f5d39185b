import { pathTo, type Problem, wrong } from '@nibrel/core/model/refusal';
import type Joi from 'joi';

/** How long lists may be, and what they hold, as far as a schema says so. */
interface Bounds {
  readonly most?: number;
  readonly items?: readonly Bounds[];
  readonly keys?: ReadonlyMap<string, Bounds>;
  /** several shapes are possible: whatever all of them forbid is too long */
  readonly either?: readonly Bounds[];
}

const known = new WeakMap<Joi.Schema, Bounds>();

/**
 * The first list of a value that is longer than its schema lets it be. Lengths are looked at before shapes: to check a
 * million entries of a list that may have a hundred would keep everybody waiting.
 */
export function lengthProblem(schema: Joi.Schema, value: unknown): Problem | null {
  const bounds = known.get(schema) ?? boundsOf(schema.describe());
  known.set(schema, bounds);
  return tooLong(bounds, value, '');
}

/** What a described schema says of lengths (the part of Joi's description that is used here). */
interface Description {
  readonly type?: string;
  readonly keys?: Readonly<Record<string, Description>>;
  readonly items?: readonly Description[];
  readonly rules?: readonly { readonly name: string; readonly args?: { readonly limit?: unknown } }[];
  readonly matches?: readonly { readonly schema?: Description }[];
}

function boundsOf({ type, keys, items, rules, matches }: Description): Bounds {
  if (type === 'alternatives')
    return { either: (matches ?? []).flatMap(({ schema }) => (schema ? [boundsOf(schema)] : [])) };
  if (type === 'object' && keys)
    return { keys: new Map(Object.entries(keys).map(([key, each]) => [key, boundsOf(each)])) };
  if (type !== 'array') return {};
  const limit = rules?.find(({ name }) => name === 'max')?.args?.limit;
  return { ...(typeof limit === 'number' ? { most: limit } : {}), items: (items ?? []).map(boundsOf) };
}

function tooLong(bounds: Bounds, value: unknown, path: string): Problem | null {
  if (value === null || typeof value !== 'object') return null;
  if (bounds.either) {
    const problems = bounds.either.map((each) => tooLong(each, value, path));
    return problems.length > 0 && problems.every((each) => each !== null) ? problems[0]! : null;
  }
  if (Array.isArray(value)) {
    const { most = MOST_ENTRIES, items = [] } = bounds;
    if (value.length > most) {
      return wrong(path, `${value.length} entries are more than the ${most} that can be taken.`, 'Send fewer.');
    }
    const [item] = items;
    if (!item || !(item.items || item.keys || item.either)) return null;
    for (const [index, each] of value.entries()) {
      const found = tooLong(item, each, `${path}[${index}]`);
      if (found) return found;
    }
    return null;
  }
  for (const [key, each] of bounds.keys ?? []) {
    const found = tooLong(each, (value as Record<string, unknown>)[key], path ? `${path}.${key}` : key);
    if (found) return found;
  }
  return null;
}

/** No list of any request is longer, whatever its schema says. */
const MOST_ENTRIES = 10_000;
/** No request has more lists and objects; the largest map has some 30 000. */
const MOST_OBJECTS = 100_000;

/** A list or an object of a body, and where it stands. */
interface Place {
  readonly value: object;
  readonly key: string | number;
  readonly within: Place | null;
}

/** What is wrong with a body before anybody looks for fields in it: nested too deep, or a list too long for anything. */
export function sizeProblem(body: unknown, mostDeep: number): Problem | null {
  let level: Place[] = isObject(body) ? [{ value: body, key: '', within: null }] : [];
  let count = 0;
  for (let depth = 1; level.length > 0; depth++) {
    const next: Place[] = [];
    const look = (each: unknown, key: string | number, within: Place) => {
      if (isObject(each)) next.push({ value: each, key, within });
    };
    for (const place of level) {
      const { value } = place;
      if (depth > mostDeep)
        return wrong(wayTo(place), `It is nested deeper than ${mostDeep} levels.`, 'Send it flatter.');
      if (!Array.isArray(value)) {
        // a key at a time: thousands of small objects are looked through faster than their keys are listed
        for (const key in value) look((value as Record<string, unknown>)[key], key, place);
      } else if (value.length > MOST_ENTRIES) {
        const message = `${value.length} entries are more than the ${MOST_ENTRIES} that any list may have.`;
        return wrong(wayTo(place), message, 'Send fewer.');
      } else {
        for (let n = 0; n < value.length; n++) look(value[n], n, place);
      }
      if (count + next.length > MOST_OBJECTS) {
        return wrong(wayTo(place), `More than ${MOST_OBJECTS} lists and objects in one request.`, 'Send less.');
      }
    }
    count += next.length;
    level = next;
  }
  return null;
}

/** The way to a place, put together only where something is wrong there. */
function wayTo(place: Place): string {
  const keys: (string | number)[] = [];
  for (let at = place; at.within; at = at.within) keys.unshift(at.key);
  return pathTo(keys);
}

function isObject(value: unknown): value is object {
  return value !== null && typeof value === 'object';
}
