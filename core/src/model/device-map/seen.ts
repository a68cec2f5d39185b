import type { Edge, Face } from './types.ts';

/**
 * What a map calls left is its left seen from the front. With its back up a device is turned over: whatever a person reads
 * or sees is told as it is seen then. Every word and every mark of left and right comes from here.
 */

const OVER: Readonly<Record<Edge, Edge>> = { left: 'right', right: 'left', top: 'top', bottom: 'bottom' };

/** How far from the left edge of what is so wide a place is, on the face that is up, mm. */
export function seenX(width: number, x: number, face: Face): number {
  return face === 'back' ? width - x : x;
}

/** An edge of the map, on the face that is up. */
export function seenEdge(edge: Edge, face: Face): Edge {
  return face === 'back' ? OVER[edge] : edge;
}

/** A way in mm, x to the right and y down, on the face that is up. */
export function seenWay<T extends { readonly dx: number; readonly dy: number }>(way: T, face: Face): T {
  return face === 'back' ? { ...way, dx: -way.dx } : way;
}

const OPPOSITE: Readonly<Record<Edge, Edge>> = { top: 'bottom', bottom: 'top', left: 'right', right: 'left' };

/** The edge across from an edge. */
export function opposite(edge: Edge): Edge {
  return OPPOSITE[edge];
}
