import { type DeviceMap, fastenerAt, type Joint } from '@nibrel/core/device-map';
import { screwLetters } from '@nibrel/core/screws';
import { markScale, onSide, placesOf, type Side } from './geometry.ts';
import { pressable, type ThingProps } from './thing.tsx';

/** A joint where it is: screws as rings with their letter, bonds along their segments, the rest as a small bar. */
export function JointMark({ map, side, id, now, selected, onPress }: ThingProps & { id: string }) {
  const joint = map.joints.find((each) => each.id === id);
  if (!joint) return null;
  const scale = markScale(map);
  const colour = now || selected ? 'var(--now)' : 'var(--ink)';
  return (
    <g {...pressable(id, id, onPress)} stroke={colour} fill="var(--sheet)" strokeWidth="0.6">
      {joint.type === 'screw' ? <ScrewPoints map={map} side={side} joint={joint} colour={colour} /> : null}
      {joint.type === 'bond' && joint.segments
        ? joint.segments.map((each) => (
            <line
              key={each.id}
              x1={onSide(map, side, each.from.x)}
              y1={each.from.y}
              x2={onSide(map, side, each.to.x)}
              y2={each.to.y}
              strokeWidth="1.3"
              strokeDasharray="1.6 1"
            />
          ))
        : null}
      {joint.type !== 'screw' && !(joint.type === 'bond' && joint.segments)
        ? placesOf(map, joint).map(({ x, y }) => (
            <rect
              key={`${x}/${y}`}
              x={onSide(map, side, x) - 1.9 * scale}
              y={y - 1.1 * scale}
              width={3.8 * scale}
              height={2.2 * scale}
              rx="0.5"
            />
          ))
        : null}
    </g>
  );
}

function ScrewPoints({
  map,
  side,
  joint,
  colour,
}: {
  map: DeviceMap;
  side: Side;
  joint: Joint & { type: 'screw' };
  colour: string;
}) {
  const letters = screwLetters(map);
  const scale = markScale(map);
  return joint.points.map((point) => {
    const x = onSide(map, side, point.x);
    const { letter } = letters.get(fastenerAt(joint, point))!;
    return (
      <g key={point.id}>
        <circle cx={x} cy={point.y} r={1.5 * scale} />
        <text
          x={x}
          y={point.y - 3.4 * scale}
          textAnchor="middle"
          fontSize={3.4 * scale}
          fontWeight="700"
          fill={colour}
          stroke="var(--sheet)"
          strokeWidth={0.8 * scale}
          paintOrder="stroke"
          dominantBaseline="central"
        >
          {letter}
        </text>
      </g>
    );
  });
}
