import type { Area } from './paper.ts';

/** Which square millimetres of an area are taken. Boxes stand on whole millimetres, so that no two can overlap. */
export class Room {
  readonly #area: Area;
  readonly #taken: Uint8Array;
  #row = 0;
  #column = 0;
  #rowHeight = 0;

  constructor(area: Area) {
    this.#area = area;
    this.#taken = new Uint8Array(area.w * area.h);
  }

  /** The free place for a box that is nearest to where it is wanted; null where there is none near. Takes it. */
  near(x: number, y: number, w: number, h: number): { readonly x: number; readonly y: number } | null {
    const [left, top] = [this.#within(x, w, this.#area.w), this.#within(y, h, this.#area.h)];
    for (let r = 0; r <= FARTHEST_MM; r++) {
      const turns = Math.max(1, r * 6);
      for (let turn = 0; turn < turns; turn++) {
        const angle = (turn / turns) * 2 * Math.PI;
        const at = {
          x: this.#within(left + Math.round(r * Math.cos(angle)), w, this.#area.w),
          y: this.#within(top + Math.round(r * Math.sin(angle)), h, this.#area.h),
        };
        if (this.#isFree(at.x, at.y, w, h)) return this.#take(at, w, h);
      }
    }
    return null;
  }

  /** The next place in rows, for what found none near its own; null where the area is full. */
  next(w: number, h: number): { readonly x: number; readonly y: number } | null {
    if (this.#column + w > this.#area.w) {
      this.#row += this.#rowHeight;
      this.#column = 0;
      this.#rowHeight = 0;
    }
    if (w > this.#area.w || this.#row + h > this.#area.h) return null;
    const at = { x: this.#column, y: this.#row };
    this.#column += w;
    this.#rowHeight = Math.max(this.#rowHeight, h);
    return this.#take(at, w, h);
  }

  #within(at: number, size: number, most: number): number {
    return Math.max(0, Math.min(most - size, Math.round(at)));
  }

  #isFree(x: number, y: number, w: number, h: number): boolean {
    for (let row = y; row < y + h; row++) {
      const from = row * this.#area.w + x;
      if (this.#taken.subarray(from, from + w).includes(1)) return false;
    }
    return true;
  }

  #take(at: { readonly x: number; readonly y: number }, w: number, h: number) {
    for (let row = at.y; row < at.y + h; row++) {
      const from = row * this.#area.w + at.x;
      this.#taken.fill(1, from, from + w);
    }
    return at;
  }
}

/** A place farther from its hole is no help: it is listed on a sheet of its own. */
const FARTHEST_MM = 45;
