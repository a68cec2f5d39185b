import type { Mechanism, StripOp } from '../holds/index.ts';
import { TIMES } from './estimates.ts';

/** The functions that work as it was done, or is planned, could have touched: these are tried. */
export function testedFunctions(
  mechanism: Mechanism,
  done: readonly { readonly kind: string; readonly joint?: string; readonly part?: string; readonly new?: boolean }[],
): string[] {
  const { part, joint } = mechanism;
  const ops = done.flatMap((op): StripOp[] => {
    if (op.kind === 'release' && joint.has(op.joint ?? '')) return [{ kind: 'release', joint: joint.get(op.joint!)! }];
    if ((op.kind === 'open' || op.kind === 'lift') && part.has(op.part ?? ''))
      return [{ kind: op.kind, part: part.get(op.part!)! }];
    return [];
  });
  const replaced = done.flatMap((op) =>
    op.kind === 'fit' && op.new && part.has(op.part!) ? [part.get(op.part!)!] : [],
  );
  return touchedFunctions(mechanism, ops, new Set(replaced));
}

/**
 * What is tried once all is closed: what could not be tried before, and of the rest only what closing can have changed.
 * @param shown what was tried before the device was closed
 * @param closing what was done, or is to be done, since then
 */
export function triedAtTheEnd(
  mechanism: Mechanism,
  functions: readonly string[],
  shown: readonly string[],
  closing: readonly { readonly kind: string; readonly joint?: string; readonly part?: string }[],
): string[] {
  const undone = closing.map((op) => ({ ...op, kind: UNDOING[op.kind] ?? op.kind }));
  const changed = new Set(testedFunctions(mechanism, undone));
  return functions.filter((id) => !shown.includes(id) || changed.has(id));
}

const UNDOING: Readonly<Record<string, string>> = { make: 'release', close: 'open', fit: 'lift' };

/** Every function that could have been touched: by what was moved, unplugged, or parted by itself. */
export function touchedFunctions(
  mechanism: Mechanism,
  ops: readonly StripOp[],
  replaced: ReadonlySet<number>,
): string[] {
  const { map } = mechanism;
  const parts = new Set(ops.flatMap((op) => (op.kind === 'release' ? [] : [op.part])));
  replaced.forEach((part) => parts.add(part));
  const joints = new Set(ops.flatMap((op) => (op.kind === 'release' ? [op.joint] : [])));
  map.joints.forEach((_, joint) => {
    const parted = mechanism.selfParting[joint] && mechanism.held[joint]!.some((part) => parts.has(part));
    if (parted) joints.add(joint);
  });
  const touched = new Set([
    ...[...parts].flatMap((part) => map.parts[part]!.functions ?? []),
    ...[...joints].flatMap((joint) => {
      const each = map.joints[joint]!;
      return 'functions' in each ? (each.functions ?? []) : [];
    }),
  ]);
  return map.functions.filter((each) => touched.has(each.id)).map((each) => each.id);
}

/** Hands-on seconds of a test of these functions. */
export function testSeconds({ map }: Mechanism, functions: readonly string[]): number {
  const tried = map.functions.filter(({ id }) => functions.includes(id));
  return Math.max(
    TIMES.testLeast,
    tried.reduce((sum, each) => sum + (each.seconds ?? TIMES.testEach), 0),
  );
}
