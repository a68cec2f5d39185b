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

interface ApartPictureProps {
  readonly mechanism: Mechanism;
  readonly state: JobState;
  readonly side: Side;
  /** pressed since something was told, mm of the map */
  readonly places: readonly Point[];
  /** a picture that was taken just now */
  readonly pictured: ReactNode;
  readonly onPlace: ((place: Point) => void) | undefined;
  onClear(): void;
}

/** The device as far as it was told: pressed where something was. */
export function ApartPicture({ mechanism, state, side, places, pictured, onPlace, onClear }: ApartPictureProps) {
  const { map } = mechanism;
  const { drawn } = useMemo(
    () => stepPicture(mechanism, state, { op: undefined, together: [], list: [], side, isMarked: false }),
    [mechanism, state, side],
  );
  return (
    <div className="relative h-[58dvh] min-h-96 p-3 md:h-full md:min-h-0">
      <DeviceDrawing {...drawn} label={`${map.name}, ${side} up`} {...(onPlace ? { onPlace } : {})}>
        {places.map(({ x, y }, at) => (
          <NumberMark key={at} number={at + 1} at={{ x: onSide(map, side, x), y }} />
        ))}
      </DeviceDrawing>
      {pictured && <div className="absolute top-3 right-3 z-10 max-w-80">{pictured}</div>}
      {places.length > 0 && (
        <div className="absolute top-3 left-3 z-10">
          <Button onClick={onClear}>Clear {plural(places.length, 'place')}</Button>
        </div>
      )}
      <p className="pointer-events-none absolute bottom-2 left-4 bg-paper px-1 text-note text-quiet">
        {side === 'front' ? 'Front up' : 'Back up, drawn mirrored'}
      </p>
    </div>
  );
}
