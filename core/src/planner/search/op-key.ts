import type { StripOp } from '../holds/index.ts';

export function opKey(op: StripOp): string {
  return op.kind === 'release' ? `release ${op.joint}` : `${op.kind} ${op.part}`;
}
