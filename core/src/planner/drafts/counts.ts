import type { Mechanism } from '../holds/index.ts';
import { afterBy, type Draft, orderOf, procedureDraft } from './draft.ts';
import { TIMES } from './estimates.ts';
import type { Op } from './op.ts';
import { opId } from './op-id.ts';
import type { WayUp } from './way-up.ts';

/** The screws are counted before a cell goes in and before the device comes alive, else before it is closed. */
export function withCounts(mechanism: Mechanism, drafts: readonly Draft[], way: WayUp): Draft[] {
  const ordered = orderOf(drafts);
  const ids = new Set<string>(drafts.map(({ op }) => op.id));
  const cells = mechanism.isolation.cells.flatMap((cell) => {
    const { id } = mechanism.map.parts[cell]!;
    return ids.has(opId('fit', id)) ? [{ of: id, until: [opId('fit', id) as string] }] : [];
  });
  const inOrder = (kinds: ReadonlySet<string>) =>
    drafts.flatMap(({ op }) => (kinds.has(op.id) ? [op.id as string] : []));
  const ends = inOrder(way.endsOfDead).filter((id) => !cells.some(({ until }) => until.includes(id)));
  const closings = inOrder(way.outerClosings);
  const alive = ends.length > 0 ? [{ of: 'dead', until: ends }] : [];
  const physical = new Set(drafts.flatMap(({ op, task }) => (task.physical ? [op.id as string] : [])));
  // in all of this job, also where it was done already
  const isCounted =
    way.endsOfDead.size > 0 ||
    mechanism.isolation.cells.some((cell) => way.follows.has(opId('fit', mechanism.map.parts[cell]!.id)));
  const closed = !isCounted && closings.length > 0 ? [{ of: 'close', until: closings }] : [];
  const counts = [...cells, ...alive, ...closed].map(({ of, until }) => {
    const draft = procedureDraft({ name: 'count', of, seconds: TIMES.count, stage: 'rebuild', after: [] });
    const below = inCommon(until.map((id) => ordered.get(id)!)).filter((id) => physical.has(id));
    return { until, draft: afterBy(draft, 'count', below) };
  });
  const body = drafts.map((draft) =>
    counts
      .filter(({ until }) => until.includes(draft.op.id))
      .reduce((each, count) => afterBy(each, 'count', [count.draft.op.id]), draft),
  );
  const all = [...body, ...counts.map(({ draft }) => draft)];
  return isCounted || way.outerClosings.size > 0 ? all : [...all, lastCount(all)];
}

function inCommon(sets: readonly ReadonlySet<string>[]): string[] {
  const [first, ...others] = sets;
  return [...(first ?? [])].filter((each) => others.every((other) => other.has(each)));
}

function lastCount(drafts: readonly Draft[]): Draft {
  return procedureDraft({
    name: 'count',
    of: 'close',
    seconds: TIMES.count,
    stage: 'close',
    after: drafts.map(({ op }) => op.id),
  });
}

/** A count is made once where no screw went in since the last one. */
export function withoutIdleCounts(mechanism: Mechanism, ops: readonly Op[]): Op[] {
  const { map, joint } = mechanism;
  let isNew = true;
  const idle = new Set<string>();
  for (const op of ops) {
    if (op.kind === 'make' && map.joints[joint.get(op.joint!)!]!.type === 'screw') isNew = true;
    if (op.name !== 'count') continue;
    if (!isNew) idle.add(op.id);
    isNew = false;
  }
  if (idle.size === 0) return [...ops];
  return ops
    .filter((op) => !idle.has(op.id))
    .map((op) => ({ ...op, notBefore: op.notBefore.filter((id) => !idle.has(id)) }));
}
