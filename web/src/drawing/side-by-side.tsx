import type { PieceAt, SideBySide } from '@nibrel/core/bench/in-hand';
import { assembled, carried, type Mechanism } from '@nibrel/core/planner/holds';
import { partName, thingName } from '@nibrel/core/planner/words';
import { useMemo } from 'react';
import { DeviceDrawing } from './device-drawing.tsx';
import { alone } from './on-the-mat.ts';

interface SideBySideDrawingProps {
  readonly mechanism: Mechanism;
  readonly beside: SideBySide;
  /** pieces and joints that hands are on */
  readonly now: ReadonlySet<string>;
  /** what the drawings are zoomed to; empty: the whole of both */
  readonly near: readonly string[];
}

const ON_OLD: ReadonlySet<PieceAt> = new Set(['old', 'renewed', 'came']);
const ON_NEW: ReadonlySet<PieceAt> = new Set(['new', 'came']);

const WHERE: Readonly<Record<PieceAt, string>> = {
  old: 'on the old one',
  mat: 'on the mat',
  new: 'on the new one',
  came: 'came with it',
  renewed: 'a new one goes on',
};

/** The old part and the new one on the mat, drawn from the map: what is on which, and what has no counterpart. */
export function SideBySideDrawing({ mechanism, beside, now, near }: SideBySideDrawingProps) {
  const { map } = mechanism;
  const { host, own } = useMemo(() => {
    const number = mechanism.part.get(beside.part)!;
    const along = [...carried(mechanism, assembled(mechanism), number)].map((each) => map.parts[each]!.id);
    return { host: map.parts[number]!, own: alone(map, map.parts[number]!, new Set(along)) };
  }, [mechanism, map, beside.part]);
  const side = host.base || host.face !== 'front' ? 'front' : 'back';
  // beside a base all else lies on the mat: what came on the new one is counted
  const listed = beside.pieces.filter(({ at }) => !host.base || at === 'came');
  const goneFrom = (on: ReadonlySet<PieceAt>) =>
    new Set(beside.pieces.flatMap(({ part, at }) => (on.has(at) ? [] : [part])));
  const name = partName(map, beside.part);
  return (
    <figure aria-label={`Old and new ${name} side by side`} className="flex h-full flex-col">
      <div className="grid min-h-0 grow grid-cols-2 gap-3">
        {(
          [
            ['Old', ON_OLD],
            ['New', ON_NEW],
          ] as const
        ).map(([age, on]) => (
          <div key={age} className="flex min-h-0 flex-col">
            <p className="text-note text-quiet">
              {age} {name}
            </p>
            <div className="min-h-0 grow">
              <DeviceDrawing
                map={own}
                side={side}
                gone={goneFrom(on)}
                now={now}
                near={near}
                marked={age === 'Old' ? new Set(beside.lacks) : NONE}
                label={`${age} ${name}`}
              />
            </div>
          </div>
        ))}
      </div>
      <figcaption>
        <ul aria-label="Pieces" className="grid grid-cols-2 gap-x-6 text-note">
          {listed.map(({ part, at }) => (
            <li key={part} className="flex justify-between border-b border-hair">
              <span className={now.has(part) ? 'font-bold text-now' : ''}>{partName(map, part)}</span>
              <span className={at === 'mat' ? 'font-bold text-care' : 'text-quiet'}>{WHERE[at]}</span>
            </li>
          ))}
          {beside.lacks.map((joint) => (
            <li key={joint} className="flex justify-between border-b border-hair">
              <span>{thingName(map, joint)}</span>
              <span className="font-bold text-care">no place on the new one</span>
            </li>
          ))}
        </ul>
      </figcaption>
    </figure>
  );
}

const NONE: ReadonlySet<string> = new Set();
