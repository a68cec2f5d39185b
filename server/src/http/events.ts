import { wrong } from '@nibrel/core/model/refusal';
import { MOST_EVENTS } from '@nibrel/core/api';
import type { Context } from 'hono';
import { HttpProblem } from './http-problem.ts';
import { bodyOf } from './route.ts';

/** The events of a call, each still to be checked. */
export async function eventList(
  context: Context,
  name: 'POST /jobs/{id}/events' | 'POST /shop/events',
): Promise<readonly unknown[]> {
  const { events } = await bodyOf(context, name);
  if (events.length > MOST_EVENTS) {
    const many = `A call may bring ${MOST_EVENTS} events at most; this one brings ${events.length}.`;
    throw HttpProblem.at(413, wrong('events', many, 'Send them in parts.'));
  }
  return events;
}
