import { type DeviceMap, type Part, partById, type Point } from '@nibrel/core/model/device-map';
import { MARK_PX } from '@nibrel/core/drawn/picture';
import { outlinePath, type Side } from '@nibrel/core/drawn/places';
import { useMm } from './scale.ts';
import { pressable, type ThingProps } from './thing.tsx';

const FILLS: Readonly<Record<string, string>> = {
  display: 'var(--glass)',
  lens: 'var(--glass)',
  cover: 'var(--glass)',
  board: 'var(--board)',
  battery: 'var(--mat)',
};

interface PartShapeProps extends ThingProps {
  readonly part: Part;
}

/** A part as its outline. */
export function PartShape({ map, side, part, now, selected, onPress }: PartShapeProps) {
  const mm = useMm();
  return (
    <g {...pressable(part.id, part.name, onPress)} aria-pressed={onPress ? selected : undefined}>
      <path
        d={outlinePath(map, side, part)}
        fill={now ? 'var(--now-wash)' : (FILLS[part.kind] ?? 'var(--metal)')}
        stroke={now || selected ? 'var(--now)' : 'var(--quiet)'}
        strokeWidth={mm(now || selected ? 3.5 : 1.2)}
        strokeLinejoin="round"
        fillRule="evenodd"
        {...(part.kind === 'display' ? { fillOpacity: 0.94 } : {})}
      />
    </g>
  );
}

/** An opening that a flex is drawn out of, or fed back through. */
export function Opening({ x, y }: Point) {
  const mm = useMm();
  return (
    <g stroke="var(--now)" fill="none" strokeWidth={mm(2.5)} pointerEvents="none">
      <ellipse cx={x} cy={y} rx={mm(MARK_PX * 0.5)} ry={mm(MARK_PX * 0.26)} />
      <path d={`M${x - mm(MARK_PX * 0.8)} ${y}H${x + mm(MARK_PX * 0.8)}`} strokeDasharray={`${mm(4)} ${mm(3)}`} />
    </g>
  );
}

/** A part that is off: its outline only. */
export function Ghost({ map, side, id }: { map: DeviceMap; side: Side; id: string }) {
  const mm = useMm();
  const part = partById(map, id);
  if (!part || (part.face !== side && part.face !== 'edge')) return null;
  return (
    <path
      d={outlinePath(map, side, part)}
      fill="none"
      stroke="var(--hair)"
      strokeWidth={mm(1)}
      strokeDasharray={`${mm(4)} ${mm(4)}`}
    />
  );
}
