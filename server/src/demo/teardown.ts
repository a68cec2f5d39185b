import { createHash, randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { BenchEvent, Job } from '@nibrel/core/job/events';
import type { Point } from '@nibrel/core/model/device-map';
import { takePhoto } from '@nibrel/core/model/photos';
import { settled } from '@nibrel/core/model/policy';
import { bareMap, type Unopened } from '@nibrel/core/teardown/record';
import { benchItems, tellAnyhow } from '@nibrel/core/workshop/prepare';
import type { NibrelApp } from '../app.ts';

/** A device without a map, half taken apart, as it stands in demo/unmapped.json. */
interface DemoTeardown {
  readonly device: Unopened;
  readonly title: string;
  readonly owner: string;
  readonly by: string;
  /** of its photographs, shares */
  readonly corners: readonly Point[];
  readonly told: readonly (
    { readonly type: string; readonly data: object } | { readonly photograph: string; readonly type?: undefined }
  )[];
}

/** So long ago it was taken in, and so long passed from one thing told to the next. */
const AGO_ms = 4 * 3600 * 1000;
const STEP_ms = 40 * 1000;

/** Takes the device of the demonstration that has no map half apart, with its photographs. */
export async function seedTeardown(
  { maps, jobs, photos, shop }: Pick<NibrelApp, 'maps' | 'jobs' | 'photos' | 'shop'>,
  folder: string,
  now: Date,
): Promise<void> {
  const { device, title, owner, by, corners, told } = JSON.parse(
    readFileSync(join(folder, 'unmapped.json'), 'utf8'),
  ) as DemoTeardown;
  const base = bareMap(device);
  const takenIn = new Date(now.getTime() - AGO_ms);
  const revision = maps.add({ ...base, body: JSON.stringify(base) }, takenIn.toISOString(), by);
  const { limits } = shop.shop;
  const targets = [{ full: true }] as const;
  const job: Job = {
    id: randomUUID(),
    map: base.id,
    revision,
    targets,
    policy: {},
    limits,
    title,
    owner,
    createdAt: takenIn.toISOString(),
  };
  await jobs.add(job);
  let at = takenIn.getTime();
  let photo = '';
  const tell = async (type: string, data: object): Promise<string> => {
    at += STEP_ms;
    const event = { id: randomUUID(), type, at: new Date(at).toISOString(), by, data };
    const { rejected } = await jobs.append(job, [event as BenchEvent], event.at);
    if (rejected[0]) throw new Error(`The demo teardown "${title}" does not play: ${type}: ${rejected[0].problem}`);
    return event.id;
  };
  const items = benchItems(base, targets, { ...settled(base).policy, ...limits }).map(({ id }) => id);
  await tell('take-apart', {});
  await tell('charge', { charge: 0.18, source: 'typed' });
  await tell('prepared', { items, skipped: [], told: tellAnyhow(base, targets) });
  for (const each of told) {
    if (each.type !== undefined) {
      await tell(each.type, each.type === 'first-seen' ? { ...each.data, photo } : each.data);
      continue;
    }
    const content = new Uint8Array(readFileSync(join(folder, 'photos', `${each.photograph}.jpg`)));
    const { type, width, height } = takePhoto(content);
    const hash = createHash('sha256').update(content).digest('hex');
    await photos.add(job.id, { hash, content, type, width, height }, new Date(at).toISOString());
    photo = await tell('photo', { shown: hash, thumb: hash, width, height });
    await tell('layer', { photo, face: 'back', corners });
  }
}
