import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { ReactNode } from 'react';
import type { Side } from './geometry.ts';
import { NAME_PX, useMm, WORD_PX } from './scale.ts';

/** A part or joint on the drawing. */
export interface ThingProps {
  readonly map: DeviceMap;
  readonly side: Side;
  readonly now: boolean;
  readonly selected: boolean;
  onPress?(thing: string): void;
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
  readonly children: ReactNode;
}

/** Words on the drawing, readable over any shape. */
export function Words({ x, y, strong, children }: WordsProps) {
  const mm = useMm();
  return (
    <text
      x={x}
      y={y}
      textAnchor="middle"
      dominantBaseline="central"
      fontSize={mm(strong ? NAME_PX : WORD_PX)}
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
