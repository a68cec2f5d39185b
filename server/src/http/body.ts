import type { Context } from 'hono';
import type Joi from 'joi';
import { type FieldError, Problem } from './problem.ts';

/** Most bytes of one request (contract.md). */
const MOST_BYTES = 2 * 1024 * 1024;
const MOST_DEPTH = 40;

/** The JSON body of a request: 415, 413, 400 or 422 where there is none that can be taken. */
export async function jsonBody(context: Context): Promise<unknown> {
  const type = context.req.header('content-type')?.split(';')[0]?.trim().toLowerCase() ?? '';
  if (type !== 'application/json') throw new Problem(415, 'Send application/json.');
  const text = Buffer.from(await bytesWithin(context, MOST_BYTES)).toString('utf8');
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new Problem(400, `The body is not JSON: ${(error as Error).message}`);
  }
  if (deeperThan(value, MOST_DEPTH)) throw new Problem(422, `The body is nested deeper than ${MOST_DEPTH} levels.`);
  return value;
}

/** The body as it came, up to a limit: 413 beyond it, whether or not its length was announced. */
export async function bytesWithin(context: Context, limit: number): Promise<Uint8Array> {
  if (Number(context.req.header('content-length') ?? 0) > limit) throw tooLarge(limit);
  const chunks: Uint8Array[] = [];
  let size = 0;
  const stream = context.req.raw.body;
  if (!stream) return new Uint8Array();
  for await (const chunk of stream as unknown as AsyncIterable<Uint8Array>) {
    size += chunk.byteLength;
    if (size > limit) throw tooLarge(limit);
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

function tooLarge(limit: number): Problem {
  return new Problem(413, `A request may have ${limit / 1024 / 1024} MB at most.`, [], { connection: 'close' });
}

function deeperThan(value: unknown, depth: number): boolean {
  let level = [value];
  for (let at = 0; level.length > 0; at++) {
    if (at > depth) return true;
    level = level.flatMap((each) => (each && typeof each === 'object' ? Object.values(each) : []));
  }
  return false;
}

/** The value as its schema has it; a 422 that names every field at fault where it is not. */
export function valid<T>(schema: Joi.Schema, value: unknown): T {
  const { error } = schema.validate(value, { abortEarly: false, convert: false });
  if (error) throw new Problem(422, 'Some fields can not be taken.', fieldErrors(error));
  return value as T;
}

export function fieldErrors(error: Joi.ValidationError, within = ''): FieldError[] {
  return error.details.slice(0, 100).map((detail) => ({
    path: [within, pathOf(detail.path)].filter(Boolean).join('.'),
    message: `${detail.message.replaceAll('"', '')}.`,
  }));
}

function pathOf(path: readonly (string | number)[]): string {
  return path.reduce<string>(
    (text, step) => (typeof step === 'number' ? `${text}[${step}]` : text ? `${text}.${step}` : step),
    '',
  );
}
