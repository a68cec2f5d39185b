import type { DeviceMap, Fastener, HingeJoint, Part, PartKind } from '../../model/device-map/index.ts';
import type { Line, ReleasedJoint, SeenPart, Teardown } from './teardown.ts';
import type { ToldJoint, ToldPart, ToldScrew } from './told-events.ts';
import { heldBy, holdingNothing, type ToldSoFar } from './told-so-far.ts';
import { USUAL, USUAL_SCREW, USUAL_SOFTEN_C } from './usual.ts';

/** Stands for what a joint holds that is undone while nobody knows yet what. */
export const COMES_NEXT = 'comes-off-next';

/** What was told at the bench, as a record that a map can be made of. */
export function teardownOf(base: DeviceMap, so: ToldSoFar): Teardown {
  const { format: _, version: __, parts: ___, joints: ____, fasteners, origin: _____, ...device } = base;
  const cell = [...so.parts.values()].find(({ kind }) => kind === 'battery');
  const pending = holdingNothing(so);
  const record = so.steps.flatMap((step): Line[] => {
    const on = step.on === undefined ? {} : { on: step.on };
    switch (step.kind) {
      case 'release': {
        const joint = so.joints.get(step.joint);
        return joint && joint.type !== 'hinge'
          ? [{ kind: 'release', joint: step.joint, ...on, ...released(so, joint) }]
          : [];
      }
      case 'refused': {
        const { event: ____, ...line } = step;
        return [line];
      }
      default:
        return [{ kind: step.kind, part: step.part, ...on }];
    }
  });
  const lines = indexOfLines(so);
  return {
    device: {
      ...device,
      outline: so.outline,
      battery: device.battery && cell ? { ...device.battery, part: cell.id } : device.battery,
    },
    fasteners: fastenersOf(fasteners, so),
    hinges: [...so.joints.values()].flatMap(hingeOf),
    parts: [
      ...[...so.parts.values()].map((part) => seenPart(base, so, part)),
      ...(pending.length > 0
        ? [seenPart(base, so, { id: COMES_NEXT, kind: 'other', name: 'What comes off next' })]
        : []),
    ],
    record,
    photos: so.layers.map(({ photo, face, after }) => ({ id: photo, face, after: lines(after) })),
    seen: so.firstSeen.filter(({ photo }) => so.layers.some((layer) => layer.photo === photo)),
    answers: so.answers,
    repairs: [],
  };
}

/** How many lines of the record so many steps are: a hinge has none. */
function indexOfLines({ steps, joints }: ToldSoFar): (after: number) => number {
  return (after) =>
    steps.slice(0, after).filter((step) => step.kind !== 'release' || joints.get(step.joint)?.type !== 'hinge').length;
}

function released(so: ToldSoFar, joint: ToldJoint): ReleasedJoint {
  const {
    type,
    style,
    to,
    face = 'front',
    count,
    screw,
    points,
    at,
    isolates,
    functions,
    heat,
    solvent,
    eject,
    mark,
  } = joint;
  const holds = heldBy(so, joint.id) ?? [COMES_NEXT];
  const common = {
    holds,
    face,
    ...(to === undefined ? {} : { to }),
    ...(points ? { points } : {}),
    ...(at ? { at } : {}),
    ...(mark ? { mark } : {}),
    // a plug is anywhere beneath what it belongs to
    ...((type === 'connector' || type === 'solder') && !points && !at ? { unplaced: true } : {}),
  };
  const isOfCell = holds.some((id) => isCellEnd(so, id, style));
  switch (type) {
    case 'screw':
      return { ...common, type, fastener: screw ?? UNKNOWN_SCREW, ...(points ? {} : { count: count ?? 1 }) };
    case 'connector':
      return {
        ...common,
        type,
        style: style ?? 'press',
        ...(functions ? { functions } : {}),
        // the plug of the cell makes the device dead, unless somebody has seen otherwise
        ...(isolates === undefined ? (isOfCell ? { isolates: true } : {}) : { isolates }),
      } as ReleasedJoint;
    case 'bond':
      return {
        ...common,
        type,
        style: style ?? 'perimeter',
        ...(heat ? { heat, soften_C: USUAL_SOFTEN_C } : {}),
        ...(solvent ? { solvent } : {}),
      } as ReleasedJoint;
    case 'solder':
      return { ...common, type, ...(functions ? { functions } : {}) } as ReleasedJoint;
    default:
      return { ...common, type: 'clip', ...(eject ? { eject } : {}) } as ReleasedJoint;
  }
}

/** The cell itself, or, where no plug was told of a cell, a lead that has one: a coax lead is an antenna's. */
function isCellEnd({ parts, joints }: ToldSoFar, id: string, style: ToldJoint['style']): boolean {
  const kind = parts.get(id)?.kind;
  if (kind === 'battery') return true;
  const hasOwn = [...joints.values()].some(
    ({ type, holds = [] }) => type === 'connector' && holds.some((each) => parts.get(each)?.kind === 'battery'),
  );
  return kind === 'lead' && style !== 'coax' && !hasOwn;
}

function fastenersOf(known: readonly Fastener[], { screws, joints }: ToldSoFar): readonly Fastener[] {
  const told = [...known.filter(({ id }) => !screws.has(id)), ...[...screws.values()].map(fastenerOf)];
  const isUnnamed = [...joints.values()].some(({ type, screw }) => type === 'screw' && screw === undefined);
  return isUnnamed && !told.some(({ id }) => id === UNKNOWN_SCREW)
    ? [...told, fastenerOf({ id: UNKNOWN_SCREW })]
    : told;
}

/** The letter of screws of which nobody said what kind they are. */
export const UNKNOWN_SCREW = 'unknown';

function fastenerOf({
  id,
  drive = 'unknown',
  thread = USUAL_SCREW.thread,
  length = USUAL_SCREW.length,
  head,
}: ToldScrew): Fastener {
  return { id, drive, thread, length, head: head ?? USUAL_SCREW.head };
}

function hingeOf(joint: ToldJoint): HingeJoint[] {
  const { id, type, holds, to, face = 'front', edge = 'left', at } = joint;
  if (type !== 'hinge' || !holds || to === undefined) return [];
  return [{ id, type, holds, to, face, edge, ...(at ? { at } : {}) }];
}

function seenPart(base: DeviceMap, so: ToldSoFar, told: ToldPart): SeenPart {
  const known = base.parts.find(({ id }) => id === told.id);
  const kind = told.kind ?? 'other';
  const usual = USUAL[kind];
  const isBase = known?.base === true;
  const isPlaced = isBase || usual.isWhole === true || told.box !== undefined || told.outline !== undefined;
  const functions = (told.functions ?? usual.functions).filter((id) => base.functions.some((each) => each.id === id));
  // whatever is told of a cell, it burns
  const hazards = [...new Set([...(told.hazards ?? usual.hazards), ...(kind === 'battery' ? usual.hazards : [])])];
  const { opens, outline, mark, reuse, face = 'front' } = told;
  return {
    id: told.id,
    name: told.name ?? usual.name,
    kind,
    face,
    box: isBase ? wholeOf(so) : (told.box ?? (outline ? boxAround(outline) : usualBox(so, kind))),
    layer: layerOf(so, told, isBase),
    ...(isBase ? { base: true } : {}),
    ...(isPlaced ? {} : { unplaced: true }),
    ...(outline ? { outline } : {}),
    ...(functions.length > 0 ? { functions } : {}),
    ...(hazards.length > 0 ? { hazards } : {}),
    ...(kind === 'tray' ? { removeFirst: true } : {}),
    ...(opens ? { opens } : {}),
    ...(mark ? { mark } : {}),
    ...(reuse ? { reuse } : {}),
  };
}

/** What came off first lay outermost on its face; what is still there lies deeper, and the base deepest. */
function layerOf({ steps, parts }: ToldSoFar, { id, face = 'front' }: ToldPart, isBase: boolean): number {
  const moved = [
    ...new Set(
      steps.flatMap((step) =>
        (step.kind === 'lift' || step.kind === 'open') && (parts.get(step.part)?.face ?? 'front') === face
          ? [step.part]
          : [],
      ),
    ),
  ];
  if (isBase) return moved.length + 1;
  const at = moved.indexOf(id);
  return at < 0 ? moved.length : at;
}

function wholeOf({ outline }: ToldSoFar): Part['box'] {
  return { x: 0, y: 0, w: outline.width, h: outline.height };
}

function usualBox({ outline: { width, height } }: ToldSoFar, kind: PartKind): Part['box'] {
  const [w, h] = USUAL[kind].share;
  return { x: (width * (1 - w)) / 2, y: (height * (1 - h)) / 2, w: width * w, h: height * h };
}

function boxAround(outline: NonNullable<Part['outline']>): Part['box'] {
  const xs = outline.map(([x]) => x);
  const ys = outline.map(([, y]) => y);
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, w: Math.max(0.1, Math.max(...xs) - x), h: Math.max(0.1, Math.max(...ys) - y) };
}
