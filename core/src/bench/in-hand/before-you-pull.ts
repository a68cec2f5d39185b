import { type DeviceMap, type Joint, jointById, type Part, type Point } from '../../model/device-map/index.ts';
import { carried, type Mechanism, namedNeed, OFF, SEATED, type Unmet, unmetFor } from '../../planner/holds/index.ts';
import { type JobState } from '../../job/state/index.ts';
import { notThere } from '../../job/rules/index.ts';
import { keyOf, looseScrewsOf } from '../../screws/screws/index.ts';
import { placeOfPart } from '../../planner/sequence/index.ts';
import { capital, heldName, jointKind, partName, placeOfJoint, placeWords, plural } from '../../planner/words/index.ts';

/** One thing that still holds a part. */
export interface Holding {
  readonly joint?: string;
  readonly part?: string;
  /** *1 of 3 screws still in, upper left* */
  readonly text: string;
  /** names of what has to be out of the way before it can be undone */
  readonly beneath: readonly string[];
  /** mm from where the part is lifted */
  readonly away_mm: number;
}

export interface HeldBack {
  /** the nearest first */
  readonly holds: readonly Holding[];
  /** what lets go by itself when it is lifted, and may stick a little: that is normal */
  readonly lightly: readonly Holding[];
  /** where nothing of it holds any more, or it still will not come: what a map is likeliest to have missed */
  readonly missed: readonly string[];
}

/** Why will it not come out? What still holds a part now, also one that no plan touches. */
export function heldBack(mechanism: Mechanism, state: JobState, id: string): HeldBack {
  const { map, to, held, selfParting } = mechanism;
  const part = mechanism.part.get(id);
  const { device } = state;
  if (part === undefined || device.status[part] === OFF) return { holds: [], lightly: [], missed: [] };
  const place = placeOfPart(map.parts[part]!);
  const gone = notThere(state);
  const unmet = unmetFor(mechanism, device, { kind: 'lift', part }, { live: new Set() });
  const holds = unmet
    .filter((each) => !isAbsent(mechanism, gone, each))
    .map((each) => holding(mechanism, state, part, each, place));
  const leaving = carried(mechanism, device, part);
  const lightly = map.joints.flatMap((joint, at): Holding[] => {
    const isBetween = leaving.has(to[at]!) !== held[at]!.some((each) => leaving.has(each));
    const isLight = selfParting[at]! && joint.type === 'bond' && device.status[part] === SEATED;
    return isLight && isBetween ? [ofJoint(mechanism, state, part, joint, place)] : [];
  });
  const byDistance = (a: Holding, b: Holding) => a.away_mm - b.away_mm || (a.text < b.text ? -1 : 1);
  return {
    holds: holds.toSorted(byDistance),
    lightly: lightly.toSorted(byDistance),
    missed: likelyMissed(mechanism, state, map.parts[part]!),
  };
}

/** What is not there holds nothing. */
function isAbsent({ map }: Mechanism, gone: ReadonlySet<string>, { joint, part }: Unmet): boolean {
  if (part !== undefined) return gone.has(map.parts[part]!.id);
  return map.joints[joint]!.holds.every((id) => gone.has(id));
}

function holding(mechanism: Mechanism, state: JobState, part: number, unmet: Unmet, place: Point): Holding {
  const need = namedNeed(mechanism, unmet);
  const { map } = mechanism;
  if (unmet.joint !== undefined) return ofJoint(mechanism, state, part, map.joints[unmet.joint]!, place);
  const over = map.parts[unmet.part]!;
  const text = `${partName(map, over.id)} lies over it: ${need.need === 'open' ? 'open it' : 'take it off'} first`;
  return { part: over.id, text, beneath: [], away_mm: distance(place, placeOfPart(over)) };
}

function ofJoint(mechanism: Mechanism, state: JobState, part: number, joint: Joint, place: Point): Holding {
  const { map } = mechanism;
  const at = placeOfJoint(map, joint);
  const other = joint.holds.includes(map.parts[part]!.id) ? '' : ` of ${heldName(map, joint)}`;
  const to = joint.type === 'connector' ? ` to ${partName(map, joint.to)}` : '';
  const number = mechanism.joint.get(joint.id)!;
  const waits = mechanism.releasable[number]
    ? unmetFor(mechanism, state.device, { kind: 'release', joint: number }, { live: new Set(), isolation: false })
    : [];
  const beneath = waits.map((each) => {
    const need = namedNeed(mechanism, each);
    return 'part' in need ? partName(map, need.part) : jointKind(jointById(map, need.joint)!);
  });
  const where = placeWords(map, at, joint.face);
  return {
    joint: joint.id,
    text: `${capital(kindNow(map, state, joint))}${other}${to}, ${where}`,
    beneath: [...new Set(beneath)],
    away_mm: distance(place, at),
  };
}

/** *1 of 3 screws still in*, *press connector* */
function kindNow(map: DeviceMap, { ledger }: JobState, joint: Joint): string {
  if (joint.type !== 'screw') return jointKind(joint);
  const out = new Set(ledger.onMat.map(keyOf));
  const left = looseScrewsOf(map, joint, ledger).filter((each) => !out.has(keyOf(each))).length;
  const all = joint.points.length;
  return left > 0 && left < all ? `${left} of ${plural(all, 'screw')} still in` : jointKind(joint);
}

/** How near a lead has to run to catch a part, mm (guess). */
const NEAR_MM = 15;

/** What a map is likeliest to have missed, by what lies at the part: a label over a screw, a holder, a lead, an edge that sticks. */
function likelyMissed({ map, part }: Mechanism, { device }: JobState, of: Part): string[] {
  const isIn = ({ id }: Part) => id !== of.id && device.status[part.get(id)!] === SEATED;
  const near = map.parts.filter((each) => isIn(each) && overlaps(each, of, 2));
  const labels = near.filter(({ kind }) => kind === 'label' || kind === 'indicator');
  const trays = map.parts.filter((each) => each.kind === 'tray' && isIn(each));
  const coax = map.joints.filter(
    (each) =>
      each.type === 'connector' &&
      each.style === 'coax' &&
      distance(placeOfPart(of), placeOfJoint(map, each)) < size(of) / 2 + NEAR_MM,
  );
  return [
    labels.length > 0
      ? `A screw below ${labels.map(({ id }) => partName(map, id)).join(' or ')}`
      : 'A screw below a label or a rubber plug',
    trays.length > 0 ? `${trays.map(({ id }) => partName(map, id)).join(', ')}: still in` : 'A card, or its holder',
    coax.length > 0
      ? `A lead that is not laid aside: ${coax.map(({ holds }) => partName(map, holds[0]!)).join(', ')}`
      : 'A coax lead in a channel beside it',
    'Adhesive at an edge: warmth and patience, no force',
  ];
}

function overlaps({ box: a }: Part, { box: b }: Part, by: number): boolean {
  return a.x < b.x + b.w + by && b.x < a.x + a.w + by && a.y < b.y + b.h + by && b.y < a.y + a.h + by;
}

function size({ box }: Part): number {
  return Math.hypot(box.w, box.h);
}

function distance(a: Point, b: Point): number {
  return Math.round(Math.hypot(a.x - b.x, a.y - b.y));
}
