import type { DeviceMap } from '../../model/device-map/index.ts';
import type { Limits } from '../../model/limits/index.ts';
import type { Screw } from '../screws/index.ts';
import { harmOf } from './harm.ts';
import { holesOf } from './holes.ts';

/** What a lost screw leaves behind, and what can stand in for it. */
export interface LostScrew {
  /** kinds of this device that go into its hole without harm, by the same bit; its own left out */
  readonly substitutes: readonly string[];
  /** what it risks where it lies loose inside */
  readonly risk: string;
  /** as it is ordered */
  readonly order: string;
}

export function lostScrew(
  map: DeviceMap,
  { joint, point }: Pick<Screw, 'joint' | 'point'>,
  limits: Limits,
): LostScrew | null {
  const hole = holesOf(map, [joint]).find((each) => each.point.id === point);
  if (!hole) return null;
  const { kind: own } = hole;
  const substitutes = map.fasteners.filter(
    (each) =>
      each.id !== own.id && !each.captive && each.drive === own.drive && harmOf(each, own, hole.point, limits) === null,
  );
  const cells = map.parts.filter(({ hazards }) => hazards?.includes('lithium'));
  const magnets = map.parts.filter(({ hazards }) => hazards?.includes('magnet'));
  const under = cells.length > 0 ? 'under a cell it wears through, under a board it shorts' : 'under a board it shorts';
  const stuck =
    own.magnetic !== false && magnets.length > 0
      ? `; look at ${magnets.map(({ name }) => name).join(', ')} first: magnets`
      : '';
  return {
    substitutes: substitutes.map(({ id }) => id),
    risk: `Loose inside: ${under}${stuck}`,
    order: `${own.thread} × ${own.length} mm, ${own.drive}, head ${own.head} mm${own.colour ? `, ${own.colour}` : ''}`,
  };
}
