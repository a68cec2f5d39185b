import type { Standing } from '@nibrel/core/drawn/picture';
import { useMm } from './scale.ts';
import { pressable } from './thing.tsx';

interface StandingShapeProps {
  readonly standing: Standing;
  readonly name: string;
  readonly now: boolean;
  onPress?: ((thing: string) => void) | undefined;
}

/** A part that stands open: at the edge where it stays down, still tied to the device by what tethers it. */
export function StandingShape({ standing: { part, ring, tethers }, name, now, onPress }: StandingShapeProps) {
  const mm = useMm();
  const [near, end] = ring as [readonly [number, number], readonly [number, number]];
  return (
    <g {...pressable(part, `${name}, standing`, onPress)}>
      {tethers.map(([from, to]) => (
        <line
          key={`${from!.x} ${from!.y} ${to!.x} ${to!.y}`}
          x1={from!.x}
          y1={from!.y}
          x2={to!.x}
          y2={to!.y}
          stroke="var(--quiet)"
          strokeWidth={mm(4)}
        />
      ))}
      <path
        d={`M${ring.map(([x, y]) => `${x} ${y}`).join('L')}Z`}
        fill={now ? 'var(--now-wash)' : 'var(--sheet)'}
        stroke={now ? 'var(--now)' : 'var(--ink)'}
        strokeWidth={mm(now ? 3.5 : 2)}
        strokeDasharray={`${mm(9)} ${mm(6)}`}
        strokeLinejoin="round"
      />
      <line
        x1={near[0]}
        y1={near[1]}
        x2={end[0]}
        y2={end[1]}
        stroke={now ? 'var(--now)' : 'var(--ink)'}
        strokeWidth={mm(5)}
      />
    </g>
  );
}
