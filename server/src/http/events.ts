import type { Context } from 'hono';
import Joi from 'joi';
import { jsonBody, valid } from './body.ts';
import { Problem } from './problem.ts';

/** Most events of one call (contract.md). */
const MOST_EVENTS = 1000;

const callSchema = Joi.object({ events: Joi.array().required() }).unknown(true);

/** The events of a call, each still to be checked. */
export async function eventList(context: Context): Promise<unknown[]> {
  const body = await jsonBody(context);
  const { events } = valid<{ events: unknown[] }>(callSchema, body);
  if (events.length > MOST_EVENTS) {
    const many = `A call may bring ${MOST_EVENTS} events at most; this one brings ${events.length}. Send them in parts.`;
    throw new Problem(413, many, [{ path: 'events', message: many }]);
  }
  return events;
}
