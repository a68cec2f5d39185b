import munkres from 'munkres-js';
import { bestPlacing } from './best-placing.ts';
import { describe, expect, it } from 'vitest';
import { random } from '../../../test/random-map.ts';
import { matchRequest, type MatchRequest, matchScrews } from './screw-match.ts';

const taken = (body: object): MatchRequest => {
  const { error, value } = matchRequest.validate(body);
  if (error) throw error;
  return value as MatchRequest;
};
const match = (body: object) => matchScrews(taken(body));
const kind = (id: string, length: number, count: number, drive = 'PH000') => ({ id, drive, length, count });
const screw = (id: string, length: number, drive: string | null = null, sd?: number) => ({
  id,
  drive,
  length,
  ...(sd === undefined ? {} : { sd }),
});

/** Every placing of a few screws into single holes, one by one. */
function enumerated({ classes, loose, foreignDensity = 0.001 }: MatchRequest) {
  const holes = classes.flatMap(({ id, count }) => Array.from({ length: count }, () => id));
  const density = (each: MatchRequest['loose'][number], id: string) => {
    const of = classes.find((one) => one.id === id)!;
    const { drive, sd = 0.05 } = each;
    if (drive && drive !== of.drive) return 0;
    const off = (each.length - of.length) / sd;
    return Math.exp(-0.5 * off * off) / (sd * Math.sqrt(2 * Math.PI));
  };
  const sums = new Map<string, number>();
  let all = 0;
  const place = (at: number, weight: number, used: ReadonlySet<number>, to: readonly string[]) => {
    if (weight === 0) return;
    if (at === loose.length) {
      all += weight;
      to.forEach((id, index) => sums.set(`${index} ${id}`, (sums.get(`${index} ${id}`) ?? 0) + weight));
      return;
    }
    place(at + 1, weight * foreignDensity, used, [...to, 'foreign']);
    holes.forEach((id, hole) => {
      if (!used.has(hole)) place(at + 1, weight * density(loose[at]!, id), new Set([...used, hole]), [...to, id]);
    });
  };
  place(0, 1, new Set(), []);
  return (at: number, id: string) => (sums.get(`${at} ${id}`) ?? 0) / all;
}

function someRequest(seed: number): MatchRequest {
  const next = random(seed);
  const classes = Array.from({ length: 1 + Math.floor(next() * 4) }, (_, at) =>
    kind(`k${at}`, 2 + Math.round(next() * 8) / 10, Math.floor(next() * 4), next() < 0.7 ? 'PH000' : 'T3'),
  );
  const loose = Array.from({ length: 1 + Math.floor(next() * 6) }, (_, at) =>
    screw(
      `s${at}`,
      2 + next() * 1.2,
      next() < 0.4 ? null : next() < 0.7 ? 'PH000' : 'T3',
      next() < 0.3 ? 0.2 : undefined,
    ),
  );
  return taken({ classes, loose, ...(next() < 0.3 ? { foreignDensity: 0.5 } : {}) });
}

describe('loose screws back to their holes', () => {
  it('has the exact probabilities: full enumeration of up to 6 screws', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const request = someRequest(seed);
      const { probabilities } = matchScrews(request);
      const exact = enumerated(request);
      request.loose.forEach(({ id }, at) => {
        for (const [to, p] of Object.entries(probabilities[id]!))
          expect(p, `${seed} ${id} ${to}`).toBeCloseTo(exact(at, to), 9);
      });
    }
  });

  it('has the best placing: equal to munkres-js, a hole or nowhere for each', () => {
    for (let seed = 100; seed <= 200; seed++) {
      const request = someRequest(seed);
      const { classes, loose, foreignDensity = 0.001 } = request;
      const holes = classes.flatMap((each) => Array.from({ length: each.count }, () => each));
      const cost = loose.map((each, at) => [
        ...holes.map(({ drive, length }) => {
          const { sd = 0.05 } = each;
          if (each.drive && each.drive !== drive) return 1e6;
          return 0.5 * ((each.length - length) / sd) ** 2 + Math.log(sd * Math.sqrt(2 * Math.PI));
        }),
        ...loose.map((_, other) => (other === at ? -Math.log(foreignDensity) : 1e6)),
      ]);
      const least = (munkres(cost) as [number, number][]).reduce((sum, [row, column]) => sum + cost[row]![column]!, 0);
      expect(matchScrews(request).logWeight, String(seed)).toBeCloseTo(-least, 6);
    }
  });

  it('says which holes lack one, which screw is a stranger, and which two may be either', () => {
    const said = match({
      classes: [kind('short', 2, 2), kind('long', 4, 2), kind('odd', 2.1, 1)],
      loose: [screw('a', 2.01), screw('b', 4.02), screw('c', 2.06), screw('stranger', 9)],
    });
    expect(said.best.find(({ loose }) => loose === 'stranger')!.class).toBeNull();
    expect(said.ambiguous).toContain('c');
    expect(said.ambiguous).not.toContain('b');
    expect(said.missing).toContainEqual({ class: 'long', count: 1 });
    for (const each of Object.values(said.probabilities)) {
      expect(Object.values(each).reduce((sum, p) => sum + p, 0)).toBeCloseTo(1, 12);
    }
  });

  it('matches 60 screws of 8 kinds', () => {
    const next = random(3);
    const classes = Array.from({ length: 8 }, (_, at) => kind(`k${at}`, 2 + at * 0.2, at % 2 ? 7 : 8));
    const loose = classes.flatMap(({ id, length, count }) =>
      Array.from({ length: count }, (_, at) => screw(`${id}-${at}`, length + (next() - 0.5) * 0.12)),
    );
    const { best, missing } = match({ classes, loose });
    expect(best.filter(({ loose: id, class: to }) => id.startsWith(`${to}-`))).toHaveLength(60);
    expect(missing).toEqual([]);
  });

  it('matches a hundred screws of 24 kinds, each with those of its length', () => {
    const next = random(4);
    const classes = Array.from({ length: 24 }, (_, at) => kind(`k${at}`, 1.6 + at * 0.25, 5, at % 2 ? 'T3' : 'PH000'));
    const loose = classes.flatMap(({ id, length, drive, count }) =>
      Array.from({ length: count }, (_, at) =>
        screw(`${id}-${at}`, length + (next() - 0.5) * 0.1, next() < 0.5 ? drive : null),
      ),
    );
    const { best, ambiguous } = match({ classes, loose });
    expect(best.filter(({ loose: id, class: to }) => id.startsWith(`${to}-`))).toHaveLength(120);
    expect(ambiguous).toEqual([]);
  });

  it.each([
    ['a length of −1', { loose: [screw('a', -1)] }, /loose\[0\]\.length/],
    ['a length of 900 mm', { loose: [screw('a', 900)] }, /loose\[0\]\.length/],
    ['no scatter', { loose: [screw('a', 2, null, 0)] }, /loose\[0\]\.sd.*0\.001/],
    ['a drawer of millions', { classes: [kind('k', 2, 2_000_000)] }, /classes\[0\]\.count.*1000000/],
    ['two of one name', { loose: [screw('a', 2), screw('a', 3)] }, /loose\[1\]/],
    ['a class that is called foreign', { classes: [kind('foreign', 2, 1)] }, /classes\[0\]\.id/],
  ])('refuses %s by its field', (_, more, path) => {
    const { error } = matchRequest.validate({ classes: [kind('k', 2, 1)], loose: [], ...more });
    expect(error?.message).toMatch(path);
  });

  it('takes more screws than holes, none at all, and no map of screws', () => {
    const many = match({ classes: [kind('k', 2, 1)], loose: [screw('a', 2), screw('b', 2)] });
    expect(many.best.filter((each) => each.class === null)).toHaveLength(1);
    expect(match({ classes: [kind('k', 2, 3)], loose: [] })).toMatchObject({
      best: [],
      missing: [{ class: 'k', count: 3 }],
    });
    expect(match({ classes: [], loose: [screw('a', 2)] }).probabilities).toEqual({ a: { foreign: 1 } });
    expect(() => match({ classes: [], loose: [screw('a', 2)], foreignDensity: 0 })).toThrow('No placing');
  });

  it('answers with figures for drawers of hundreds of thousands, for scatter of a micrometre, and with no foreign ones', () => {
    const drawer = match({ classes: [kind('k', 2, 400_000), kind('m', 2.1, 3)], loose: [screw('a', 2.05)] });
    // both are as near: places count
    expect(drawer.probabilities.a!.k).toBeCloseTo(400_000 / 400_003, 4);
    const far = match({
      classes: [kind('k', 2, 1), kind('m', 9, 1), kind('n', 30, 0)],
      loose: [screw('a', 2, null, 0.001), screw('b', 31, null, 0.001)],
      foreignDensity: 0,
    });
    expect(far.probabilities).toEqual({ a: { k: 1, m: 0, n: 0, foreign: 0 }, b: { k: 0, m: 1, n: 0, foreign: 0 } });
  });

  it('ends where sums are so great that what is saved is lost in their rounding', () => {
    const next = random(15);
    for (let round = 0; round < 40; round++) {
      const lengths = [0, 1, 2].map(() => 0.5 + 7 * next());
      const logs = Array.from({ length: 20 }, () => {
        const [at, sd] = [next() < 0.5 ? lengths[0]! : 200 * next(), 10 ** (13 * next() - 12)];
        return lengths.map((each) => -0.5 * ((at - each) / sd) ** 2 - Math.log(sd));
      });
      expect([null, 20]).toContain(bestPlacing(logs, [8, 8, 8], Number.NEGATIVE_INFINITY)?.length ?? null);
    }
  });

  it('says so where more look alike than can be told exactly', () => {
    const classes = Array.from({ length: 12 }, (_, at) => kind(`k${at}`, 2 + at * 0.01, 20));
    const loose = Array.from({ length: 200 }, (_, at) => screw(`s${at}`, 2 + at * 0.0005));
    expect(() => match({ classes, loose })).toThrow('measure some again');
  });
});
