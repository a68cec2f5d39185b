import type { DeviceMap } from '../src/model/device-map/index.ts';
import type { Plan } from '../src/planner/plan/index.ts';
import { physical } from './played-plans.ts';
import { type Played, selfParts, Simulator } from './simulator.ts';

/**
 * Operations of a strip-down that could be left out, together with what then can't be done, and a part would be off all the
 * same: by the rules of the map, of the school and of a hand, played by the simulator.
 */
export function inVain(map: DeviceMap, part: string, made: Plan, display: 'taken-off' | 'on-flexes'): string[] {
  const ops = physical(made.strip) as readonly Played[];
  const first = map.parts.filter((each) => each.removeFirst).map(({ id }) => id);
  const { simulator: whole } = played(map, ops, display, ops);
  const leftOut = ops.flatMap((op) => {
    // a part comes off with being opened, or not at all
    const lifts = op.kind === 'open' && ops.some(({ kind, part: lifted }) => kind === 'lift' && lifted === op.part);
    const isOpened =
      op.kind === 'lift' ? ops.filter(({ kind, part: each }) => kind === 'open' && each === op.part) : [];
    return lifts ? [] : [[op], ...(isOpened.length > 0 ? [[op, ...isOpened]] : [])];
  });
  return leftOut.flatMap((left) => {
    const { simulator: end, done } = played(
      map,
      ops.filter((op) => !left.includes(op)),
      display,
      ops,
    );
    const isReached = end.off.has(part);
    const isTidy =
      isHousekept(map, end) && first.every((id) => isStillFirst(id, whole, end) && isBefore(ops, done, id));
    const isSafe = !ops.some((op) => op.live) || end.dead() || !whole.dead();
    return isReached && isTidy && isSafe ? [left.map((op) => `${op.kind} ${op.joint ?? op.part}`).join(' and ')] : [];
  });
}

/** What is removed first is off as it was, or has left with a part that is. */
function isStillFirst(part: string, whole: Simulator, end: Simulator): boolean {
  if (whole.off.has(part)) return end.off.has(part);
  return whole.place.get(part) === whole.base || end.place.get(part) !== end.base;
}

/** Does nothing come before a part's lift that came after it in the plan? */
function isBefore(plan: readonly Played[], done: readonly Played[], part: string): boolean {
  const lift = plan.findIndex((op) => op.kind === 'lift' && op.part === part);
  const after = lift < 0 ? [] : plan.slice(lift);
  return after.every((op) => !done.includes(op) || done.indexOf(op) >= done.indexOf(plan[lift]!));
}

/** What can be done of some operations, in their order, over and over: what waits may be possible later. */
function played(
  map: DeviceMap,
  ops: readonly Played[],
  display: 'taken-off' | 'on-flexes',
  plan: readonly Played[],
): { simulator: Simulator; done: readonly Played[] } {
  const simulator = new Simulator(map);
  simulator.freeRiders = true;
  const done: Played[] = [];
  const stands = display === 'taken-off' ? standingOver(map, plan) : () => [];
  let left = ops;
  for (;;) {
    const later = left.filter((op) => {
      if (
        isWorkLive(simulator, op) ||
        simulator.objection(op) ||
        stands(op).some((over) => isOver(map, simulator, over, op))
      )
        return true;
      simulator.apply(op);
      done.push(op);
      return false;
    });
    if (later.length === left.length) return { simulator, done };
    left = later;
  }
}

/** Would it be done live, where the plan did it dead? */
function isWorkLive(simulator: Simulator, { joint, live }: Played): boolean {
  return joint !== undefined && !live && simulator.asksIsolation(simulator.joint(joint)) && !simulator.dead();
}

/** Does a display still lie in the device, or wherever what is worked on lies? */
function isOver(map: DeviceMap, { off, place }: Simulator, display: string, { joint, part }: Played): boolean {
  const worked = part ?? map.joints.find(({ id }) => id === joint)!.to;
  return !off.has(display) && place.get(worked) === place.get(display);
}

/**
 * The displays that have to be off before an operation: it lies beneath them, and the plan waits for that. What the plan does
 * beneath a standing display serves that one's own lift.
 */
function standingOver(map: DeviceMap, plan: readonly Played[]): (op: Played) => readonly string[] {
  const displays = map.parts.filter(({ kind }) => kind === 'display').map(({ id }) => id);
  const beneath = new Map(displays.map((id) => [id, lyingBeneath(map, id)]));
  const simulator = new Simulator(map);
  const over = new Map<Played, readonly string[]>();
  for (const op of plan) {
    const lies = displays.filter((id) => beneath.get(id)!.has(op.joint ?? op.part!));
    over.set(
      op,
      lies.filter((id) => !isOver(map, simulator, id, op)),
    );
    simulator.apply(op);
  }
  return (op) => over.get(op) ?? [];
}

/** Parts and joints that wait, direct or through others, for a display to be open. */
function lyingBeneath(map: DeviceMap, display: string): ReadonlySet<string> {
  const found = new Set<string>();
  for (let size = -1; size !== found.size;) {
    size = found.size;
    for (const { id, under = [] } of [...map.parts, ...map.joints]) {
      const waits = under.some((entry) =>
        'joint' in entry
          ? found.has(entry.joint)
          : found.has(entry.part) || (entry.part === display && entry.until === 'open'),
      );
      if (waits && id !== display) found.add(id);
    }
  }
  return found;
}

/** Is nothing used up or loose left in place? */
function isHousekept(map: DeviceMap, state: Simulator): boolean {
  return map.parts.every(({ id, base, reuse }) => {
    if (base || state.off.has(id)) return true;
    const holding = map.joints.filter(({ holds }) => holds.includes(id));
    const isHinged = map.joints.some(({ type, holds, to }) => type === 'hinge' && (to === id || holds.includes(id)));
    const isUsedUp = holding.some(({ id: joint, type }) => PARTS_FOR_GOOD.has(type) && state.released.has(joint));
    return !(reuse === 'single-use' && isUsedUp && !isHinged) && !isLoose(map, state, id);
  });
}

const PARTS_FOR_GOOD = new Set(['screw', 'bond', 'clip']);
const TIES = new Set(['connector', 'solder', 'hinge']);

/** Open, tied to nothing any more, and riding on nothing. */
function isLoose(map: DeviceMap, state: Simulator, part: string): boolean {
  if (!state.open.has(part)) return false;
  const leaving = state.carried(part);
  const parts = (one: string, other: string) =>
    leaving.has(one) !== leaving.has(other) && state.place.get(one) === state.place.get(other);
  const isTied = map.joints.some((joint) => {
    if (!TIES.has(joint.type) || selfParts(joint) || state.released.has(joint.id)) return false;
    return joint.holds.some((each) => parts(each, joint.to));
  });
  const rides = map.joints.some(
    ({ holds, to }) => holds.includes(part) && to !== state.base && state.carried(to).has(part),
  );
  return !isTied && !rides;
}
