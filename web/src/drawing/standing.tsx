import type { DeviceMap } from '@nibrel/core/device-map';
import { onSide, placeOf, type Side } from './geometry.ts';
import { pressable, Words } from './thing.tsx';

interface StandingProps {
  readonly map: DeviceMap;
  readonly side: Side;
  readonly part: string;
  readonly tethers: readonly string[];
  readonly x: number;
  readonly y: number;
  readonly now: boolean;
  onPress?(thing: string): void;
}

/** A part that stands open: its outline beside the device, still tied to it by what tethers it. */
export function Standing({ map, side, part: id, tethers, x, y, now, onPress }: StandingProps) {
  const part = map.parts.find((each) => each.id === id)!;
  const scale = Math.min(1, (map.outline.width * 0.62) / part.box.w, (map.outline.height * 0.86) / part.box.h);
  const [w, h] = [part.box.w * scale, part.box.h * scale];
  return (
    <g {...pressable(id, `${part.name}, standing`, onPress)}>
      {tethers.map((tether) => {
        const place = placeOf(map, tether);
        if (!place) return null;
        const fromX = onSide(map, side, place.x);
        return (
          <path
            key={tether}
            d={`M${fromX} ${place.y}C${(fromX + x) / 2 + 6} ${place.y} ${x - 8} ${y + 12 + place.y * 0.5} ${x} ${y + 12 + place.y * 0.5}`}
            fill="none"
            stroke="var(--quiet)"
            strokeWidth="0.9"
          />
        );
      })}
      <rect
        x={x}
        y={y + 4}
        width={w}
        height={h}
        rx="4"
        fill={now ? 'var(--now-wash)' : 'var(--sheet)'}
        fillOpacity={now ? 1 : 0.6}
        stroke={now ? 'var(--now)' : 'var(--ink)'}
        strokeWidth={now ? 1.1 : 0.5}
        strokeDasharray="2.4 1.8"
      />
      <Words x={x + w / 2} y={y + h / 2} strong={now}>
        {part.name}
      </Words>
      <Words x={x + w / 2} y={y + h / 2 + 5.5}>
        stands open
      </Words>
    </g>
  );
}
