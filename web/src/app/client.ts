import type { BenchEvent, Job } from '@nibrel/core/bench';
import type { CalendarDate } from '@nibrel/core/calendar';
import type { DeviceMap } from '@nibrel/core/device-map';
import type { Material } from '@nibrel/core/heat';
import type { RegistryAnswer, Verdict } from '@nibrel/core/identity';
import type { Finding } from '@nibrel/core/map-check';
import type { DeskPart } from '@nibrel/core/parts';
import type { Policy, Target } from '@nibrel/core/plan';
import type { Counts } from '@nibrel/core/screws';
import type { Limits, MeasuredSource, ShopEvent, StockLevel } from '@nibrel/core/shop';

/** The server's HTTP types, as far as the interface uses them. */
export interface MapLine {
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly revision: number;
}

export type JobLine = Omit<Job, 'revision'> & {
  readonly mapRevision: number;
  readonly status: 'new' | 'under-way' | 'paused' | 'stopped' | 'finished' | 'ended';
  readonly stopped: { readonly reason: string; readonly text: string; readonly at: string; readonly by: string } | null;
  readonly ended: { readonly text: string; readonly lead: string; readonly at: string } | null;
  readonly finishedAt: string | null;
  readonly lastAt: string | null;
  readonly screws: Counts;
  /** how many events the job has */
  readonly revision: number;
};

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
  Verdict & {
    readonly job: string;
    readonly jobTitle: string;
    readonly map: string;
    readonly mapName: string;
    readonly mapRevision: number;
    readonly name: string;
    readonly accepted: boolean;
    readonly returnBy: CalendarDate;
    readonly daysLeft: number;
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
  jobs: () => call<{ jobs: JobLine[] }>('GET', '/jobs').then(({ jobs }) => jobs),
  job: (id: string) => call<JobLine>('GET', `/jobs/${encodeURIComponent(id)}`),
  addJob: (job: NewJob) => call<JobLine>('POST', '/jobs', job),
  events: (id: string) =>
    call<{ events: BenchEvent[]; revision: number }>('GET', `/jobs/${encodeURIComponent(id)}/events`),
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

/** A job line as the core knows a job. */
export function jobOf(line: JobLine): Job {
  const { mapRevision, ...rest } = line;
  return { ...rest, revision: mapRevision };
}
