import { inflateSync } from 'node:zlib';

/** More than this a picture of a report does not unfold to. */
const MOST_BYTES = 256_000_000;
/** Signature, then chunks of length, name, data, checksum (ISO/IEC 15948). */
const SIGNATURE = 8;
const AROUND = 12;

/** Can the image data of a PNG be unpacked? */
export function unfolds(png: Buffer): boolean {
  const data: Buffer[] = [];
  for (let at = SIGNATURE; at + AROUND <= png.length;) {
    const length = png.readUInt32BE(at);
    if (png.toString('latin1', at + 4, at + 8) === 'IDAT') data.push(png.subarray(at + 8, at + 8 + length));
    at += length + AROUND;
  }
  try {
    return inflateSync(Buffer.concat(data), { maxOutputLength: MOST_BYTES }).length > 0;
  } catch {
    return false;
  }
}
