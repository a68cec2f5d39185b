import { isAiring, type NextPress, waitLeft_s } from '../../bench/in-hand/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import type { Wait } from '../question/index.ts';
import type { BenchNow } from './bench-now.ts';

/** What runs down before the step can be done; null where it can be done now. */
export function waitOf({ state, now, atHand }: BenchNow, op: Op, press: NextPress): Wait | null {
  if (press.isAllowed || press.label === '') return null;
  const { heating } = state.opening;
  const on = atHand.warm?.on;
  if (heating && heating.joint === op.joint && on) {
    const left_s = on.clock?.toSoft_s ?? on.clock?.toLikely_s ?? null;
    const share = left_s === null ? null : on.elapsed_s / Math.max(1, on.elapsed_s + left_s);
    return { label: press.label, left_s, share };
  }
  const left_s = waitLeft_s(state, op, now);
  if (left_s === null) return { label: press.label, left_s: null, share: null };
  const timer = isAiring(state, op) ? undefined : state.timers.find((each) => each.step === op.id);
  const share = timer ? Math.min(1, Math.max(0, 1 - left_s / Math.max(1, timer.seconds))) : null;
  return { label: press.label, left_s, share };
}
