import { type DeviceMap, jointById } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import { onSide, placesOf, type Side } from './geometry.ts';
import { MARK_PX, useMm } from './scale.ts';
import { Words } from './thing.tsx';

interface PlugNumbersProps {
  readonly map: DeviceMap;
  readonly side: Side;
  readonly ops: readonly Op[];
}

/** Which plug of several that one press takes is which, by its number in the list. */
export function PlugNumbers({ map, side, ops }: PlugNumbersProps) {
  const mm = useMm();
  return ops.map(({ id, joint: jointId }, at) => {
    const [place] = placesOf(map, jointById(map, jointId)!);
    return place ? (
      <Words key={id} x={onSide(map, side, place.x) - mm(MARK_PX * 0.8)} y={place.y} strong>
        {at + 1}
      </Words>
    ) : null;
  });
}
