import type { PhysicalOp } from '../holds/index.ts';
import { CycleError } from '../order/index.ts';
import type { OrderRule } from '../sequence/index.ts';

/** An operation to be put in order. */
export interface Task {
  readonly id: string;
  readonly seconds: number;
  readonly tool: string | null;
  readonly face: string | null;
  readonly after: ReadonlySet<string>;
  /** what else comes before it by a rule of order, and by which */
  readonly ruled?: ReadonlyMap<string, OrderRule>;
  /** a procedure that stands as early as it can, and not directly before what it serves */
  readonly early?: boolean;
  readonly physical?: PhysicalOp;
  /** tasks of one block follow each other directly; `starts` marks the first */
  readonly block?: string;
  readonly starts?: boolean;
  /** released live: all that leads to a dead device follows directly */
  readonly live?: boolean;
}

/**
 * The same tasks with everything that precedes them, not just what directly does.
 * @throws CycleError where tasks wait for each other
 */
export function withAllPredecessors(tasks: readonly Task[]): Task[] {
  const byId = new Map(tasks.map((task) => [task.id, task]));
  const closed = new Map<string, Set<string>>();
  const path: string[] = [];
  const close = (id: string): Set<string> => {
    const known = closed.get(id);
    if (known) return known;
    if (path.includes(id)) throw new CycleError(path.slice(path.indexOf(id)).reverse());
    path.push(id);
    const all = new Set<string>();
    for (const each of byId.get(id)!.after) {
      if (!byId.has(each)) continue;
      all.add(each);
      close(each).forEach((earlier) => all.add(earlier));
    }
    path.pop();
    closed.set(id, all);
    return all;
  };
  return tasks.map((task) => ({ ...task, after: close(task.id) }));
}

/** Does none of them wait for itself? */
export function isWithoutRings(tasks: readonly Task[]): boolean {
  const byId = new Map(tasks.map((task) => [task.id, task]));
  const seen = new Map<string, 'on-path' | 'done'>();
  const visit = (id: string): boolean => {
    const before = seen.get(id);
    if (before) return before === 'done';
    seen.set(id, 'on-path');
    for (const each of byId.get(id)!.after) if (byId.has(each) && !visit(each)) return false;
    seen.set(id, 'done');
    return true;
  };
  return tasks.every(({ id }) => visit(id));
}

/** The same tasks with what the rules of order put before them among what has to come before. */
export function withRules(tasks: readonly Task[]): Task[] {
  return tasks.map((task) => (task.ruled ? { ...task, after: new Set([...task.after, ...task.ruled.keys()]) } : task));
}

/** Leaves out what follows from the others: fewer arrows, the same orders. */
export function directOnly(byId: ReadonlyMap<string, Pick<Task, 'after'>>, { after }: Pick<Task, 'after'>): string[] {
  const implied = new Set<string>();
  for (const id of after) {
    // what precedes an implied one is implied by what implies that
    if (!implied.has(id)) byId.get(id)?.after.forEach((each) => implied.add(each));
  }
  return [...after].filter((id) => !implied.has(id));
}
