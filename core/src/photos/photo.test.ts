import { describe, expect, it } from 'vitest';
import { checkPhoto, PhotoError } from './index.ts';

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
    expect(checkPhoto(png(4000, 3000))).toEqual({ type: 'image/png', width: 4000, height: 3000 });
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
    for (const file of files) expect(() => checkPhoto(file)).toThrow(PhotoError);
  });

  it('of 100 megapixels is refused before it is unfolded', () => {
    expect(() => checkPhoto(png(10_000, 10_000))).toThrow('100 megapixels');
    expect(() => checkPhoto(png(0, 10))).toThrow(PhotoError);
  });

  it('has to be whole', () => {
    expect(() => checkPhoto(png(400, 300, false))).toThrow('cut off');
    expect(() => checkPhoto(new Uint8Array([0xff, 0xd8, 0xff, 0xe0]))).toThrow(PhotoError);
  });
});
