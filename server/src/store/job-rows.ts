import type { Job } from '@nibrel/core/job/events';
import type { KeptJob } from './folded.ts';
import type { jobs } from './schema.ts';
import { sumOf } from './sum.ts';

type Row = typeof jobs.$inferSelect;

function sumOfJob(row: Omit<Row, 'sum'>): string {
  const { id, map, revision, targets, policy, title, owner, serial, colour, limits, createdAt, by } = row;
  return sumOf(id, map, revision, targets, policy, title, owner, serial, colour, limits, createdAt, by);
}

/** A job as it lies in its table, with the sum of what it says. */
export function rowOf(job: Job): Row {
  const { owner = null, serial = null, colour = null, by = null } = job;
  const row = {
    ...job,
    targets: JSON.stringify(job.targets),
    policy: JSON.stringify(job.policy),
    limits: job.limits ? JSON.stringify(job.limits) : null,
    owner,
    serial,
    colour,
    by,
  };
  return { ...row, sum: sumOfJob(row) };
}

/** What was changed on the disk, or is no JSON, is not believed: the job is there, and says so. */
export function jobOf(row: Row): KeptJob {
  const { id, map, revision, title, createdAt } = row;
  try {
    if (row.sum === null || row.sum === sumOfJob(row)) return readJob(row);
  } catch {
    // said below
  }
  const at = Number.isNaN(Date.parse(createdAt)) ? new Date(0).toISOString() : createdAt;
  const unreadable = 'What it was taken in as is damaged on the disk.';
  return { id, map, revision, title, createdAt: at, targets: [], policy: {}, unreadable };
}

function readJob(row: Row): Job {
  const { owner, serial, colour, limits, by, sum: _, ...rest } = row;
  return {
    ...rest,
    targets: JSON.parse(row.targets),
    policy: JSON.parse(row.policy),
    ...(owner === null ? {} : { owner }),
    ...(serial === null ? {} : { serial }),
    ...(colour === null ? {} : { colour }),
    ...(limits === null ? {} : { limits: JSON.parse(limits) }),
    ...(by === null ? {} : { by }),
  };
}
