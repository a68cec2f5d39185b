import { randomUUID } from 'node:crypto';
import { type Job, type JobState, targetSchema } from '@nibrel/core/bench';
import { mechanismOf } from '@nibrel/core/holds';
import { checkTargets, PlanError, type Policy, policySchema, type Target } from '@nibrel/core/plan';
import { counts } from '@nibrel/core/screws';
import { Hono } from 'hono';
import Joi from 'joi';
import { jobFiles, zipStream } from '../export/job-zip.ts';
import { jsonBody, valid } from '../http/body.ts';
import { eventList } from '../http/events.ts';
import { Problem } from '../http/problem.ts';
import type { DeviceMaps } from '../store/device-maps.ts';
import type { Jobs } from '../store/jobs.ts';
import type { Photos } from '../store/photos.ts';
import type { ShopLog } from '../store/shop.ts';

const text = Joi.string().allow('').max(500);
const newJobSchema = Joi.object({
  id: Joi.string().guid(),
  map: Joi.string().min(1).max(200).required(),
  targets: Joi.array().max(100).items(targetSchema).required(),
  policy: policySchema,
  title: text,
  owner: text,
  serial: text,
  colour: text,
}).unknown(true);

interface NewJob {
  readonly id?: string;
  readonly map: string;
  readonly targets: readonly Target[];
  readonly policy?: Partial<Policy>;
  readonly title?: string;
  readonly owner?: string;
  readonly serial?: string;
  readonly colour?: string;
}

export function jobRoutes(jobs: Jobs, maps: DeviceMaps, photos: Photos, log: ShopLog, now: () => string): Hono {
  const routes = new Hono();
  const found = (id: string): Job => {
    const job = jobs.find(id);
    if (!job) throw new Problem(404, `There is no job "${id}".`);
    return job;
  };

  routes.get('/', (context) => context.json({ jobs: jobs.list().map((job) => jobLine(job, jobs.state(job))) }));

  routes.post('/', async (context) => {
    const given = valid<NewJob>(newJobSchema, await jsonBody(context));
    const stored = maps.find(given.map);
    if (!stored) {
      throw new Problem(422, 'There is no such device map.', [
        { path: 'map', message: `There is no device map "${given.map}".` },
      ]);
    }
    try {
      checkTargets(mechanismOf(stored.map), given.targets);
    } catch (error) {
      if (error instanceof PlanError)
        throw new Problem(422, error.message, [{ path: error.path, message: error.message }]);
      throw error;
    }
    if (given.id && jobs.find(given.id)) throw new Problem(409, `There is a job "${given.id}" already.`);
    const { map, targets, policy = {}, title, owner, serial, colour } = given;
    const job: Job = {
      id: given.id ?? randomUUID(),
      map,
      revision: stored.revision,
      targets,
      // the workshop's schools and limits, as they are today
      policy: { ...log.shop.schools, ...policy },
      limits: log.shop.limits,
      title: title || stored.map.name,
      ...(owner ? { owner } : {}),
      ...(serial ? { serial } : {}),
      ...(colour ? { colour } : {}),
      createdAt: now(),
    };
    jobs.add(job);
    return context.json(jobLine(job, jobs.state(job)), 201, { location: `/api/v1/jobs/${job.id}` });
  });

  routes.get('/:id', (context) => {
    const job = found(context.req.param('id'));
    return context.json(jobLine(job, jobs.state(job)));
  });

  routes.get('/:id/events', (context) => {
    const job = found(context.req.param('id'));
    const events = jobs.eventsOf(job.id);
    return context.json({ events, revision: events.length });
  });

  routes.post('/:id/events', async (context) => {
    const job = found(context.req.param('id'));
    return context.json(jobs.append(job, await eventList(context), now()));
  });

  routes.get('/:id/export', (context) => {
    const job = found(context.req.param('id'));
    const { map } = maps.find(job.map, job.revision)!;
    const pictures = photos.list(job.id).map(({ hash, type }) => ({
      name: `photos/${hash}.${type === 'image/jpeg' ? 'jpg' : type.slice('image/'.length)}`,
      packed: true,
      read: async () => (await photos.read(job.id, hash))!.content,
    }));
    const files = jobFiles(jobLine(job, jobs.state(job)), jobs.eventsOf(job.id), map);
    return context.body(zipStream([...files, ...pictures]), 200, {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="job-${job.id}.zip"`,
    });
  });

  return routes;
}

/** A job with where it stands, as its events tell. */
function jobLine(job: Job, state: JobState) {
  const last = state.events.at(-1);
  return {
    ...job,
    status: state.ended
      ? 'ended'
      : state.finished
        ? 'finished'
        : state.stopped
          ? 'stopped'
          : state.paused
            ? 'paused'
            : state.events.length > 0
              ? 'under-way'
              : 'new',
    stopped: state.stopped,
    ended: state.ended,
    finishedAt: state.finished,
    lastAt: last?.at ?? null,
    screws: counts(state.ledger),
    revision: state.events.length,
    mapRevision: job.revision,
  };
}
