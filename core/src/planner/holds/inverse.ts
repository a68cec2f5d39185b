import type { PhysicalOp, RebuildOp, StripOp } from './operation.ts';

/** Where a part goes is left to what holds it by then. */
const WHEREVER = -1;

/**
 * The operation that undoes another: a release is undone by a make, an open by a close, a lift by a fit, and the other
 * way round. A fitted part joins the group where what holds it lies, unless `onto` names one.
 */
export function inverse(op: StripOp, onto?: number, staysOpen?: boolean): RebuildOp;
export function inverse(op: RebuildOp): StripOp;
export function inverse(op: PhysicalOp, onto = WHEREVER, staysOpen?: boolean): PhysicalOp {
  switch (op.kind) {
    case 'release':
      return { kind: 'make', joint: op.joint };
    case 'open':
      return { kind: 'close', part: op.part };
    case 'lift':
      return { kind: 'fit', part: op.part, onto, ...(staysOpen === undefined ? {} : { staysOpen }) };
    case 'make':
      return { kind: 'release', joint: op.joint };
    case 'close':
      return { kind: 'open', part: op.part };
    case 'fit':
      return { kind: 'lift', part: op.part };
  }
}

/** Does the operation take something apart? */
export function isStripOp(op: PhysicalOp): op is StripOp {
  return op.kind === 'release' || op.kind === 'open' || op.kind === 'lift';
}
