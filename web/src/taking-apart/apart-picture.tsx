import { stepPicture } from '@nibrel/core/drawn/picture';
import { onSide, type Side } from '@nibrel/core/drawn/places';
import type { JobState } from '@nibrel/core/job/state';
import type { Point } from '@nibrel/core/model/device-map';
import { plural } from '@nibrel/core/planner/words';
import type { Mechanism } from '@nibrel/core/planner/holds';
import { type ReactNode, useMemo } from 'react';
import { DeviceDrawing } from '../drawing/device-drawing.tsx';
import { NumberMark } from '../drawing/number-mark.tsx';
import { Button } from '../ui/button.tsx';
import { PhotoLayer } from './photo-layer.tsx';

interface ApartPictureProps {
  readonly mechanism: Mechanism;
  readonly state: JobState;
  readonly side: Side;
  /** pressed since something was told, mm of the map */
  readonly places: readonly Point[];
  /** a picture that was taken just now */
  readonly pictured: ReactNode;
  /** the photograph of a layer, set straight, in place of the drawing; null where there is none */
  readonly photo: string | null;
  readonly isOnPhoto: boolean;
  /** four corners that are being put right, in place of all */
  readonly corners: ReactNode;
  readonly onPlace: ((place: Point) => void) | undefined;
  onClear(): void;
  /** the drawing, or the photograph */
  onOther(): void;
}

/** The device as far as it was told: pressed where something was. */
export function ApartPicture({
  mechanism,
  state,
  side,
  places,
  pictured,
  photo,
  isOnPhoto,
  corners,
  onPlace,
  onClear,
  onOther,
}: ApartPictureProps) {
  const { map } = mechanism;
  const { drawn } = useMemo(
    () => stepPicture(mechanism, state, { op: undefined, together: [], list: [], side, isMarked: false }),
    [mechanism, state, side],
  );
  return (
    <div className="relative h-[58dvh] min-h-96 p-3 md:h-full md:min-h-0">
      {corners ??
        (photo !== null && isOnPhoto ? (
          <PhotoLayer
            map={map}
            side={side}
            src={photo}
            places={places}
            label={`Photograph, ${side} up`}
            onPlace={onPlace}
          />
        ) : (
          <DeviceDrawing {...drawn} label={`${map.name}, ${side} up`} {...(onPlace ? { onPlace } : {})}>
            {places.map(({ x, y }, at) => (
              <NumberMark key={at} number={at + 1} at={{ x: onSide(map, side, x), y }} />
            ))}
          </DeviceDrawing>
        ))}
      {pictured && <div className="absolute top-3 right-3 z-10 max-w-80">{pictured}</div>}
      <div className="absolute top-3 left-3 z-10 flex gap-2">
        {places.length > 0 && onPlace && <Button onClick={onClear}>Clear {plural(places.length, 'place')}</Button>}
        {photo !== null && !corners && (
          <Button keyName="D" onClick={onOther}>
            {isOnPhoto ? 'Drawing' : 'Photograph'}
          </Button>
        )}
      </div>
      <p className="pointer-events-none absolute bottom-2 left-4 bg-paper px-1 text-note text-quiet">
        {corners
          ? 'Photograph'
          : side === 'front'
            ? 'Front up'
            : isOnPhoto && photo !== null
              ? 'Back up'
              : 'Back up, drawn mirrored'}
      </p>
    </div>
  );
}
