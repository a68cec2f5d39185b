import type { DeviceMap, Part } from '@nibrel/core/model/device-map';
import type { Size } from './scale.ts';

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

/** Air around a device, mm. */
const MARGIN = 7;
/** Space for what stands open, as a share of the device: beside it, or above it where there is more room (guesses). */
const BESIDE = 0.78;
const ABOVE = 0.5;

export interface Layout {
  readonly whole: Box;
  /** where what stands open is drawn; null where nothing does */
  readonly standing: Box | null;
}

/** The device, and beside or above it what stands open, whichever leaves it larger. */
export function layoutOf({ outline: { width, height } }: DeviceMap, stands: boolean, size: Size): Layout {
  const alone = { x: -MARGIN, y: -MARGIN, w: width + 2 * MARGIN, h: height + 2 * MARGIN };
  if (!stands) return { whole: alone, standing: null };
  const beside = { ...alone, w: alone.w + width * BESIDE };
  const above = { ...alone, y: alone.y - height * ABOVE, h: alone.h + height * ABOVE };
  return scaleOf(beside, size) >= scaleOf(above, size)
    ? { whole: beside, standing: { x: width + MARGIN + 1, y: 4, w: width * 0.62, h: height * 0.86 } }
    : { whole: above, standing: { x: 0, y: -height * ABOVE, w: width, h: height * (ABOVE - 0.04) } };
}

/** Pixels a millimetre, where a box is drawn as large as it fits. */
export function scaleOf({ w, h }: Box, { width, height }: Size): number {
  return Math.max(0.1, Math.min(width / w, height / h));
}

/** What is in hand fills this share of the drawing at least. */
const FILLS = 0.4;
/** Nearer than this nobody needs to look, mm. */
const LEAST = 30;
/** Where the view would be nearly all of it, it is all of it. */
const NEARLY = 0.8;

/** The neighbourhood of the parts in hand, in the shape of the drawing; null where that is nearly the whole device. */
export function nearBox(parts: readonly Pick<Part, 'box'>[], whole: Box, size: Size): Box | null {
  if (parts.length === 0) return null;
  const left = Math.min(...parts.map(({ box }) => box.x));
  const top = Math.min(...parts.map(({ box }) => box.y));
  const right = Math.max(...parts.map(({ box }) => box.x + box.w));
  const bottom = Math.max(...parts.map(({ box }) => box.y + box.h));
  const aspect = size.width / Math.max(1, size.height);
  // as wide as what is in hand asks for, or as high
  const h = Math.max(LEAST, (bottom - top) / FILLS, (right - left) / FILLS / aspect);
  const w = h * aspect;
  if (h >= NEARLY * whole.h || w >= whole.w * 1.05) return null;
  const clamp = (at: number, from: number, to: number) =>
    from > to ? (from + to) / 2 : Math.min(to, Math.max(from, at));
  return {
    x: clamp((left + right) / 2 - w / 2, whole.x, whole.x + whole.w - w),
    y: clamp((top + bottom) / 2 - h / 2, whole.y, whole.y + whole.h - h),
    w,
    h,
  };
}
