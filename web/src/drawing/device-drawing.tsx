import { type DeviceMap, fastenerAt, type Joint, type Part } from '@nibrel/core/device-map';
import { screwLetters } from '@nibrel/core/screws';
import type { ReactNode } from 'react';
import { centreOf, contains, fromTheTop, onSide, outlinePath, placesOf, type Side } from './geometry.ts';

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
  onPress?(thing: string): void;
}

const FILLS: Readonly<Record<string, string>> = {
  display: 'var(--glass)',
  lens: 'var(--glass)',
  cover: 'var(--glass)',
  board: 'var(--board)',
  battery: 'var(--mat)',
};

/** A device to scale from its map. Nothing is told by colour alone: what is next is outlined twice and named. */
export function DeviceDrawing({ map, side, label, onPress, ...shown }: DeviceDrawingProps) {
  const { width, height, corner } = map.outline;
  const standing = shown.standing ?? [];
  const aside = standing.length > 0 ? width * 0.78 : 0;
  const margin = 7;
  const hidden = new Set([...(shown.gone ?? []), ...standing.map((each) => each.part)]);
  const layers = fromTheTop(map, side).filter((part) => !hidden.has(part.id));
  const visible = layers.slice(shown.peeled ?? 0);

  return (
    <svg
      role="group"
      aria-label={label}
      viewBox={`${-margin} ${-margin} ${width + aside + 2 * margin} ${height + 2 * margin}`}
      className="h-full max-h-full w-full"
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
          named={isNamed(part, visible)}
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
    </svg>
  );
}

/** From the deepest up; what is in hand or looked at is drawn last, so that nothing hides it. */
function raised(visible: readonly Part[], { now, selected }: Shown): Part[] {
  const isMarked = (part: Part) => part.id === selected || (now?.has(part.id) ?? false);
  const upwards = visible.toReversed();
  return [...upwards.filter((part) => !isMarked(part)), ...upwards.filter(isMarked)];
}

/** A part is named where nothing nearer covers its middle and there is room for the words. */
function isNamed(part: Part, visible: readonly Part[]): boolean {
  const over = visible.slice(0, visible.indexOf(part));
  const room = part.box.w * 0.98 > part.name.length * 1.55 && part.box.h > 4.4;
  return room && !over.some((each) => contains(each, centreOf(part)));
}

interface ThingProps {
  readonly map: DeviceMap;
  readonly side: Side;
  readonly now: boolean;
  readonly selected: boolean;
  onPress?(thing: string): void;
}

function pressable(id: string, name: string, onPress?: (thing: string) => void) {
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
        <Words x={onSide(map, side, x)} y={y} strong={now || selected}>
          {part.name}
        </Words>
      )}
    </g>
  );
}

function Words({ x, y, strong, children }: { x: number; y: number; strong?: boolean; children: ReactNode }) {
  return (
    <text
      x={x}
      y={y}
      textAnchor="middle"
      dominantBaseline="central"
      fontSize={strong ? 3.9 : 3.1}
      fontWeight={strong ? 700 : 450}
      fill={strong ? 'var(--now)' : 'var(--ink)'}
      stroke="var(--sheet)"
      strokeWidth={strong ? 0.9 : 0.35}
      paintOrder="stroke"
      pointerEvents="none"
    >
      {children}
    </text>
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

function JointMark({ map, side, id, now, selected, onPress }: ThingProps & { id: string }) {
  const joint = map.joints.find((each) => each.id === id);
  if (!joint) return null;
  const colour = now || selected ? 'var(--now)' : 'var(--ink)';
  return (
    <g {...pressable(id, id, onPress)} stroke={colour} fill="var(--sheet)" strokeWidth="0.6">
      {joint.type === 'screw' ? <ScrewPoints map={map} side={side} joint={joint} colour={colour} /> : null}
      {joint.type === 'bond' && joint.segments
        ? joint.segments.map((each) => (
            <line
              key={each.id}
              x1={onSide(map, side, each.from.x)}
              y1={each.from.y}
              x2={onSide(map, side, each.to.x)}
              y2={each.to.y}
              strokeWidth="1.3"
              strokeDasharray="1.6 1"
            />
          ))
        : null}
      {joint.type !== 'screw' && !(joint.type === 'bond' && joint.segments)
        ? placesOf(map, joint).map(({ x, y }) => (
            <rect key={`${x}/${y}`} x={onSide(map, side, x) - 1.9} y={y - 1.1} width="3.8" height="2.2" rx="0.5" />
          ))
        : null}
    </g>
  );
}

function ScrewPoints({
  map,
  side,
  joint,
  colour,
}: {
  map: DeviceMap;
  side: Side;
  joint: Joint & { type: 'screw' };
  colour: string;
}) {
  const letters = screwLetters(map);
  return joint.points.map((point) => {
    const x = onSide(map, side, point.x);
    const { letter } = letters.get(fastenerAt(joint, point))!;
    return (
      <g key={point.id}>
        <circle cx={x} cy={point.y} r="1.5" />
        <text
          x={x}
          y={point.y - 3.4}
          textAnchor="middle"
          fontSize="3.4"
          fontWeight="700"
          fill={colour}
          stroke="var(--sheet)"
          strokeWidth="0.8"
          paintOrder="stroke"
          dominantBaseline="central"
        >
          {letter}
        </text>
      </g>
    );
  });
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

function placeOf(map: DeviceMap, id: string) {
  const part = map.parts.find((each) => each.id === id);
  if (part) return centreOf(part);
  const joint = map.joints.find((each) => each.id === id);
  return joint ? placesOf(map, joint)[0] : undefined;
}

interface StandingProps {
  readonly map: DeviceMap;
  readonly side: Side;
  readonly part: string;
  readonly tethers: readonly string[];
  readonly x: number;
  readonly y: number;
  readonly now: boolean;
  onPress?(thing: string): void;
}

/** A part that stands open: its outline beside the device, still tied to it by what tethers it. */
function Standing({ map, side, part: id, tethers, x, y, now, onPress }: StandingProps) {
  const part = map.parts.find((each) => each.id === id)!;
  const scale = Math.min(1, (map.outline.width * 0.62) / part.box.w, (map.outline.height * 0.86) / part.box.h);
  const [w, h] = [part.box.w * scale, part.box.h * scale];
  return (
    <g {...pressable(id, `${part.name}, standing`, onPress)}>
      {tethers.map((tether) => {
        const place = placeOf(map, tether);
        if (!place) return null;
        const fromX = onSide(map, side, place.x);
        return (
          <path
            key={tether}
            d={`M${fromX} ${place.y}C${(fromX + x) / 2 + 6} ${place.y} ${x - 8} ${y + 12 + place.y * 0.5} ${x} ${y + 12 + place.y * 0.5}`}
            fill="none"
            stroke="var(--quiet)"
            strokeWidth="0.9"
          />
        );
      })}
      <rect
        x={x}
        y={y + 4}
        width={w}
        height={h}
        rx="4"
        fill={now ? 'var(--now-wash)' : 'var(--sheet)'}
        fillOpacity={now ? 1 : 0.6}
        stroke={now ? 'var(--now)' : 'var(--ink)'}
        strokeWidth={now ? 1.1 : 0.5}
        strokeDasharray="2.4 1.8"
      />
      <Words x={x + w / 2} y={y + h / 2} strong={now}>
        {part.name}
      </Words>
      <Words x={x + w / 2} y={y + h / 2 + 5.5}>
        stands open
      </Words>
    </g>
  );
}
