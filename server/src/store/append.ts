import type { RejectedEvent } from '@nibrel/core/api';
import { eventEnvelope } from '@nibrel/core/job/events';
import { misshapen, type Problem, problemText, wrong } from '@nibrel/core/model/refusal';
import type Joi from 'joi';
import { lengthProblem } from '../sizes/lengths.ts';

/** What is told of the events of a call. */
interface Told {
  readonly accepted: string[];
  readonly duplicate: string[];
  readonly rejected: RejectedEvent[];
}

type Schemas<Event extends AnyEvent> = Readonly<Record<Event['type'], Joi.ObjectSchema>>;

/** What takes events: a job, or the workshop. */
interface EventLog<Event extends AnyEvent> {
  readonly schemas: Schemas<Event>;
  /** what is wrong with the shape of each, where that was found out before; null: nothing */
  readonly checked?: readonly (Problem | null)[];
  /** when this call came in, by the server's clock: ISO 8601 */
  readonly receivedAt: string;
  usesSupplies(type: Event['type']): boolean;
  /** who is signed in, where anybody has to be: an event is told under one's own name */
  readonly signedIn?: string | null;
  /** the event that has this id; `elsewhere` where it belongs to another log */
  known(id: string): Event | 'elsewhere' | null;
  /** takes it into the fold, or says why not */
  take(event: Event): { readonly problem: Problem; readonly needs?: RejectedEvent['needs'] } | null;
  insert(event: Event): void;
  /** one turn of work as one transaction: on the disk when it returns. Returns whether there is more. */
  inTurn(work: () => Turn): boolean;
  /** lets others pass before the next turn */
  letPass(): Promise<unknown>;
}

interface Turn {
  readonly isMore: boolean;
  /** was anything done or undone that uses up supplies? */
  readonly changesSupplies: boolean;
}

/** So long events are worked before others get their turn. */
const TURN_ms = 6;

/**
 * Takes what can be taken, in order. What is known already changes nothing, and is recognised before anything else is
 * looked at; what can't be taken is said with its reason and keeps nothing else from being taken.
 */
export async function appendedInTurns<Event extends AnyEvent>(
  incoming: readonly unknown[],
  log: EventLog<Event>,
): Promise<Told> {
  const told: Told = { accepted: [], duplicate: [], rejected: [] };
  let next = 0;
  const work = (): Turn => {
    const until = performance.now() + TURN_ms;
    let changesSupplies = false;
    // what was worked in a turn that fails is not told
    const before = { accepted: told.accepted.length, duplicate: told.duplicate.length, rejected: told.rejected.length };
    try {
      do {
        const each = incoming[next];
        const type = takeOne(each, log, log.checked?.[next], told);
        if (type !== null && log.usesSupplies(type)) changesSupplies = true;
        next++;
      } while (next < incoming.length && performance.now() < until);
    } catch (error) {
      told.accepted.length = before.accepted;
      told.duplicate.length = before.duplicate;
      told.rejected.length = before.rejected;
      throw error;
    }
    return { isMore: next < incoming.length, changesSupplies };
  };
  while (next < incoming.length && log.inTurn(work)) await log.letPass();
  return told;
}

/** Takes an event or says what became of it; the type of one that was taken. */
function takeOne<Event extends AnyEvent>(
  value: unknown,
  log: EventLog<Event>,
  checked: Problem | null | undefined,
  told: Told,
): Event['type'] | null {
  const id = givenId(value);
  const known = id === '' ? null : log.known(id);
  if (known) {
    if (known !== 'elsewhere' && sameContent(known, value)) told.duplicate.push(id);
    else
      told.rejected.push(
        rejected(id, wrong('id', 'This id is taken by an event with other content.', 'Send it with its own.')),
      );
    return null;
  }
  const problem = checked === undefined ? shapeProblem(log.schemas, value) : checked;
  if (problem !== null) {
    told.rejected.push(rejected(id, problem));
    return null;
  }
  const { type, at, by, data } = value as Event;
  const event = { id, type, at, by, data, receivedAt: log.receivedAt } as unknown as Event;
  if (typeof log.signedIn === 'string' && event.by !== log.signedIn) {
    const other = wrong('by', `${log.signedIn} is signed in here.`, `${event.by} signs in to say this.`);
    told.rejected.push(rejected(id, other));
    return null;
  }
  const refused = log.take(event);
  if (refused) {
    told.rejected.push({ ...rejected(id, refused.problem), ...(refused.needs ? { needs: refused.needs } : {}) });
    return null;
  }
  log.insert(event);
  told.accepted.push(id);
  return event.type;
}

interface AnyEvent {
  readonly id: string;
  readonly type: string;
  readonly at: string;
  readonly by: string;
  readonly data: object;
}

function rejected(id: string, { path, message, cure }: Problem): RejectedEvent {
  const text = problemText({ message, cure });
  return { id, problem: path === '' ? text : `${path}: ${text}`, path, message, cure };
}

/** What is wrong with an event as its schemas have it; null where nothing is. */
export function shapeProblem(schemas: Readonly<Record<string, Joi.ObjectSchema>>, value: unknown): Problem | null {
  const envelope = eventEnvelope.validate(value, { convert: false });
  if (envelope.error) return misshapen(envelope.error)[0]!;
  const { type, data } = value as AnyEvent;
  if (!Object.hasOwn(schemas, type))
    return wrong('type', `There is no event type "${type}".`, 'Name one of docs/http.md.');
  const long = lengthProblem(schemas[type]!, data);
  if (long) return { ...long, path: `data.${long.path}` };
  const { error } = schemas[type]!.validate(data, { convert: false });
  return error ? misshapen(error, 'data')[0]! : null;
}

function givenId(value: unknown): string {
  const id = typeof value === 'object' && value !== null && 'id' in value ? value.id : null;
  return typeof id === 'string' ? id.slice(0, 100) : '';
}

/** The fields that make an event; what else came with it was never kept. */
function sameContent(known: AnyEvent, value: unknown): boolean {
  const given = value as Record<string, unknown>;
  return (['type', 'at', 'by', 'data'] as const).every(
    (key) => canonical((known as unknown as Record<string, unknown>)[key]) === canonical(given[key]),
  );
}

/** The same text for the same content, whatever the order of its keys. */
function canonical(value: unknown): string | undefined {
  return JSON.stringify(value, (_, inner: unknown) =>
    inner && typeof inner === 'object' && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).toSorted(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  );
}
