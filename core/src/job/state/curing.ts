import { secondsToStrength } from '../../physics/bonding/index.ts';
import { fastenerAt, isOuter, isSelfParting, type Joint } from '../../model/device-map/index.ts';
import { opId, secondsToLay } from '../../planner/drafts/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { settled } from '../../model/policy/index.ts';
import { cutShort, shortWords } from './cut-short.ts';
import { lateBy_s, toldBy } from '../events/index.ts';
import { renewalNow } from './renewal-now.ts';
import type { JobState } from './job-state.ts';

/** A bond, or a screw with thread locker, that gains strength by itself. */
export interface Curing {
  readonly joint: string;
  /** tape by its data sheet; glue, or what a map gives a time for, is done after that time; so is thread locker */
  readonly by: 'tape' | 'time' | 'locker';
  readonly pressedAt: string;
  /** how long after that the server received it, seconds, where that is long enough to be said; else 0 */
  readonly late_s: number;
  /** *0:40 of 2:00*, where it was held for less than it asks: then its strength is not to be relied on */
  readonly pressedFor: string | null;
  /** from then on it has what is asked for before it is handed over */
  readonly readyAt: string;
}

type Gaining = Omit<Curing, 'pressedFor'>;

/** All that was glued or locked in this repair and holds now, with when each is strong enough to be handed over. */
export function curing(mechanism: Mechanism, state: JobState): Curing[] {
  const short = new Map(cutShort(state).map((each) => [each.step, shortWords(each)]));
  const all = [...curingBonds(mechanism, state), ...settingScrews(mechanism, state)];
  return all.map((each) => ({ ...each, pressedFor: short.get(opId('press', each.joint)) ?? null }));
}

/** From when on all of it is strong enough, ISO 8601; null where nothing cures. */
export function mayGoFrom(mechanism: Mechanism, state: JobState): string | null {
  const moments = curing(mechanism, state).map(({ readyAt }) => readyAt);
  return moments.toSorted((a, b) => Date.parse(a) - Date.parse(b)).at(-1) ?? null;
}

/** Screws that went in with thread locker; all of a joint have set as the last of its kinds has. */
function settingScrews({ map, joint: numbers }: Mechanism, state: JobState): Gaining[] {
  return map.joints.flatMap((joint): Gaining[] => {
    if (joint.type !== 'screw' || state.device.released[numbers.get(joint.id)!]) return [];
    const kinds = new Set(joint.points.map((point) => fastenerAt(joint, point)));
    const cures = map.fasteners.flatMap(({ id, locker }) => (locker && kinds.has(id) ? [locker.cure_s] : []));
    const wasOut = state.done.some((op) => op.kind === 'release' && op.joint === joint.id);
    const pressed = cures.length > 0 && wasOut ? lastPressed(state, joint) : null;
    return pressed ? [curingFrom(joint, 'locker', pressed, Math.max(...cures))] : [];
  });
}

/** The bonds that close the device, were laid anew and are closed now. */
function curingBonds({ map, joint: numbers }: Mechanism, state: JobState): Gaining[] {
  const { policy } = settled(map, state.policy);
  const outer = new Set(map.parts.filter(isOuter).map(({ id }) => id));
  return map.joints.flatMap((bond): Gaining[] => {
    if (bond.type !== 'bond' || isSelfParting(bond) || !bond.holds.some((id) => outer.has(id))) return [];
    const wasReleased = state.done.some(({ kind, joint }) => kind === 'release' && joint === bond.id);
    if (!wasReleased || state.device.released[numbers.get(bond.id)!]) return [];
    const renewal = renewalNow(map, state, bond);
    const pressed = renewal === 'reuse' ? null : lastPressed(state, bond);
    if (pressed === null) return [];
    const cure_s = secondsToLay(bond, renewal === 'liquid' ? 'liquid' : policy.closing).cure;
    const seconds = cure_s > 0 ? cure_s : secondsToStrength(state.limits.handOverStrength);
    return [curingFrom(bond, cure_s > 0 ? 'time' : 'tape', pressed, seconds)];
  });
}

function curingFrom({ id }: Pick<Joint, 'id'>, by: Curing['by'], { at, late_s }: Pressed, seconds: number): Gaining {
  return { joint: id, by, pressedAt: at, late_s, readyAt: new Date(Date.parse(at) + 1000 * seconds).toISOString() };
}

interface Pressed {
  /** ISO 8601, as it was told */
  readonly at: string;
  /** how long after that the server received it, where that is long enough to be said */
  readonly late_s: number;
}

/** When it was pressed, or made where nobody pressed it, the last time. */
function lastPressed({ inForce }: JobState, { id }: Pick<Joint, 'id'>): Pressed | null {
  const ids = new Set<string>([opId('press', id), opId('make', id)]);
  const last = inForce.findLastIndex(
    (event) =>
      event.type === 'did' &&
      event.data.steps.some((step) => ids.has(step.id) || (step.kind === 'make' && step.joint === id)),
  );
  if (last < 0) return null;
  // no tablet whose clock was set back makes it older than what was told before it
  const told = toldBy(inForce).slice(0, last + 1);
  return { at: new Date(told.reduce((a, b) => Math.max(a, b))).toISOString(), late_s: lateBy_s(inForce[last]!) };
}
