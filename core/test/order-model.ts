import type { OrderProblem } from '../src/planner/order/index.ts';

/**
 * The order problem as a mixed-integer model in CPLEX LP format: who follows whom directly is not enough, since an
 * operation by hand keeps the tool; so the tool and face in hand after each position are variables of their own.
 * The objective is setups only.
 */
export function mixedIntegerModel(problem: OrderProblem): string {
  const { ops, start } = problem;
  const n = ops.length;
  const positions = [...Array(n).keys()];
  const lines: string[] = [];
  const binaries: string[] = [];
  const objective: string[] = [];

  const at = (op: number, position: number) => `x_${op}_${position}`;
  ops.forEach((_, op) => positions.forEach((position) => binaries.push(at(op, position))));
  ops.forEach((_, op) => lines.push(`${positions.map((p) => at(op, p)).join(' + ')} = 1`));
  positions.forEach((p) => lines.push(`${ops.map((_, op) => at(op, p)).join(' + ')} = 1`));

  const number = new Map(ops.map((op, index) => [op.id, index]));
  ops.forEach((op, later) => {
    for (const id of op.after) {
      const earlier = number.get(id)!;
      positions.forEach((p) => {
        const before = positions.slice(0, p).map((q) => at(earlier, q));
        lines.push(`${at(later, p)}${before.map((each) => ` - ${each}`).join('')} <= 0`);
      });
    }
  });

  /** Tools or faces: which kind is at hand after each position, `none` among them, and what taking up one costs. */
  const setup = (
    name: string,
    kindOf: readonly (string | null)[],
    first: string | null,
    cost: number,
    firstIsFree: boolean,
  ) => {
    const kinds: (string | null)[] = [null, ...new Set([first, ...kindOf].filter((kind) => kind !== null))];
    const held = (kind: number, p: number) => `${name}_${kind}_${p}`;
    for (let p = 0; p <= n; p++) kinds.forEach((_, kind) => binaries.push(held(kind, p)));
    kinds.forEach((kind, index) => lines.push(`${held(index, 0)} = ${kind === first ? 1 : 0}`));
    for (let p = 1; p <= n; p++) {
      lines.push(`${kinds.map((_, kind) => held(kind, p)).join(' + ')} = 1`);
      kinds.forEach((kind, index) => {
        const uses = ops.flatMap((_, op) => (kind !== null && kindOf[op] === kind ? [at(op, p - 1)] : []));
        const minus = uses.map((use) => ` - ${use}`).join('');
        if (uses.length > 0) lines.push(`${held(index, p)}${minus} >= 0`);
        lines.push(`${held(index, p)} - ${held(index, p - 1)}${minus} <= 0`);
        if (kind === null) return;
        const change = `${name}_change_${index}_${p}`;
        binaries.push(change);
        objective.push(`${cost} ${change}`);
        const free = firstIsFree ? ` + ${held(0, p - 1)}` : '';
        lines.push(`${change} + ${held(index, p - 1)}${free} - ${held(index, p)} >= 0`);
      });
    }
  };
  setup(
    't',
    ops.map((op) => op.tool),
    start.tool,
    problem.toolChangeSeconds,
    false,
  );
  setup(
    'f',
    ops.map((op) => op.face),
    start.face,
    problem.flipSeconds,
    true,
  );
  const rows = lines.map((line, index) => ` c${index}: ${line}`).join('\n');
  return `Minimize\n obj: ${objective.join(' + ')}\nSubject To\n${rows}\nBinary\n ${binaries.join('\n ')}\nEnd\n`;
}
