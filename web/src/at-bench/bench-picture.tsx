import type { Line } from '@nibrel/core/asking/question';
import type { SideBySide } from '@nibrel/core/bench/in-hand';
import { stepPicture } from '@nibrel/core/drawn/picture';
import { onSide, type Side } from '@nibrel/core/drawn/places';
import type { JobState } from '@nibrel/core/job/state';
import type { Op } from '@nibrel/core/planner/drafts';
import type { Mechanism } from '@nibrel/core/planner/holds';
import { type ReactNode, useMemo } from 'react';
import { DamageMark } from '../drawing/damage-mark.tsx';
import { DeviceDrawing } from '../drawing/device-drawing.tsx';
import { FoldMarks } from '../drawing/fold-marks.tsx';
import { PinHoleMarks } from '../drawing/pin-hole-marks.tsx';
import { SideBySideDrawing } from '../drawing/side-by-side.tsx';
import { useSame } from '../drawing/use-same.ts';

interface BenchPictureProps {
  readonly mechanism: Mechanism;
  readonly state: JobState;
  /** what is listed: numbered alike on the drawing */
  readonly list: readonly Line[];
  /** the one in hand, or looked ahead to */
  readonly op: Op | undefined;
  /** what one press does with it */
  readonly together: readonly Op[];
  readonly side: Side;
  /** the old part and the new one, where they lie side by side */
  readonly beside: SideBySide | null;
  /** in place of the device: what is foreseen */
  readonly foreseen: ReactNode;
  /** over the device, in place of its own marks */
  readonly marks: ReactNode;
  /** a picture that was taken just now */
  readonly pictured: ReactNode;
  onPress(thing: string): void;
}

/** What is looked at beside the words: the device, a part on the mat, old and new side by side, or what is foreseen. */
export function BenchPicture({
  mechanism,
  state,
  op,
  together,
  list,
  side,
  beside,
  foreseen,
  marks,
  pictured,
  onPress,
}: BenchPictureProps) {
  const { map } = mechanism;
  const isMarked = Boolean(marks);
  const ops = useSame(together);
  const places = useSame(list.map(({ at }) => at));
  const { drawn, matLabel, tray } = useMemo(
    () =>
      stepPicture(mechanism, state, {
        op,
        together: ops,
        list: places.map((at) => ({ at })),
        side,
        isMarked,
      }),
    [mechanism, state, op, ops, places, side, isMarked],
  );
  const folded = op?.kind === 'fit' && map.parts.some(({ id, folds }) => id === op.part && folds) ? op.part : undefined;
  const damage = state.stopped ? state.damage.filter(({ face }) => face === side || face === 'edge') : [];
  const over =
    tray || marks || folded || damage.length > 0 ? (
      <>
        {tray && <PinHoleMarks map={map} side={side} tray={tray} />}
        {folded && <FoldMarks map={map} side={side} part={folded} />}
        {marks}
        {damage.map((each) => (
          <DamageMark key={each.id} kind={each.kind} x={onSide(map, side, each.x)} y={each.y} />
        ))}
      </>
    ) : undefined;
  const words = foreseen
    ? 'Predicted, with the reach of what is not known'
    : beside
      ? 'Side by side on the mat'
      : (matLabel ?? (side === 'front' ? 'Front up' : 'Back up, drawn mirrored'));
  return (
    <div className="relative h-[58dvh] min-h-96 p-3 md:h-full md:min-h-0" role="presentation">
      {foreseen ? (
        <div className="h-full pb-8">{foreseen}</div>
      ) : beside ? (
        <div className="h-full pb-8">
          <SideBySideDrawing
            mechanism={mechanism}
            beside={beside}
            drawn={drawn}
            up={matLabel === null ? null : drawn.side}
          />
        </div>
      ) : (
        <DeviceDrawing
          {...drawn}
          isLive={op?.live === true}
          onPress={onPress}
          label={matLabel ?? `${map.name}, ${side} up`}
        >
          {over}
        </DeviceDrawing>
      )}
      {pictured && <div className="absolute top-3 right-3 z-10 max-w-80">{pictured}</div>}
      <p className="pointer-events-none absolute bottom-2 left-4 bg-paper px-1 text-note text-quiet">{words}</p>
    </div>
  );
}
