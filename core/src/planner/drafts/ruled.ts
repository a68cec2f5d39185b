import { type Mechanism } from '../holds/index.ts';
import type { Draft } from './draft.ts';
import { PartialOrder } from './partial-order.ts';
import { opId } from './op-id.ts';
import { isWithoutRings, withRules } from './task.ts';
import type { WayUp } from './way-up.ts';

/** A display that is off and is fitted again. */
export interface LastDisplay {
  readonly part: number;
  /** what may be done while it stands: the undoing of what its own lift needs, by id */
  readonly ownNeeds: ReadonlySet<string>;
}

/**
 * The rules of the rebuild that speak of physical operations: all that can be done dead is done dead, a display that was
 * taken off is fitted last, and what came out first goes in last. A rule gives way where an earlier one asks for the
 * opposite.
 */
export function withRebuildRules(
  mechanism: Mechanism,
  drafts: readonly Draft[],
  way: WayUp,
  displays: readonly LastDisplay[],
): Draft[] {
  const order = new PartialOrder(drafts);
  const ids = drafts.map(({ op }) => op.id);
  const isFree = (id: string) => way.outerClosings.has(id) || way.late.has(id) || way.removedFirst.has(id);

  for (const end of way.endsOfDead) {
    for (const id of ids) {
      const dependsOnAnEnd = [...way.endsOfDead].some((each) => way.follows.get(each)?.has(id));
      if (!way.endsOfDead.has(id) && !isFree(id) && !dependsOnAnEnd) order.put(id, end, 'dead-long');
    }
  }
  const fits = displays.map(({ part }) => opId('fit', mechanism.map.parts[part]!.id));
  const theirs = new Set(displays.flatMap(({ ownNeeds }) => [...ownNeeds]));
  for (const fit of fits) {
    for (const id of ids) {
      if (isFree(id) || theirs.has(id) || way.endsOfDead.has(id) || way.follows.get(fit)?.has(id)) continue;
      order.put(id, fit, 'display-last');
    }
  }
  for (const late of way.late) {
    for (const id of ids) if (!way.late.has(id)) order.put(id, late, 'test');
  }
  return order.drafts();
}

/** The same drafts; where rules of order wait for each other, the one that closes the ring gives way. */
export function withoutRings(drafts: readonly Draft[]): readonly Draft[] {
  if (isWithoutRings(withRules(drafts.map(({ task }) => task)))) return drafts;
  const order = new PartialOrder(drafts.map(({ op, task }) => ({ op, task: { ...task, ruled: undefined } })));
  for (const { op, task } of drafts) task.ruled?.forEach((rule, id) => order.put(id, op.id, rule));
  return order.drafts();
}
