import type { PieceAt, SideBySide } from '@nibrel/core/bench/in-hand';
import type { Drawn } from '@nibrel/core/drawn/picture';
import type { Op } from '@nibrel/core/planner/drafts';
import { assembled, carried, type Mechanism } from '@nibrel/core/planner/holds';
import { partName, thingName } from '@nibrel/core/planner/words';
import { useMemo } from 'react';
import { DeviceDrawing } from './device-drawing.tsx';
import type { Side } from '@nibrel/core/drawn/places';
import { alone, insideOf } from '@nibrel/core/drawn/shown';

interface SideBySideDrawingProps {
  readonly mechanism: Mechanism;
  readonly beside: SideBySide;
  /** what hands are on, what is done and how near: on the old one what takes off, on the new one all else */
  readonly drawn: Drawn;
  /** the side of both that is up; null: their inside */
  readonly up: Side | null;
}

const AGES = ['Old', 'New'] as const;
type Age = (typeof AGES)[number];

/** Where a piece is drawn, by what became of it. */
const ON: Readonly<Record<Age, ReadonlySet<PieceAt>>> = {
  Old: new Set(['old', 'renewed', 'came']),
  New: new Set(['new', 'came']),
};

const WHERE: Readonly<Record<PieceAt, string>> = {
  old: 'on the old one',
  mat: 'on the mat',
  new: 'on the new one',
  came: 'came with it',
  renewed: 'a new one goes on',
};

/** The old part and the new one on the mat, drawn from the map: what is on which, and what has no counterpart. */
export function SideBySideDrawing({
  mechanism,
  beside,
  drawn: { now = NONE, near = [], ops = [], list = [] },
  up,
}: SideBySideDrawingProps) {
  const { map } = mechanism;
  const { host, own, side } = useMemo(() => {
    const number = mechanism.part.get(beside.part)!;
    const along = [...carried(mechanism, assembled(mechanism), number)].map((each) => map.parts[each]!.id);
    const host = map.parts[number]!;
    const side = up ?? insideOf(host);
    return { host, side, own: alone(map, host, new Set(along), side) };
  }, [mechanism, map, beside.part, up]);
  // beside a base all else lies on the mat: what came on the new one is counted
  const listed = beside.pieces.filter(({ at }) => !host.base || at === 'came');
  const isTakenOff = ops.some(({ kind }) => kind === 'release' || kind === 'lift');
  // what goes on now is drawn where it goes
  const isOn = (age: Age, { part, at }: SideBySide['pieces'][number]) =>
    ON[age].has(at) || (age === 'New' && !isTakenOff && now.has(part));
  const isWorked = (age: Age) => isTakenOff === (age === 'Old');
  const goneFrom = (age: Age) => new Set(beside.pieces.flatMap((each) => (isOn(age, each) ? [] : [each.part])));
  const name = partName(map, beside.part);
  return (
    <figure aria-label={`Old and new ${name} side by side`} className="flex h-full flex-col">
      <div className="grid min-h-0 grow grid-cols-2 gap-3">
        {AGES.map((age) => (
          <div key={age} className="flex min-h-0 flex-col">
            <p className="text-note text-quiet">
              {age} {name}
            </p>
            <div className="min-h-0 grow">
              <DeviceDrawing
                map={own}
                side={side}
                gone={goneFrom(age)}
                now={now}
                near={near}
                marked={new Set([...(age === 'Old' ? beside.lacks : []), ...(isWorked(age) ? jointsOf(ops) : [])])}
                {...(isWorked(age) ? { ops, list } : {})}
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

function jointsOf(ops: readonly Op[]): string[] {
  return ops.flatMap(({ kind, joint }) => (kind === 'procedure' || joint === undefined ? [] : [joint]));
}

const NONE: ReadonlySet<string> = new Set();
