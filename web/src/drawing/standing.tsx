import { type DeviceMap, partById } from '@nibrel/core/model/device-map';
import { onSide, placeOf, type Side } from './geometry.ts';
import { useMm } from './scale.ts';
import type { Box } from './view-box.ts';
import { pressable, Words } from './thing.tsx';

interface StandingProps {
  readonly map: DeviceMap;
  readonly side: Side;
  readonly part: string;
  readonly tethers: readonly string[];
  /** where there is room for it */
  readonly room: Box;
  readonly now: boolean;
  onPress?(thing: string): void;
}

/** A part that stands open: its outline beside the device, still tied to it by what tethers it. */
export function Standing({ map, side, part: id, tethers, room, now, onPress }: StandingProps) {
  const part = partById(map, id)!;
  const mm = useMm();
  const scale = Math.min(1, room.w / part.box.w, room.h / part.box.h);
  const [w, h] = [part.box.w * scale, part.box.h * scale];
  const [x, y] = [room.x, room.y];
  return (
    <g {...pressable(id, `${part.name}, standing`, onPress)}>
      {tethers.map((tether) => {
        const place = placeOf(map, tether);
        if (!place) return null;
        const fromX = onSide(map, side, place.x);
        return (
          <path
            key={tether}
            d={tetherPath(fromX, place.y, room, w, h)}
            fill="none"
            stroke="var(--quiet)"
            strokeWidth={mm(3)}
          />
        );
      })}
      <rect
        x={x}
        y={y}
        width={w}
        height={h}
        rx="4"
        fill={now ? 'var(--now-wash)' : 'var(--sheet)'}
        fillOpacity={now ? 1 : 0.6}
        stroke={now ? 'var(--now)' : 'var(--ink)'}
        strokeWidth={mm(now ? 3.5 : 2)}
        strokeDasharray={`${mm(9)} ${mm(6)}`}
      />
      <Words x={x + w / 2} y={y + h / 2} strong={now}>
        {part.name}
      </Words>
      <Words x={x + w / 2} y={y + h / 2 + mm(20)}>
        stands open
      </Words>
    </g>
  );
}

/** From its place in the device to the near edge of what stands beside or above it. */
function tetherPath(fromX: number, fromY: number, room: Box, w: number, h: number): string {
  if (room.y < 0) {
    const [x, y] = [Math.min(room.x + w - 4, Math.max(room.x + 4, fromX)), room.y + h];
    return `M${fromX} ${fromY}C${fromX} ${fromY / 2} ${x} ${y + 14} ${x} ${y}`;
  }
  const y = room.y + 8 + fromY * 0.5;
  return `M${fromX} ${fromY}C${(fromX + room.x) / 2 + 6} ${fromY} ${room.x - 8} ${y} ${room.x} ${y}`;
}
