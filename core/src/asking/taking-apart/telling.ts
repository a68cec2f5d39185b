import { type Face, type PartKind, type Point } from '../../model/device-map/index.ts';
import type { JobState } from '../../job/state/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import {
  BARE_CELL,
  COMES_NEXT,
  type Layer,
  type TeardownEventData,
  type Thing,
  type ToldJoint,
  type ToldPart,
  type ToldScrew,
  type ToldSoFar,
  USUAL,
} from '../../teardown/record/index.ts';
import type { InferredMap } from '../../teardown/infer/index.ts';
import { type Answer, type Gives, saying, type Telling } from '../question/index.ts';

/** A device that is taken apart without a map, as it is told at this moment. */
export interface TakingApart {
  readonly mechanism: Mechanism;
  readonly state: JobState;
  readonly so: ToldSoFar;
  /** what of it is being told */
  readonly telling: Telling;
  /** what is told belongs directly before what this event told; null: at the end */
  readonly before: string | null;
  /** which face is up */
  readonly face: Exclude<Face, 'edge'>;
  /** what to ask of it while it lies open; null while nobody knows, or nobody has asked */
  readonly open: InferredMap['questions'] | null;
  /** four corners that are being put right, shares of the photograph */
  readonly corners: readonly Point[];
  /** the places were pressed on the newest photograph of this face, and there is one before it */
  readonly isOnPhoto: boolean;
  /** pressed on the drawing since something was told, mm of the map */
  readonly places: readonly Point[];
}

/** One of many that are chosen from, before it has a digit. */
export type Choice = Pick<Answer, 'id' | 'label' | 'gives'>;

/** The parts that were told, without what all else is held to. */
export function toldParts({ so, mechanism: { map } }: TakingApart): readonly ToldPart[] {
  return [...so.parts.values()].filter(
    ({ id }) => id !== COMES_NEXT && !map.parts.some((part) => part.base && part.id === id),
  );
}

export const ROOT: Telling = { at: 'root' };

export function tell(telling: Telling): Gives {
  return { kind: 'tell', telling };
}

/** What came off, with all that was told of it for the first time. */
type Off =
  | { readonly joint: ToldJoint; readonly parts?: readonly ToldPart[]; readonly screws?: readonly ToldScrew[] }
  | { readonly part: ToldPart; readonly to: 'open' | 'off' };

/** What is said where something came off: the places that were pressed go with it. */
export function cameOff(now: TakingApart, off: Off): Gives {
  const { before, face, places, so } = now;
  const placed = before === null ? {} : { before };
  if ('part' in off) {
    const { part, to } = off;
    const box = boxOf(places);
    const told = so.parts.has(part.id) && !box ? [] : [{ ...part, ...(box ? { box } : {}) }];
    const parts = told.length > 0 ? { parts: told } : {};
    return seenNext(now, { part: part.id }, {
      part: part.id,
      to,
      ...parts,
      ...placed,
    } as TeardownEventData['came-off']);
  }
  const { joint, parts = [], screws = [] } = off;
  const more = { ...(parts.length > 0 ? { parts } : {}), ...(screws.length > 0 ? { screws } : {}) };
  const told = { ...joint, face, ...(places.length > 0 ? placesOf(joint, places) : {}) };
  const data = { joint: joint.id, joints: [told], ...more, ...placed } as TeardownEventData['came-off'];
  return seenNext(now, { joint: joint.id }, data);
}

/** What is pressed on a photograph for the first time may have come into sight with it: it is asked on the one before. */
function seenNext(now: TakingApart, thing: Thing, data: TeardownEventData['came-off']): Gives {
  const [, before] = layersUp(now);
  const newest = layersUp(now)[0];
  if (!newest || !before || !now.isOnPhoto || now.places.length === 0) return saying('came-off', data);
  return { kind: 'say', events: [{ type: 'came-off', data }], next: { at: 'seen', ...thing, photo: newest.photo } };
}

/** The photographs of the face that is up, the newest first. */
export function layersUp({ so, face }: Pick<TakingApart, 'so' | 'face'>): readonly Layer[] {
  return so.layers.filter((layer) => layer.face === face).toReversed();
}

/** Screws, clips and wires have a place each; of all else it is the middle. */
function placesOf({ type }: ToldJoint, places: readonly Point[]): Pick<ToldJoint, 'points' | 'at'> {
  return type === 'screw' || type === 'clip' || type === 'solder' ? { points: places } : { at: places.at(-1)! };
}

/** Two opposite corners are pressed of a part. */
function boxOf(places: readonly Point[]): ToldPart['box'] | null {
  if (places.length < 2) return null;
  const xs = places.map(({ x }) => x);
  const ys = places.map(({ y }) => y);
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  const [w, h] = [Math.max(...xs) - x, Math.max(...ys) - y];
  return w > 0.5 && h > 0.5 ? { x, y, w, h } : null;
}

/** An id that nothing has yet: *screw-3* */
export function freeId(taken: ReadonlyMap<string, unknown>, stem: string): string {
  for (let n = taken.size + 1; ; n++) if (!taken.has(`${stem}-${n}`)) return `${stem}-${n}`;
}

/** A part of a kind that nobody has told of: *Lid*, *Lid 2*. The cell that every device has is the first of them. */
export function newPart({ parts, steps, joints }: ToldSoFar, kind: PartKind, face: Face): ToldPart {
  const cell = parts.get(BARE_CELL);
  const isCellFree =
    cell !== undefined &&
    !steps.some((step) => 'part' in step && step.part === BARE_CELL) &&
    ![...joints.values()].some(({ holds }) => holds?.includes(BARE_CELL));
  if (kind === 'battery' && isCellFree) return { id: BARE_CELL, kind, name: cell.name ?? USUAL.battery.name, face };
  const alike = [...parts.values()].filter((each) => each.kind === kind).length;
  const { name } = USUAL[kind];
  let n = alike + 1;
  while (parts.has(n === 1 ? kind : `${kind}-${n}`)) n++;
  return { id: n === 1 ? kind : `${kind}-${n}`, kind, name: n === 1 ? name : `${name} ${n}`, face };
}

/** What lies inside comes off in about this order (common practice); what closes the device before it. */
const OUTSIDE: readonly PartKind[] = ['cover', 'display', 'tray', 'shell', 'lens'];
const INSIDE: readonly PartKind[] = [
  'bracket',
  'shield',
  'battery',
  'board',
  'camera',
  'speaker',
  'port',
  'flex',
  'plate',
  'vibrator',
  'button',
  'earpiece',
  'sensor',
  'antenna',
  'lead',
  'microphone',
  'gasket',
  'mesh',
  'thermal',
  'label',
  'indicator',
  'other',
];

/** Kinds of parts, the likeliest first: nobody takes a battery out of a device that is closed. */
export function likelyKinds({ steps }: ToldSoFar): readonly PartKind[] {
  const isClosed = !steps.some(({ kind }) => kind === 'lift' || kind === 'open');
  return isClosed ? [...OUTSIDE, ...INSIDE] : [...INSIDE, ...OUTSIDE];
}

/** The kinds that a plug is likely to belong to, in the order in which they are unplugged (common practice). */
export const PLUGGED: readonly PartKind[] = [
  'battery',
  'display',
  'camera',
  'port',
  'flex',
  'button',
  'speaker',
  'antenna',
  'sensor',
  'earpiece',
  'vibrator',
  'board',
  'microphone',
  'lead',
];
