import Joi from 'joi';
import type { Fastener } from '../../model/device-map/index.ts';
import { Refusal, wrong } from '../../model/refusal/index.ts';

type SwapVerdict = 'fits' | 'long' | 'short' | 'wrong-drive' | 'wrong-thread';

/** What would happen if a screw of this kind went into this hole. */
export interface SwapCell {
  readonly fastener: string;
  readonly joint: string;
  readonly point: string;
  readonly verdict: SwapVerdict;
  /** how far it would stick out below the hole */
  readonly protrudes_mm?: number;
  /** how much less of it would hold than of the right one */
  readonly engagementLost_mm?: number;
}

type Kind = Pick<Fastener, 'id' | 'drive' | 'thread' | 'length'>;

interface Hole {
  readonly id: string;
  readonly fastener?: string;
  readonly depth: number;
}

/** Fasteners and screw joints as in a device map; no more of them is read than this. */
export interface SwapRequest {
  readonly fasteners: readonly Kind[];
  readonly joints: readonly { readonly id: string; readonly fastener: string; readonly points: readonly Hole[] }[];
}

/** A table that nobody reads any more, and that would hold up others. */
const MOST_CELLS = 200_000;

const id = Joi.string().min(1).max(100);
const name = Joi.string().min(1).max(200);

export const swapRequest = Joi.object<SwapRequest>({
  fasteners: Joi.array()
    .max(500)
    .unique('id')
    .items(
      Joi.object({
        id: id.required(),
        drive: name.required(),
        thread: name.required(),
        length: Joi.number().greater(0).max(200).required(),
      }).unknown(true),
    )
    .required(),
  joints: Joi.array()
    .max(2000)
    .items(
      Joi.object({
        id: id.required(),
        type: Joi.string().valid('screw'),
        fastener: id.required(),
        points: Joi.array()
          .min(1)
          .max(500)
          .items(
            Joi.object({ id: id.required(), fastener: id, depth: Joi.number().min(0).max(3000).required() }).unknown(
              true,
            ),
          )
          .required(),
      }).unknown(true),
    )
    .required(),
});

/**
 * Every screw kind in every hole, in the order of the fasteners, then of the joints and their points. Where several hold, a
 * wrong thread is said before a wrong drive, that before too long, that before too short.
 * @throws Refusal by the path of what names no fastener, or where the table is too large
 */
export function swapTable({ fasteners, joints }: SwapRequest): SwapCell[] {
  const byId = new Map(fasteners.map((each) => [each.id, each]));
  const holes = joints.flatMap((joint, at) =>
    joint.points.map((point, index) => {
      const kind = point.fastener ?? joint.fastener;
      const right = byId.get(kind);
      const path = point.fastener === undefined ? `joints[${at}].fastener` : `joints[${at}].points[${index}].fastener`;
      if (!right) throw new Refusal(wrong(path, `There is no fastener "${kind}" among the fasteners.`));
      return { joint: joint.id, point: point.id, depth: point.depth, right };
    }),
  );
  if (fasteners.length * holes.length > MOST_CELLS) {
    throw new Refusal(
      wrong('joints', `That is more than ${MOST_CELLS} pairs of a screw and a hole.`, 'Ask for fewer joints at once.'),
    );
  }
  return fasteners.flatMap((each) =>
    holes.map(({ joint, point, depth, right }) => ({
      fastener: each.id,
      joint,
      point,
      ...swapped(each, right, depth),
    })),
  );
}

/** A screw in a hole of this depth that is meant for another. */
export function swapped(
  screw: Omit<Kind, 'id'>,
  right: Omit<Kind, 'id'>,
  depth: number,
): Pick<SwapCell, 'verdict' | 'protrudes_mm' | 'engagementLost_mm'> {
  if (screw.thread !== right.thread) return { verdict: 'wrong-thread' };
  if (screw.drive !== right.drive) return { verdict: 'wrong-drive' };
  const protrudes_mm = microns(screw.length - depth);
  if (protrudes_mm > 0) return { verdict: 'long', protrudes_mm };
  const engagementLost_mm = microns(right.length - screw.length);
  return engagementLost_mm > 0 ? { verdict: 'short', engagementLost_mm } : { verdict: 'fits' };
}

function microns(mm: number): number {
  return Math.round(mm * 1000) / 1000;
}
