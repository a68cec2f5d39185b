import type { Line } from '@nibrel/core/asking/question';
import { type DeviceMap, jointById, partById } from '@nibrel/core/model/device-map';
import { centreOf, onSide, placesOf, type Side } from './geometry.ts';
import { MARK_PX, useMm } from './scale.ts';
import { Words } from './thing.tsx';

interface StepNumbersProps {
  readonly map: DeviceMap;
  readonly side: Side;
  readonly list: readonly Line[];
}

/** Which of several things that one press does is where, by its number in the list: beside a joint, on a part. */
export function StepNumbers({ map, side, list }: StepNumbersProps) {
  const mm = useMm();
  return list.map(({ id, at }, index) => {
    const joint = jointById(map, at ?? undefined);
    const part = partById(map, at ?? undefined);
    const place = joint ? placesOf(map, joint)[0] : part && centreOf(part);
    if (!place || (joint && joint.face !== side)) return null;
    const beside = joint ? mm(MARK_PX * 1.3) : 0;
    return (
      <g key={id} pointerEvents="none">
        <circle
          cx={onSide(map, side, place.x) - beside}
          cy={place.y}
          r={mm(MARK_PX * 0.55)}
          fill="var(--sheet)"
          stroke="var(--now)"
          strokeWidth={mm(2)}
        />
        <Words x={onSide(map, side, place.x) - beside} y={place.y} strong>
          {index + 1}
        </Words>
      </g>
    );
  });
}
