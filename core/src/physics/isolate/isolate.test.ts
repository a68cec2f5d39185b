import { describe, expect, it } from 'vitest';
import { random } from '../../../test/random-map.ts';
import { isolate, type IsolateRequest, isolateRequest } from './index.ts';

/** All sets of faults, one after the other by their bits. */
function enumerated({ connectors, functions, results, maxFaults = 3 }: IsolateRequest) {
  const weights = new Map<number, number>();
  const failsAt = (set: number, id: string) => {
    const { leak = 0.01, miss = 0.02 } = functions.find((each) => each.id === id)!;
    const isServed = connectors.some((each, at) => set & (1 << at) && each.functions.includes(id));
    return isServed ? 1 - miss : leak;
  };
  for (let set = 0; set < 1 << connectors.length; set++) {
    if (set.toString(2).replaceAll('0', '').length > maxFaults) continue;
    const prior = connectors.reduce((p, each, at) => p * (set & (1 << at) ? each.prior : 1 - each.prior), 1);
    const likely = Object.entries(results).reduce(
      (p, [id, result]) => p * (result === 'fail' ? failsAt(set, id) : 1 - failsAt(set, id)),
      1,
    );
    weights.set(set, prior * likely);
  }
  const sum = [...weights.values()].reduce((all, each) => all + each, 0);
  const p = new Map([...weights].map(([set, each]) => [set, each / sum]));
  const h = (x: number) => (x <= 0 || x >= 1 ? 0 : -x * Math.log2(x) - (1 - x) * Math.log2(1 - x));
  return {
    marginal: (at: number) => [...p].reduce((all, [set, each]) => (set & (1 << at) ? all + each : all), 0),
    best: Math.max(...p.values()),
    bits: (id: string) => {
      const fails = [...p].reduce((all, [set, each]) => all + each * failsAt(set, id), 0);
      return h(fails) - [...p].reduce((all, [set, each]) => all + each * h(failsAt(set, id)), 0);
    },
  };
}

function someRequest(seed: number): IsolateRequest {
  const next = random(seed);
  const functions = Array.from({ length: 1 + Math.floor(next() * 5) }, (_, at) => ({
    id: `f${at}`,
    ...(next() < 0.4 ? { leak: next() * 0.2, miss: next() * 0.2 } : {}),
  }));
  const connectors = Array.from({ length: 1 + Math.floor(next() * 10) }, (_, at) => ({
    id: `c${at}`,
    prior: 0.01 + next() * 0.3,
    functions: functions.flatMap(({ id }) => (next() < 0.4 ? [id] : [])),
  }));
  const results = Object.fromEntries(
    functions.flatMap(({ id }) => (next() < 0.7 ? [[id, next() < 0.5 ? 'fail' : 'pass'] as const] : [])),
  );
  return { connectors, functions, results, maxFaults: Math.floor(next() * 4) };
}

describe('what explains failed tests', () => {
  it('has the probabilities of every set of up to 10 connectors, by enumeration', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const request = someRequest(seed);
      const said = isolate(request);
      const exact = enumerated(request);
      request.connectors.forEach(({ id }, at) =>
        expect(said.marginals[id], `${seed} ${id}`).toBeCloseTo(exact.marginal(at), 9),
      );
      expect(said.sets[0]!.p).toBeCloseTo(exact.best, 9);
      for (const { function: id, bits } of said.nextTests) expect(bits, `${seed} ${id}`).toBeCloseTo(exact.bits(id), 9);
      expect(said.sets.map(({ p }) => p)).toEqual(said.sets.map(({ p }) => p).toSorted((a, b) => b - a));
    }
  });

  const touch = { id: 'touch-plug', prior: 0.1, functions: ['touch'] };
  const both = { id: 'screen-plug', prior: 0.1, functions: ['touch', 'picture'] };

  it('blames the plug that serves what failed and not what works, and says what to try next', () => {
    const functions = [{ id: 'touch' }, { id: 'picture' }, { id: 'sound' }];
    const said = isolate({ connectors: [touch, both], functions, results: { touch: 'fail' } });
    expect(said.nextTests[0]!.function).toBe('picture');
    expect(said.nextTests.find((each) => each.function === 'sound')!.bits).toBeCloseTo(0, 12);
    const then = isolate({ connectors: [touch, both], functions, results: { touch: 'fail', picture: 'pass' } });
    expect(then.sets[0]!.connectors).toEqual(['touch-plug']);
    // what is left is the leak: it fails with nothing faulty
    expect(then.marginals['touch-plug']).toBeGreaterThan(0.85);
  });

  it('takes a test that nothing serves, all failing, and nothing tried', () => {
    const functions = [{ id: 'touch' }, { id: 'picture' }];
    const alone = isolate({ connectors: [], functions, results: { touch: 'fail' } });
    expect(alone).toMatchObject({ sets: [{ connectors: [], p: 1 }], marginals: {} });
    const failing = isolate({ connectors: [touch, both], functions, results: { touch: 'fail', picture: 'fail' } });
    expect(failing.sets[0]!.connectors).toEqual(['screen-plug']);
    // a name that every object has is a name like any other
    expect(isolate({ connectors: [], functions: [{ id: 'constructor' }], results: {} }).nextTests).toHaveLength(1);
    const none = isolate({ connectors: [touch], functions, results: {} });
    expect(none.marginals['touch-plug']).toBeCloseTo(0.1, 12);
    expect(() =>
      isolate({ connectors: [], functions: [{ id: 'touch', leak: 0 }], results: { touch: 'fail' } }),
    ).toThrow('No set');
  });

  it('goes through 40 connectors and 3 faults', () => {
    const functions = Array.from({ length: 12 }, (_, at) => ({ id: `f${at}` }));
    const connectors = Array.from({ length: 40 }, (_, at) => ({
      id: `c${at}`,
      prior: 0.02,
      functions: [`f${at % 12}`, `f${(at * 5) % 12}`],
    }));
    const { sets } = isolate({ connectors, functions, results: { f0: 'fail', f1: 'pass', f5: 'fail' } });
    expect(sets).toHaveLength(20);
  });

  it('names what is not there, and what would take too long', () => {
    const of = (more: object) => () =>
      isolate({ connectors: [touch], functions: [{ id: 'touch' }], results: {}, ...more });
    expect(of({ results: { moon: 'fail' } })).toThrow(expect.objectContaining({ path: 'results.moon' }) as Error);
    expect(of({ functions: [] })).toThrow(expect.objectContaining({ path: 'connectors[0].functions[0]' }) as Error);
    const many = Array.from({ length: 300 }, (_, at) => ({ ...touch, id: `c${at}` }));
    expect(of({ connectors: many })).toThrow(expect.objectContaining({ path: 'maxFaults' }) as Error);
    const refused = (more: object) =>
      isolateRequest.validate({ connectors: [], functions: [], results: {}, ...more }).error?.message;
    expect(refused({ results: { touch: 'maybe' } })).toContain('results.touch');
    expect(refused({ connectors: [{ ...touch, prior: 2 }] })).toContain('connectors[0].prior');
  });
});
