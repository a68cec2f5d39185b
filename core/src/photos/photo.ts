import { Refusal } from '../refusal/index.ts';
import { disableTypes, imageSize, types } from 'image-size';
import { piecesOf } from './pieces.ts';

/** An original is kept up to this size; what is larger is kept downscaled only. */
export const MOST_PHOTO_BYTES = 16 * 1024 * 1024;
/** More pixels than this are not decoded: a small file can unfold into gigabytes. */
export const MOST_PIXELS = 60_000_000;

const TYPES = { jpg: 'image/jpeg', png: 'image/png', webp: 'image/webp' } as const;
export const PHOTO_TYPES: readonly string[] = Object.values(TYPES);
// what is refused anyway is not even looked into
disableTypes(types.filter((each) => !Object.hasOwn(TYPES, each)));

export interface PhotoFacts {
  readonly type: (typeof TYPES)[keyof typeof TYPES];
  readonly width: number;
  readonly height: number;
}

/** Why a file can't be taken as a photograph, and what to do. */
export class PhotoError extends Refusal {
  override readonly name = 'PhotoError';
}

/** A picture as it is kept: what it is, and its bytes without what nobody asked for. */
export interface TakenPhoto extends PhotoFacts {
  readonly content: Uint8Array;
}

/**
 * What a file is by its content, whatever its name says: only JPEG, PNG and WebP pass, whole, and of a size that can be
 * shown. Where and by whom it was taken is left out of what is kept, and so is whatever follows its end.
 * @throws PhotoError
 */
export function takePhoto(bytes: Uint8Array): TakenPhoto {
  const found = sizeOf(bytes);
  const type = found && TYPES[found.type as keyof typeof TYPES];
  if (!found || !type)
    throw new PhotoError('This is no photograph: only JPEG, PNG and WebP are taken, by their content.');
  const { width, height } = found;
  if (!(width > 0) || !(height > 0)) throw new PhotoError('This picture has no size.');
  if (width * height > MOST_PIXELS) {
    const megapixels = Math.round((width * height) / 1e6);
    throw new PhotoError(
      `This picture has ${megapixels} megapixels; ${MOST_PIXELS / 1e6} are the most. Make it smaller first.`,
    );
  }
  const { kept, isWhole } = piecesOf(bytes, type);
  if (!isWhole) throw new PhotoError('This picture is cut off: its end is missing. Fetch it again.');
  return { type, width, height, content: joined(kept) };
}

function joined(pieces: readonly Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(pieces.reduce((sum, each) => sum + each.length, 0));
  let at = 0;
  for (const piece of pieces) {
    whole.set(piece, at);
    at += piece.length;
  }
  return whole;
}

function sizeOf(bytes: Uint8Array) {
  try {
    return imageSize(bytes);
  } catch {
    return null;
  }
}
