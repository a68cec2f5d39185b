import { takePhoto, MOST_PHOTO_BYTES } from '@nibrel/core/model/photos';
import { expose } from 'comlink';

/** Longest sides in pixels: what is shown large, and what stands in a row. */
const SHOWN = 1600;
const THUMB = 240;

export interface Shrunk {
  readonly shown: Blob;
  readonly thumb: Blob;
  /** as it came, where it is not too large to keep */
  readonly original: Blob | null;
  readonly width: number;
  readonly height: number;
}

/**
 * Makes a photograph small enough to be shown, in a thread of its own: on the page the browser puts encoding off until
 * nothing else happens. The file is checked by its content first, so that nothing is unfolded that is no picture, or that
 * would fill the memory.
 * @throws PhotoError, or an Error where the browser can't decode it
 */
async function shrink(file: Blob): Promise<Shrunk> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const { type, width, height } = takePhoto(bytes);
  const whole = new Blob([bytes], { type });
  const shown = await scaled(whole, width, height, SHOWN);
  const thumb = await scaled(shown.blob, shown.width, shown.height, THUMB);
  return {
    shown: shown.blob,
    thumb: thumb.blob,
    original: bytes.byteLength <= MOST_PHOTO_BYTES ? whole : null,
    width: shown.width,
    height: shown.height,
  };
}

async function scaled(source: Blob, width: number, height: number, longest: number) {
  const share = Math.min(1, longest / Math.max(width, height));
  const resize = {
    resizeWidth: Math.max(1, Math.round(width * share)),
    resizeHeight: Math.max(1, Math.round(height * share)),
    resizeQuality: 'medium',
  } as const;
  const picture = await createImageBitmap(source, share < 1 ? resize : {}).catch(() => {
    throw new Error('This picture can not be opened: it is damaged. Fetch it again.');
  });
  const canvas = new OffscreenCanvas(picture.width, picture.height);
  canvas.getContext('2d')!.drawImage(picture, 0, 0);
  const size = { width: picture.width, height: picture.height };
  picture.close();
  return { ...size, blob: await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.85 }) };
}

const shrinker = { shrink };

export type Shrinker = typeof shrinker;

expose(shrinker);
