import type { JobLine, NewJob, RouteName, Routes } from '@nibrel/core/api';
import type { BenchEvent, Job } from '@nibrel/core/job/events';
import type { Problem } from '@nibrel/core/model/refusal';
import type { ShopEvent } from '@nibrel/core/workshop/shop';
import { useSettings } from './settings.ts';

/** A refusal from the server, with the fields at fault. */
export class Refused extends Error {
  readonly status: number;
  readonly errors: readonly Problem[];
  constructor(status: number, message: string, errors: readonly Problem[]) {
    super(message);
    this.name = 'Refused';
    this.status = status;
    this.errors = errors;
  }
}

/** The server did not answer at all. */
export class Unreachable extends Error {
  constructor() {
    super('The server does not answer.');
    this.name = 'Unreachable';
  }
}

type BodyOf<Name extends RouteName> = Routes[Name] extends { body: infer Body } ? { readonly body: Body } : object;
type QueryOf<Name extends RouteName> = Routes[Name] extends { query: infer Query }
  ? { readonly query?: Query }
  : object;

interface Asking {
  /** what stands in the path, by its name there */
  readonly of?: Readonly<Record<string, string>>;
  readonly body?: unknown;
  readonly query?: object;
  readonly signal?: AbortSignal;
}

/** Asks a route; what it takes and answers is told by its name (`Routes`). @throws Refused, Unreachable */
function call<Name extends RouteName>(
  name: Name,
  asking: BodyOf<Name> & QueryOf<Name> & Pick<Asking, 'of' | 'signal'>,
): Promise<Routes[Name]['answer']> {
  const [method, path] = name.split(' ') as [string, string];
  const { of = {}, body, query, signal } = asking as Asking;
  const address = path.replaceAll(/\{(\w+)\}/g, (_, key: string) => encodeURIComponent(of[key] ?? ''));
  const json =
    body === undefined
      ? {}
      : { body: JSON.stringify(body), headers: { 'content-type': 'application/json', ...whoIsHere() } };
  return sent(address + asked(query), { method, ...json, ...(signal ? { signal } : {}) });
}

/** Who makes a map or takes in a repair: said with it, since what is sent says nothing of it. */
function whoIsHere(): { 'nibrel-person'?: string } {
  const { person } = useSettings.getState();
  return person ? { 'nibrel-person': encodeURIComponent(person) } : {};
}

async function sent<T>(path: string, request: RequestInit): Promise<T> {
  const response = await fetch(`/api/v1${path}`, request).catch(() => {
    throw new Unreachable();
  });
  if (response.status === 204) return undefined as T;
  const answer = (await response.json().catch(() => null)) as { detail?: string; errors?: Problem[] } | null;
  if (!response.ok) {
    throw new Refused(
      response.status,
      answer?.detail ?? `The server answered ${response.status}.`,
      answer?.errors ?? [],
    );
  }
  return answer as T;
}

/** A query string of what is given. */
function asked(query: object = {}): string {
  const given = Object.entries(query).flatMap(([key, value]) => (value === undefined ? [] : [[key, String(value)]]));
  return given.length > 0 ? `?${new URLSearchParams(given).toString()}` : '';
}

export const api = {
  maps: () => call('GET /device-maps', {}).then(({ maps }) => maps),
  map: (id: string, revision?: number) => call('GET /device-maps/{id}', { of: { id }, query: { revision } }),
  addMap: (map: unknown) => call('POST /device-maps', { body: map }),
  replaceMap: (id: string, map: unknown) => call('PUT /device-maps/{id}', { of: { id }, body: map }),
  checkMap: (map: unknown) => call('POST /device-maps/check', { body: map }),
  jobs: (query: Routes['GET /jobs']['query'] = {}) => call('GET /jobs', { query }).then(({ jobs }) => jobs),
  job: (id: string) => call('GET /jobs/{id}', { of: { id } }),
  addJob: (job: NewJob) => call('POST /jobs', { body: job }),
  /** those after the first so many */
  events: (id: string, after = 0) =>
    call('GET /jobs/{id}/events', { of: { id }, query: { after: after || undefined } }),
  append: (id: string, events: readonly BenchEvent[]) =>
    call('POST /jobs/{id}/events', { of: { id }, body: { events } }),
  shop: () => call('GET /shop', {}),
  tellShop: (events: readonly ShopEvent[]) => call('POST /shop/events', { body: { events } }),
  parts: () => call('GET /parts', {}).then(({ parts }) => parts),
  session: () => call('GET /session', {}),
  signIn: (person: string, password: string) => call('POST /session', { body: { person, password } }),
  leads: () => call('GET /lead', {}),
  confirmLead: (body: Routes['POST /lead']['body']) => call('POST /lead', { body }),
  signOut: () => call('DELETE /session', {}),
  askRegistry: (number: string, signal: AbortSignal) => call('POST /stand-ins/registry', { body: { number }, signal }),
  addPhoto: (job: string, photo: Blob) =>
    sent<Routes['POST /jobs/{id}/photos']['answer']>(`/jobs/${encodeURIComponent(job)}/photos`, {
      method: 'POST',
      body: photo,
      headers: { 'content-type': photo.type },
    }),
};

export function photoUrl(job: string, hash: string): string {
  return `/api/v1/jobs/${encodeURIComponent(job)}/photos/${hash}`;
}

/** A job line as the core knows a job. */
export function jobOf(line: JobLine): Job {
  const { mapRevision, ...rest } = line;
  return { ...rest, revision: mapRevision };
}
