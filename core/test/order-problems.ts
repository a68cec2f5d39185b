import type { OrderOp, OrderProblem } from '../src/planner/order/index.ts';
import { random } from './random-map.ts';

const START = { start: { tool: null, face: null }, toolChangeSeconds: 8, flipSeconds: 5 };

/** Operations with random tools, faces and predecessors. */
export function randomOrderProblem(seed: number, size: number): OrderProblem {
  const next = random(seed);
  const ops = Array.from({ length: size }, (_, index): OrderOp => {
    const after = Array.from({ length: index }, (_, earlier) => `${earlier}`).filter(() => next() < 1.5 / size);
    return operation(`${index}`, after, next, 3, 2);
  });
  const start = { tool: next() < 0.3 ? 't1' : null, face: next() < 0.3 ? 'f1' : null };
  return { ...START, ops, start };
}

/** Independent chains, each in its own fixed order. */
export function chains(count: number, length: number, seed: number, tools: number, faces: number): OrderProblem {
  const next = random(seed);
  const ops = Array.from({ length: count * length }, (_, index): OrderOp => {
    const [chain, step] = [Math.floor(index / length), index % length];
    return operation(`${chain}-${step}`, step > 0 ? [`${chain}-${step - 1}`] : [], next, tools, faces);
  });
  return { ...START, ops };
}

function operation(id: string, after: string[], next: () => number, tools: number, faces: number): OrderOp {
  return {
    id,
    seconds: 1 + Math.floor(next() * 20),
    tool: next() < 0.15 ? null : `t${Math.floor(next() * tools)}`,
    face: next() < 0.2 ? null : `f${Math.floor(next() * faces)}`,
    after,
  };
}
