import { type DeviceMap, jointById, partById } from '../../model/device-map/index.ts';
import type { Budget } from '../../planner/order/index.ts';
import { type Plan, planRepair } from '../../planner/plan/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import type { Target } from '../../planner/search/index.ts';

/** What replacing one more part costs while the device is open, against a job of its own later. */
export interface WhileOpen {
  readonly part: string;
  readonly now: Cost;
  readonly later: Cost;
}

export interface Cost {
  /** hands-on and waiting, seconds */
  readonly seconds: number;
  /** seals to be renewed */
  readonly seals: number;
  /** operations at glass, cells and thin flexes, and live ones */
  readonly delicate: number;
}

/** The difference of two plans, and the plan of that part alone. Null where one of them can't be had. */
export function whileOpen(
  map: DeviceMap,
  targets: readonly Target[],
  policy: Partial<Policy>,
  base: Plan,
  part: string,
  budget: Budget,
): WhileOpen | null {
  const target = { replace: part };
  try {
    const both = costOfPlan(map, planRepair({ map, targets: [...targets, target], policy }, budget));
    const alone = costOfPlan(map, planRepair({ map, targets: [target], policy }, budget));
    const before = costOfPlan(map, base);
    return {
      part,
      now: {
        seconds: Math.max(0, both.seconds - before.seconds),
        seals: Math.max(0, both.seals - before.seals),
        delicate: Math.max(0, both.delicate - before.delicate),
      },
      later: alone,
    };
  } catch {
    return null;
  }
}

function costOfPlan(map: DeviceMap, plan: Plan): Cost {
  const ops = [...plan.strip, ...plan.rebuild];
  const { strip, rebuild, waiting } = plan.seconds;
  const isSeal = (joint: string | undefined) =>
    map.joints.some((each) => each.id === joint && each.type === 'bond' && each.style === 'perimeter');
  return {
    seconds: strip + rebuild + waiting,
    seals: ops.filter((op) => op.kind === 'release' && isSeal(op.joint)).length,
    delicate: ops.filter((op) => isDelicate(map, op)).length,
  };
}

const DELICATE = ['glass', 'lithium', 'fragile-flex', 'no-touch'];

/** Does this operation touch glass, a cell, a thin flex, something not to be touched, or a live board? */
export function isDelicate(map: DeviceMap, op: Plan['strip'][number]): boolean {
  if (op.kind === 'procedure') return op.name === 'heat' || op.name === 'transplant';
  const held = jointById(map, op.joint)?.holds ?? [op.part!];
  return op.live === true || held.some((id) => partById(map, id)?.hazards?.some((h) => DELICATE.includes(h)));
}
