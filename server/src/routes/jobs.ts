import type { NewJob } from '@nibrel/core/api';
import { randomUUID } from 'node:crypto';
import type { Job, JobState } from '@nibrel/core/job';
import { reportOf } from '@nibrel/core/report';
import { mechanismOf } from '@nibrel/core/holds';
import { checkTargets, PlanError } from '@nibrel/core/search';
import { Hono } from 'hono';
import type { ComputePool } from '../compute/pool.ts';
import type { Prospects } from '../compute/prospects.ts';
import { jobFiles, rawJobFiles, zipStream } from '../export/job-zip.ts';
import { jsonAnswer } from '../http/answer.ts';
import { isLarge, jsonBody, valid } from '../http/body.ts';
import { eventList } from '../http/events.ts';
import { Problem } from '../http/problem.ts';
import { answer, bodySchema, queryOf } from '../http/route.ts';
import { type Network, personOf } from '../network/sign-in.ts';
import type { DeviceMaps } from '../store/device-maps.ts';
import { screwMatAnswer } from './screw-mat.ts';
import { UnreadableJob } from '../store/folded.ts';
import { eventPages } from '../http/event-pages.ts';
import type { Jobs } from '../store/jobs.ts';
import type { Photos } from '../store/photos.ts';
import type { ShopLog } from '../store/shop.ts';

interface JobRoutes {
  readonly jobs: Jobs;
  readonly maps: DeviceMaps;
  readonly photos: Photos;
  readonly shop: ShopLog;
  /** checks what is large */
  readonly desk: ComputePool;
  readonly prospects: Prospects;
  readonly network: Network | null;
  now(): string;
}

export function jobRoutes({ jobs, maps, photos, shop, desk, prospects, network, now }: JobRoutes): Hono {
  const routes = new Hono();
  const found = (id: string): Job => {
    const job = jobs.find(id);
    if (!job) throw new Problem(404, `There is no job "${id}".`);
    return job;
  };

  routes.get('/', (context) => {
    const lines = jobs.list(queryOf(context, 'GET /jobs'));
    prospects.wanted();
    return jsonAnswer(context, `{"jobs":[${lines.join(',')}]}`);
  });

  routes.post('/', async (context) => {
    const body = await jsonBody(context);
    const given = isLarge(context)
      ? ((await desk.run({ kind: 'new-job', body }, 0)) as NewJob)
      : valid<NewJob>(bodySchema('POST /jobs'), body);
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
      policy: { ...shop.shop.schools, ...policy },
      limits: shop.shop.limits,
      title: title || stored.map.name,
      ...(owner ? { owner } : {}),
      ...(serial ? { serial } : {}),
      ...(colour ? { colour } : {}),
      createdAt: now(),
    };
    await jobs.add(job);
    return jsonAnswer(context, jobs.line(job), 201, { location: `/api/v1/jobs/${job.id}` });
  });

  routes.get('/:id', (context) => jsonAnswer(context, jobs.line(found(context.req.param('id')))));

  routes.get('/:id/events', (context) => {
    const job = found(context.req.param('id'));
    const { after = 0 } = queryOf(context, 'GET /jobs/{id}/events');
    return context.body(eventPages(jobs.pages(job.id, after), jobs.count(job.id)), 200, {
      'content-type': 'application/json',
    });
  });

  routes.post('/:id/events', async (context) => {
    const job = found(context.req.param('id'));
    const events = await eventList(context, 'POST /jobs/{id}/events');
    const checked = isLarge(context)
      ? ((await desk.run({ kind: 'events', body: events }, 0)) as (string | null)[])
      : undefined;
    try {
      const told = await jobs.append(job, events, now(), { checked, signedIn: personOf(context, network) });
      return answer(context, 'POST /jobs/{id}/events', told);
    } catch (error) {
      if (error instanceof UnreadableJob) throw unreadableProblem(error);
      throw error;
    }
  });

  routes.get('/:id/export', async (context) => {
    const job = found(context.req.param('id'));
    const headers = {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="job-${job.id}.zip"`,
    };
    const pictures = photos.list(job.id).map(({ hash, type }) => ({
      name: `photos/${hash}.${type === 'image/jpeg' ? 'jpg' : type.slice('image/'.length)}`,
      packed: true,
      read: async () => (await photos.read(job.id, hash))?.content ?? new Uint8Array(),
    }));
    const line = JSON.parse(jobs.line(job)) as { status: string };
    if (line.status === 'unreadable') {
      return context.body(zipStream([...rawJobFiles(job, () => jobs.pages(job.id)), ...pictures]), 200, headers);
    }
    const { map } = maps.find(job.map, job.revision)!;
    const files = jobFiles(line, jobs.eventsOf(job.id), map);
    return context.body(zipStream([...files, ...pictures]), 200, headers);
  });

  routes.get('/:id/report.pdf', async (context) => {
    const job = found(context.req.param('id'));
    const { map } = maps.find(job.map, job.revision)!;
    const mechanism = mechanismOf(map);
    let state: JobState;
    try {
      ({ state } = await jobs.live(job));
    } catch (error) {
      if (error instanceof UnreadableJob) throw unreadableProblem(error);
      throw error;
    }
    const { isNew, wasOut, ...report } = reportOf(mechanism, state);
    const pictures = await Promise.all(
      report.photos.map(async ({ hash, text }) => {
        const photo = await photos.read(job.id, hash);
        // WebP is no picture of a PDF
        if (!photo || photo.type === 'image/webp') return [];
        return [{ data: `data:${photo.type};base64,${Buffer.from(photo.content).toString('base64')}`, text }];
      }),
    );
    const body = {
      map,
      report: { ...report, isNew: [...isNew], wasOut: [...wasOut] },
      url: new URL(`/jobs/${job.id}/record`, context.req.url).href,
      takenIn: dayIn(shop.shop.zone, report.takenIn),
      handedOver: report.handedOver
        ? `handed over to ${report.handedOver.to}, ${dayIn(shop.shop.zone, report.handedOver.at)}`
        : '',
      finished: report.finished ? dayIn(shop.shop.zone, report.finished) : '',
      pictures: pictures.flat(),
    };
    const pdf = (await desk.run({ kind: 'report', body }, 0)) as Uint8Array;
    return context.body(pdf.slice().buffer, 200, { 'content-type': 'application/pdf' });
  });

  routes.get('/:id/:file{screw-mat\\.(svg|pdf)}', (context) => {
    const query = queryOf(context, 'GET /jobs/{id}/screw-mat.svg');
    const job = found(context.req.param('id'));
    const { map } = maps.find(job.map, job.revision)!;
    const url = new URL(`/jobs/${job.id}`, context.req.url).href;
    const format = context.req.param('file').endsWith('.pdf') ? 'pdf' : 'svg';
    return screwMatAnswer(context, desk, {
      map,
      of: { device: map.name, job: { title: job.title, url } },
      query,
      format,
    });
  });

  return routes;
}

/** *28 November 2026* */
function dayIn(zone: string, at: string): string {
  return new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeZone: zone }).format(new Date(at));
}

function unreadableProblem(error: UnreadableJob): Problem {
  const detail = `This repair can not be read: ${error.message} Nothing was added. Its raw rows can be exported.`;
  return new Problem(409, detail);
}
