import { type DeviceState, isDead, type Mechanism, OFF, type StripOp } from '../holds/index.ts';
import { lyingBeneath } from '../search/index.ts';
import { type Chosen, neededFor } from './needed.ts';

/** A display that comes off before anything else is done beneath it. */
interface StandingDisplay {
  /** its lift, by number */
  readonly lift: number;
  readonly needs: ReadonlySet<number>;
  /** operations of the chosen set that lie beneath it */
  readonly beneath: ReadonlySet<number>;
}

/** The phases of a strip-down in their order, each by the rule that keeps everything later until it is over. */
export const STRIP_PHASES = ['removed-first', 'dead-first', 'display-off', 'part-by-part'] as const;

export type StripPhase = (typeof STRIP_PHASES)[number];

export function isLater(phase: StripPhase, than: StripPhase): boolean {
  return STRIP_PHASES.indexOf(phase) > STRIP_PHASES.indexOf(than);
}

/** What the rules of the strip-down put first: each set with all that it needs, by the numbers of the operations. */
export interface Phases {
  readonly removedFirst: ReadonlySet<number>;
  readonly dead: ReadonlySet<number>;
  /** the operations that make the device dead */
  readonly isolating: ReadonlySet<number>;
  readonly displays: readonly StandingDisplay[];
  /** per operation its phase */
  readonly of: readonly StripPhase[];
  /** per operation what it needs, itself among them; found when it is asked for */
  readonly needs: (op: number) => ReadonlySet<number>;
  /** the same found anew from a state on the way, for what is left */
  readonly from: (state: DeviceState, left: ReadonlySet<number>) => Phases;
}

/** @param standing displays are to stand on their flexes: none has to come off first */
export function phasesOf(chosen: Chosen, standing: boolean): Phases {
  const { ops } = chosen.precedence;
  const known = new Map<number, ReadonlySet<number>>();
  const needs = (op: number) => {
    const found = known.get(op) ?? neededFor(chosen, op);
    known.set(op, found);
    return found;
  };
  const removedFirst = united(liftsOf(chosen, (part) => part.removeFirst === true).map(needs));
  const isolating = isolatingOps(chosen, needs);
  const dead = united([...isolating].map(needs));
  const displays = standing ? [] : displaysToTakeOff(chosen, needs);
  const off = united(displays.map((each) => each.needs));
  const phase = (op: number): StripPhase => {
    if (removedFirst.has(op)) return 'removed-first';
    if (dead.has(op)) return 'dead-first';
    return off.has(op) ? 'display-off' : 'part-by-part';
  };
  const from = (start: DeviceState, left: ReadonlySet<number>) => {
    const before = chosen.precedence.before.map((each) => new Set([...each].filter((op) => left.has(op))));
    return phasesOf({ ...chosen, start, precedence: { ...chosen.precedence, before } }, standing);
  };
  return { removedFirst, dead, isolating, displays, of: ops.map((_, op) => phase(op)), needs, from };
}

function united(sets: readonly ReadonlySet<number>[]): ReadonlySet<number> {
  return new Set(sets.flatMap((set) => [...set]));
}

function liftsOf(
  { mechanism, precedence }: Chosen,
  isWanted: (part: Mechanism['map']['parts'][number]) => boolean,
): number[] {
  return precedence.ops.flatMap((op, index) =>
    op.kind === 'lift' && isWanted(mechanism.map.parts[op.part]!) ? [index] : [],
  );
}

/** The cheapest of the ways that the chosen set has of making the device dead. */
function isolatingOps(
  { mechanism, start, precedence }: Chosen,
  needs: (op: number) => ReadonlySet<number>,
): ReadonlySet<number> {
  if (isDead(mechanism, start)) return new Set();
  const { alone, jointly: all, battery } = mechanism.isolation;
  const releaseOf = (joint: number) => precedence.ops.findIndex((op) => op.kind === 'release' && op.joint === joint);
  const ways = alone.map((joint) => [releaseOf(joint)]);
  if (all.length > 0) ways.push(all.filter((joint) => !start.released[joint]).map(releaseOf));
  if (alone.length + all.length === 0) {
    ways.push([precedence.ops.findIndex((op) => op.kind === 'lift' && op.part === battery)]);
  }
  const size = (way: readonly number[]) => united(way.map(needs)).size;
  const open = ways.filter((way) => way.every((op) => op >= 0));
  return new Set(open.length === 0 ? [] : open.reduce((a, b) => (size(b) < size(a) ? b : a)));
}

/** Displays that are lifted, and beneath which there is work. */
function displaysToTakeOff(chosen: Chosen, needs: (op: number) => ReadonlySet<number>): StandingDisplay[] {
  const { mechanism, start, precedence } = chosen;
  return liftsOf(chosen, (part) => part.kind === 'display').flatMap((lift) => {
    const { part } = precedence.ops[lift] as { part: number };
    if (start.status[part] === OFF) return [];
    const under = lyingBeneath(mechanism, part);
    const covers = (op: StripOp) =>
      under.some((each) =>
        each.kind === 'release'
          ? op.kind === 'release' && op.joint === each.joint
          : 'part' in op && op.part === each.part,
      );
    const beneath = new Set(precedence.ops.flatMap((op, index) => (covers(op) ? [index] : [])));
    return beneath.size > 0 ? [{ lift, needs: needs(lift), beneath }] : [];
  });
}
