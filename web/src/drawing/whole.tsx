import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { ReactNode } from 'react';
import type { Box } from '@nibrel/core/drawn/places';

interface WholeProps {
  readonly map: DeviceMap;
  readonly whole: Box;
  /** what of it is drawn large */
  readonly close: Box;
  readonly children: ReactNode;
}

/** The whole device, small, with what is drawn large marked on it. */
export function Whole({ map, whole, close, children }: WholeProps) {
  const { width, height, corner } = map.outline;
  return (
    <svg
      role="group"
      aria-label="The whole device"
      viewBox={`${whole.x} ${whole.y} ${whole.w} ${whole.h}`}
      className="absolute right-0 bottom-0 h-[26%] max-w-[34%] border border-hair bg-paper"
      preserveAspectRatio="xMaxYMax meet"
    >
      <rect {...rectOf({ x: 0, y: 0, w: width, h: height })} rx={corner} fill="var(--sheet)" stroke="var(--ink)" />
      {children}
      <rect {...rectOf(close)} fill="none" stroke="var(--now)" strokeWidth="2" pointerEvents="none" />
    </svg>
  );
}

function rectOf({ x, y, w, h }: Box) {
  return { x, y, width: w, height: h };
}
