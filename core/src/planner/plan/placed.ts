import { type Draft, type Task, withAllPredecessors, withRules } from '../drafts/index.ts';

/**
 * Sets the procedures among physical operations whose order is found: each directly before the first that needs it, or,
 * where it is to be early, as soon as what it waits for is done.
 * @param physical ids of the physical operations in their order
 */
export function placed(drafts: readonly Draft[], physical: readonly string[]): string[] {
  const tasks = withAllPredecessors(withRules(drafts.map(({ task }) => task)));
  const byId = new Map(tasks.map((task) => [task.id, task]));
  const procedures = tasks.filter((task) => !task.physical);
  const serves = new Map(drafts.map(({ task }) => [task.id, task.after]));
  const order: string[] = [];
  const done = new Set<string>();
  const put = (id: string) => {
    order.push(id);
    done.add(id);
  };
  const isFree = (task: Task) => [...task.after].every((id) => done.has(id) || !byId.has(id));
  const putWhere = (isWanted: (task: Task) => boolean) => {
    for (;;) {
      const next = procedures.find((task) => !done.has(task.id) && isWanted(task) && isFree(task));
      if (!next) return;
      put(next.id);
    }
  };
  const putEarly = () => {
    const last = order.at(-1);
    // what belongs to the operation just done goes before what could stand anywhere
    putWhere((task) => task.early === true && last !== undefined && serves.get(task.id)!.has(last));
    putWhere((task) => task.early === true);
  };
  for (const id of physical) {
    putEarly();
    const needed = byId.get(id)!.after;
    putWhere((task) => needed.has(task.id));
    // a rule that had to give way leaves no procedure out
    for (const task of procedures) if (needed.has(task.id) && !done.has(task.id)) put(task.id);
    put(id);
  }
  putEarly();
  putWhere(() => true);
  return order;
}

/**
 * Counts moved to directly before what waits for them, in an order that was searched: a count takes no tool and no turn, so
 * that it costs nothing wherever it stands, and counts most where it stands last.
 */
export function countedLast(drafts: readonly Draft[], order: readonly string[]): string[] {
  const tasks = new Map(withRules(drafts.map(({ task }) => task)).map((task) => [task.id, task]));
  const counts = drafts.flatMap(({ op }) => (op.name === 'count' ? [op.id as string] : []));
  return counts.reduce<string[]>(
    (all, count) => {
      const others = all.filter((id) => id !== count);
      const at = others.findIndex((id) => tasks.get(id)?.after.has(count));
      return at < 0 ? all : others.toSpliced(at, 0, count);
    },
    [...order],
  );
}
