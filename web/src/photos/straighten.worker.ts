import { type Corner, cornersOf, foundCorners, type Pixels, straightened, viewOf } from '@nibrel/core/model/photos';
import { expose } from 'comlink';

/** Corners are looked for in a picture of this longest side, px. */
const LOOKED_AT = 320;
/** A straight picture has this longest side, px. */
const STRAIGHT = 1400;

async function pixelsOf(url: string, longest: number): Promise<Pixels> {
  const response = await fetch(url);
  if (!response.ok) throw new Error('The photograph can not be fetched.');
  const picture = await createImageBitmap(await response.blob());
  const share = Math.min(1, longest / Math.max(picture.width, picture.height));
  const [width, height] = [Math.round(picture.width * share), Math.round(picture.height * share)];
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  context.drawImage(picture, 0, 0, width, height);
  picture.close();
  return context.getImageData(0, 0, width, height);
}

const straightener = {
  /** the corners of a device on its photograph, as shares; null where there is not contrast enough */
  found: async (url: string): Promise<readonly Corner[] | null> => foundCorners(await pixelsOf(url, LOOKED_AT)),

  /** a photograph as it is seen from straight above, as a data URL; null where its corners make no view. @param proportion width by height */
  straight: async (url: string, corners: readonly Corner[], proportion: number): Promise<string | null> => {
    const taken = await pixelsOf(url, Infinity);
    const width = Math.round(proportion < 1 ? STRAIGHT * proportion : STRAIGHT);
    const height = Math.round(width / proportion);
    const to = corners.map(({ x, y }) => ({ x: x * taken.width, y: y * taken.height }));
    const view = viewOf(cornersOf(width, height), to);
    if (!view) return null;
    const { data } = straightened(taken, view, width, height);
    const canvas = new OffscreenCanvas(width, height);
    canvas.getContext('2d')!.putImageData(new ImageData(data as Uint8ClampedArray<ArrayBuffer>, width, height), 0, 0);
    return new FileReaderSync().readAsDataURL(await canvas.convertToBlob({ type: 'image/webp', quality: 0.85 }));
  },
};

export type Straightener = typeof straightener;

expose(straightener);
