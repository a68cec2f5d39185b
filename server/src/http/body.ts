import type { Context } from 'hono';
import { misshapen, type Problem, problemText, wrong } from '@nibrel/core/model/refusal';
import type Joi from 'joi';
import { lengthProblem, sizeProblem } from '../sizes/lengths.ts';
import { HttpProblem } from './http-problem.ts';

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
  if (type !== 'application/json') throw new HttpProblem(415, 'Send application/json.');
  return context.req.text();
}

/** @throws HttpProblem where it is no JSON, or nothing that anybody has to look through */
export function parsedJson(text: string): unknown {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw HttpProblem.at(400, wrong('', `The body is not JSON: ${(error as Error).message}.`, 'Send JSON (RFC 8259).'));
  }
  const problem = sizeProblem(value, MOST_DEPTH);
  if (problem) throw new HttpProblem(422, `The body can not be taken: ${problem.message}`, [problem]);
  return value;
}

export function tooLarge(limit: number): HttpProblem {
  const problem = wrong('', `A request may have ${limit / 1024 / 1024} MB at most.`, 'Send less at once.');
  return HttpProblem.at(413, problem, { connection: 'close' });
}

/** The value as its schema has it; a 422 that names every field at fault where it is not. */
export function valid<T>(schema: Joi.Schema, value: unknown): T {
  const long = lengthProblem(schema, value);
  if (long) throw new HttpProblem(422, `${long.path}: ${problemText(long)}`, [long]);
  const { error } = schema.validate(value, { abortEarly: false, convert: false });
  if (error) throw new HttpProblem(422, 'Some fields can not be taken.', told(error));
  return value as T;
}

/** So many fields are named; a broken body need not list every one. */
const MOST_TOLD = 100;

/** The fields that a schema found at fault. */
export function told(error: Joi.ValidationError): Problem[] {
  return misshapen({ details: error.details.slice(0, MOST_TOLD) });
}

/** So large a body is checked in a thread of its own. */
const LARGE_BYTES = 100 * 1024;

/** Is this a body that is not checked beside other people's requests? One that does not say how long it is, is. */
export function isLarge(context: Context): boolean {
  const length = context.req.header('content-length');
  return length === undefined || Number(length) > LARGE_BYTES;
}
