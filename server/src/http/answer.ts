import type { Context } from 'hono';

/** JSON that is written already: nobody reads and writes it again. */
export function jsonAnswer(
  context: Context,
  json: string | Uint8Array<ArrayBuffer>,
  status: 200 | 201 = 200,
  headers: Readonly<Record<string, string>> = {},
): Response {
  return context.body(json, status, { 'content-type': 'application/json', ...headers });
}
