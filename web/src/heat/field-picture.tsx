import type { DeviceMap } from '@nibrel/core/model/device-map';
import { coldestOf } from '@nibrel/core/physics/heat';
import { contours } from 'd3-contour';
import { useEffect, useRef } from 'react';
import type { Field } from '../workers/compute.worker.ts';
import { temperature, temperatures } from '../app/units.ts';

interface FieldPictureProps {
  readonly map: DeviceMap;
  readonly field: Field;
  /** which of its moments */
  readonly moment: number;
  readonly soften_C: number;
  /** seen from the back: what is right on the map is left on the bench */
  readonly mirrored: boolean;
  readonly segments: readonly { readonly id: string; readonly from: Place; readonly to: Place }[];
}

interface Place {
  readonly x: number;
  readonly y: number;
}

const COLD_C = 22;
const HOT_C = 80;
const STOPS = ['--sheet', '--care-wash', '--now-wash', '--now'] as const;
/** Lines of equal temperature, °C. */
const LEVELS = [30, 40, 50, 60, 70];

/** The warmth at the level of the bond over the device, and the bond on top: full where it is soft, dashed where stiff. */
export function FieldPicture({ map, field, moment, soften_C, mirrored, segments }: FieldPictureProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height, corner } = map.outline;
  const frame = field.frames[moment]!;
  useEffect(() => {
    if (canvas.current) paint(canvas.current, field, frame, soften_C);
  }, [field, frame, soften_C]);
  return (
    <div
      className="relative h-full"
      style={{ aspectRatio: `${width + 12} / ${height + 12}`, ...(mirrored ? { transform: 'scaleX(-1)' } : {}) }}
    >
      <canvas
        ref={canvas}
        width={field.columns * 8}
        height={field.rows * 8}
        className="absolute"
        style={{
          left: `${(600 / (width + 12)).toFixed(3)}%`,
          top: `${(600 / (height + 12)).toFixed(3)}%`,
          width: `${((100 * width) / (width + 12)).toFixed(3)}%`,
          height: `${((100 * height) / (height + 12)).toFixed(3)}%`,
          borderRadius: `${((100 * corner) / width).toFixed(2)}% / ${((100 * corner) / height).toFixed(2)}%`,
        }}
      />
      <svg
        viewBox={`-6 -6 ${width + 12} ${height + 12}`}
        className="absolute inset-0 h-full w-full"
        role="img"
        aria-label={saidOf(field, moment, soften_C, segments, map)}
      >
        <rect width={width} height={height} rx={corner} fill="none" stroke="var(--ink)" strokeWidth={width / 170} />
        {segments.map(({ id, from, to }) => {
          const soft = coldestOf(map, { from, to }, field, frame) >= soften_C;
          const step = width / 28;
          return (
            <line
              key={id}
              x1={from.x}
              y1={from.y}
              x2={to.x}
              y2={to.y}
              stroke="var(--ink)"
              strokeWidth={soft ? width / 38 : width / 70}
              {...(soft ? {} : { strokeDasharray: `${step} ${step * 0.7}` })}
            />
          );
        })}
      </svg>
    </div>
  );
}

/** What the colours stand for. */
export function Scale() {
  return (
    <div aria-hidden="true" className="mt-1 mb-2 flex max-w-80 items-center gap-2 text-note text-quiet">
      <span>{temperature(COLD_C)}</span>
      <span
        className="h-3 grow border border-quiet"
        style={{ background: `linear-gradient(to right, ${STOPS.map((name) => `var(${name})`).join(', ')})` }}
      />
      <span>{temperature(HOT_C)}</span>
    </div>
  );
}

/** The picture in words. */
function saidOf(
  field: Field,
  moment: number,
  soften_C: number,
  segments: FieldPictureProps['segments'],
  map: DeviceMap,
): string {
  const frame = field.frames[moment]!;
  const soft = segments
    .filter(({ from, to }) => coldestOf(map, { from, to }, field, frame) >= soften_C)
    .map(({ id }) => id);
  return `Warmth over the device, ${temperatures(Math.min(...frame), Math.max(...frame))}. Soft: ${soft.join(', ') || 'no edge'}.`;
}

function clamp(value: number, most: number): number {
  return Math.min(most, Math.max(0, value));
}

function paint(canvas: HTMLCanvasElement, { columns, rows }: Field, frame: Float32Array, soften_C: number): void {
  const context = canvas.getContext('2d')!;
  const style = getComputedStyle(document.documentElement);
  const read = (name: string) => rgb(style.getPropertyValue(name).trim());
  const stops = STOPS.map(read);
  const small = new OffscreenCanvas(columns, rows);
  const pixels = new ImageData(columns, rows);
  frame.forEach((temp, place) => {
    const share = clamp((temp - COLD_C) / (HOT_C - COLD_C), 1) * (stops.length - 1);
    const low = Math.min(stops.length - 2, Math.floor(share));
    for (let channel = 0; channel < 3; channel++) {
      const [a, b] = [stops[low]![channel]!, stops[low + 1]![channel]!];
      pixels.data[place * 4 + channel] = a + (share - low) * (b - a);
    }
    pixels.data[place * 4 + 3] = 255;
  });
  small.getContext('2d')!.putImageData(pixels, 0, 0);
  context.imageSmoothingEnabled = true;
  context.imageSmoothingQuality = 'high';
  context.drawImage(small, 0, 0, canvas.width, canvas.height);
  const scale = { x: canvas.width / columns, y: canvas.height / rows };
  const ink = style.getPropertyValue('--ink').trim();
  for (const { value, coordinates } of contours()
    .size([columns, rows])
    .thresholds([...LEVELS, soften_C])(Array.from(frame))) {
    context.beginPath();
    for (const ring of coordinates.flat()) {
      ring.forEach(([x, y], index) => {
        const [px, py] = [x! * scale.x, y! * scale.y];
        if (index === 0) context.moveTo(px, py);
        else context.lineTo(px, py);
      });
    }
    context.strokeStyle = ink;
    context.globalAlpha = value === soften_C ? 0.9 : 0.3;
    context.lineWidth = value === soften_C ? 6 : 2;
    context.stroke();
  }
  context.globalAlpha = 1;
}

/** `#rrggbb` as numbers. */
function rgb(colour: string): readonly [number, number, number] {
  const value = Number.parseInt(colour.slice(1), 16);
  return [(value >> 16) & 255, (value >> 8) & 255, value & 255];
}
