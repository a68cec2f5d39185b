import type { Op, OpId } from '../../planner/drafts/index.ts';
import { describe, expect, it } from 'vitest';
import { doneUntil, opFor } from './until.ts';

const op = (id: OpId, notBefore: string[], more: Partial<Op> = {}): Op => ({
  id,
  kind: 'release',
  tool: null,
  face: null,
  seconds: 1,
  stage: 'strip',
  why: '',
  whyNotEarlier: '',
  notBefore,
  ...more,
});

const ops = [
  op('release:screws', [], { joint: 'screws' }),
  op('release:other', [], { joint: 'other' }),
  op('open:lid', ['release:screws'], { kind: 'open', part: 'lid' }),
  op('lift:lid', ['release:screws', 'open:lid'], { kind: 'lift', part: 'lid' }),
  op('fit:lid', ['release:screws', 'open:lid', 'lift:lid'], { kind: 'fit', part: 'lid' }),
];

describe('pressing a later operation', () => {
  it('means the lift of a part, and the release of a joint', () => {
    expect(opFor('lid', ops)?.id).toBe('lift:lid');
    expect(opFor('other', ops)?.id).toBe('release:other');
    expect(opFor('nothing', ops)).toBeUndefined();
    expect(opFor('lid', ops.slice(4))?.id).toBe('fit:lid');
  });

  it('takes just what must have been done before, in the order of the plan', () => {
    expect(doneUntil(ops[3]!, ops).map((each) => each.id)).toEqual(['release:screws', 'open:lid', 'lift:lid']);
  });

  it('goes as far as a soak, whose drops have to be told', () => {
    const soak = op('soak:straps', ['release:screws'], { kind: 'procedure', name: 'soak', joint: 'straps' });
    const straps = op('release:straps', ['release:screws', 'soak:straps'], { joint: 'straps' });
    const soaked = [ops[0]!, soak, straps];
    expect(doneUntil(straps, soaked).map((each) => each.id)).toEqual(['release:screws']);
    expect(doneUntil(straps, soaked.slice(1))).toEqual([]);
  });
});
