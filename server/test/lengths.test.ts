import Joi from 'joi';
import { describe, expect, it } from 'vitest';
import { lengthProblem, sizeProblem } from '../src/sizes/lengths.ts';

const nested = (depth: number) => JSON.parse('['.repeat(depth) + ']'.repeat(depth)) as unknown;

describe('the size of a body', () => {
  it('may be what any map may be', () => {
    const joints = Array.from({ length: 2000 }, (_, n) => ({
      id: `j${n}`,
      holds: ['a', 'b'],
      under: [{ joint: 'j0' }],
    }));
    expect(sizeProblem({ joints }, 40)).toBeNull();
    for (const value of [null, 'text', 7, true, undefined, {}, []]) expect(sizeProblem(value, 40)).toBeNull();
  });

  it('is refused with the place of a list that is too long for anything', () => {
    const long = Array.from({ length: 10_001 }, () => 0);
    expect(sizeProblem(long, 40)).toMatchObject({ path: '' });
    expect(sizeProblem({ a: { b: [1, { c: long }] } }, 40)).toMatchObject({
      path: 'a.b[1].c',
      message: expect.stringContaining('10001 entries') as string,
    });
  });

  it('is refused where it is nested too deep, or has too many things in all', () => {
    expect(sizeProblem(nested(40), 40)).toBeNull();
    expect(sizeProblem(nested(41), 40)).toMatchObject({ path: expect.stringMatching(/^(\[0\]){40}$/) as string });
    const many = Array.from({ length: 20 }, () => Array.from({ length: 9000 }, () => ({})));
    expect(sizeProblem({ many }, 40)).toMatchObject({ message: expect.stringContaining('100000') as string });
  });
});

describe('the length of a list', () => {
  const schema = Joi.object({
    targets: Joi.array()
      .max(3)
      .items(Joi.object({ names: Joi.array().max(2).items(Joi.string()) })),
    either: Joi.alternatives(Joi.array().max(1), Joi.array().max(4), Joi.string()),
  });

  it('is what its schema lets it be, at every depth, and its place is said', () => {
    expect(lengthProblem(schema, { targets: [{ names: ['a', 'b'] }] })).toBeNull();
    expect(lengthProblem(schema, { targets: [{}, {}, {}, {}] })).toMatchObject({ path: 'targets' });
    expect(lengthProblem(schema, { targets: [{}, { names: ['a', 'b', 'c'] }] })).toMatchObject({
      path: 'targets[1].names',
    });
  });

  it('is too long only where each of several shapes says so', () => {
    expect(lengthProblem(schema, { either: [1, 2, 3] })).toBeNull();
    expect(lengthProblem(schema, { either: 'xxxxxxxx' })).toBeNull();
  });

  it('is not asked of what is no list: its schema says so afterwards', () => {
    for (const value of [null, 4, 'text', { targets: 'text' }, { targets: { length: 1e9 } }]) {
      expect(lengthProblem(schema, value)).toBeNull();
    }
  });
});
