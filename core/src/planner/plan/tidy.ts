import type { Admission } from '../order/index.ts';
import type { Task } from '../drafts/index.ts';

/**
 * The same order in a more natural sequence, at no greater cost. An order of least cost leaves much open: what needs
 * neither another tool nor another face may stand in several places. Here it goes on with what it just began, and takes
 * the rest as the tasks are listed; what needs no tool and no face at all waits until something needs it.
 * @param tasks each with all its predecessors, in their natural sequence
 */
export function tidied<S>(tasks: readonly Task[], order: readonly string[], admission: Admission<S>): string[] {
  const number = new Map(tasks.map((task, index) => [task.id, index]));
  const left = new Set(order.map((id) => number.get(id)!));
  const solved = [...left];
  const direct = tasks.map((task) => directlyBefore(task, tasks, number));
  const placed: number[] = [];
  let state = admission.start;
  let tool: string | null = null;
  let face: string | null = null;

  const isFree = (op: number) => ![...tasks[op]!.after].some((id) => left.has(number.get(id)!));
  const costsNothing = ({ tool: needs, face: up }: Task) =>
    (needs === null || needs === tool) && (up === null || up === face);
  const floats = (op: number) => tasks[op]!.tool === null && tasks[op]!.face === null;
  const place = (op: number) => {
    const task = tasks[op]!;
    placed.push(op);
    left.delete(op);
    state = admission.after(state, op);
    tool = task.tool ?? tool;
    face = task.face ?? face;
  };

  while (left.size > 0) {
    const open = [...left].filter((op) => isFree(op) && admission.admits(state, op)).toSorted((a, b) => a - b);
    if (open.length === 0) return [...order];
    const last = placed.at(-1);
    const next = solved.find((op) => left.has(op) && !floats(op));
    const atHand = open.filter((op) => costsNothing(tasks[op]!) && !admission.commits(op));
    const followers = atHand.filter((op) => last !== undefined && direct[op]!.has(last));
    const working = atHand.filter((op) => !floats(op));
    const needed = atHand.find((op) => floats(op) && next !== undefined && tasks[next]!.after.has(tasks[op]!.id));
    const turn = next !== undefined && open.includes(next) ? next : undefined;
    place(followers.find(floats) ?? followers[0] ?? working[0] ?? needed ?? turn ?? atHand[0] ?? open[0]!);
  }
  return placed.map((op) => tasks[op]!.id);
}

function directlyBefore(task: Task, tasks: readonly Task[], number: ReadonlyMap<string, number>): Set<number> {
  const implied = new Set([...task.after].flatMap((id) => [...tasks[number.get(id)!]!.after]));
  return new Set([...task.after].filter((id) => !implied.has(id)).map((id) => number.get(id)!));
}
