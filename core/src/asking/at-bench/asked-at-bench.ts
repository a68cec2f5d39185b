import { isDrying, leftOpen } from '../../job/rules/index.ts';
import { UNKNOWN } from '../../job/state/index.ts';
import { isHeldByFault, nextPress, nextUntested } from '../../bench/in-hand/index.ts';
import { TEST_AFTER } from '../../planner/drafts/index.ts';
import { functionName } from '../../planner/words/index.ts';
import type { Question } from '../question/index.ts';
import { askedAtTheEnd, nothingDone, stillOpen } from './at-the-end.ts';
import type { BenchNow } from './bench-now.ts';
import { askedOfFault } from './fault-asked.ts';
import { askedOfStep } from './step-asked.ts';
import { planning, whileHeld } from './held.ts';

/** What is asked at the bench now. */
export function askedAtBench(bench: BenchNow): Question {
  const { mechanism, state, ahead, now, atHand } = bench;
  const { map } = mechanism;
  if (state.stopped || state.ended) return whileHeld(state, now);
  if (!ahead) return planning();
  const [op] = ahead.ops;
  const press = nextPress(mechanism, state, ahead, now, atHand);
  if (ahead.failed.length > 0 && isHeldByFault(map, state, op)) {
    const stage = !op || op.id === TEST_AFTER ? 'after' : op.name === 'test' ? 'before' : 'trial';
    return askedOfFault(map, state, ahead.failed, stage);
  }
  if (!op) {
    if (isDrying(state)) return askedAtTheEnd(press, 'Washed, dried and tried');
    const open = state.finished ? [] : leftOpen(mechanism, state, UNKNOWN);
    if (open.length > 0) return stillOpen(state, open, now);
    if (!state.finished && state.done.length === 0) return nothingDone();
    return askedAtTheEnd(press, state.finished ? 'Finished' : 'Everything is back and tried');
  }
  const asked = askedOfStep(bench, op, press);
  const [fault] = ahead.failed;
  if (!fault) return asked;
  const then = nextUntested(state, op) === undefined ? '' : ' Try the rest; then it is pressed again, or decided.';
  return {
    ...asked,
    cautions: [
      { text: `${functionName(map, fault.function)} fails: not to be closed.${then}`, isKnown: true },
      ...asked.cautions,
    ],
  };
}
