import type { DeviceMap, Fastener } from '@nibrel/core/model/device-map';
import type { Limits } from '@nibrel/core/model/limits';
import { harmOf, holesOf } from '@nibrel/core/screws/mix-ups';
import { screwLetters } from '@nibrel/core/screws/screws';
import { onSide, type Side } from '@nibrel/core/drawn/places';
import { MARK_PX, WORD_PX } from '@nibrel/core/drawn/picture';
import { useMm } from '../drawing/scale.ts';

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
  const r = mm(MARK_PX * 0.34);
  const holes = holesOf(map)
    .filter(({ joint }) => joint.face === side || joint.face === 'edge')
    .map(({ joint, point, kind: right }) => ({
      id: `${joint.id}/${point.id}`,
      x: onSide(map, side, point.x),
      y: point.y,
      letter: letters.get(right.id)!.letter,
      does: right.id === kind.id ? 'own' : harmOf(kind, right, point, limits) ? 'harm' : 'none',
    }));
  return (
    <g pointerEvents="none">
      {LOOKS.map(({ does, colour, px, isCrossed, isRinged }) => {
        const own = holes.filter((each) => each.does === does);
        const rings = own.map(({ x, y }) => ring(x, y, r) + (isRinged ? ring(x, y, r * 1.35) : ''));
        const crosses = own.map(({ x, y }) => `M${x - r} ${y - r}l${2 * r} ${2 * r}m0 ${-2 * r}l${-2 * r} ${2 * r}`);
        return (
          <g key={does} stroke={colour} strokeWidth={mm(px)}>
            <path d={rings.join('')} fill={isRinged ? 'none' : 'var(--sheet)'} />
            {isCrossed && <path d={crosses.join('')} fill="none" />}
            {holes.length <= LETTERED &&
              own.map(({ id, x, y, letter }) => (
                <text
                  key={id}
                  x={x + r * 1.9}
                  y={y}
                  fontSize={mm(WORD_PX)}
                  fontWeight={700}
                  fill={colour}
                  stroke="var(--sheet)"
                  strokeWidth={mm(3)}
                  paintOrder="stroke"
                  dominantBaseline="central"
                >
                  {letter}
                </text>
              ))}
          </g>
        );
      })}
    </g>
  );
}

/** Where more holes stand, their letters would only lie over each other. */
const LETTERED = 300;

/** Told apart by shape: crossed, ringed twice, a plain ring. */
const LOOKS = [
  { does: 'none', colour: 'var(--quiet)', px: 1.2, isCrossed: false, isRinged: false },
  { does: 'harm', colour: 'var(--now)', px: 2.4, isCrossed: true, isRinged: false },
  { does: 'own', colour: 'var(--done)', px: 2.4, isCrossed: false, isRinged: true },
] as const;

function ring(x: number, y: number, r: number): string {
  return `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`;
}
