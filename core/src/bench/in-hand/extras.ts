import { type Op, opId, procedureOp } from '../../planner/drafts/index.ts';
import { extraOff } from '../../job/rules/index.ts';
import { type ExtraPart, type JobState } from '../../job/state/index.ts';

/** Hands-on seconds, a guess. */
const EXTRA_S = 10;

/** What the map does not have comes off before what it lies over, and goes back straight after that is made again. */
export function withExtras(state: JobState, ops: readonly Op[]): Op[] {
  const off = new Set(extraOff(state).map(({ id }) => id));
  return state.deviations.extra.reduce<Op[]>(
    (all, extra) => {
      if (state.steps.has(opId('put-back', extra.id))) return all;
      const isAway = off.has(extra.id);
      const down = all.findIndex((op) => OUT.has(op.kind) && isOver(extra, op));
      const up = all.findLastIndex((op) => BACK.has(op.kind) && isOver(extra, op));
      // nothing beneath it is touched any more
      if (!isAway && down < 0) return all;
      const back = stepFor('put-back', extra, all[Math.max(up, 0)]);
      const returned = up < 0 ? [back, ...all] : all.toSpliced(up + 1, 0, back);
      return isAway ? returned : returned.toSpliced(down, 0, stepFor('take-off', extra, all[down]));
    },
    [...ops],
  );
}

const OUT: ReadonlySet<Op['kind']> = new Set(['release', 'open', 'lift']);
const BACK: ReadonlySet<Op['kind']> = new Set(['make', 'close', 'fit']);

function isOver({ over }: ExtraPart, op: Op): boolean {
  return over.joint === undefined ? op.part === over.part : op.joint === over.joint;
}

function stepFor(name: 'take-off' | 'put-back', { id, name: named }: ExtraPart, at: Op | undefined): Op {
  const isOff = name === 'take-off';
  return procedureOp({
    name,
    of: id,
    named,
    seconds: EXTRA_S,
    stage: at?.stage ?? (isOff ? 'strip' : 'rebuild'),
    face: at?.face ?? null,
    why: isOff ? 'It lies over what comes next.' : 'It was there when the device came in.',
    whyNotEarlier: isOff ? 'Once it is in sight.' : 'After what it lies over.',
  });
}
