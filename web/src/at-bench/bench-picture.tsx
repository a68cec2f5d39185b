import type { Line } from '@nibrel/core/asking/question';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import type { Mechanism } from '@nibrel/core/planner/holds';
import type { SideBySide } from '@nibrel/core/bench/in-hand';
import type { JobState } from '@nibrel/core/job/state';
import { type ReactNode, useMemo } from 'react';
import { FoldMarks } from '../drawing/fold-marks.tsx';
import { DamageMark } from '../drawing/damage-mark.tsx';
import { DeviceDrawing } from '../drawing/device-drawing.tsx';
import { onSide, type Side } from '../drawing/geometry.ts';
import { onTheMat } from '../drawing/on-the-mat.ts';
import { PinHoleMarks } from '../drawing/pin-hole-marks.tsx';
import { SideBySideDrawing } from '../drawing/side-by-side.tsx';
import { StepNumbers } from '../drawing/step-numbers.tsx';
import { shownOf } from '../job/shown.ts';

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
  const mat = useMemo(() => onTheMat(mechanism, state, op), [mechanism, state, op]);
  // what lies on the other face is not in sight
  const joined = useMemo(() => together.filter((each) => each.face === op?.face), [together, op]);
  const shown = useMemo(() => mat?.shown ?? shownOf(mechanism, state, op, joined), [mat, mechanism, state, op, joined]);
  const tray = useMemo(() => trayOf(map, op), [map, op]);
  const near = useMemo(
    () => (tray || op?.name === 'compare' || op?.name === 'take-up' ? NOTHING_NEAR : nearOf(map, op, joined)),
    [tray, map, op, joined],
  );
  const folded = op?.kind === 'fit' && map.parts.some(({ id, folds }) => id === op.part && folds) ? op.part : undefined;
  const numbered = mat || marks ? [] : list;
  const damage = state.stopped ? state.damage.filter(({ face }) => face === side || face === 'edge') : [];
  const over =
    tray || marks || folded || damage.length > 0 || numbered.length > 0 ? (
      <>
        {tray && <PinHoleMarks map={map} side={side} tray={tray} />}
        {folded && <FoldMarks map={map} side={side} part={folded} />}
        {marks}
        {numbered.length > 0 && <StepNumbers map={map} side={side} list={numbered} />}
        {damage.map((each) => (
          <DamageMark key={each.id} kind={each.kind} x={onSide(map, side, each.x)} y={each.y} />
        ))}
      </>
    ) : undefined;
  const words = foreseen
    ? 'Predicted, with the reach of what is not known'
    : beside
      ? 'Side by side on the mat'
      : (mat?.label ?? (side === 'front' ? 'Front up' : 'Back up, drawn mirrored'));
  return (
    <div className="relative h-[58dvh] min-h-96 p-3 md:h-full md:min-h-0" role="presentation">
      {foreseen ? (
        <div className="h-full pb-8">{foreseen}</div>
      ) : beside ? (
        <div className="h-full pb-8">
          <SideBySideDrawing mechanism={mechanism} beside={beside} now={shown.now ?? NONE} near={near} />
        </div>
      ) : (
        <DeviceDrawing
          map={mat?.map ?? map}
          side={mat?.side ?? side}
          {...shown}
          {...(marks ? { marked: NONE, isNameless: true } : {})}
          turning={turningOf(op, joined)}
          near={near}
          isLive={op?.live === true}
          onPress={onPress}
          label={mat?.label ?? `${map.name}, ${side} up`}
        >
          {over}
        </DeviceDrawing>
      )}
      {pictured && <div className="absolute top-3 right-3 z-10 max-w-80">{pictured}</div>}
      <p className="pointer-events-none absolute bottom-2 left-4 bg-paper px-1 text-note text-quiet">{words}</p>
    </div>
  );
}

/** Which way screws are turned and plugs go: also where one press fits the part and puts its screws in. */
function turningOf(op: Op | undefined, joined: readonly Op[]): 'out' | 'in' | undefined {
  const kinds = [op, ...joined].map((each) => each?.kind);
  return kinds.includes('release') ? 'out' : kinds.includes('make') ? 'in' : undefined;
}

/** A tray that a pin is put into: its hole is marked, and those that are none. */
function trayOf({ joints }: DeviceMap, op: Op | undefined): string | undefined {
  const joint = joints.find(({ id }) => id === op?.joint);
  return joint?.type === 'clip' && joint.eject ? joint.holds[0] : undefined;
}

/** The parts that hands are on. */
function nearOf({ joints }: DeviceMap, op: Op | undefined, joined: readonly Op[]): readonly string[] {
  return [op, ...joined].flatMap((each) => {
    const joint = joints.find(({ id }) => id === each?.joint);
    return each?.part === undefined ? [...(joint?.holds ?? []), ...(joint ? [joint.id] : [])] : [each.part];
  });
}

const NONE: ReadonlySet<string> = new Set();
const NOTHING_NEAR: readonly string[] = [];
