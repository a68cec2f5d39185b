import type { DeviceMap, Edge, Part } from '../../model/device-map/index.ts';
import type { Box } from '../places/index.ts';

export interface Size {
  readonly width: number;
  readonly height: number;
}

/** Air around a device, mm. */
const MARGIN = 7;
/** Room for what stands open, as a share of the device: beside it, or above and below it (guesses). */
const BESIDE = 0.6;
const ABOVE = 0.4;

export interface Layout {
  readonly whole: Box;
  /** where each of what stands open is drawn, in the order that it was given */
  readonly rooms: readonly Box[];
}

/** The device, and at its edges what stands open there; several at one edge share its room. */
export function layoutOf({ outline: { width, height } }: DeviceMap, edges: readonly Edge[]): Layout {
  const at = (edge: Edge) => edges.includes(edge);
  const [deep, high] = [width * BESIDE, height * ABOVE];
  const left = MARGIN + (at('left') ? deep : 0);
  const top = MARGIN + (at('top') ? high : 0);
  const whole = {
    x: -left,
    y: -top,
    w: left + width + MARGIN + (at('right') ? deep : 0),
    h: top + height + MARGIN + (at('bottom') ? high : 0),
  };
  const rooms = edges.map((edge, index): Box => {
    const same = edges.flatMap((each, number) => (each === edge ? [number] : []));
    const [nth, of] = [same.indexOf(index), same.length];
    const isBeside = edge === 'left' || edge === 'right';
    const along = (isBeside ? height : width) / of;
    const beyond = { left: -GAP - deep, right: width + GAP, top: -GAP - high, bottom: height + GAP }[edge];
    return isBeside
      ? { x: beyond, y: nth * along, w: deep, h: along }
      : { x: nth * along, y: beyond, w: along, h: high };
  });
  return { whole, rooms };
}

/** Between a device and what stands open at it, mm. */
const GAP = 3;

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
