import { type BondCut, lieOf } from '@nibrel/core/planner/cut';
import { type BondJoint, type DeviceMap, partById } from '@nibrel/core/model/device-map';
import { NAME_PX, stayingSide } from '@nibrel/core/drawn/picture';
import { onSide, type Side } from '@nibrel/core/drawn/places';
import { Stays } from '../../drawing/part-move.tsx';
import { useMm } from '../../drawing/scale.ts';

interface EdgeMarksProps {
  readonly map: DeviceMap;
  readonly side: Side;
  readonly bond: BondJoint;
  readonly cut: BondCut;
  readonly done: ReadonlySet<string>;
}

/** Edges of a cut on the drawing: as wide as the pick goes deep; cut ones full, the one in hand outlined, others dashed. */
export function EdgeMarks({ map, side, bond, cut, done }: EdgeMarksProps) {
  const mm = useMm();
  const size = mm(NAME_PX + 1);
  const next = cut.edges.find((each) => !done.has(each.segment))?.segment;
  const part = partById(map, bond.holds[0]);
  return (
    <g pointerEvents="none">
      {cut.toward && part && <Stays side={stayingSide(map, side, part, cut.toward)} />}
      {cut.edges.map(({ segment, depth }, index) => {
        const { from, to } = bond.segments!.find((each) => each.id === segment)!;
        const [x1, x2] = [onSide(map, side, from.x), onSide(map, side, to.x)];
        const isNow = segment === next;
        const isCut = done.has(segment);
        const { runs, inward } = lieOf({ from: { x: x1, y: from.y }, to: { x: x2, y: to.y } }, map.outline);
        // words of two sides that face each other stand at two heights, so that they meet nowhere
        const aside = runs === 'along' ? (Math.sign(inward.x) * -Math.abs(to.y - from.y)) / 12 : 0;
        const at = { x: (x1 + x2) / 2, y: (from.y + to.y) / 2 + aside };
        const shift = depth / 2;
        return (
          <g key={segment}>
            <line
              x1={x1 + inward.x * shift}
              y1={from.y + inward.y * shift}
              x2={x2 + inward.x * shift}
              y2={to.y + inward.y * shift}
              stroke={isCut ? 'var(--done)' : isNow ? 'var(--now)' : 'var(--ink)'}
              strokeWidth={depth}
              strokeOpacity={isCut || isNow ? 1 : 0.45}
              {...(isCut || isNow ? {} : { strokeDasharray: `${size * 0.5} ${size * 0.5}` })}
            />
            <text
              x={at.x + inward.x * (depth + size * 0.9)}
              y={at.y + inward.y * (depth + size * 0.9)}
              fontSize={isNow ? size * 1.25 : size}
              fontWeight="700"
              textAnchor={runs === 'along' ? (inward.x > 0 ? 'start' : 'end') : 'middle'}
              dominantBaseline="central"
              fill={isCut ? 'var(--done)' : isNow ? 'var(--now)' : 'var(--ink)'}
              stroke="var(--sheet)"
              strokeWidth={size * 0.28}
              paintOrder="stroke"
            >
              {isCut ? '✓' : `${index + 1}: ${depth} mm`}
            </text>
          </g>
        );
      })}
    </g>
  );
}
