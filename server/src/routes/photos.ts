import { MOST_PHOTO_BYTES, PHOTO_TYPES, PhotoError } from '@nibrel/core/photos';
import { Hono } from 'hono';
import { bytesWithin } from '../http/body.ts';
import { Problem } from '../http/problem.ts';
import type { Jobs } from '../store/jobs.ts';
import type { Photos } from '../store/photos.ts';

/** Photographs of a job: the bytes come first, the event that refers to them after. */
export function photoRoutes(photos: Photos, jobs: Jobs, now: () => string): Hono {
  const routes = new Hono();

  routes.post('/:id/photos', async (context) => {
    const job = context.req.param('id');
    if (!jobs.find(job)) throw new Problem(404, `There is no job "${job}".`);
    const type = context.req.header('content-type')?.split(';')[0]?.trim().toLowerCase() ?? '';
    if (!PHOTO_TYPES.includes(type)) throw new Problem(415, `Send ${PHOTO_TYPES.join(', ')}.`);
    const content = await bytesWithin(context, MOST_PHOTO_BYTES);
    try {
      return context.json(photos.add(job, content, now()), 201);
    } catch (error) {
      if (error instanceof PhotoError) throw new Problem(422, error.message);
      throw error;
    }
  });

  routes.get('/:id/photos/:hash', async (context) => {
    const { id, hash } = context.req.param();
    const photo = await photos.read(id, hash);
    if (!photo) throw new Problem(404, 'There is no such photograph of this job.');
    return context.body(photo.content, 200, {
      'content-type': photo.type,
      'content-disposition': 'inline',
      'cache-control': 'private, max-age=31536000, immutable',
    });
  });

  return routes;
}
