import type { Mechanism } from '../holds/index.ts';
import { type Op, type Physical, physicalOp, type Procedure, procedureOp } from './op.ts';
import type { OrderRule } from '../sequence/index.ts';
import { type Task, withAllPredecessors, withRules } from './task.ts';

/** An operation before it has its place: what it is, and what it says to the order. */
export interface Draft {
  readonly op: Op;
  readonly task: Task;
}

interface Order {
  readonly after: Iterable<string>;
  /** operations of one block follow each other directly */
  readonly block?: string;
  /** the first of its block */
  readonly starts?: boolean;
  /** stands as early as it can, and not directly before what it serves */
  readonly early?: boolean;
}

export function physicalDraft(mechanism: Mechanism, { after, block, ...given }: Physical & Order): Draft {
  const op = physicalOp(mechanism, given);
  return { op, task: { ...taskOf(op, { after, block }), physical: given.physical } };
}

export function procedureDraft({ after, block, starts, early, ...given }: Procedure & Order): Draft {
  const op = procedureOp(given);
  return { op, task: taskOf(op, { after, block, starts, early }) };
}

function taskOf({ id, seconds, tool, face, live }: Op, { after, block, starts, early }: Order): Task {
  return {
    id,
    seconds,
    tool,
    face: face === 'edge' ? null : face,
    after: new Set(after),
    ...(block === undefined ? {} : { block }),
    ...(starts ? { starts } : {}),
    ...(early ? { early } : {}),
    ...(live ? { live } : {}),
  };
}

/** The same draft with more that has to come before it. */
export function after(draft: Draft, more: Iterable<string>): Draft {
  return { ...draft, task: { ...draft.task, after: new Set([...draft.task.after, ...more]) } };
}

/** The same draft with what a rule of order puts before it. */
export function afterBy(draft: Draft, rule: OrderRule, more: Iterable<string>): Draft {
  const ruled = new Map(draft.task.ruled);
  for (const id of more) if (!ruled.has(id) && id !== draft.op.id) ruled.set(id, rule);
  return { ...draft, task: { ...draft.task, ruled } };
}

/** All that comes before each operation, by its id. */
export function orderOf(drafts: readonly Draft[]): ReadonlyMap<string, ReadonlySet<string>> {
  return new Map(withAllPredecessors(withRules(drafts.map(({ task }) => task))).map((task) => [task.id, task.after]));
}
