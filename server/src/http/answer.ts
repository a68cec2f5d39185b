import type { Context } from 'hono';

/** Answers with JSON that is text already, so that it is not parsed and written once more. */
export function jsonAnswer(
  context: Context,
  json: string | Uint8Array<ArrayBuffer>,
  status: 200 | 201 = 200,
  headers: Readonly<Record<string, string>> = {},
): Response {
  return context.body(json, status, { 'content-type': 'application/json', ...headers });
}
