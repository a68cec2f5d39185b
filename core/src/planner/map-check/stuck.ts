import type { DeviceMap } from '../../model/device-map/index.ts';
import {
  assembled,
  everyOp,
  liveJoints,
  type Mechanism,
  mechanismOf,
  OFF,
  play,
  type StripOp,
} from '../holds/index.ts';
import { type Problem, wrong } from '../../model/refusal/index.ts';

/**
 * What is left when everything that can be done has been done. Each such part or joint waits for another that is left;
 * the shortest ring of them is what has to be mended.
 */
export function stuckErrors(map: DeviceMap): Problem[] {
  const mechanism = mechanismOf(map);
  const whole = assembled(mechanism);
  const played = play(mechanism, whole, everyOp(mechanism), { live: liveJoints(mechanism, whole) });
  const left = played.waiting.filter(({ op }) => !isSettled(mechanism, played.state.status, op));
  if (left.length === 0) return [];

  const waitsFor = new Map<string, Set<string>>();
  for (const { op, unmet } of left) {
    const name = nameOf(mechanism, op);
    const others = waitsFor.get(name) ?? new Set();
    unmet.forEach((each) =>
      others.add(each.joint === undefined ? partName(mechanism, each.part) : jointName(mechanism, each.joint)),
    );
    waitsFor.set(name, others);
  }
  const ring = shortestRing(waitsFor);
  const message = ring
    ? `These can never come apart: ${inWords(ring)}.`
    : `This can never be done: ${endlessWait(waitsFor).join(' waits for ')}, which never comes off.`;
  const first = left.find(({ op }) => nameOf(mechanism, op) === (ring ?? [...waitsFor.keys()])[0])!.op;
  return [wrong(pathOf(first), message, 'Remove the entry that is wrong.')];
}

/** A part that a hinge keeps has gone as far as it can when it is open; what it carries goes no further either. */
function isSettled(mechanism: Mechanism, status: Uint8Array, op: StripOp): boolean {
  if (op.kind === 'release') return false;
  if (status[op.part] === OFF) return true;
  return op.kind === 'lift' && hangsOnHinge(mechanism, op.part);
}

function hangsOnHinge(mechanism: Mechanism, part: number): boolean {
  return mechanism.touching[part]!.some((joint) => mechanism.map.joints[joint]!.type === 'hinge');
}

function shortestRing(waitsFor: ReadonlyMap<string, ReadonlySet<string>>): string[] | null {
  let best: string[] | null = null;
  for (const start of waitsFor.keys()) {
    const from = new Map<string, string>();
    const queue = [start];
    for (const at of queue) {
      if (best && from.size > 20_000) break;
      for (const next of waitsFor.get(at) ?? []) {
        if (next === start) {
          const ring = [at];
          while (ring[0] !== start) ring.unshift(from.get(ring[0]!)!);
          if (!best || ring.length < best.length) best = ring;
          queue.length = 0;
          break;
        }
        if (!from.has(next) && waitsFor.has(next)) {
          from.set(next, at);
          queue.push(next);
        }
      }
    }
    if (best && best.length <= 2) return best;
  }
  return best;
}

function endlessWait(waitsFor: ReadonlyMap<string, ReadonlySet<string>>): string[] {
  const chain: string[] = [];
  let at: string | undefined = [...waitsFor.keys()][0];
  while (at !== undefined && !chain.includes(at)) {
    chain.push(at);
    at = [...(waitsFor.get(at) ?? [])][0];
  }
  return chain;
}

function inWords(names: readonly string[]): string {
  if (names.length === 1) return `${names[0]} waits for itself`;
  return names.map((name, index) => `${name} waits for ${names[(index + 1) % names.length]}`).join(', ');
}

function nameOf(mechanism: Mechanism, op: StripOp): string {
  return op.kind === 'release' ? jointName(mechanism, op.joint) : partName(mechanism, op.part);
}

function partName(mechanism: Mechanism, part: number): string {
  return `part "${mechanism.map.parts[part]!.id}"`;
}

function jointName(mechanism: Mechanism, joint: number): string {
  return `joint "${mechanism.map.joints[joint]!.id}"`;
}

function pathOf(op: StripOp): string {
  return op.kind === 'release' ? `joints[${op.joint}]` : `parts[${op.part}]`;
}
