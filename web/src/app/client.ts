import type { BenchEvent, Job } from '@nibrel/core/bench';
import type { DeviceMap } from '@nibrel/core/device-map';
import type { Finding } from '@nibrel/core/map-check';
import type { Policy, Target } from '@nibrel/core/plan';
import type { Counts } from '@nibrel/core/screws';

/** The server's HTTP types, as far as the interface uses them. */
export interface MapLine {
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly revision: number;
}

export type JobLine = Omit<Job, 'revision'> & {
  readonly mapRevision: number;
  readonly status: 'new' | 'under-way' | 'paused' | 'stopped' | 'finished';
  readonly stopped: { readonly reason: string; readonly text: string; readonly at: string; readonly by: string } | null;
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

async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const response = await fetch(`/api/v1${path}`, {
    method,
    ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
  }).catch(() => {
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
};

/** A job line as the core knows a job. */
export function jobOf(line: JobLine): Job {
  const { mapRevision, ...rest } = line;
  return { ...rest, revision: mapRevision };
}
