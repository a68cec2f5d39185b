import type { Joint, Part } from '../../model/device-map/index.ts';
import { assembled, carried, type Mechanism } from '../../planner/holds/index.ts';

/** What an old part carries, and what becomes of each piece with this new one. */
export interface Pieces {
  /** came with the new part: the old piece stays on the old one */
  readonly included: readonly Part[];
  /** the new part lacks it: it moves over */
  readonly movesOver: readonly Part[];
  /** the new part lacks it and it is for one use: a new piece is needed */
  readonly renewed: readonly Part[];
}

/** Old and new side by side, from the map: what the old one carries and the new one came with. */
export function comparePieces(mechanism: Mechanism, mapPart: string, includes: readonly string[]): Pieces {
  const number = mechanism.part.get(mapPart);
  if (number === undefined) return { included: [], movesOver: [], renewed: [] };
  const along =
    number === mechanism.base
      ? mechanism.map.parts.filter((_, each) => each !== number)
      : [...carried(mechanism, assembled(mechanism), number)]
          .filter((each) => each !== number)
          .map((each) => mechanism.map.parts[each]!);
  const lacking = along.filter((each) => !includes.includes(each.id));
  return {
    included: along.filter((each) => includes.includes(each.id)),
    movesOver: lacking.filter((each) => each.reuse !== 'single-use'),
    renewed: lacking.filter((each) => each.reuse === 'single-use'),
  };
}

/** Holes, hooks and sockets that a new part may turn out to have no place for. */
export function placesOn(mechanism: Mechanism, mapPart: string): Joint[] {
  const number = mechanism.part.get(mapPart);
  return mechanism.map.joints.filter(
    (joint, index) =>
      number !== undefined &&
      mechanism.ends[index]!.includes(number) &&
      (joint.type === 'screw' || joint.type === 'clip' || joint.type === 'connector') &&
      !mechanism.selfParting[index],
  );
}
