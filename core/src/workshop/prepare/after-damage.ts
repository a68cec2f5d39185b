import { type DeviceMap, isOuter, type Part } from '../../model/device-map/index.ts';
import { downOf, type Op, opId, procedureOp } from '../../planner/drafts/index.ts';
import { crackedGlass, type Mark } from './cracks.ts';

/** Hands-on seconds, guesses. */
const BRUSH_S = 40;
const TRUE_S = 60;
const TAPE_OFF_S = 20;

/**
 * What the marks of intake ask for before a part goes down again: crumbs out of the frame where its glass was cracked, and
 * the rim trued where one was bent, so that a new panel is never forced over it.
 * @param ops what is ahead
 * @param isComing does the part come off in this job, or is it off already?
 */
export function withFrameMended(
  map: DeviceMap,
  ops: readonly Op[],
  marks: readonly Mark[],
  isComing: (part: string) => boolean,
): Op[] {
  const crumbs = crackedGlass(map, marks)
    .filter(({ id }) => isComing(id))
    .map((part) => ({ part, op: brushOp(part) }));
  const bent = marks.some(({ kind }) => kind === 'bend');
  const rims = bent
    ? map.parts.filter((each) => isOuter(each) && isComing(each.id)).map((part) => ({ part, op: trueOp(part) }))
    : [];
  return [...rims, ...crumbs].reduce<Op[]>(
    (all, { part, op }) => {
      const at = firstWorkBeneath(map, all, part);
      return at < 0 ? all : all.toSpliced(at, 0, op);
    },
    [...ops],
  );
}

/** Where its frame is scraped or laid with adhesive, else where it goes down. */
function firstWorkBeneath(map: DeviceMap, ops: readonly Op[], { id }: Part): number {
  const bonds = new Set(
    map.joints.flatMap((each) => (each.type === 'bond' && each.holds.includes(id) ? [each.id] : [])),
  );
  const down: readonly string[] = [opId('fit', id), ...downOf(new Set(ops.map((op) => op.id)), id)];
  return ops.findIndex(
    (op) => down.includes(op.id) || ((op.name === 'clean' || op.name === 'lay') && bonds.has(op.joint!)),
  );
}

function brushOp({ id }: Part): Op {
  return procedureOp({
    name: 'brush',
    part: id,
    stage: 'rebuild',
    seconds: BRUSH_S,
    why: 'Its glass was cracked: a crumb under the new one cracks that as well.',
    whyNotEarlier: 'After it is off.',
  });
}

function trueOp({ id }: Part): Op {
  return procedureOp({
    name: 'true',
    part: id,
    stage: 'rebuild',
    seconds: TRUE_S,
    why: 'A bend was marked when it came in: a panel that is forced over it breaks a week later.',
    whyNotEarlier: 'After it is off.',
  });
}

/** Tape comes off what stays in the device, once all is closed; what is replaced takes its own along. */
export function tapeOffOp(part: string): Op {
  return procedureOp({
    name: 'tape-off',
    part,
    stage: 'prove',
    seconds: TAPE_OFF_S,
    why: 'What was put on comes off.',
    whyNotEarlier: 'It holds the splinters until all is closed.',
  });
}
