import {
  type Draft,
  type LastDisplay,
  opId,
  physicalId,
  rebuildDrafts,
  solventLast,
  type WayBack,
  wayBack,
  type WayUp,
  wayUp,
  withAllPredecessors,
  withBonds,
  withoutRings,
  withProving,
  withRebuildRules,
  withRules,
  withTransplant,
} from '../drafts/index.ts';
import {
  applied,
  assembled,
  carried,
  type DeviceState,
  inverse,
  type Mechanism,
  planRules,
  type Rules,
  withHost,
} from '../holds/index.ts';
import { type Budget } from '../order/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import { type Move, movesOf, moveWork, type Precedence, type Target } from '../search/index.ts';
import { type OrderRule, rebuildOrder } from '../sequence/index.ts';
import { arrangeBack, leastSecondsOf } from './arrange.ts';
import { inCarefulOrder, keepingGroups, ruled } from './careful.ts';
import { afterMoves, pieceByPiece, type PieceWork, takeOffDrafts } from './moving-over.ts';
import { countedLast, placed } from './placed.ts';
import type { Present } from './present.ts';
import type { StripDown } from './strip-down.ts';

/** The way back of a plan. */
export interface Rebuild {
  readonly drafts: readonly Draft[];
  readonly order: readonly string[];
  readonly ruledBy: ReadonlyMap<string, OrderRule>;
  readonly leastSeconds: number;
  readonly moves: readonly Move[];
  /** fittings that do not join the group that is usual, with the part that they join */
  readonly onto: ReadonlyMap<string, number>;
}

interface Wanted {
  readonly targets: readonly Target[];
  readonly replaced: ReadonlySet<number>;
  /** joints that the new parts have no place for */
  readonly lacking: ReadonlySet<number>;
  readonly policy: Policy;
  readonly display: 'taken-off' | 'on-flexes';
}

export function rebuild(
  mechanism: Mechanism,
  present: Present,
  strip: StripDown,
  { targets, replaced, lacking, policy, display }: Wanted,
  budget: Budget,
): Rebuild {
  const { live } = strip;
  const history = [...present.history, ...strip.ops];
  const moves = movesOf(mechanism, assembled(mechanism), history, targets);
  const moving = moveWork(mechanism, strip.state, moves, planRules(live), present.refitted);
  const moved = moving.ops.reduce((state, op) => applied(mechanism, state, op), strip.state);
  const back = wayBack(mechanism, moved, history, lacking, display);
  const reached = back.missing.reduce((state, op) => applied(mechanism, state, op), moved);
  const down = descent(mechanism, back, back.touched, reached, policy);

  const off = ruled(mechanism, strip.state, moving, planRules(live), policy);
  const offOrder = inCarefulOrder(off, live, history).order;
  const offDrafts = takeOffDrafts(
    mechanism,
    strip.state,
    off.precedence,
    off.blocks,
    back.missing,
    moves,
    policy,
    live,
  );
  const physical = rebuildDrafts(mechanism, reached, back, { moves, replaced, policy });
  const on = piecesOn(physical, down);
  const onMat = new Set(on.map(({ id }) => id));
  const way = awayFrom(wayUp(mechanism, back.touched, down.needs, replaced), onMat);
  const ruledBack = withRebuildRules(mechanism, physical, way, down.displays);
  const bonded = withBonds({ mechanism, state: reached, way, replaced, remade: back.remade, policy }, ruledBack);
  const isFilmed = strip.drafts.some(({ op }) => op.id === 'film');
  const renewed = new Set([...present.renewed].map((id) => mechanism.part.get(id)!));
  const turns = new Map(down.ids.map((id, at) => [id, at]));
  const body = withTransplant(mechanism, bonded, replaced, policy);
  const proving = withProving(mechanism, body, back.touched, way, { replaced, renewed }, policy, isFilmed, turns);

  const rules = planRules(back.live, back.extra);
  const offIds = off.precedence.ops.map((op) => physicalId(mechanism, op) as string);
  const missing = back.missing.map((op) => physicalId(mechanism, op) as string);
  const first = [
    ...pieceByPiece(mechanism, strip.state, off.precedence, offOrder, offIds, on, planRules(live)),
    ...missing,
  ];
  const all = withoutRings([...offDrafts, ...afterMoves(proving, new Set(first))]);
  const turn = { mechanism, back, start: strip.state, rules, all, first, down };
  const bound = leastSecondsOf(all);
  const again = () => ({ ...turn, down: descent(mechanism, back, back.path, reached, policy) });
  const found =
    policy.order === 'fewest-changes'
      ? null
      : (inReverse(turn) ?? (back.touched === back.path ? null : inReverse(again())));
  if (!found) return { ...searched(turn, budget, policy), moves, leastSeconds: bound };
  const order = placed(all, found.order);
  return { drafts: all, order, ruledBy: reasons(all, order), leastSeconds: bound, moves, onto: found.onto };
}

/** What is done on the mat closes nothing and brings nothing to life. */
function awayFrom(way: WayUp, onMat: ReadonlySet<string>): WayUp {
  const kept = (ids: ReadonlySet<string>) => new Set([...ids].filter((id) => !onMat.has(id)));
  return {
    ...way,
    outerClosings: kept(way.outerClosings),
    endsOfDead: kept(way.endsOfDead),
    removedFirst: kept(way.removedFirst),
    late: kept(way.late),
  };
}

/** What is put on new parts on the mat, as far as nothing else has to come before it; in reversed order. */
function piecesOn(physical: readonly Draft[], { ids }: Descent): PieceWork[] {
  const byId = new Map(physical.map((draft) => [draft.op.id as string, draft]));
  const ordered = new Map(withAllPredecessors(physical.map(({ task }) => task)).map((task) => [task.id, task.after]));
  const pieces = new Set(physical.flatMap(({ op }) => (op.stage === 'move' ? [op.id as string] : [])));
  for (let size = -1; size !== pieces.size;) {
    size = pieces.size;
    for (const id of pieces) if ([...ordered.get(id)!].some((each) => !pieces.has(each))) pieces.delete(id);
  }
  return ids.flatMap((id) => (pieces.has(id) ? [{ id, physical: byId.get(id)!.task.physical! }] : []));
}

interface Descent {
  /** ids of the way back in the reverse of the order in which a careful technician would have come here */
  readonly ids: readonly string[];
  /** per id the group that a part was lifted from on the way down: the one it joins on the way back */
  readonly groups: ReadonlyMap<string, number>;
  readonly displays: readonly LastDisplay[];
  /** per operation of the path what it needs */
  readonly needs: (op: number) => ReadonlySet<number>;
}

/**
 * How a careful technician would have come here from the whole device, turned round.
 * @param path what is undone now, or what was at any time in this job: then the way back stays the same while it is gone
 */
function descent(mechanism: Mechanism, back: WayBack, path: Precedence, reached: DeviceState, policy: Policy): Descent {
  const { whole, live } = back;
  const by = ruledDown(mechanism, back, path, policy);
  const { order } = inCarefulOrder(by, live, [], keepingGroups(mechanism, reached));
  const ids = path.ops.map((op) => physicalId(mechanism, inverse(op)) as string);
  const groups = new Map<string, number>();
  let state = whole;
  for (const index of order) {
    const op = path.ops[index]!;
    if (op.kind === 'lift') groups.set(ids[index]!, state.group[op.part]!);
    state = applied(mechanism, state, op);
  }
  const displays = by.phases.displays.map(({ lift, needs }): LastDisplay => ({
    part: (path.ops[lift] as { part: number }).part,
    ownNeeds: new Set([...needs].map((each) => ids[each]!)),
  }));
  return { ids: order.map((index) => ids[index]!).toReversed(), groups, displays, needs: by.phases.needs };
}

function ruledDown(mechanism: Mechanism, { whole, live, extra }: WayBack, path: Precedence, policy: Policy) {
  return ruled(mechanism, whole, path, planRules(live, extra), policy);
}

interface Turn {
  readonly mechanism: Mechanism;
  readonly back: WayBack;
  readonly start: DeviceState;
  readonly rules: Rules;
  readonly all: readonly Draft[];
  /** what is done first, in its order: the pieces that move over */
  readonly first: readonly string[];
  readonly down: Descent;
}

function inReverse({ mechanism, back, start, rules, all, first, down }: Turn) {
  const physicalOf = new Map(all.flatMap(({ op, task }) => (task.physical ? [[op.id as string, task.physical]] : [])));
  const state = first.reduce(
    (now, id) => applied(mechanism, now, withHost(mechanism, now, physicalOf.get(id)!)),
    start,
  );
  const isFirst = new Set(first);
  const ids = down.ids.filter((id) => !isFirst.has(id) && physicalOf.has(id));
  const number = new Map(ids.map((id, index) => [id, index]));
  const numbers = (tasks: ReturnType<typeof withAllPredecessors>) => {
    const byId = new Map(tasks.map((task) => [task.id, task.after]));
    return ids.map((id) => new Set([...byId.get(id)!].flatMap((each) => number.get(each) ?? [])));
  };
  const tasks = all.map(({ task }) => task);
  const fitsBefore = new Map(
    down.displays.flatMap(({ part }) => {
      const { id } = mechanism.map.parts[part]!;
      const along = [...carried(mechanism, back.whole, part)];
      const plugs = along.flatMap((each) => mechanism.touching[each]!.filter((joint) => mechanism.tether[joint]));
      const followers = [...plugs.map((joint) => opId('make', mechanism.map.joints[joint]!.id)), opId('close', id)];
      const fit = number.get(opId('fit', id));
      return fit === undefined ? [] : [[fit, followers.flatMap((each) => number.get(each) ?? [])] as const];
    }),
  );
  const found = rebuildOrder({
    mechanism,
    whole: back.whole,
    start: state,
    rules,
    ops: ids.map((id) => physicalOf.get(id)!),
    hard: numbers(withAllPredecessors(tasks)),
    before: numbers(withAllPredecessors(withRules(tasks))),
    places: ids.map((id) => down.groups.get(id)),
    fitsBefore,
  });
  if (!found) return null;
  const onto = found.order.flatMap((index, at) => {
    const op = found.resolved[at]!;
    return op.kind === 'fit' ? [[ids[index]!, op.onto] as const] : [];
  });
  return { order: [...first, ...found.order.map((index) => ids[index]!)], onto: new Map(onto) };
}

/** Orders with the fewest changes are searched; so are those of states from which the reversed order is barred. */
function searched(turn: Turn, budget: Budget, policy: Policy): Omit<Rebuild, 'moves' | 'leastSeconds'> {
  const { mechanism, back, start, rules, all, first } = turn;
  const chained = all.map((draft) => {
    const at = first.indexOf(draft.op.id);
    return at > 0
      ? { ...draft, task: { ...draft.task, after: new Set([...draft.task.after, first[at - 1]!]) } }
      : draft;
  });
  const half = { ...budget, limitMs: budget.limitMs / 2 };
  const bare = chained.map(({ task }) => task);
  const tries = [withRules(solventLast(chained).map(({ task }) => task)), bare];
  // where the rules leave no way back at all, the way back goes before them
  const ways = tries.map((tasks) => () => arrangeBack(mechanism, back.whole, start, tasks, rules, half));
  const kept = ways[0]!();
  const found = kept.isLegal ? kept : ways[1]!();
  const physical = new Set(all.flatMap(({ op, task }) => (task.physical ? [op.id as string] : [])));
  const order =
    policy.order === 'fewest-changes'
      ? countedLast(all, found.order)
      : placed(
          all,
          found.order.filter((id) => physical.has(id)),
        );
  return { drafts: all, order, ruledBy: reasons(all, order), onto: found.onto };
}

/** The rule of order that keeps each operation later than the map does. */
function reasons(drafts: readonly Draft[], order: readonly string[]): Map<string, OrderRule> {
  const place = new Map(order.map((id, index) => [id, index]));
  const last = (ids: Iterable<string>) => Math.max(-1, ...[...ids].map((id) => place.get(id) ?? -1));
  return new Map(
    drafts.flatMap(({ op, task }) => {
      const at = place.get(op.id)!;
      const byMap = last(task.after);
      const byRule = [...(task.ruled ?? [])].toSorted(([a], [b]) => (place.get(b) ?? -1) - (place.get(a) ?? -1))[0];
      if (byRule && (place.get(byRule[0]) ?? -1) > byMap) return [[op.id as string, byRule[1]] as const];
      return op.kind !== 'procedure' && byMap < at - 1 ? [[op.id as string, 'mirror'] as const] : [];
    }),
  );
}
