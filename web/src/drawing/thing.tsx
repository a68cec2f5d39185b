import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { ReactNode } from 'react';
import { NAME_PX, WORD_PX } from '@nibrel/core/drawn/picture';
import type { Side } from '@nibrel/core/drawn/places';
import { useMm } from './scale.ts';

/** A part or joint on the drawing. */
export interface ThingProps {
  readonly map: DeviceMap;
  readonly side: Side;
  readonly now: boolean;
  readonly selected: boolean;
  onPress?: ((thing: string) => void) | undefined;
}

/** What makes a shape a button, where somebody listens. */
export function pressable(id: string, name: string, onPress?: (thing: string) => void) {
  if (!onPress) return {};
  return {
    role: 'button',
    'aria-label': name,
    className: 'cursor-pointer',
    onClick: (event: { stopPropagation(): void }) => {
      event.stopPropagation();
      onPress(id);
    },
  };
}

interface WordsProps {
  readonly x: number;
  readonly y: number;
  readonly strong?: boolean;
  readonly size_px?: number;
  readonly children: ReactNode;
}

/** Words on the drawing, readable over any shape. */
export function Words({ x, y, strong = false, size_px = strong ? NAME_PX : WORD_PX, children }: WordsProps) {
  const mm = useMm();
  return (
    <text
      x={x}
      y={y}
      textAnchor="middle"
      dominantBaseline="central"
      fontSize={mm(size_px)}
      fontWeight={strong ? 700 : 450}
      fill={strong ? 'var(--now)' : 'var(--ink)'}
      stroke="var(--sheet)"
      strokeWidth={mm(strong ? 4 : 2)}
      paintOrder="stroke"
      pointerEvents="none"
    >
      {children}
    </text>
  );
}
