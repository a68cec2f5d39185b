import { eventEnvelope } from '@nibrel/core/bench';
import type Joi from 'joi';

/** What became of the events of one call (contract.md). */
export interface Appended {
  readonly accepted: string[];
  readonly duplicate: string[];
  readonly rejected: { readonly id: string; readonly problem: string }[];
  readonly revision: number;
}

/** What takes events: a job, or the workshop. */
interface EventLog<Event extends AnyEvent> {
  readonly schemas: Readonly<Record<Event['type'], Joi.ObjectSchema>>;
  /** the event that has this id; `elsewhere` where it belongs to another log */
  known(id: string): Event | 'elsewhere' | null;
  /** takes it into the fold, or says why not */
  take(event: Event): { readonly problem: string } | null;
  insert(event: Event): void;
}

/**
 * Takes what can be taken, in order. What is known already changes nothing; what can't be taken is said with its reason
 * and keeps nothing else from being taken.
 */
export function appended<Event extends AnyEvent>(
  incoming: readonly unknown[],
  log: EventLog<Event>,
): Omit<Appended, 'revision'> {
  const accepted: string[] = [];
  const duplicate: string[] = [];
  const rejected: Appended['rejected'] = [];
  for (const each of incoming) {
    const checked = checkedEvent<Event>(log.schemas, each);
    if ('problem' in checked) {
      rejected.push(checked);
      continue;
    }
    const { event } = checked;
    const known = log.known(event.id);
    if (known) {
      if (known !== 'elsewhere' && sameContent(known, event)) duplicate.push(event.id);
      else rejected.push({ id: event.id, problem: 'This id is taken by an event with other content.' });
      continue;
    }
    const refused = log.take(event);
    if (refused) {
      rejected.push({ id: event.id, problem: refused.problem });
      continue;
    }
    log.insert(event);
    accepted.push(event.id);
  }
  return { accepted, duplicate, rejected };
}

interface AnyEvent {
  readonly id: string;
  readonly type: string;
  readonly data: object;
}

/** An event as its schemas have it, or what is wrong with it. */
function checkedEvent<Event extends AnyEvent>(
  schemas: Readonly<Record<Event['type'], Joi.ObjectSchema>>,
  value: unknown,
): { event: Event } | { id: string; problem: string } {
  const id = givenId(value);
  const envelope = eventEnvelope.validate(value, { convert: false });
  if (envelope.error) return { id, problem: envelope.error.message };
  const event = value as Event;
  if (!Object.hasOwn(schemas, event.type)) return { id, problem: `There is no event type "${event.type}".` };
  const data = schemas[event.type as Event['type']].validate(event.data, { convert: false });
  return data.error ? { id, problem: `data: ${data.error.message}` } : { event };
}

function givenId(value: unknown): string {
  const id = typeof value === 'object' && value !== null && 'id' in value ? value.id : null;
  return typeof id === 'string' ? id.slice(0, 100) : '';
}

function sameContent(a: AnyEvent, b: AnyEvent): boolean {
  return canonical(a) === canonical(b);
}

/** The same text for the same content, whatever the order of its keys. */
function canonical(value: unknown): string {
  return JSON.stringify(value, (_, inner: unknown) =>
    inner && typeof inner === 'object' && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).toSorted(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  );
}
