import type { Context } from 'hono';
import type Joi from 'joi';
import { type FieldError, lengthProblem, sizeProblem } from '../sizes/lengths.ts';
import { Problem } from './problem.ts';

/** Most bytes of one request (docs/http.md). */
export const MOST_BYTES = 2 * 1024 * 1024;
const MOST_DEPTH = 40;

/** The JSON body of a request: 415, 413, 400 or 422 where there is none that can be taken. */
export async function jsonBody(context: Context): Promise<unknown> {
  return parsedJson(await jsonText(context));
}

/** A body as it came, where it is large: whoever works on it reads it, so that nobody else waits; else what it says. */
export async function bodyOrText(context: Context): Promise<{ body: unknown } | { text: string }> {
  const text = await jsonText(context);
  return text.length > LARGE_BYTES ? { text } : { body: parsedJson(text) };
}

async function jsonText(context: Context): Promise<string> {
  const type = context.req.header('content-type')?.split(';')[0]?.trim().toLowerCase() ?? '';
  if (type !== 'application/json') throw new Problem(415, 'Send application/json.');
  return context.req.text();
}

/** @throws Problem where it is no JSON, or nothing that anybody has to look through */
export function parsedJson(text: string): unknown {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new Problem(400, `The body is not JSON: ${(error as Error).message}`, [
      { path: 'body', message: 'Send JSON (RFC 8259).' },
    ]);
  }
  const problem = sizeProblem(value, MOST_DEPTH);
  if (problem) throw new Problem(422, `The body can not be taken: ${problem.message}`, [problem]);
  return value;
}

export function tooLarge(limit: number): Problem {
  const message = `A request may have ${limit / 1024 / 1024} MB at most.`;
  return new Problem(413, message, [{ path: 'body', message }], { connection: 'close' });
}

/** The value as its schema has it; a 422 that names every field at fault where it is not. */
export function valid<T>(schema: Joi.Schema, value: unknown): T {
  const long = lengthProblem(schema, value);
  if (long) throw new Problem(422, `${long.path}: ${long.message}`, [long]);
  const { error } = schema.validate(value, { abortEarly: false, convert: false });
  if (error) throw new Problem(422, 'Some fields can not be taken.', fieldErrors(error));
  return value as T;
}

export function fieldErrors(error: Joi.ValidationError, within = ''): FieldError[] {
  return error.details.slice(0, 100).map((detail) => ({
    path: [within, pathOf(detail.path)].filter(Boolean).join('.') || 'body',
    message: `${detail.message.replaceAll('"', '')}.`,
  }));
}

function pathOf(path: readonly (string | number)[]): string {
  return path.reduce<string>(
    (text, step) => (typeof step === 'number' ? `${text}[${step}]` : text ? `${text}.${step}` : step),
    '',
  );
}

/** So large a body is checked in a thread of its own. */
const LARGE_BYTES = 100 * 1024;

/** Is this a body that is not checked beside other people's requests? One that does not say how long it is, is. */
export function isLarge(context: Context): boolean {
  const length = context.req.header('content-length');
  return length === undefined || Number(length) > LARGE_BYTES;
}
