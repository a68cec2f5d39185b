import { jointById, partById } from './by-id.ts';
import { type DeviceMap, type Edge, isTether, type Part, type Point } from './types.ts';

/**
 * Toward where the flex of a plug leaves it: the middle of what hangs on it; where that opens with all that rides on it,
 * straight across to the side of it that stays down, since there it hangs.
 * @param from where the plug is
 */
export function flexGoesTo(map: DeviceMap, jointId: string, from: Point): Point | null {
  const held = partById(map, jointById(map, jointId)?.holds[0]);
  if (!held) return null;
  const { box } = held;
  return sideThatStays(map, held, from) ?? { x: box.x + box.w / 2, y: box.y + box.h / 2 };
}

/** Of the part, or of what it is fixed to, or that is fixed to: the first that opens at an edge. */
function sideThatStays(map: DeviceMap, held: Part, from: Point): Point | null {
  const seen = new Set<string>();
  for (let part: Part | undefined = held; part && !seen.has(part.id); part = carrierOf(map, part)) {
    seen.add(part.id);
    if (!part.opens) continue;
    const { edge } = part.opens;
    const { x, y } = middleOfEdge(part.box, edge);
    return edge === 'left' || edge === 'right' ? { x, y: from.y } : { x: from.x, y };
  }
  return null;
}

function carrierOf(map: DeviceMap, { id }: Part): Part | undefined {
  const fixed = map.joints.find((each) => !isTether(each) && each.holds.includes(id));
  const carrier = partById(map, fixed?.to);
  return carrier?.base ? undefined : carrier;
}

/** The middle of one side of a rectangle. */
export function middleOfEdge({ x, y, w, h }: Part['box'], edge: Edge): Point {
  switch (edge) {
    case 'left':
      return { x, y: y + h / 2 };
    case 'right':
      return { x: x + w, y: y + h / 2 };
    case 'top':
      return { x: x + w / 2, y };
    case 'bottom':
      return { x: x + w / 2, y: y + h };
  }
}
