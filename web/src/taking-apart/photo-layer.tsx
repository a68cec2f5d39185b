import { onSide, outlinePath, type Side } from '@nibrel/core/drawn/places';
import type { DeviceMap, Point } from '@nibrel/core/model/device-map';
import { USUAL } from '@nibrel/core/teardown/record';
import type { MouseEvent } from 'react';

interface PhotoLayerProps {
  readonly map: DeviceMap;
  readonly side: Side;
  /** of the photograph, set straight */
  readonly src: string;
  readonly places: readonly Point[];
  readonly label: string;
  readonly onPlace: ((place: Point) => void) | undefined;
}

/** The photograph of a layer, as large as the device, with the outlines that were told: places are pressed on it. */
export function PhotoLayer({ map, side, src, places, label, onPlace }: PhotoLayerProps) {
  const { width, height } = map.outline;
  const unplaced = new Set(map.origin?.unplaced);
  const told = map.parts.filter(
    ({ id, kind, base, face }) =>
      !base && !USUAL[kind].isWhole && !unplaced.has(id) && (face === side || face === 'edge'),
  );
  const place = (event: MouseEvent<SVGSVGElement>) => {
    const matrix = event.currentTarget.getScreenCTM();
    if (!matrix || !onPlace) return;
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    if (x < 0 || y < 0 || x > width || y > height) return;
    onPlace({ x: tenth(onSide(map, side, x)), y: tenth(y) });
  };
  return (
    <svg
      viewBox={`-2 -2 ${width + 4} ${height + 4}`}
      role="group"
      aria-label={label}
      className={`h-full w-full ${onPlace ? 'cursor-crosshair' : ''}`}
      onClick={place}
    >
      <image href={src} width={width} height={height} preserveAspectRatio="none" />
      <rect width={width} height={height} fill="none" stroke="var(--ink)" strokeWidth="0.4" />
      {told.map((part) => (
        <path
          key={part.id}
          d={outlinePath(map, side, part)}
          fill="none"
          stroke="var(--now)"
          strokeWidth="0.5"
          strokeDasharray="2 1.4"
        >
          <title>{part.name}</title>
        </path>
      ))}
      {places.map(({ x, y }, at) => (
        <g key={at} pointerEvents="none">
          <circle cx={onSide(map, side, x)} cy={y} r="2.4" fill="var(--sheet)" stroke="var(--now)" strokeWidth="0.5" />
          <text
            x={onSide(map, side, x)}
            y={y + 1.1}
            fontSize="3"
            fontWeight="700"
            textAnchor="middle"
            fill="var(--now)"
          >
            {at + 1}
          </text>
        </g>
      ))}
    </svg>
  );
}

function tenth(mm: number): number {
  return Math.round(mm * 10) / 10;
}
