import type { Part, Point } from '@nibrel/core/model/device-map';
import { centreOf, contains } from './geometry.ts';
import { MARK_PX, WORD_PX } from './scale.ts';
import type { Box } from './view-box.ts';

/** Does a mark lie over the name of a part? Then the name is left out. */
export function isOver(part: Part, { x, y }: Point, scale: number): boolean {
  const at = centreOf(part);
  const wide = (part.name.length * WORD_PX * 0.56) / 2 + MARK_PX / 2;
  return Math.abs(x - at.x) * scale < wide && Math.abs(y - at.y) * scale < (WORD_PX + MARK_PX) / 2;
}

/** Is there room for the whole of a name, where it stands? */
export function fitsIn({ x, y, w, h }: Box, at: Point, name: string, scale: number): boolean {
  const half = (name.length * WORD_PX * 0.56) / 2 / scale;
  const high = WORD_PX / scale;
  return at.x - half > x && at.x + half < x + w && at.y - high > y && at.y + high < y + h;
}

/** A part is named where nothing nearer covers its middle and there is room for the words. */
export function isNamed(part: Part, visible: readonly Part[], scale: number): boolean {
  const over = visible.slice(0, visible.indexOf(part));
  const room = part.box.w * scale > part.name.length * WORD_PX * 0.56 && part.box.h * scale > WORD_PX * 1.4;
  return room && !over.some((each) => contains(each, centreOf(part)));
}
