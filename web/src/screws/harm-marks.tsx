import type { DeviceMap, Fastener } from '@nibrel/core/device-map';
import type { Limits } from '@nibrel/core/limits';
import { harmOf, holesOf } from '@nibrel/core/mix-ups';
import { screwLetters } from '@nibrel/core/screws';
import { onSide, type Side } from '../drawing/geometry.ts';
import { MARK_PX, useMm, WORD_PX } from '../drawing/scale.ts';

interface HarmMarksProps {
  readonly map: DeviceMap;
  readonly side: Side;
  readonly kind: Fastener;
  readonly limits: Limits;
}

/** Every hole of a side with its own letter: crossed where this screw would do harm, plain where it would not. */
export function HarmMarks({ map, side, kind, limits }: HarmMarksProps) {
  const mm = useMm();
  const letters = screwLetters(map);
  const holes = holesOf(map).filter(({ joint }) => joint.face === side || joint.face === 'edge');
  const r = mm(MARK_PX * 0.34);
  return (
    <g pointerEvents="none">
      {holes.map(({ joint, point, kind: right }) => {
        const harm = harmOf(kind, right, point, limits);
        const isOwn = right.id === kind.id;
        const x = onSide(map, side, point.x);
        const colour = harm ? 'var(--now)' : isOwn ? 'var(--done)' : 'var(--quiet)';
        return (
          <g key={`${joint.id}/${point.id}`} stroke={colour} strokeWidth={mm(harm || isOwn ? 2.4 : 1.2)}>
            <title>{`${point.id}: ${harm ? harm.text : isOwn ? 'its own' : 'no harm'}`}</title>
            <circle cx={x} cy={point.y} r={r} fill="var(--sheet)" />
            {harm && <path d={`M${x - r} ${point.y - r}l${2 * r} ${2 * r}m0 ${-2 * r}l${-2 * r} ${2 * r}`} />}
            {isOwn && <circle cx={x} cy={point.y} r={r * 1.35} fill="none" />}
            <text
              x={x + r * 1.9}
              y={point.y}
              fontSize={mm(WORD_PX)}
              fontWeight={700}
              fill={colour}
              stroke="var(--sheet)"
              strokeWidth={mm(3)}
              paintOrder="stroke"
              dominantBaseline="central"
            >
              {letters.get(right.id)!.letter}
            </text>
          </g>
        );
      })}
    </g>
  );
}
