import { asData, type Problem, wrong } from '@nibrel/core/model/refusal';
import type { NewJob } from '@nibrel/core/api';
import { randomUUID } from 'node:crypto';
import type { Job } from '@nibrel/core/job/events';
import { reportOf } from '@nibrel/core/after/report';
import { mechanismOf } from '@nibrel/core/planner/holds';
import { checkTargets, PlanError } from '@nibrel/core/planner/search';
import { Hono } from 'hono';
import type { ComputePool } from '../compute/pool.ts';
import type { Prospects } from '../compute/prospects.ts';
import { jobFiles, rawJobFiles, zipStream } from '../export/job-zip.ts';
import { jsonAnswer } from '../http/answer.ts';
import { isLarge, jsonBody, valid } from '../http/body.ts';
import { eventList } from '../http/events.ts';
import { HttpProblem } from '../http/http-problem.ts';
import { answer, bodySchema, queryOf } from '../http/route.ts';
import { makerOf, type Network, notByLearner, personOf } from '../network/sign-in.ts';
import type { Confirmations } from '../people/confirmations.ts';
import type { DeviceMaps } from '../store/device-maps.ts';
import { screwMatAnswer } from './screw-mat.ts';
import type { KeptJob, Live } from '../store/folded.ts';
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
  /** prints */
  readonly press: ComputePool;
  readonly prospects: Prospects;
  readonly confirmations: Confirmations;
  readonly network: Network | null;
  now(): string;
}

export function jobRoutes(routed: JobRoutes): Hono {
  const { jobs, maps, photos, shop, desk, press, prospects, network, confirmations, now } = routed;
  const routes = new Hono();
  const found = (id: string): KeptJob => {
    const job = jobs.find(id);
    if (!job) throw new HttpProblem(404, `There is no job "${id}".`);
    return job;
  };

  routes.get('/', (context) => {
    const lines = jobs.list(queryOf(context, 'GET /jobs'));
    prospects.wanted();
    return jsonAnswer(context, `{"jobs":[${lines.join(',')}]}`);
  });

  /** A job whose map can be read. @throws HttpProblem 409 */
  const readable = async (job: KeptJob): Promise<Live> => {
    const live = await jobs.live(job);
    if (live.unreadable === null) return live;
    throw new HttpProblem(409, `This repair can not be read: ${live.unreadable} Its raw rows can be exported.`);
  };

  routes.post('/', async (context) => {
    notByLearner(context, network, shop, 'A repair');
    const body = await jsonBody(context);
    const given = isLarge(context)
      ? ((await desk.run({ kind: 'new-job', body }, 0)) as NewJob)
      : valid<NewJob>(bodySchema('POST /jobs'), body);
    const stored = maps.find(given.map);
    if (!stored) {
      throw HttpProblem.at(422, wrong('map', `There is no device map "${given.map}".`, 'Choose one of the list.'));
    }
    try {
      checkTargets(mechanismOf(stored.map), given.targets);
    } catch (error) {
      if (error instanceof PlanError) throw HttpProblem.at(422, asData(error));
      throw error;
    }
    if (given.id && jobs.find(given.id)) throw new HttpProblem(409, `There is a job "${given.id}" already.`);
    const { map, targets, policy = {}, title, owner, serial, colour } = given;
    const by = makerOf(context, network);
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
      ...(by ? { by } : {}),
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
      ? ((await desk.run({ kind: 'events', body: events }, 0)) as (Problem | null)[])
      : undefined;
    const confirmed = confirmations.of(context)?.person ?? null;
    const told = await jobs.append(job, events, now(), { checked, signedIn: personOf(context, network), confirmed });
    return answer(context, 'POST /jobs/{id}/events', told);
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
    const line = JSON.parse(jobs.line(job)) as { unreadable?: string };
    if (line.unreadable !== undefined) {
      return context.body(zipStream([...rawJobFiles(job, jobs.pages(job.id)), ...pictures]), 200, headers);
    }
    const { map } = (await jobs.live(job)).going.mechanism;
    const files = jobFiles(line, jobs.eventsOf(job.id), map);
    return context.body(zipStream([...files, ...pictures]), 200, headers);
  });

  routes.get('/:id/report.pdf', async (context) => {
    const job = found(context.req.param('id'));
    const { mechanism, state } = (await readable(job)).going;
    const { isNew, wasOut, ...report } = reportOf(mechanism, state);
    const chosen = await Promise.all(
      report.photos.map(async (each) => ({ ...each, photo: await photos.read(job.id, each.hash) })),
    );
    const printed = chosen.map(({ text, photo }) => ({ text, photo, why: whyNotPrinted(photo) }));
    const body = {
      map: mechanism.map,
      report: { ...report, isNew: [...isNew], wasOut: [...wasOut] },
      url: new URL(`/jobs/${job.id}/record`, context.req.url).href,
      takenIn: dayIn(shop.shop.zone, report.takenIn),
      handedOver: report.handedOver
        ? `handed over to ${report.handedOver.to}, ${dayIn(shop.shop.zone, report.handedOver.at)}`
        : '',
      finished: report.finished ? dayIn(shop.shop.zone, report.finished) : '',
      pictures: printed.flatMap(({ text, photo, why }) =>
        photo && why === null
          ? [{ data: `data:${photo.type};base64,${Buffer.from(photo.content).toString('base64')}`, text }]
          : [],
      ),
      leftOut: printed.flatMap(({ text, why }) => (why === null ? [] : [`${text || 'A picture'}: ${why}`])),
    };
    const print = async (of: object) => (await press.run({ kind: 'report', body: of }, 0)) as Uint8Array;
    const pdf = await print(body).catch((error: Error) => {
      // a picture that ends the thread is none that anybody misses more than the report
      if (error instanceof HttpProblem || body.pictures.length === 0) throw error;
      const left = body.pictures.map(({ text }) => `${text || 'A picture'}: it can not be printed`);
      return print({ ...body, pictures: [], leftOut: [...body.leftOut, ...left] });
    });
    return context.body(pdf.slice().buffer, 200, { 'content-type': 'application/pdf' });
  });

  routes.get('/:id/:file{screw-mat\\.(svg|pdf)}', async (context) => {
    const query = queryOf(context, 'GET /jobs/{id}/screw-mat.svg');
    const job = found(context.req.param('id'));
    const { mechanism } = (await readable(job)).going;
    const { map } = mechanism;
    const url = new URL(`/jobs/${job.id}`, context.req.url).href;
    const format = context.req.param('file').endsWith('.pdf') ? 'pdf' : 'svg';
    return screwMatAnswer(context, press, {
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

/** A PNG is unpacked to be printed: so many bytes of one are enough for its place on a page. */
const MOST_PNG_BYTES = 3_000_000;

function whyNotPrinted(photo: { readonly type: string; readonly content: Uint8Array } | null): string | null {
  if (!photo) return 'it is not on the disk any more';
  if (photo.type === 'image/webp') return 'a PDF has no WebP';
  return photo.type === 'image/png' && photo.content.byteLength > MOST_PNG_BYTES
    ? 'it is too large to be printed'
    : null;
}
