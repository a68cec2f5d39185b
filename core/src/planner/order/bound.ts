import type { Network } from './network.ts';

/**
 * A lower bound on the changes still to be made, for tools or for faces.
 *
 * Along any path of the network the operations keep their order, so a tool that a path needs in n separate runs has to
 * be taken up n times in every order. For each tool the path with most runs counts; different tools add up.
 */
export interface RunBound {
  /** runs[op * kinds + kind]: most new runs of `kind` on a path that starts at `op`, with another kind at hand */
  readonly fresh: Uint16Array;
  /** the same with `kind` already at hand */
  readonly held: Uint16Array;
  readonly kinds: number;
}

export function runBound(network: Network, kindOf: Int16Array, kinds: number): RunBound {
  const fresh = new Uint16Array(network.size * kinds);
  const held = new Uint16Array(network.size * kinds);
  for (let at = network.sorted.length - 1; at >= 0; at--) {
    const op = network.sorted[at]!;
    const own = kindOf[op]!;
    for (let kind = 0; kind < kinds; kind++) {
      let afterFresh = 0;
      let afterHeld = 0;
      for (const each of network.next[op]!) {
        afterFresh = Math.max(afterFresh, fresh[each * kinds + kind]!);
        afterHeld = Math.max(afterHeld, held[each * kinds + kind]!);
      }
      fresh[op * kinds + kind] = own === kind ? 1 + afterHeld : afterFresh;
      held[op * kinds + kind] = own === kind || own < 0 ? afterHeld : afterFresh;
    }
  }
  return { fresh, held, kinds };
}

/** Changes still to be made from here. `now` is the kind at hand; −1 where there is none yet. */
export function changesLeft(bound: RunBound, frontier: readonly number[], now: number): number {
  let total = 0;
  for (let kind = 0; kind < bound.kinds; kind++) {
    const runs = kind === now ? bound.held : bound.fresh;
    let most = 0;
    for (const op of frontier) most = Math.max(most, runs[op * bound.kinds + kind]!);
    total += most;
  }
  return total;
}
