import type { DeviceMap, Part, Point } from '@nibrel/core/device-map';
import type { MouseEvent, ReactNode } from 'react';
import { centreOf, contains, fromTheTop, markScale, onSide, outlinePath, placeOf, type Side } from './geometry.ts';
import { JointMark } from './joint-mark.tsx';
import { Standing } from './standing.tsx';
import { pressable, type ThingProps, Words } from './thing.tsx';

export interface Shown {
  /** parts that are no longer in the device: only their outline is left */
  readonly gone?: ReadonlySet<string>;
  /** parts that stand open beside it, with the joints that still tether them */
  readonly standing?: readonly { readonly part: string; readonly tethers: readonly string[] }[];
  readonly now?: ReadonlySet<string>;
  readonly selected?: string | null;
  /** joints to be drawn with their marks, and lines from the selected thing to them */
  readonly marked?: ReadonlySet<string>;
  readonly lines?: readonly { readonly from: string; readonly to: string }[];
  /** how many of the top layers are peeled away */
  readonly peeled?: number;
}

interface DeviceDrawingProps extends Shown {
  readonly map: DeviceMap;
  readonly side: Side;
  readonly label: string;
  /** drawn over the device, in mm of this side */
  readonly children?: ReactNode;
  onPress?(thing: string): void;
  /** a place on the device, in mm of the map, and the part that is uppermost there */
  onPlace?(place: Point, part: string | undefined): void;
}

const FILLS: Readonly<Record<string, string>> = {
  display: 'var(--glass)',
  lens: 'var(--glass)',
  cover: 'var(--glass)',
  board: 'var(--board)',
  battery: 'var(--mat)',
};

/** A device to scale from its map. Nothing is told by colour alone: what is next is outlined twice and named. */
export function DeviceDrawing({ map, side, label, children, onPress, onPlace, ...shown }: DeviceDrawingProps) {
  const { width, height, corner } = map.outline;
  const standing = shown.standing ?? [];
  const aside = standing.length > 0 ? width * 0.78 : 0;
  const margin = 7;
  const hidden = new Set([...(shown.gone ?? []), ...standing.map((each) => each.part)]);
  const layers = fromTheTop(map, side).filter((part) => !hidden.has(part.id));
  const visible = layers.slice(shown.peeled ?? 0);

  const placed = (event: MouseEvent<SVGSVGElement>) => {
    const matrix = event.currentTarget.getScreenCTM();
    if (!matrix || !onPlace) return;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    const place = { x: onSide(map, side, clamp(at.x, width)), y: clamp(at.y, height) };
    onPlace(place, visible.find((part) => contains(part, place))?.id);
  };

  return (
    <svg
      role="group"
      aria-label={label}
      onClick={onPlace && placed}
      viewBox={`${-margin} ${-margin} ${width + aside + 2 * margin} ${height + 2 * margin}`}
      className={`h-full max-h-full w-full ${onPlace ? 'cursor-crosshair' : ''}`}
      preserveAspectRatio="xMidYMid meet"
    >
      <rect
        x="0"
        y="0"
        width={width}
        height={height}
        rx={corner}
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeWidth="0.7"
      />
      {[...(shown.gone ?? [])].map((id) => (
        <Ghost key={id} map={map} side={side} id={id} />
      ))}
      {raised(visible, shown).map((part) => (
        <PartShape
          key={part.id}
          map={map}
          side={side}
          part={part}
          named={isNamed(part, visible, markScale(map))}
          now={shown.now?.has(part.id) ?? false}
          selected={shown.selected === part.id}
          onPress={onPress}
        />
      ))}
      <Lines map={map} side={side} lines={shown.lines ?? []} />
      {[...(shown.marked ?? [])].map((id) => (
        <JointMark
          key={id}
          map={map}
          side={side}
          id={id}
          now={shown.now?.has(id) ?? false}
          selected={shown.selected === id}
          onPress={onPress}
        />
      ))}
      {standing.map((each, index) => (
        <Standing
          key={each.part}
          map={map}
          side={side}
          {...each}
          x={width + 8}
          y={index * 46}
          now={shown.now?.has(each.part) ?? false}
          onPress={onPress}
        />
      ))}
      {children}
    </svg>
  );
}

/** To a tenth of a millimetre, on the device. */
function clamp(at: number, most: number): number {
  return Math.round(Math.min(most, Math.max(0, at)) * 10) / 10;
}

/** From the deepest up; what is in hand or looked at is drawn last, so that nothing hides it. */
function raised(visible: readonly Part[], { now, selected }: Shown): Part[] {
  const isMarked = (part: Part) => part.id === selected || (now?.has(part.id) ?? false);
  const upwards = visible.toReversed();
  return [...upwards.filter((part) => !isMarked(part)), ...upwards.filter(isMarked)];
}

/** A part is named where nothing nearer covers its middle and there is room for the words. */
function isNamed(part: Part, visible: readonly Part[], scale: number): boolean {
  const over = visible.slice(0, visible.indexOf(part));
  const room = part.box.w * 0.98 > part.name.length * 1.55 * scale && part.box.h > 4.4 * scale;
  return room && !over.some((each) => contains(each, centreOf(part)));
}

function PartShape({ map, side, part, named, now, selected, onPress }: ThingProps & { part: Part; named: boolean }) {
  const { x, y } = centreOf(part);
  return (
    <g {...pressable(part.id, part.name, onPress)} aria-pressed={onPress ? selected : undefined}>
      <path
        d={outlinePath(map, side, part)}
        fill={now ? 'var(--now-wash)' : (FILLS[part.kind] ?? 'var(--metal)')}
        stroke={now || selected ? 'var(--now)' : 'var(--quiet)'}
        strokeWidth={now || selected ? 1.1 : 0.35}
        strokeLinejoin="round"
        {...(part.kind === 'display' ? { fillOpacity: 0.94 } : {})}
      />
      {(named || now || selected) && (
        <Words x={onSide(map, side, x)} y={y} scale={markScale(map)} strong={now || selected}>
          {part.name}
        </Words>
      )}
    </g>
  );
}

function Ghost({ map, side, id }: { map: DeviceMap; side: Side; id: string }) {
  const part = map.parts.find((each) => each.id === id);
  if (!part || (part.face !== side && part.face !== 'edge')) return null;
  return (
    <path
      d={outlinePath(map, side, part)}
      fill="none"
      stroke="var(--hair)"
      strokeWidth="0.3"
      strokeDasharray="1.2 1.2"
    />
  );
}

function Lines({ map, side, lines }: { map: DeviceMap; side: Side; lines: NonNullable<Shown['lines']> }) {
  return lines.map(({ from, to }) => {
    const [a, b] = [placeOf(map, from), placeOf(map, to)];
    if (!a || !b) return null;
    return (
      <line
        key={`${from} ${to}`}
        x1={onSide(map, side, a.x)}
        y1={a.y}
        x2={onSide(map, side, b.x)}
        y2={b.y}
        stroke="var(--now)"
        strokeWidth="0.5"
        strokeDasharray="0.4 1.2"
        strokeLinecap="round"
        pointerEvents="none"
      />
    );
  });
}
