import type { Edge, Face } from '../../model/device-map/index.ts';

/**
 * What a map calls left is its left seen from the front. With its back up a device is turned over: whatever a person reads
 * is told as it is seen then.
 */

const OVER: Readonly<Record<Edge, Edge>> = { left: 'right', right: 'left', top: 'top', bottom: 'bottom' };

/** An edge of the map, on the face that is up. */
export function seenEdge(edge: Edge, face: Face): Edge {
  return face === 'back' ? OVER[edge] : edge;
}

/** A way in mm, x to the right and y down, on the face that is up. */
export function seenWay<T extends { readonly dx: number; readonly dy: number }>(way: T, face: Face): T {
  return face === 'back' ? { ...way, dx: -way.dx } : way;
}
