import { describe, expect, it } from 'vitest';
import { takePhoto, PhotoError } from './index.ts';

/** A PNG's beginning and end with any size: what is between does not matter before it is decoded. */
function png(width: number, height: number, whole = true): Uint8Array {
  const bytes = new Uint8Array(whole ? 57 : 45);
  bytes.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13, 0x49, 0x48, 0x44, 0x52]);
  new DataView(bytes.buffer).setUint32(16, width);
  new DataView(bytes.buffer).setUint32(20, height);
  if (whole) bytes.set([0, 0, 0, 0, 0x49, 0x45, 0x4e, 0x44, 0xae, 0x42, 0x60, 0x82], 45);
  return bytes;
}

const bytesOf = (text: string) => new TextEncoder().encode(text);

describe('a photograph', () => {
  it('is known by its content', () => {
    expect(takePhoto(png(4000, 3000))).toMatchObject({ type: 'image/png', width: 4000, height: 3000 });
  });

  it('is no renamed executable, page, drawing or empty file', () => {
    const files = [
      new Uint8Array([0x4d, 0x5a, 0x90, 0, 3, 0, 0, 0]),
      new Uint8Array([0x7f, 0x45, 0x4c, 0x46, 2, 1, 1]),
      bytesOf('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'),
      bytesOf('<html></html>'),
      bytesOf('GIF89a\u0001\u0000\u0001\u0000'),
      new Uint8Array(),
    ];
    for (const file of files) expect(() => takePhoto(file)).toThrow(PhotoError);
  });

  it('of 100 megapixels is refused before it is unfolded', () => {
    expect(() => takePhoto(png(10_000, 10_000))).toThrow('100 megapixels');
    expect(() => takePhoto(png(0, 10))).toThrow(PhotoError);
  });

  it('has to be whole', () => {
    expect(() => takePhoto(png(400, 300, false))).toThrow('cut off');
    expect(() => takePhoto(new Uint8Array([0xff, 0xd8, 0xff, 0xe0]))).toThrow(PhotoError);
  });

  it('may have data of its own after its end, however long: a moving picture, a map of depths', () => {
    const tail = new Uint8Array(300_000).fill(7);
    const whole = jpeg();
    expect(takePhoto(joined(whole, tail)).content).toEqual(takePhoto(whole).content);
    expect(takePhoto(joined(png(40, 30), tail)).content).toHaveLength(57);
    // the end of a small picture within it is not its end
    expect(() => takePhoto(joined(whole.subarray(0, -2), Uint8Array.of(0, 0)))).toThrow('cut off');
  });
});

const joined = (...all: Uint8Array[]) => Uint8Array.from(all.flatMap((each) => [...each]));
const segment = (marker: number, body: number[]) => [
  0xff,
  marker,
  (body.length + 2) >> 8,
  (body.length + 2) & 255,
  ...body,
];
const letters = (text: string) => [...text].map((each) => each.charCodeAt(0));

/** Exif in the byte order of a PC: which way up (6: turned right), and a place. */
const exif = [
  ...[...letters('Exif'), 0, 0, 0x49, 0x49, 0x2a, 0, 8, 0, 0, 0],
  ...[2, 0, 0x12, 0x01, 3, 0, 1, 0, 0, 0, 6, 0, 0, 0, 0x25, 0x88, 4, 0, 1, 0, 0, 0, 38, 0, 0, 0, 0, 0, 0, 0],
  ...letters('GPS 54.07 N, Pier 4'),
];
const scan = [0x3f, 0xff, 0x00, 0x11, 0xff, 0xd0, 0x22];

/** A JPEG as a camera writes it, as far as its segments go (ISO/IEC 10918-1, annex B). */
function jpeg(): Uint8Array {
  return Uint8Array.from([
    ...[0xff, 0xd8],
    ...segment(0xe0, [...letters('JFIF'), 0, 1, 1, 0, 0, 1, 0, 1, 0, 0]),
    // a small picture within, with an end of its own
    ...segment(0xe1, [...exif, 0xff, 0xd8, 0xff, 0xd9]),
    ...segment(0xe1, letters('http://ns.adobe.com/xmp/extension/ owner Ines')),
    ...segment(0xe2, [...letters('ICC_PROFILE'), 0, 1, 1, 9, 9]),
    ...segment(0xed, letters('Photoshop 3.0 by Ines')),
    ...segment(0xfe, letters('a remark by Ines')),
    ...segment(0xdb, [0, 1, 2, 3]),
    ...segment(0xc0, [8, 0, 30, 0, 40, 1, 1, 0x11, 0]),
    ...segment(0xda, [1, 1, 0, 0, 0x3f, 0]),
    ...scan,
    ...[0xff, 0xd9],
  ]);
}

describe('what is kept of a photograph', () => {
  it('has no place, no owner and no remark, and is the same picture, the same way up', () => {
    const { content, width, height } = takePhoto(jpeg());
    const text = String.fromCharCode(...content);
    expect([width, height]).toEqual([40, 30]);
    for (const left of ['GPS', 'Pier', 'Ines', 'xmp', 'Photoshop']) expect(text).not.toContain(left);
    expect(text).toContain('ICC_PROFILE');
    expect(text).toContain(String.fromCharCode(...scan));
    // tag 0x0112, one SHORT, 6
    expect(text).toContain(String.fromCharCode(0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, 6));
    // what was kept once is kept as it is
    expect(takePhoto(content).content).toEqual(content);
  });

  it('of a PNG is without its text, of a WebP without its Exif and XMP', () => {
    const chunk = (name: string, body: number[]) => [0, 0, 0, body.length, ...letters(name), ...body, 0, 0, 0, 0];
    const whole = png(40, 30);
    const told = joined(
      whole.subarray(0, 33),
      Uint8Array.from([
        ...chunk('tEXt', letters('Author Ines')),
        ...chunk('gAMA', [0, 0, 1, 1]),
        ...chunk('eXIf', exif),
      ]),
      whole.subarray(45),
    );
    const text = String.fromCharCode(...takePhoto(told).content);
    expect(text).toContain('gAMA');
    expect(text).not.toMatch(/tEXt|eXIf|GPS|Ines/);

    const riff = (name: string, body: number[]) => [
      ...letters(name),
      ...[body.length & 255, body.length >> 8, 0, 0],
      ...body,
      ...(body.length % 2 ? [0] : []),
    ];
    // 40 by 30, with marks for Exif and XMP (RFC 9649, 2.7)
    const extended = riff('VP8X', [0x0c, 0, 0, 0, 39, 0, 0, 29, 0, 0]);
    const chunks = [
      ...extended,
      ...riff('VP8 ', [1, 2, 3, 4]),
      ...riff('EXIF', exif),
      ...riff('XMP ', letters('Ines')),
    ];
    const webp = Uint8Array.from([
      ...letters('RIFF'),
      (chunks.length + 4) & 255,
      (chunks.length + 4) >> 8,
      0,
      0,
      ...letters('WEBP'),
      ...chunks,
    ]);
    const { content, width } = takePhoto(webp);
    expect(width).toBe(40);
    expect(content[20]).toBe(0);
    expect(new DataView(content.buffer).getUint32(4, true)).toBe(content.length - 8);
    expect(String.fromCharCode(...content)).not.toMatch(/GPS|Ines|EXIF/);
  });
});
