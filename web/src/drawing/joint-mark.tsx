import { type DeviceMap, fastenerAt, type Joint, jointById } from '@nibrel/core/model/device-map';
import { tighteningOrder } from '@nibrel/core/screws/tightening';
import { screwLetters } from '@nibrel/core/screws/screws';
import { MARK_PX, NAME_PX, type Turning, WORD_PX } from '@nibrel/core/drawn/picture';
import { onSide, placesOf, type Side } from '@nibrel/core/drawn/places';
import { useMm } from './scale.ts';
import { pressable, type ThingProps, Words } from './thing.tsx';

interface JointMarkProps extends ThingProps {
  readonly id: string;
  /** screws that go in an order have its number beside them: out, or in */
  readonly turning?: Turning;
}

/** A joint where it is: screws as rings with their letter, bonds along their segments, the rest as a small bar. */
export function JointMark({ map, side, id, now, selected, turning, onPress }: JointMarkProps) {
  const joint = jointById(map, id);
  const mm = useMm();
  if (!joint) return null;
  const isStrong = now || selected;
  const size = mm(isStrong ? MARK_PX : MARK_PX * 0.6);
  const colour = isStrong ? 'var(--now)' : 'var(--ink)';
  return (
    <g {...pressable(id, id, onPress)} stroke={colour} fill="var(--sheet)" strokeWidth={mm(2)}>
      {joint.type === 'screw' ? (
        <ScrewPoints map={map} side={side} joint={joint} isStrong={isStrong} size={size} turning={turning} />
      ) : null}
      {joint.type === 'bond' && joint.segments
        ? joint.segments.map((each) => (
            <line
              key={each.id}
              x1={onSide(map, side, each.from.x)}
              y1={each.from.y}
              x2={onSide(map, side, each.to.x)}
              y2={each.to.y}
              strokeWidth={mm(5)}
              strokeDasharray={`${mm(7)} ${mm(4)}`}
            />
          ))
        : null}
      {joint.type !== 'screw' && !(joint.type === 'bond' && joint.segments)
        ? placesOf(map, joint).map(({ x, y }) => (
            <rect
              key={`${x}/${y}`}
              x={onSide(map, side, x) - size / 2}
              y={y - size * 0.32}
              width={size}
              height={size * 0.64}
              rx={mm(2)}
            />
          ))
        : null}
      {joint.type === 'clip' && turning === 'out'
        ? (joint.points ?? []).map(({ id: point, x, y, order }) =>
            order === undefined ? null : (
              <Words key={point} x={onSide(map, side, x) + size * 0.85} y={y} size_px={NAME_PX} strong={isStrong}>
                {order}
              </Words>
            ),
          )
        : null}
    </g>
  );
}

function ScrewPoints({
  map,
  side,
  joint,
  isStrong,
  size,
  turning,
}: {
  map: DeviceMap;
  side: Side;
  joint: Joint & { type: 'screw' };
  isStrong: boolean;
  size: number;
  turning: JointMarkProps['turning'];
}) {
  const letters = screwLetters(map);
  const mm = useMm();
  // one by itself is in no order
  const inTurn =
    joint.points.length > 1 ? new Map(tighteningOrder(joint).map(({ id }, at) => [id, at + 1] as const)) : undefined;
  return joint.points.map((point) => {
    const x = onSide(map, side, point.x);
    const turn = turning === 'out' ? point.outOrder : turning === 'in' ? inTurn?.get(point.id) : undefined;
    const { letter } = letters.get(fastenerAt(joint, point))!;
    return (
      <g key={point.id}>
        <circle cx={x} cy={point.y} r={size / 2} />
        <text
          x={x}
          y={point.y}
          textAnchor="middle"
          fontSize={mm(WORD_PX)}
          fontWeight="700"
          fill={isStrong ? 'var(--now)' : 'var(--ink)'}
          stroke="none"
          dominantBaseline="central"
        >
          {letter}
        </text>
        {turn !== undefined && (
          <Words x={x + size * 0.85} y={point.y} size_px={NAME_PX} strong={isStrong}>
            {turn}
          </Words>
        )}
      </g>
    );
  });
}
