import type { BenchEvent, BenchUse, Job, Stop } from '@nibrel/core/job';
import type { CalendarDate } from '@nibrel/core/calendar';
import type { DeviceMap } from '@nibrel/core/device-map';
import type { Material } from '@nibrel/core/heat';
import type { RegistryAnswer } from '@nibrel/core/identity';
import type { Finding } from '@nibrel/core/map-check';
import type { DeskPart, DeskStanding } from '@nibrel/core/parts';
import type { Policy } from '@nibrel/core/policy';
import type { Target } from '@nibrel/core/search';
import type { Counts } from '@nibrel/core/screws';
import type { Limits } from '@nibrel/core/limits';
import type { MeasuredSource, Role, ShopEvent, StockLevel } from '@nibrel/core/shop';

/** The server's HTTP types, as far as the interface uses them. */
export interface MapLine {
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly revision: number;
}

export type JobLine = Omit<Job, 'revision'> & {
  readonly mapRevision: number;
  readonly status: 'new' | 'under-way' | 'paused' | 'stopped' | 'finished' | 'ended' | 'unreadable';
  readonly stopped: Stop | null;
  readonly stops: readonly Stop[];
  readonly ended: { readonly text: string; readonly lead: string; readonly at: string } | null;
  readonly finishedAt: string | null;
  readonly lastAt: string | null;
  readonly screws: Counts;
  /** how many events the job has */
  readonly revision: number;
  /** the last repair of the same device, where it was stopped */
  readonly before: BeforeThis | null;
  /** what comes next; null until a thread has found it out */
  readonly next: {
    readonly op: string | null;
    readonly title: string;
    readonly handsOn_s: number;
    readonly waiting_s: number;
  } | null;
  /** why it can't be read, where it can't */
  readonly unreadable?: string;
};

export interface BeforeThis {
  readonly job: string;
  readonly title: string;
  readonly reason: string;
  readonly text: string;
  readonly at: string;
  readonly clearedBy: string | null;
}

export interface Person {
  readonly name: string;
  readonly role: Role;
}

/** Who is signed in, where the server is reached over a network; `needed` is false where it is not. */
export interface SignedIn {
  readonly needed: boolean;
  readonly person: string | null;
  readonly role: Role | null;
}

export interface NewJob {
  readonly map: string;
  readonly targets: readonly Target[];
  readonly policy: Partial<Policy>;
  readonly title: string;
  readonly owner: string;
  readonly serial: string;
  readonly colour: string;
}

export interface Appended {
  readonly accepted: readonly string[];
  readonly duplicate: readonly string[];
  readonly rejected: readonly { readonly id: string; readonly problem: string }[];
  readonly revision: number;
}

/** The workshop as it stands. */
export interface ShopNow {
  readonly tools: readonly string[];
  readonly people: readonly Person[];
  /** benches where a source is on or solvent was not aired, over all repairs */
  readonly benches: readonly { readonly bench: string; readonly use: BenchUse }[];
  readonly stock: readonly StockLevel[];
  readonly limits: Limits;
  readonly schools: Partial<Policy>;
  readonly zone: string;
  /** everybody's, with the workshop's own figures in their place */
  readonly materials: readonly Material[];
  /** heat sources measured here, the newest last */
  readonly sources: readonly MeasuredSource[];
  /** the day it is in that zone */
  readonly today: CalendarDate;
  readonly revision: number;
  /** instruments that stand in for real ones are there */
  readonly standIns: boolean;
}

/** A part at the desk, with the job it is for and what is to be thought of it. */
export type PartLine = DeskPart &
  DeskStanding & {
    readonly job: string;
    readonly jobTitle: string;
    readonly map: string;
    readonly mapName: string;
    readonly mapRevision: number;
    readonly name: string;
    readonly simulated: boolean;
  };

export interface StoredPhoto {
  readonly hash: string;
  readonly type: string;
  readonly width: number;
  readonly height: number;
}

export interface RegistrySaid {
  readonly answer: RegistryAnswer;
  readonly at: string;
  readonly where: string;
  readonly simulated: boolean;
}

/** A refusal from the server, with the fields at fault. */
export class Refused extends Error {
  readonly status: number;
  readonly errors: readonly Finding[];
  constructor(status: number, message: string, errors: readonly Finding[]) {
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

function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const json = { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } };
  return sent<T>(path, { method, ...(body === undefined ? {} : json) });
}

async function sent<T>(path: string, request: RequestInit): Promise<T> {
  const response = await fetch(`/api/v1${path}`, request).catch(() => {
    throw new Unreachable();
  });
  if (response.status === 204) return undefined as T;
  const answer = (await response.json().catch(() => null)) as { detail?: string; errors?: Finding[] } | null;
  if (!response.ok) {
    throw new Refused(
      response.status,
      answer?.detail ?? `The server answered ${response.status}.`,
      answer?.errors ?? [],
    );
  }
  return answer as T;
}

export const api = {
  maps: () => call<{ maps: MapLine[] }>('GET', '/device-maps').then(({ maps }) => maps),
  map: (id: string, revision?: number) =>
    call<DeviceMap>('GET', `/device-maps/${encodeURIComponent(id)}${revision ? `?revision=${revision}` : ''}`),
  addMap: (map: unknown) => call<{ id: string; warnings: Finding[] }>('POST', '/device-maps', map),
  replaceMap: (id: string, map: unknown) =>
    call<{ id: string; warnings: Finding[] }>('PUT', `/device-maps/${encodeURIComponent(id)}`, map),
  checkMap: (map: unknown) => call<{ errors: Finding[]; warnings: Finding[] }>('POST', '/device-maps/check', map),
  jobs: (which: { open?: boolean; finished?: boolean; limit?: number } = {}) =>
    call<{ jobs: JobLine[] }>('GET', `/jobs${asked(which)}`).then(({ jobs }) => jobs),
  session: () => call<SignedIn>('GET', '/session'),
  signIn: (person: string, password: string) => call<SignedIn>('POST', '/session', { person, password }),
  signOut: () => call<void>('DELETE', '/session'),
  job: (id: string) => call<JobLine>('GET', `/jobs/${encodeURIComponent(id)}`),
  addJob: (job: NewJob) => call<JobLine>('POST', '/jobs', job),
  /** those after the first so many */
  events: (id: string, after = 0) =>
    call<{ events: BenchEvent[]; revision: number }>(
      'GET',
      `/jobs/${encodeURIComponent(id)}/events${asked({ after: after || undefined })}`,
    ),
  append: (id: string, events: readonly BenchEvent[]) =>
    call<Appended>('POST', `/jobs/${encodeURIComponent(id)}/events`, { events }),
  shop: () => call<ShopNow>('GET', '/shop'),
  tellShop: (events: readonly ShopEvent[]) => call<Appended>('POST', '/shop/events', { events }),
  parts: () => call<{ parts: PartLine[] }>('GET', '/parts').then(({ parts }) => parts),
  addPhoto: (job: string, photo: Blob) =>
    sent<StoredPhoto>(`/jobs/${encodeURIComponent(job)}/photos`, {
      method: 'POST',
      body: photo,
      headers: { 'content-type': photo.type },
    }),
  askRegistry: (number: string, signal: AbortSignal) =>
    sent<RegistrySaid>('/stand-ins/registry', {
      method: 'POST',
      body: JSON.stringify({ number }),
      headers: { 'content-type': 'application/json' },
      signal,
    }),
};

export function photoUrl(job: string, hash: string): string {
  return `/api/v1/jobs/${encodeURIComponent(job)}/photos/${hash}`;
}

/** A query string of what is given. */
function asked(query: Readonly<Record<string, string | number | boolean | undefined>>): string {
  const given = Object.entries(query).flatMap(([key, value]) => (value === undefined ? [] : [[key, String(value)]]));
  return given.length > 0 ? `?${new URLSearchParams(given).toString()}` : '';
}

/** A job line as the core knows a job. */
export function jobOf(line: JobLine): Job {
  const { mapRevision, ...rest } = line;
  return { ...rest, revision: mapRevision };
}
