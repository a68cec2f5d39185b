import { secondsToStrength } from '../bonding/index.ts';
import { fastenerAt, isOuter, isSelfParting, type Joint } from '../device-map/index.ts';
import { opId, secondsToLay } from '../drafts/index.ts';
import type { Mechanism } from '../holds/index.ts';
import { settled } from '../policy/index.ts';
import { renewalNow } from './renewal-now.ts';
import type { JobState } from './state.ts';

/** A bond, or a screw with thread locker, that gains strength by itself. */
export interface Curing {
  readonly joint: string;
  /** tape by its data sheet; glue, or what a map gives a time for, is done after that time; so is thread locker */
  readonly by: 'tape' | 'time' | 'locker';
  readonly pressedAt: string;
  /** from then on it has what is asked for before it is handed over */
  readonly readyAt: string;
}

/** All that was glued or locked in this repair and holds now, with when each is strong enough to be handed over. */
export function curing(mechanism: Mechanism, state: JobState): Curing[] {
  return [...curingBonds(mechanism, state), ...settingScrews(mechanism, state)];
}

/** From when on all of it is strong enough, ISO 8601; null where nothing cures. */
export function mayGoFrom(mechanism: Mechanism, state: JobState): string | null {
  const moments = curing(mechanism, state).map(({ readyAt }) => readyAt);
  return moments.toSorted((a, b) => Date.parse(a) - Date.parse(b)).at(-1) ?? null;
}

/** Screws that went in with thread locker; all of a joint have set as the last of its kinds has. */
function settingScrews({ map, joint: numbers }: Mechanism, state: JobState): Curing[] {
  return map.joints.flatMap((joint): Curing[] => {
    if (joint.type !== 'screw' || state.device.released[numbers.get(joint.id)!]) return [];
    const kinds = new Set(joint.points.map((point) => fastenerAt(joint, point)));
    const cures = map.fasteners.flatMap(({ id, locker }) => (locker && kinds.has(id) ? [locker.cure_s] : []));
    const wasOut = state.done.some((op) => op.kind === 'release' && op.joint === joint.id);
    const pressedAt = cures.length > 0 && wasOut ? lastPressed(state, joint) : null;
    if (pressedAt === null) return [];
    const readyAt = new Date(Date.parse(pressedAt) + 1000 * Math.max(...cures)).toISOString();
    return [{ joint: joint.id, by: 'locker', pressedAt, readyAt }];
  });
}

/** The bonds that close the device, were laid anew and are closed now. */
function curingBonds({ map, joint: numbers }: Mechanism, state: JobState): Curing[] {
  const { policy } = settled(map, state.policy);
  const outer = new Set(map.parts.filter(isOuter).map(({ id }) => id));
  return map.joints.flatMap((bond): Curing[] => {
    if (bond.type !== 'bond' || isSelfParting(bond) || !bond.holds.some((id) => outer.has(id))) return [];
    const wasReleased = state.done.some(({ kind, joint }) => kind === 'release' && joint === bond.id);
    if (!wasReleased || state.device.released[numbers.get(bond.id)!]) return [];
    const renewal = renewalNow(map, state, bond);
    const pressedAt = renewal === 'reuse' ? null : lastPressed(state, bond);
    if (pressedAt === null) return [];
    const cure_s = secondsToLay(bond, renewal === 'liquid' ? 'liquid' : policy.closing).cure;
    const seconds = cure_s > 0 ? cure_s : secondsToStrength(state.limits.handOverStrength);
    const readyAt = new Date(Date.parse(pressedAt) + 1000 * seconds).toISOString();
    return [{ joint: bond.id, by: cure_s > 0 ? 'time' : 'tape', pressedAt, readyAt }];
  });
}

/** When it was pressed, or made where nobody pressed it, the last time. */
function lastPressed({ standing }: JobState, { id }: Pick<Joint, 'id'>): string | null {
  const ids = new Set<string>([opId('press', id), opId('make', id)]);
  const last = standing.findLastIndex(
    (event) =>
      event.type === 'did' &&
      event.data.steps.some((step) => ids.has(step.id) || (step.kind === 'make' && step.joint === id)),
  );
  // no clock that was set back makes it older than what was told before it
  const told = standing.slice(0, last + 1).map(({ at }) => Date.parse(at));
  return told.length === 0 ? null : new Date(told.reduce((a, b) => Math.max(a, b))).toISOString();
}
