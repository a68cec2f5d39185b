import { NAME_PX, RING_PX } from '@nibrel/core/drawn/picture';
import type { Point } from '@nibrel/core/model/device-map';
import type { ReactNode } from 'react';
import { useMm } from './scale.ts';
import { Words } from './thing.tsx';

/** Which of several things that one press does is here, by its number in the list. */
export function NumberMark({ number, at: { x, y } }: { readonly number: number; readonly at: Point }) {
  const mm = useMm();
  return (
    <g pointerEvents="none">
      <Ring x={x} y={y} r={mm(RING_PX / 2)}>
        <Words x={x} y={y} size_px={NAME_PX} strong>
          {number}
        </Words>
      </Ring>
    </g>
  );
}

interface RingProps extends Point {
  readonly r: number;
  readonly children: ReactNode;
}

export function Ring({ x, y, r, children }: RingProps) {
  const mm = useMm();
  return (
    <>
      <circle cx={x} cy={y} r={r} fill="var(--sheet)" stroke="var(--now)" strokeWidth={mm(2)} />
      {children}
    </>
  );
}
