import { carried, madeBetween, type Mechanism, mechanismOf, OFF } from '../../planner/holds/index.ts';
import type { SeenPart, Teardown } from '../record/index.ts';
import { draftedMap, type Release, releasedJoints } from './drafted-map.ts';
import { holdsMost } from './outlines.ts';
import { type PlayedLines, playedLines } from './played.ts';

/** Guesses hang on each other by what is carried; so many rounds settle them. */
const MOST_ROUNDS = 6;

/**
 * Where the joints are held whose `to` nobody told: first by what lies beneath their points, then by the record, which a
 * guess must not keep from going on.
 */
export function guessedHosts(told: Teardown): ReadonlyMap<string, string> {
  const untold = [...releasedJoints(told).values()].filter(({ to }) => to === undefined);
  if (untold.length === 0) return new Map();
  const base = told.parts.find((part) => part.base)!.id;
  const settled = new Map<string, string>();
  let hosts: ReadonlyMap<string, string> = new Map(untold.map(({ joint }) => [joint, base]));
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const mechanism = mechanismOf(draftedMap(told, { hosts, under: new Map() }));
    const { steps } = playedLines(mechanism, told.record);
    const next = new Map(
      untold.map((line) => [line.joint, settled.get(line.joint) ?? beneath(told, mechanism, steps, line)]),
    );
    const moved = keptFromLift(told, next);
    moved.forEach((host, joint) => settled.set(joint, host));
    const corrected = new Map([...next, ...moved]);
    if ([...corrected].every(([joint, host]) => hosts.get(joint) === host)) return corrected;
    hosts = corrected;
  }
  return hosts;
}

/** The part beneath the points of a joint, as it stood when the joint was released. */
function beneath(
  told: Teardown,
  mechanism: Mechanism,
  steps: PlayedLines['steps'],
  { joint, type, holds = [], points, at, on, unplaced }: Release,
): string {
  const state = steps.find(({ thing }) => thing.joint === joint)?.before ?? steps.at(-1)?.before;
  const base = mechanism.map.parts[mechanism.base]!.id;
  if (!state) return base;
  const group = on === undefined ? mechanism.base : state.group[mechanism.part.get(on)!]!;
  const away = new Set(holds.flatMap((id) => [...carried(mechanism, state, mechanism.part.get(id)!)]));
  const places = points && points.length > 0 ? points : at ? [at] : [];
  const held = told.parts.find(({ id }) => id === holds[0]);
  const there = told.parts.filter((part) => {
    const number = mechanism.part.get(part.id)!;
    const isThere = part.id === on || state.status[number] !== OFF;
    return isThere && state.group[number] === group && !away.has(number);
  });
  const isWired = type === 'connector' || type === 'solder';
  // nobody said where it lies: a plug goes to the main board, what else there is to what all else is held to
  if (places.length === 0 && (unplaced || held?.unplaced))
    return (isWired ? mainBoard(there)?.id : undefined) ?? on ?? base;
  const near = there.filter((part) => !part.unplaced && holdsMost(part.box, places, held?.box));
  return hostAmong(near, isWired)?.id ?? on ?? base;
}

/** The largest board, where the base is none itself. */
function mainBoard(parts: readonly SeenPart[]): SeenPart | undefined {
  return parts
    .filter(({ kind, base }) => kind === 'board' && !base)
    .toSorted((a, b) => b.box.w * b.box.h - a.box.w * a.box.h)[0];
}

/** The smallest board for a plug or solder, else a flex, else the deepest, the base last. */
function hostAmong(parts: readonly SeenPart[], isWired: boolean): SeenPart | undefined {
  const size = ({ box }: SeenPart) => box.w * box.h;
  const bySize = parts.toSorted((a, b) => size(a) - size(b));
  const of = (kind: SeenPart['kind']) =>
    isWired ? bySize.find((each) => each.kind === kind && !each.base) : undefined;
  const deepest = bySize.filter(({ base }) => !base).toSorted((a, b) => b.layer - a.layer)[0];
  return of('board') ?? of('flex') ?? deepest ?? parts.find(({ base }) => base);
}

/**
 * Guesses that keep a part from its lift in the record: such a joint is held to that part, if what it holds left with it,
 * else to the base.
 */
function keptFromLift(told: Teardown, hosts: ReadonlyMap<string, string>): ReadonlyMap<string, string> {
  const mechanism = mechanismOf(draftedMap(told, { hosts, under: new Map() }));
  const moved = new Map<string, string>();
  for (const { op, before } of playedLines(mechanism, told.record).steps) {
    if (op?.kind !== 'lift') continue;
    const leaving = carried(mechanism, before, op.part);
    for (const number of madeBetween(mechanism, before, leaving)) {
      const joint = mechanism.map.joints[number]!;
      if (!hosts.has(joint.id) || moved.has(joint.id)) continue;
      moved.set(joint.id, hostFor(mechanism, op.part, number, leaving));
    }
  }
  return moved;
}

function hostFor(mechanism: Mechanism, part: number, joint: number, leaving: ReadonlySet<number>): string {
  const leftWithIt = mechanism.held[joint]!.every((each) => leaving.has(each));
  return mechanism.map.parts[leftWithIt && part !== mechanism.base ? part : mechanism.base]!.id;
}
