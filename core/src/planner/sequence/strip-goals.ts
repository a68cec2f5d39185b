import type { Chosen } from './needed.ts';
import { type Phases, STRIP_PHASES } from './phases.ts';

interface ChosenInPhases {
  readonly chosen: Chosen;
  readonly phases: Phases;
}

/** Releases that no lift or open of their phase needs. */
export function forTheirOwnSake({ chosen, phases }: ChosenInPhases): ReadonlySet<number> {
  const { ops } = chosen.precedence;
  const needed = new Map(STRIP_PHASES.map((phase) => [phase, new Set<number>()]));
  ops.forEach((op, index) => {
    if (op.kind !== 'release') phases.needs(index).forEach((each) => needed.get(phases.of[index]!)!.add(each));
  });
  return new Set(
    ops.flatMap((op, index) => (op.kind === 'release' && !needed.get(phases.of[index]!)!.has(index) ? [index] : [])),
  );
}

/** Openings that nothing but the lift of their part needs: the part is lifted in one movement. */
export function openedOnTheWay({ chosen, phases }: ChosenInPhases): ReadonlyMap<number, number> {
  const { ops } = chosen.precedence;
  const lifts = new Map(ops.flatMap((op, index) => (op.kind === 'lift' ? [[op.part, index] as const] : [])));
  return new Map(
    ops.flatMap((op, index) => {
      const lift = op.kind === 'open' ? lifts.get(op.part) : undefined;
      if (lift === undefined) return [];
      // what only the lift needs is needed by nothing that the lift does not come before
      const isNeeded = ops.some(
        (_, other) =>
          other !== lift && phases.needs(other).has(index) && !phases.needs(other).has(lift) && other !== index,
      );
      return isNeeded ? [] : [[index, lift] as const];
    }),
  );
}

/**
 * Per opening, or per fastener that is undone for its own sake, of a part that stays: the plugs of the part that are
 * undone too. They come first, as they do where it is lifted.
 */
export function plugsOfThoseThatStay(
  { chosen, phases }: ChosenInPhases,
  forThemselves: ReadonlySet<number>,
): ReadonlyMap<number, number[]> {
  const { mechanism, precedence } = chosen;
  const lifted = new Set(precedence.ops.flatMap((op) => (op.kind === 'lift' ? [op.part] : [])));
  const plugs = precedence.ops.flatMap((op, index) =>
    op.kind === 'release' && mechanism.tether[op.joint] && forThemselves.has(index)
      ? [{ index, ends: mechanism.ends[op.joint]! }]
      : [],
  );
  return new Map(
    precedence.ops.map((op, index) => {
      const parts =
        op.kind === 'open'
          ? [op.part]
          : op.kind === 'release' && forThemselves.has(index) && !mechanism.tether[op.joint]
            ? mechanism.held[op.joint]!
            : [];
      const staying = parts.filter((part) => !lifted.has(part));
      const first = plugs.filter(
        (plug) => plug.ends.some((end) => staying.includes(end)) && !phases.needs(plug.index).has(index),
      );
      return [index, first.map((plug) => plug.index)] as const;
    }),
  );
}
