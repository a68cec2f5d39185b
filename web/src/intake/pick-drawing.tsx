import { type DeviceMap, partById } from '@nibrel/core/model/device-map';
import { useState } from 'react';
import { DeviceDrawing } from '../drawing/device-drawing.tsx';
import { fromTheTop, mainSide, type Side } from '@nibrel/core/drawn/places';
import { Button } from '../ui/button.tsx';
import { Slide } from '../ui/slide.tsx';

interface PickDrawingProps {
  readonly map: DeviceMap;
  /** the part that was picked last */
  readonly part: string | null;
  readonly flipped: boolean;
  onFlip(): void;
  onPart(part: string): void;
}

/** The device, layer by layer: a part is pressed where it is. */
export function PickDrawing({ map, part, flipped, onFlip, onPart }: PickDrawingProps) {
  const side = sideFor(map, part, flipped);
  const layers = fromTheTop(map, side);
  const [slid, setSlid] = useState<{ readonly of: string; readonly off: number } | null>(null);
  const of = `${map.id} ${part} ${side}`;
  const down = Math.max(
    0,
    layers.findIndex((each) => each.id === part),
  );
  const off = slid?.of === of ? slid.off : down;
  const marked = new Set(map.joints.filter(({ holds }) => part !== null && holds.includes(part)).map(({ id }) => id));
  return (
    <div className="flex h-[60dvh] flex-col p-3 md:h-full">
      <div className="min-h-0 grow">
        <DeviceDrawing
          map={map}
          side={side}
          selected={part}
          peeled={off}
          marked={marked}
          label={`${map.name}, ${side}`}
          onPress={(thing) => map.parts.some(({ id }) => id === thing) && onPart(thing)}
        />
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-4 pt-2">
        <Slide
          label="Layers off"
          said={off === 0 ? 'none' : `${off} of ${layers.length - 1}`}
          value={off}
          min={0}
          max={Math.max(1, layers.length - 1)}
          step={1}
          onChange={(next) => setSlid({ of, off: next })}
        />
        <Button keyName="F" onClick={onFlip}>
          {side === 'front' ? 'Show the back' : 'Show the front'}
        </Button>
      </div>
    </div>
  );
}

/** The side that the part is worked on from, or the other one. */
function sideFor(map: DeviceMap, part: string | null, flipped: boolean): Side {
  const face = partById(map, part)?.face;
  const up = face === 'front' || face === 'back' ? face : mainSide(map);
  return flipped ? (up === 'front' ? 'back' : 'front') : up;
}
