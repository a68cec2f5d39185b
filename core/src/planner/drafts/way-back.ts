import {
  assembled,
  copyOf,
  type DeviceState,
  isStripOp,
  liveJoints,
  type Mechanism,
  OFF,
  type PhysicalOp,
  planRules,
  type StripOp,
} from '../holds/index.ts';
import {
  leastSets,
  noWork,
  opsOf,
  type Precedence,
  precedenceOf,
  rebuildWaits,
  withOps,
  type WorkSet,
} from '../search/index.ts';

/** The way back: how one would have come from the whole device to this state, to be undone from its end. */
export interface WayBack {
  readonly whole: DeviceState;
  readonly path: Precedence;
  /** the same for everything that was undone at any time in this job, also what is back in its place */
  readonly touched: Precedence;
  /** bonds that were made again already: they may still want pressing and curing */
  readonly remade: ReadonlySet<number>;
  /** further strip-down work without which nothing could be put back */
  readonly missing: readonly StripOp[];
  readonly extra: ReturnType<typeof rebuildWaits>;
  readonly live: ReadonlySet<number>;
}

/**
 * @param history all that was done in this job until now
 * @param lacking joints that the new parts have no place for
 */
export function wayBack(
  mechanism: Mechanism,
  state: DeviceState,
  history: readonly PhysicalOp[],
  lacking: ReadonlySet<number>,
  display: 'taken-off' | 'on-flexes',
): WayBack {
  const whole = copyOf(assembled(mechanism));
  lacking.forEach((joint) => (whole.released[joint] = 1));
  const live = liveJoints(mechanism, whole);
  const undone = undoneSet(mechanism, state, whole);
  const wayDown = (keeping: 'taken-off' | 'on-flexes') => {
    const extra = rebuildWaits(mechanism, whole, keeping);
    return { extra, path: precedenceOf(mechanism, whole, undone, planRules(live, extra), true) };
  };
  const asKept = wayDown(display);
  const { extra, path } = asKept.path.complete ? asKept : wayDown('on-flexes');
  const rules = planRules(live, extra);
  const everUndone = withOps(undone, whole, history.filter(isStripOp));
  const touched = everUndone.weight === undone.weight ? path : precedenceOf(mechanism, whole, everUndone, rules, true);
  const remade = new Set(history.flatMap((op) => (op.kind === 'make' && !state.released[op.joint] ? [op.joint] : [])));
  const way = { whole, extra, live, touched, remade };
  const larger = path.complete ? undefined : leastSets(mechanism, whole, () => [], rules, undone)[0];
  if (!larger) return { ...way, path, missing: [] };
  const missing = opsOf(larger).filter((op) => !isIn(undone, op));
  return { ...way, path: precedenceOf(mechanism, whole, larger, rules, true), missing };
}

function isIn(set: WorkSet, op: StripOp): boolean {
  return op.kind === 'release' ? set.joints[op.joint] === 1 : set.parts[op.part]! > 0;
}

/** Everything that is not as in the whole device; a made joint whose sides lie apart was torn and counts as released. */
function undoneSet(mechanism: Mechanism, state: DeviceState, whole: DeviceState): WorkSet {
  const ops: StripOp[] = [];
  state.released.forEach((released, joint) => {
    const torn =
      mechanism.releasable[joint] &&
      mechanism.held[joint]!.some((part) => state.group[part] !== state.group[mechanism.to[joint]!]);
    if (released || torn) ops.push({ kind: 'release', joint });
  });
  state.status.forEach((status, part) => {
    if (status > 0) ops.push({ kind: status === OFF ? 'lift' : 'open', part });
  });
  return withOps(noWork(mechanism), whole, ops);
}
