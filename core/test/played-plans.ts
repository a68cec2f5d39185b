import { expect } from 'vitest';
import type { DeviceMap } from '../src/model/device-map/index.ts';
import type { Op } from '../src/planner/drafts/index.ts';
import { type DoneOp, type Plan, planRepair } from '../src/planner/plan/index.ts';
import type { Policy } from '../src/model/policy/index.ts';
import type { Target } from '../src/planner/search/index.ts';
import { Simulator, violations } from './simulator.ts';

export const budget = { now: () => performance.now(), limitMs: 4000 };

/** What was planned once is not planned again for the next test: order and words are looked at in the same plans. */
const made = new Map<string, Plan>();

export function plan(
  map: DeviceMap,
  targets: readonly Target[],
  policy: Partial<Policy> = {},
  done: readonly DoneOp[] = [],
): Plan {
  const request = { map, targets, policy, done };
  const key = JSON.stringify(request);
  const found = made.get(key) ?? planRepair(request, budget);
  made.set(key, found);
  return found;
}

export const physical = (ops: readonly Op[]) => ops.filter((op) => op.kind !== 'procedure');
export const ids = (ops: readonly Op[]): string[] => ops.map((op) => op.id);
export const before = (ops: readonly Op[], a: string, b: string) => {
  expect(ids(ops)).toEqual(expect.arrayContaining([a, b]));
  expect(ids(ops).indexOf(a), `${a} before ${b}`).toBeLessThan(ids(ops).indexOf(b));
};

/** Plays a plan back by the rules, from the whole device to the whole device again. */
export function playBack(map: DeviceMap, made: Plan): string[] {
  const simulator = new Simulator(map);
  const wrong = [...violations(simulator, physical(made.strip)), ...violations(simulator, physical(made.rebuild))];
  return [
    ...wrong,
    ...renewedTwice([...made.strip, ...made.rebuild]).map((id) => `${id} is renewed twice`),
    ...[...simulator.off, ...simulator.open, ...simulator.released].map((id) => `${id} is left undone`),
  ];
}

/** A piece for one use goes in once: as what is fitted new, or on the new part that it rides on. */
function renewedTwice(ops: readonly Op[]): string[] {
  const fresh = ops.flatMap((op) => ((op.kind === 'fit' && op.isNew) || op.name === 'renew' ? [op.part!] : []));
  return fresh.filter((id, at) => fresh.indexOf(id) !== at);
}
