import { Refusal, wrong } from '../refusal/index.ts';
import { disableTypes, imageSize, types } from 'image-size';
import { piecesOf } from './picture-pieces.ts';

/** An original is kept up to this size; what is larger is kept downscaled only. */
export const MOST_PHOTO_BYTES = 16 * 1024 * 1024;
/** So many pixels, or more, are not decoded: a small file can unfold into gigabytes. */
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
  const type = typeOf(bytes);
  if (!type)
    throw new PhotoError(wrong('', 'This is no photograph: only JPEG, PNG and WebP are taken, by their content.'));
  const { kept, isWhole } = piecesOf(bytes, type);
  const { width = 0, height = 0 } = sizeOf(headOf(bytes, kept, type)) ?? {};
  if (!(width > 0) || !(height > 0)) throw new PhotoError(wrong('', 'This picture has no size.'));
  if (width * height >= MOST_PIXELS) {
    const megapixels = Math.round((width * height) / 1e6);
    throw new PhotoError(
      wrong(
        '',
        `This picture has ${megapixels} megapixels; it has to have fewer than ${MOST_PIXELS / 1e6}.`,
        'Make it smaller first.',
      ),
    );
  }
  if (!isWhole) throw new PhotoError(wrong('', 'This picture is cut off: its end is missing.', 'Fetch it again.'));
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

/** By the first bytes of the file, as each format has them. */
export function typeOf(bytes: Uint8Array): PhotoFacts['type'] | null {
  const begins = (at: number, ...with_: number[]) => with_.every((each, index) => bytes[at + index] === each);
  if (begins(0, 0xff, 0xd8, 0xff)) return 'image/jpeg';
  if (begins(0, 0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'image/png';
  return begins(0, 0x52, 0x49, 0x46, 0x46) && begins(8, 0x57, 0x45, 0x42, 0x50) ? 'image/webp' : null;
}

/** The sizes of PNG and WebP stand within so many bytes. */
const HEAD = 64;

/**
 * As much of a file as tells its size: of a JPEG its frame header, wherever it stands. Whoever reads the size is handed no
 * more, since a file can be made that is searched through byte by byte for a quarter of a minute.
 */
function headOf(bytes: Uint8Array, pieces: readonly Uint8Array[], type: PhotoFacts['type']): Uint8Array {
  if (type !== 'image/jpeg') return bytes.slice(0, HEAD);
  const frame = pieces.find((each) => each[0] === 0xff && isFrame(each[1]!));
  return frame
    ? Uint8Array.from([0xff, 0xd8, 0xff, 0xe0, 0, 2, ...frame.subarray(0, HEAD), 0xff, 0xd9])
    : new Uint8Array();
}

/** Start of frame (ISO/IEC 10918-1, table B.1): all but tables of codes and what is reserved. */
function isFrame(marker: number): boolean {
  return marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc;
}

function sizeOf(bytes: Uint8Array) {
  try {
    return imageSize(bytes);
  } catch {
    return null;
  }
}
