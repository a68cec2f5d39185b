import type { Corner } from '@nibrel/core/model/photos';
import { type KeyboardEvent, type PointerEvent, useRef } from 'react';

interface CornersProps {
  readonly src: string;
  readonly width: number;
  readonly height: number;
  /** shares of the picture, from the upper left of the device clockwise */
  readonly corners: readonly Corner[];
  onCorners(corners: readonly Corner[]): void;
}

const NAMES = ['Upper left', 'Upper right', 'Lower right', 'Lower left'] as const;

/** Four corners on a photograph, dragged, or moved with the arrow keys. */
export function Corners({ src, width, height, corners, onCorners }: CornersProps) {
  const svg = useRef<SVGSVGElement>(null);
  const held = useRef<number | null>(null);
  const moved = (at: number, to: Corner) =>
    onCorners(corners.map((corner, index) => (index === at ? { x: clamp(to.x), y: clamp(to.y) } : corner)));
  const drag = (event: PointerEvent) => {
    const matrix = svg.current?.getScreenCTM();
    if (held.current === null || !matrix) return;
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    moved(held.current, { x: x / width, y: y / height });
  };
  const press = (at: number) => (event: KeyboardEvent) => {
    const by = STEPS[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    moved(at, { x: corners[at]!.x + by[0], y: corners[at]!.y + by[1] });
  };
  const unit = Math.max(width, height) / 100;
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${width} ${height}`}
      role="group"
      aria-label="Corners of the photograph"
      className="h-full w-full touch-none"
      onPointerMove={drag}
      onPointerUp={() => (held.current = null)}
    >
      <image href={src} width={width} height={height} preserveAspectRatio="none" />
      <polygon
        points={corners.map(({ x, y }) => `${x * width},${y * height}`).join(' ')}
        fill="none"
        stroke="var(--now)"
        strokeWidth={unit / 3}
      />
      {corners.map(({ x, y }, at) => (
        <g
          key={at}
          role="slider"
          tabIndex={0}
          aria-label={`${NAMES[at]} corner`}
          aria-valuenow={Math.round(x * 100)}
          aria-valuetext={`${Math.round(x * 100)} % across, ${Math.round(y * 100)} % down`}
          className="cursor-grab"
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture?.(event.pointerId);
            held.current = at;
          }}
          onKeyDown={press(at)}
        >
          <circle cx={x * width} cy={y * height} r={unit * 4} fill="transparent" />
          <circle
            cx={x * width}
            cy={y * height}
            r={unit * 1.6}
            fill="var(--sheet)"
            stroke="var(--now)"
            strokeWidth={unit / 2.5}
          />
          <text
            x={x * width}
            y={y * height + unit * 0.7}
            fontSize={unit * 2}
            textAnchor="middle"
            fontWeight="700"
            fill="var(--now)"
          >
            {at + 1}
          </text>
        </g>
      ))}
    </svg>
  );
}

const STEP = 0.005;
const STEPS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-STEP, 0],
  ArrowRight: [STEP, 0],
  ArrowUp: [0, -STEP],
  ArrowDown: [0, STEP],
};

function clamp(share: number): number {
  return Math.round(Math.min(1, Math.max(0, share)) * 10_000) / 10_000;
}
