import { type DeviceMap, jointById, type Part, type Point } from '@nibrel/core/model/device-map';
import { memo, type MouseEvent, type ReactNode, useRef } from 'react';
import { partName } from '@nibrel/core/planner/words';
import { centreOf, contains, fromTheTop, onSide, outlinePath, placesOf, type Side } from './geometry.ts';
import { DrawnAt, useSize } from './scale.ts';
import { type Box, layoutOf, nearBox, scaleOf } from './view-box.ts';
import { fitsIn, isNamed, isOver } from './names.ts';
import { Ghost, Opening, PartShape } from './part-shape.tsx';
import { rectOf, Whole } from './whole.tsx';
import { JointMark } from './joint-mark.tsx';
import { MotionMark } from './motion-mark.tsx';
import { Standing } from './standing.tsx';
import { pressable } from './thing.tsx';

export interface Shown {
  /** parts that are no longer in the device: only their outline is left */
  readonly gone?: ReadonlySet<string>;
  /** parts that stand open beside it, with the joints that still tether them */
  readonly standing?: readonly { readonly part: string; readonly tethers: readonly string[] }[];
  readonly now?: ReadonlySet<string>;
  readonly selected?: string | null;
  /** joints to be drawn with their marks */
  readonly marked?: ReadonlySet<string>;
  /** how many of the top layers are peeled away */
  readonly peeled?: number;
}

interface DeviceDrawingProps extends Shown {
  readonly map: DeviceMap;
  readonly side: Side;
  readonly label: string;
  /** parts and joints whose neighbourhood is drawn large, the whole device small beside it */
  readonly near?: readonly string[];
  /** what is in hand is named elsewhere, and other words stand on it */
  readonly isNameless?: boolean;
  /** screws are on their way out, or in: those that have an order are numbered */
  readonly turning?: 'out' | 'in' | undefined;
  /** what is in hand is worked while the battery is connected */
  readonly isLive?: boolean;
  /** drawn over the device, in mm of this side */
  readonly children?: ReactNode;
  onPress?(thing: string): void;
  /** a place on the device, in mm of the map, and the part that is uppermost there */
  onPlace?(place: Point, part: string | undefined): void;
}

/** A device to scale from its map. Nothing is told by colour alone: what is next is outlined twice and named. */
export const DeviceDrawing = memo(function DeviceDrawing({
  map,
  side,
  label,
  near = [],
  turning,
  isLive = false,
  isNameless = false,
  children,
  onPress,
  onPlace,
  ...shown
}: DeviceDrawingProps) {
  const frame = useRef<HTMLDivElement>(null);
  const size = useSize(frame) ?? USUAL_SIZE;
  const { width, height, corner } = map.outline;
  const standing = shown.standing ?? [];
  const hidden = new Set([...(shown.gone ?? []), ...standing.map((each) => each.part)]);
  const layers = fromTheTop(map, side).filter((part) => !hidden.has(part.id));
  const visible = layers.slice(shown.peeled ?? 0);
  const layout = layoutOf(map, standing.length > 0, size);
  const close = nearBox(
    boxesOf(
      map,
      side,
      near.filter((id) => !hidden.has(id)),
    ),
    layout.whole,
    size,
  );
  const box = close ?? layout.whole;
  const scale = scaleOf(box, size);
  const marks = [...(shown.marked ?? [])].flatMap((id) => {
    const joint = jointById(map, id);
    return joint ? placesOf(map, joint) : [];
  });
  const isInSight = (part: Part) => !close || isWithin(close, centreOn(map, side, part));

  const placed = (event: MouseEvent<SVGSVGElement>) => {
    const matrix = event.currentTarget.getScreenCTM();
    if (!matrix || !onPlace) return;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    const place = { x: onSide(map, side, clamp(at.x, width)), y: clamp(at.y, height) };
    onPlace(place, visible.find((part) => contains(part, place))?.id);
  };

  return (
    <div ref={frame} className="relative h-full max-h-full w-full">
      <DrawnAt value={scale}>
        <svg
          role="group"
          aria-label={label}
          onClick={onPlace && placed}
          viewBox={`${box.x} ${box.y} ${box.w} ${box.h}`}
          className={`absolute inset-0 h-full w-full ${onPlace ? 'cursor-crosshair' : ''}`}
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
            strokeWidth={2 / scale}
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
              named={
                isNamed(part, visible, scale) &&
                !marks.some((at) => isOver(part, at, scale)) &&
                (!close || fitsIn(close, centreOn(map, side, part), part.name, scale))
              }
              isNameless={isNameless}
              now={shown.now?.has(part.id) ?? false}
              selected={shown.selected === part.id}
              onPress={isInSight(part) ? onPress : undefined}
            />
          ))}
          {[...(shown.marked ?? [])].map((id) => (
            <JointMark
              key={id}
              map={map}
              side={side}
              id={id}
              now={shown.now?.has(id) ?? false}
              selected={shown.selected === id}
              turning={turning}
              onPress={onPress}
            />
          ))}
          {turning &&
            [...(shown.marked ?? [])].flatMap((id) => {
              const joint = jointById(map, id);
              const moves = joint?.type === 'connector' || joint?.type === 'solder';
              return moves
                ? [
                    <MotionMark
                      key={`motion ${id}`}
                      map={map}
                      side={side}
                      joint={joint}
                      turning={turning}
                      isLive={isLive}
                    />,
                  ]
                : [];
            })}
          {map.parts
            .filter(({ id }) => shown.now?.has(id))
            .flatMap(({ through = [] }) => through)
            .map(({ x, y }) => (
              <Opening key={`${x} ${y}`} x={onSide(map, side, x)} y={y} />
            ))}
          {layout.standing &&
            standing.map((each, index) => (
              <Standing
                key={each.part}
                map={map}
                side={side}
                {...each}
                room={shared(layout.standing!, index, standing.length)}
                now={shown.now?.has(each.part) ?? false}
                onPress={close ? undefined : onPress}
              />
            ))}
          {children}
        </svg>
      </DrawnAt>
      {close && (
        <Whole map={map} layout={layout} close={close}>
          {visible.toReversed().map((part) => (
            <path
              key={part.id}
              d={outlinePath(map, side, part)}
              fill={shown.now?.has(part.id) ? 'var(--now)' : 'var(--metal)'}
              stroke="var(--quiet)"
              strokeWidth="0.6"
              {...(isInSight(part) ? {} : pressable(part.id, partName(map, part.id), onPress))}
            />
          ))}
          {layout.standing &&
            standing.map(({ part }, index) => (
              <rect
                key={part}
                {...rectOf(shared(layout.standing!, index, standing.length))}
                rx="4"
                fill="var(--sheet)"
                stroke="var(--ink)"
                strokeWidth="1"
                strokeDasharray="4 3"
                {...pressable(part, `${partName(map, part)}, standing`, onPress)}
              />
            ))}
        </Whole>
      )}
    </div>
  );
});

/** Until it is measured. */
const USUAL_SIZE = { width: 540, height: 640 };

/** Several things that stand open share the room. */
function shared(room: Box, index: number, count: number): Box {
  return room.y < 0
    ? { ...room, x: room.x + (index * room.w) / count, w: room.w / count }
    : { ...room, y: room.y + (index * room.h) / count, h: room.h / count };
}

/** What has to be seen around a plug to find it. */
const AROUND_MM = 12;

/** Of parts their boxes; of a joint whose parts are out of sight the places of its marks. */
function boxesOf(map: DeviceMap, side: Side, ids: readonly string[]): { readonly box: Part['box'] }[] {
  const parts = map.parts.filter(({ id }) => ids.includes(id));
  // a joint is near what it holds, where that is drawn
  const joints = map.joints.filter(({ id, holds }) => ids.includes(id) && !holds.some((held) => ids.includes(held)));
  const places = joints
    .flatMap((each) => placesOf(map, each))
    .map(({ x, y }) => ({ x: x - AROUND_MM, y: y - AROUND_MM, w: 2 * AROUND_MM, h: 2 * AROUND_MM }));
  return [...parts.map(({ box }) => box), ...places].map((box) => ({
    box: { ...box, x: Math.min(onSide(map, side, box.x), onSide(map, side, box.x + box.w)) },
  }));
}

function centreOn(map: DeviceMap, side: Side, part: Part): Point {
  const { x, y } = centreOf(part);
  return { x: onSide(map, side, x), y };
}

function isWithin({ x, y, w, h }: Box, at: Point): boolean {
  return at.x > x && at.x < x + w && at.y > y && at.y < y + h;
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
