import { type DeviceState, isDead, type Mechanism, OFF, planRules } from '../holds/index.ts';
import { type Goal, needsFor, type WorkSet } from '../search/index.ts';
import { opId } from '../drafts/index.ts';

/** Whoever releases a live joint isolates next, even where the target does not ask for it. */
export function withIsolationAfterLive(
  mechanism: Mechanism,
  start: DeviceState,
  goal: Goal,
  live: ReadonlySet<number>,
): Goal {
  if (live.size === 0) return goal;
  return (state) => {
    const opened = [...live].find((joint) => state.released[joint] && !start.released[joint]);
    if (opened === undefined || isDead(mechanism, state)) return goal(state);
    const { alone, jointly, battery } = mechanism.isolation;
    const joints = (jointly.length > 0 ? jointly : alone).filter((joint) => !state.released[joint]);
    const unmet =
      joints.length > 0
        ? joints.map((joint) => ({ joint, need: 'isolated' as const }))
        : [{ part: battery, need: 'isolated' as const }];
    return [...goal(state), ...needsFor(mechanism, state, unmet, mechanism.base, null, planRules(live))];
  };
}

export function isolatingIds(mechanism: Mechanism, set: WorkSet): Set<string> {
  const { alone, jointly, battery } = mechanism.isolation;
  const joints = [...alone, ...jointly].filter((joint) => set.joints[joint]);
  const ids = joints.map((joint) => opId('release', mechanism.map.joints[joint]!.id));
  if (alone.length + jointly.length === 0 && battery >= 0 && set.parts[battery] === OFF) {
    ids.push(opId('lift', mechanism.map.parts[battery]!.id));
  }
  return new Set(ids);
}
