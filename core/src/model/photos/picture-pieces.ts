/** A picture file cut where its own format cuts it: what is kept of it, and whether its end is there. */
export interface Pieces {
  readonly kept: readonly Uint8Array[];
  readonly isWhole: boolean;
}

/**
 * The pieces of a picture that make the picture: of a JPEG its tables, frames and scans, of a PNG and a WebP their image
 * chunks; colour profiles and which way up it is are kept. Where it was taken, by whom, with what, remarks, and whatever
 * stands after its end are left out. The coded picture itself is not touched.
 */
export function piecesOf(bytes: Uint8Array, type: 'image/jpeg' | 'image/png' | 'image/webp'): Pieces {
  switch (type) {
    case 'image/jpeg':
      return jpegPieces(bytes);
    case 'image/png':
      return pngPieces(bytes);
    case 'image/webp':
      return webpPieces(bytes);
  }
}

const SOI = 0xd8;
const EOI = 0xd9;
const SOS = 0xda;
const APP0 = 0xe0;
const APP1 = 0xe1;
const APP2 = 0xe2;
const APP14 = 0xee;
const COM = 0xfe;

/** Marker segments (ISO/IEC 10918-1, annex B). */
function jpegPieces(bytes: Uint8Array): Pieces {
  const kept = [bytes.subarray(0, 2)];
  let at = 2;
  while (at + 4 <= bytes.length) {
    if (bytes[at] !== 0xff) return { kept, isWhole: false };
    const marker = bytes[at + 1]!;
    // any number of fill bytes may stand before a marker
    if (marker === 0xff) {
      at++;
      continue;
    }
    if (marker === SOI) return { kept, isWhole: false };
    if (marker === EOI) break;
    const end = at + 2 + ((bytes[at + 2]! << 8) | bytes[at + 3]!);
    if (end > bytes.length) return { kept, isWhole: false };
    const segment = bytes.subarray(at, end);
    kept.push(...keptOf(marker, segment));
    at = end;
    if (marker !== SOS) continue;
    const after = afterScan(bytes, at);
    kept.push(bytes.subarray(at, after));
    at = after;
  }
  const isWhole = bytes[at] === 0xff && bytes[at + 1] === EOI;
  return { kept: isWhole ? [...kept, bytes.subarray(at, at + 2)] : kept, isWhole };
}

/** Where coded data end: at the next marker that is no stuffed byte and no restart. */
function afterScan(bytes: Uint8Array, from: number): number {
  for (let at = bytes.indexOf(0xff, from); at >= 0 && at + 1 < bytes.length; at = bytes.indexOf(0xff, at + 1)) {
    const next = bytes[at + 1]!;
    if (next !== 0 && next !== 0xff && !(next >= 0xd0 && next <= 0xd7)) return at;
  }
  return bytes.length;
}

function keptOf(marker: number, segment: Uint8Array): Uint8Array[] {
  if (marker === APP1) {
    const turned = orientationOf(segment);
    return turned === null ? [] : [uprightBy(turned)];
  }
  if (marker === COM) return [];
  if (marker < APP0 || marker > 0xef) return [segment];
  const isProfile = marker === APP2 && startsWith(segment, 4, 'ICC_PROFILE');
  return marker === APP0 || marker === APP14 || isProfile ? [segment] : [];
}

function startsWith(bytes: Uint8Array, at: number, text: string): boolean {
  return [...text].every((letter, index) => bytes[at + index] === letter.charCodeAt(0));
}

/** Which way up the picture is: tag 0x0112 of its Exif (JEITA CP-3451); null where it says nothing, or upright. */
function orientationOf(segment: Uint8Array): number | null {
  if (!startsWith(segment, 4, 'Exif')) return null;
  const view = new DataView(segment.buffer, segment.byteOffset + 10, Math.max(0, segment.byteLength - 10));
  if (view.byteLength < 14) return null;
  const little = view.getUint16(0) === 0x4949;
  const first = view.getUint32(4, little);
  if (first + 2 > view.byteLength) return null;
  const count = view.getUint16(first, little);
  for (let entry = 0; entry < count; entry++) {
    const at = first + 2 + 12 * entry;
    if (at + 12 > view.byteLength) return null;
    if (view.getUint16(at, little) !== 0x0112) continue;
    const value = view.getUint16(at + 8, little);
    return value >= 2 && value <= 8 ? value : null;
  }
  return null;
}

/** An Exif segment that says nothing else. */
function uprightBy(orientation: number): Uint8Array {
  const body = [
    ...[0x45, 0x78, 0x69, 0x66, 0, 0],
    ...[0x4d, 0x4d, 0, 0x2a, 0, 0, 0, 8],
    ...[0, 1],
    ...[0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, orientation, 0, 0],
    ...[0, 0, 0, 0],
  ];
  return Uint8Array.from([0xff, APP1, 0, body.length + 2, ...body]);
}

/** Text, time and Exif; everything else that a PNG may have belongs to how it looks (PNG, third edition, 11.3). */
const PNG_REMARKS: ReadonlySet<string> = new Set(['tEXt', 'zTXt', 'iTXt', 'tIME', 'eXIf', 'dSIG']);

function pngPieces(bytes: Uint8Array): Pieces {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const kept = [bytes.subarray(0, 8)];
  for (let at = 8; at + 12 <= bytes.length;) {
    const end = at + 12 + view.getUint32(at);
    if (end > bytes.length) break;
    const name = fourLetters(bytes, at + 4);
    if (!PNG_REMARKS.has(name)) kept.push(bytes.subarray(at, end));
    if (name === 'IEND') return { kept, isWhole: true };
    at = end;
  }
  return { kept, isWhole: false };
}

/** Chunks of a RIFF file; the extended header says which of them there are (RFC 9649). */
function webpPieces(bytes: Uint8Array): Pieces {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const end = bytes.length < 12 ? Infinity : 8 + view.getUint32(4, true);
  const chunks: Uint8Array[] = [];
  let at = 12;
  while (at + 8 <= Math.min(end, bytes.length)) {
    const next = at + 8 + view.getUint32(at + 4, true) + (view.getUint32(at + 4, true) % 2);
    if (next > bytes.length) break;
    const name = fourLetters(bytes, at);
    if (name === 'VP8X') chunks.push(withoutFlags(bytes.subarray(at, next)));
    else if (name !== 'EXIF' && name !== 'XMP ') chunks.push(bytes.subarray(at, next));
    at = next;
  }
  const header = bytes.slice(0, 12);
  const size = 4 + chunks.reduce((sum, each) => sum + each.length, 0);
  if (header.length === 12) new DataView(header.buffer).setUint32(4, size, true);
  return { kept: [header, ...chunks], isWhole: at >= end && end <= bytes.length };
}

/** The extended header without its marks for Exif and XMP. */
function withoutFlags(chunk: Uint8Array): Uint8Array {
  const copy = chunk.slice();
  copy[8] = copy[8]! & ~0x0c;
  return copy;
}

function fourLetters(bytes: Uint8Array, at: number): string {
  return String.fromCharCode(...bytes.subarray(at, at + 4));
}
