import {
  type BondJoint,
  type ConnectorJoint,
  type DeviceMap,
  type Edge,
  type Face,
  type Fastener,
  fastenerAt,
  flexGoesTo,
  type Joint,
  jointById,
  opposite,
  type Part,
  partById,
  type ScrewJoint,
  seenEdge,
  seenWay,
} from '../../model/device-map/index.ts';
import { ASKED_kPa, pressOf } from '../../physics/bonding/index.ts';
import { packOf } from '../../model/battery/index.ts';
import type { Op } from '../drafts/index.ts';
import { plural } from './english.ts';
import { plugWords } from './joint-words.ts';
import { partName } from './thing-names.ts';
import { placeOfJoint, placeWords } from './places.ts';

/** What the map knows of a part or joint that matters at this very operation, each a short sentence. */
export function toKnow(map: DeviceMap, op: Op): string[] {
  const joint = jointById(map, op.joint);
  const part = partById(map, op.part);
  if (op.kind === 'procedure') return joint?.type === 'bond' && op.name === 'press' ? weighed(joint) : [];
  const plastic = op.isPlasticOnly ? ['Plastic only near boards and plugs.'] : [];
  return [
    ...plastic,
    ...(joint ? ofJoint(map, op, joint) : []),
    ...(part ? ofPart(map, op, part) : []),
    ...wayOut(map, op),
  ];
}

function ofJoint(map: DeviceMap, op: Op, joint: Joint): string[] {
  const isOff = op.kind === 'release';
  const marked = joint.mark === undefined ? [] : [`Marked “${joint.mark}”.`];
  switch (joint.type) {
    case 'screw':
      return [...marked, ...ofScrews(map, joint, isOff)];
    case 'connector':
      return isOff ? [...marked, ...ofPlug(map, joint)] : marked;
    case 'clip':
      return [...marked, ...(isOff ? [...inTurn(joint.points ?? []), ...tilted(joint.tilt, joint.face)] : [])];
    case 'solder': {
      const wires = (joint.points ?? []).flatMap(({ wire }) => (wire === undefined ? [] : [wire]));
      return [
        ...marked,
        ...(wires.length > 0 ? [`Wires: ${wires.join(', ')}.`] : []),
        ...(isOff ? [] : ['Once it is cold, pull at it, gently: it holds.']),
      ];
    }
    case 'bond':
      return isOff
        ? [...marked, ...(PULLED[joint.style] ?? []), ...(isOnlyGlued(map, op, joint) ? [TAKE_ITS_PLACE] : [])]
        : [...marked, ...(isOnlyGlued(map, op, joint) ? [CHECK_ITS_PLACE] : [])];
    case 'hinge':
    case 'seat':
      return marked;
  }
}

/** What is only glued, to a panel that is bare: nothing but the old one says where it sits. */
function isOnlyGlued({ joints }: DeviceMap, { stage }: Op, { holds }: BondJoint): boolean {
  if (stage !== 'move') return false;
  return joints.every((each) => !holds.some((id) => each.holds.includes(id)) || each.type === 'bond' || isLoose(each));
}

/** Plugs hold nothing in its place. */
function isLoose({ type }: Joint): boolean {
  return type === 'connector' || type === 'solder';
}

const TAKE_ITS_PLACE = 'Take its place first: two distances from the edges, or a picture square on.';
const CHECK_ITS_PLACE = 'At the place that was taken from the old one: check it before it sets.';

/** How a battery is pulled off its bond (common practice). */
const PULLED: Readonly<Partial<Record<BondJoint['style'], readonly string[]>>> = {
  tabs: [
    'Slowly, at a low angle and under tension, in the printed order: about ten seconds a tab.',
    'One that snaps is fetched with blunt tweezers and pulled on; only then solvent and patience.',
  ],
  strap: ['Straight up and evenly; one that tears is fetched with blunt tweezers.'],
};

/** Where it is levered, which way its flex comes out, and what becomes of a lead. */
function ofPlug(map: DeviceMap, joint: ConnectorJoint): string[] {
  const held = partById(map, joint.holds[0]);
  const goesTo = flexGoesTo(map, joint.id, placeOfJoint(map, joint));
  const isZif = joint.style === 'zif-flip' || joint.style === 'zif-slide';
  return [
    ...(joint.lever ? [`Lever at its ${toward(map, joint, joint.lever)}.`] : []),
    ...(isZif && goesTo ? [`The flex comes out ${WAYS[toward(map, joint, goesTo)]}.`] : []),
    ...(joint.style === 'coax' && (held?.kind === 'lead' || held?.kind === 'antenna')
      ? ['Lay the lead aside: the board has to clear it.']
      : []),
  ];
}

const WAYS = {
  'left edge': 'to the left',
  'right edge': 'to the right',
  'upper edge': 'upward',
  'lower edge': 'downward',
} as const;

function tilted(tilt: Edge | undefined, face: Face): string[] {
  return tilt ? [`Tilt it up from the ${seenEdge(opposite(tilt), face)} edge.`] : [];
}

/** Clips that go in an order are numbered on the drawing. */
function inTurn(points: readonly { readonly order?: number }[]): string[] {
  return points.some(({ order }) => order !== undefined) ? [IN_TURN] : [];
}

const IN_TURN = 'In the order of the numbers.';

/** Which order they go in, and what is odd about them: what no magnet holds is said before it falls. */
function ofScrews(map: DeviceMap, joint: ScrewJoint, isOff: boolean): string[] {
  const kinds = [...new Set(joint.points.map((each) => fastenerAt(joint, each)))].map((id) =>
    map.fasteners.find((each) => each.id === id)!,
  );
  const clamped = joint.holds.length > 1 && isOff ? [`Holds ${plural(joint.holds.length, 'part')} at once.`] : [];
  return [
    ...(joint.points.some((each) => each[isOff ? 'outOrder' : 'order'] !== undefined) ? [IN_TURN] : []),
    ...(isOff && kinds.some(({ magnetic }) => magnetic === false) ? ['No magnet holds them: tweezers ready.'] : []),
    ...clamped,
    ...kinds.flatMap((each) => lockedWords(each, isOff)),
    ...(isOff ? [] : tooLongWords(joint)),
  ];
}

const HURT: Readonly<Partial<Record<ScrewJoint['points'][number]['below'], string>>> = {
  board: 'the board',
  battery: 'the cell',
  display: 'the display',
};

/** What a longer screw would go into, where that is worth more than the screw; the tightest hole is said. */
function tooLongWords({ points }: ScrewJoint): string[] {
  const over = points.filter(({ below }) => HURT[below]).toSorted((a, b) => a.depth - b.depth);
  const [tightest] = over;
  return tightest ? [`Longer than ${tightest.depth} mm goes into ${HURT[tightest.below]}.`] : [];
}

function lockedWords({ locker, singleUse }: Fastener, isOff: boolean): string[] {
  if (isOff) return [];
  return [
    ...(singleUse ? ['New ones: they are for one use.'] : []),
    ...(locker
      ? [
          `Thread locker${locker.activator ? `, ${locker.activator} first` : ''}; it sets in ${Math.ceil(locker.cure_s / 60)} min.`,
        ]
      : []),
  ];
}

/** What becomes of a cell is no matter of a bin (common practice). */
const SPENT_CELL = 'Apart from all else, its contacts covered, for the lithium waste: a new one goes in.';

function ofPart(map: DeviceMap, op: Op, part: Part): string[] {
  const { motion, folds = [], through = [], mixUpWith = [], mark, ifFailed, hazards = [] } = part;
  const isOff = op.kind === 'open' || op.kind === 'lift';
  // what is fitted and closed in one is said once
  const isIn = op.kind === 'fit' || (op.kind === 'close' && op.posture !== undefined);
  const isSpent = part.reuse === 'single-use' && op.kind === 'lift';
  const folded = isIn ? folds.length : 0;
  const openings = through.map((each) => partName(map, each.part)).join(' and ');
  return [
    ...(isSpent ? [hazards.includes('lithium') ? SPENT_CELL : 'Into the bin at once: a new one goes in.'] : []),
    ...(mark !== undefined && isIn ? [`Marked “${mark}”.`] : []),
    ...(motion && isIn ? motionWords(motion, part.face) : []),
    ...(folded > 0 ? [`Folded along the ${folded === 1 ? 'line' : `${folded} lines`} drawn: is it?`] : []),
    ...(openings && op.kind === 'lift' ? [`Draw it out of the opening in ${openings}.`] : []),
    ...(openings && op.kind === 'fit' ? [`Feed it back through ${openings} first.`] : []),
    ...(mixUpWith.length > 0 && (op.kind === 'lift' || op.kind === 'fit')
      ? [`Not to be mixed up with ${mixUpWith.map((id) => partName(map, id)).join(', ')}.`]
      : []),
    ...(part.kind === 'tray' && isIn ? ['Draw it by hand once: it runs without force.'] : []),
    ...(part.kind === 'button' && isIn ? ['Press it by hand: it clicks and springs back.'] : []),
    ...(ifFailed && isIn && part.reuse !== 'inspect'
      ? [`Look at it first: if it is bad, ${partName(map, ifFailed.replace)} is replaced.`]
      : []),
    ...(op.kind === 'lift' ? seatedTilt(map, part) : []),
    ...(op.isNew && hazards.includes('lithium') ? ['No dent, no swelling, its wrap whole.'] : []),
    ...(op.isNew && part.id === map.battery?.part ? [packWords(map.battery)] : []),
    ...(hazards.includes('no-touch') && (isOff || isIn) ? ['Fingers off its face.'] : []),
    ...(hazards.includes('static') && isOff ? ['Strap on: a spark ruins it.'] : []),
    ...(hazards.includes('heat-sensitive') && isOff ? ['Keep it from the heat.'] : []),
  ];
}

/** What sits in a seat comes up over the edge that it turns on. */
function seatedTilt({ joints }: DeviceMap, { id }: Part): string[] {
  return joints.flatMap((each) =>
    each.type === 'seat' && each.holds.includes(id) ? tilted(each.tilt, each.face) : [],
  );
}

/** *4100 mAh, 3.86 V: read it on the new one.* */
function packWords({ cells, wiring }: NonNullable<DeviceMap['battery']>): string {
  const { capacity_mAh, nominal_V } = packOf(cells, wiring);
  return `${Math.round(capacity_mAh)} mAh, ${Math.round(nominal_V * 100) / 100} V: read it on the new one.`;
}

/** How it goes in: *Its top edge first, at 30°, turned by 90°.* */
function motionWords({ firstEdge, angle, turn }: NonNullable<Part['motion']>, face: Face): string[] {
  const ways = [
    ...(firstEdge ? [`its ${seenEdge(firstEdge, face)} edge first`] : []),
    ...(angle ? [`at ${angle}°`] : []),
    ...(turn ? [`turned by ${turn}°`] : []),
  ];
  return ways.length > 0 ? [`Goes in ${ways.join(', ')}.`] : [];
}

/** Where a part is pried, how it comes out, and what has to be off before: each with the operation that does it. */
function wayOut(map: DeviceMap, { frees = [], pries = [], asks = [] }: Op): string[] {
  const of = (ids: readonly string[]) => ids.map((id) => partById(map, id)!);
  const begin = of(pries).flatMap(({ box: { x, y, w, h }, liftFrom, face }) =>
    // on the part itself, as it is seen
    liftFrom
      ? [
          `Begin at its ${placeWords({ outline: { width: w, height: h } }, { x: liftFrom.x - x, y: liftFrom.y - y }, face)}.`,
        ]
      : [],
  );
  const removal = of(frees).flatMap(({ hint }) => (hint?.remove ? [hint.remove] : []));
  const asked = asks.length > 0 ? [`Off by now: ${asks.map((id) => overlookedName(map, id)).join(', ')}?`] : [];
  return [...asked, ...begin, ...removal];
}

/** A plug by what it is called, a part by its name. */
function overlookedName(map: DeviceMap, id: string): string {
  const joint = jointById(map, id);
  return joint?.type === 'connector' ? plugWords(map, joint) : partName(map, id);
}

function weighed(bond: BondJoint): string[] {
  const { close, style } = bond;
  const press = style === 'perimeter' ? pressOf(bond) : null;
  const asked = `tape makers ask for about ${ASKED_kPa} kPa`;
  if (close?.mass_kg) {
    const made = press ? ` That is ${Math.round(press.pressure_kPa)} kPa; ${asked}.` : '';
    return [`${close.mass_kg} kg on it, spread over the whole of it.${made}`];
  }
  return press ? [`${Math.ceil(press.mass_kg)} kg, spread over the whole of it: ${asked}.`] : [];
}

/** On which side of a joint a place lies. */
function toward(map: DeviceMap, joint: Joint, { x, y }: { readonly x: number; readonly y: number }): keyof typeof WAYS {
  const at = placeOfJoint(map, joint);
  const { dx, dy } = seenWay({ dx: x - at.x, dy: y - at.y }, joint.face);
  if (Math.abs(dx) > Math.abs(dy)) return dx < 0 ? 'left edge' : 'right edge';
  return dy < 0 ? 'upper edge' : 'lower edge';
}
