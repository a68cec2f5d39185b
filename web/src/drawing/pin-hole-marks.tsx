import type { DeviceMap } from '@nibrel/core/model/device-map';
import { pinHoles } from '@nibrel/core/workshop/prepare';
import { onSide, type Side } from '@nibrel/core/drawn/places';

interface PinHoleMarksProps {
  readonly map: DeviceMap;
  readonly side: Side;
  readonly tray: string;
}

/** The hole that a tray pin goes into, and every microphone hole that it must keep out of; straight ones ringed twice. */
export function PinHoleMarks({ map, side, tray }: PinHoleMarksProps) {
  const { right, wrong } = pinHoles(map, tray);
  return (
    <g pointerEvents="none">
      {wrong.map(({ id, x, y, channel }) => (
        <g key={id} transform={`translate(${onSide(map, side, x)} ${y})`} stroke="var(--now)" strokeWidth="1.2">
          <circle r="3.6" fill="var(--sheet)" />
          <path d="M-2.1-2.1l4.2 4.2m0-4.2l-4.2 4.2" />
          {channel === 'straight' && <circle r="5.6" fill="none" strokeDasharray="1.6 1.4" />}
        </g>
      ))}
      {right.map(({ id, x, y }) => (
        <g key={id} transform={`translate(${onSide(map, side, x)} ${y})`}>
          <circle r="3.6" fill="var(--done)" stroke="var(--done)" />
          <path d="M-1.7 0l1.3 1.5l2.3-3" fill="none" stroke="var(--sheet)" strokeWidth="1" />
        </g>
      ))}
    </g>
  );
}
