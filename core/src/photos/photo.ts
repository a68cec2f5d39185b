import { disableTypes, imageSize, types } from 'image-size';

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
export class PhotoError extends Error {
  override readonly name = 'PhotoError';
}

/**
 * What a file is by its content, whatever its name says: only JPEG, PNG and WebP pass, whole, and of a size that can be
 * shown.
 * @throws PhotoError
 */
export function checkPhoto(bytes: Uint8Array): PhotoFacts {
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
  if (!isWhole(bytes, type)) throw new PhotoError('This picture is cut off: its end is missing. Fetch it again.');
  return { type, width, height };
}

function sizeOf(bytes: Uint8Array) {
  try {
    return imageSize(bytes);
  } catch {
    return null;
  }
}

/** A JPEG ends with its end marker, a PNG with its end chunk; a WebP says how long it is. */
function isWhole(bytes: Uint8Array, type: PhotoFacts['type']): boolean {
  if (type === 'image/webp') {
    return bytes.length >= 12 && new DataView(bytes.buffer, bytes.byteOffset).getUint32(4, true) + 8 <= bytes.length;
  }
  const mark = type === 'image/jpeg' ? [0xff, 0xd9] : [0x49, 0x45, 0x4e, 0x44, 0xae, 0x42, 0x60, 0x82];
  // cameras may append data of their own after the picture
  const tail = bytes.subarray(Math.max(0, bytes.length - 64 * 1024));
  return Array.from(tail).some((_, at) => mark.every((byte, index) => tail[at + index] === byte));
}
