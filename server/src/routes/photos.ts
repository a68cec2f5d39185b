import { PHOTO_TYPES } from '@nibrel/core/model/photos';
import { Hono } from 'hono';
import type { ComputePool } from '../compute/pool.ts';
import { HttpProblem } from '../http/http-problem.ts';
import { answer } from '../http/route.ts';
import type { Jobs } from '../store/jobs.ts';
import type { Photos, ReadyPhoto } from '../store/photos.ts';

/** Photographs of a job: the bytes come first, the event that refers to them after. */
export function photoRoutes(photos: Photos, jobs: Jobs, pictures: ComputePool, now: () => string): Hono {
  const routes = new Hono();

  routes.post('/:id/photos', async (context) => {
    const job = context.req.param('id');
    if (!jobs.find(job)) throw new HttpProblem(404, `There is no job "${job}".`);
    const type = context.req.header('content-type')?.split(';')[0]?.trim().toLowerCase() ?? '';
    if (!PHOTO_TYPES.includes(type)) throw new HttpProblem(415, `Send ${PHOTO_TYPES.join(', ')}.`);
    const body = new Uint8Array(await context.req.arrayBuffer());
    const photo = (await pictures.run({ kind: 'photo', body }, 0)) as ReadyPhoto;
    return answer(context, 'POST /jobs/{id}/photos', await photos.add(job, photo, now()));
  });

  routes.get('/:id/photos/:hash', async (context) => {
    const { id, hash } = context.req.param();
    const photo = await photos.read(id, hash);
    if (!photo) throw new HttpProblem(404, 'There is no such photograph of this job.');
    return context.body(photo.content, 200, {
      'content-type': photo.type,
      'content-disposition': 'inline',
      'cache-control': 'private, max-age=31536000, immutable',
    });
  });

  return routes;
}
