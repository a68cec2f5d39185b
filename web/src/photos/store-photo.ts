import type { EventData } from '@nibrel/core/job/events';
import { api } from '../app/client.ts';
import { shrink } from './shrink.ts';

type Photo = EventData['photo'];

/**
 * Stores a picture and then says that the job has it: what is shown as kept is on the disk.
 * @param about the step or the part that it belongs to
 * @throws Error that says why it is not kept
 */
export async function storedPhoto(
  job: string,
  file: File,
  onPhoto: (photo: Photo) => Promise<boolean>,
  about: Pick<Photo, 'step' | 'part' | 'of' | 'text'> = {},
): Promise<Photo> {
  const { shown, thumb, original, width, height } = await shrink(file);
  const [large, small, whole] = await Promise.all([
    api.addPhoto(job, shown),
    api.addPhoto(job, thumb),
    original ? api.addPhoto(job, original) : null,
  ]);
  const photo = {
    shown: large.hash,
    thumb: small.hash,
    width,
    height,
    ...(whole ? { original: whole.hash } : {}),
    ...about,
  };
  if (!(await onPhoto(photo))) throw new Error('It was stored, but the job does not take it now.');
  return photo;
}
