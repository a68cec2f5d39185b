import { type Drawn, type Picture, pictureOf } from '@nibrel/core/drawn/picture';
import { contains, onSide, outlinePath } from '@nibrel/core/drawn/places';
import { jointById, type Point } from '@nibrel/core/model/device-map';
import { partName } from '@nibrel/core/planner/words';
import { memo, type MouseEvent, type ReactNode, useMemo, useRef } from 'react';
import { DrawnAt, useSize } from './scale.ts';
import { Ghost, Opening, PartShape } from './part-shape.tsx';
import { Whole } from './whole.tsx';
import { JointMark } from './joint-mark.tsx';
import { LabelMark } from './label-mark.tsx';
import { MotionMark } from './motion-mark.tsx';
import { NumberMark } from './number-mark.tsx';
import { PartMove } from './part-move.tsx';
import { StandingShape } from './standing.tsx';
import { pressable } from './thing.tsx';

interface DeviceDrawingProps extends Drawn {
  readonly label: string;
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
  label,
  isLive = false,
  children,
  onPress,
  onPlace,
  ...drawn
}: DeviceDrawingProps) {
  const { map, side, gone = NONE, marked = NONE, now = NONE, selected } = drawn;
  const frame = useRef<HTMLDivElement>(null);
  const size = useSize(frame) ?? USUAL_SIZE;
  const picture = usePicture(drawn, size);
  const { width, height, corner } = map.outline;
  const { whole, close, scale } = picture;
  const box = close ?? whole;

  const placed = (event: MouseEvent<SVGSVGElement>) => {
    const matrix = event.currentTarget.getScreenCTM();
    if (!matrix || !onPlace) return;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    const place = { x: onSide(map, side, clamp(at.x, width)), y: clamp(at.y, height) };
    onPlace(place, picture.parts.findLast((part) => contains(part, place))?.id);
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
          {[...gone].map((id) => (
            <Ghost key={id} map={map} side={side} id={id} />
          ))}
          {picture.parts.map((part) => (
            <PartShape
              key={part.id}
              map={map}
              side={side}
              part={part}
              now={now.has(part.id)}
              selected={selected === part.id}
              onPress={picture.inSight.has(part.id) ? onPress : undefined}
            />
          ))}
          {[...marked].map((id) => (
            <JointMark
              key={id}
              map={map}
              side={side}
              id={id}
              now={now.has(id)}
              selected={selected === id}
              turning={picture.turning}
              onPress={onPress}
            />
          ))}
          <Moves {...drawn} picture={picture} isLive={isLive} />
          {map.parts
            .filter(({ id }) => now.has(id))
            .flatMap(({ through = [] }) => through)
            .map(({ x, y }) => (
              <Opening key={`${x} ${y}`} x={onSide(map, side, x)} y={y} />
            ))}
          {picture.standing.map((each) => (
            <StandingShape
              key={each.part}
              standing={each}
              name={partName(map, each.part)}
              now={now.has(each.part)}
              onPress={close ? undefined : onPress}
            />
          ))}
          {children}
          {picture.numbers.map(({ number, at }) => (
            <NumberMark key={number} number={number} at={at} />
          ))}
          {picture.labels.map((each) => (
            <LabelMark key={each.id} label={each} />
          ))}
        </svg>
      </DrawnAt>
      {close && (
        <Whole map={map} whole={whole} close={close}>
          {picture.parts.map((part) => (
            <path
              key={part.id}
              d={outlinePath(map, side, part)}
              fillRule="evenodd"
              fill={now.has(part.id) ? 'var(--now)' : 'var(--metal)'}
              stroke="var(--quiet)"
              strokeWidth="0.6"
              {...(picture.inSight.has(part.id) ? {} : pressable(part.id, partName(map, part.id), onPress))}
            />
          ))}
          {picture.standing.map(({ part, ring }) => (
            <path
              key={part}
              d={`M${ring.map(([x, y]) => `${x} ${y}`).join('L')}Z`}
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

/** Where all of it goes, worked out once for as long as the same is shown. */
function usePicture(drawn: Drawn, { width, height }: { readonly width: number; readonly height: number }): Picture {
  const { map, side, near, ops, list, isNameless, gone, standing, now, selected, marked, peeled } = drawn;
  return useMemo(
    () =>
      pictureOf({ map, side, near, ops, list, isNameless, gone, standing, now, selected, marked, peeled } as Drawn, {
        width,
        height,
      }),
    [map, side, near, ops, list, isNameless, gone, standing, now, selected, marked, peeled, width, height],
  );
}

/** The ways that parts and plugs go. */
function Moves({
  map,
  side,
  marked = NONE,
  picture,
  isLive,
}: Drawn & { readonly picture: Picture; readonly isLive: boolean }) {
  const { turning } = picture;
  return (
    <>
      {turning &&
        [...marked].flatMap((id) => {
          const joint = jointById(map, id);
          const moves = joint?.type === 'connector' || joint?.type === 'solder';
          return moves
            ? [<MotionMark key={id} map={map} side={side} joint={joint} turning={turning} isLive={isLive} />]
            : [];
        })}
      {picture.moves.map((move) => (
        <PartMove key={`${move.kind} ${move.part}`} move={move} />
      ))}
    </>
  );
}

const NONE: ReadonlySet<string> = new Set();

/** To a tenth of a millimetre, on the device. */
function clamp(at: number, most: number): number {
  return Math.round(Math.min(most, Math.max(0, at)) * 10) / 10;
}
