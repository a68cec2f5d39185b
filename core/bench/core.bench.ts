import highsLoader from 'highs';
import { type BenchEvent } from '../src/job/events/index.ts';
import { newJob } from '../src/job/state/index.ts';
import { withEvent } from '../src/job/fold/index.ts';
import { doneStep, heldBack, planAhead } from '../src/bench/in-hand/index.ts';
import { assembled, liveJoints, mechanismOf } from '../src/planner/holds/index.ts';
import { isolate } from '../src/physics/isolate/index.ts';
import { solveOrder } from '../src/planner/order/index.ts';
import type { DeviceMap } from '../src/model/device-map/index.ts';
import { containersFor, matchScrews } from '../src/screws/screws/index.ts';
import { leastSecondsOf } from '../src/planner/plan/arrange.ts';
import { inCarefulOrder, ruled } from '../src/planner/plan/careful.ts';
import { goalOf } from '../src/planner/search/goal.ts';
import { leastSets } from '../src/planner/search/least-set.ts';
import { planRepair } from '../src/planner/plan/index.ts';
import { DEFAULT_POLICY } from '../src/model/policy/policy.ts';
import { precedenceOf } from '../src/planner/search/precedence.ts';
import { stripDrafts } from '../src/planner/drafts/strip.ts';
import { noWork } from '../src/planner/search/work-set.ts';
import { cutFrom } from '../src/fitting/tape/index.ts';
import { whereToTry } from '../src/bench/trying/index.ts';
import { TestBench } from '../test/bench.ts';
import { shearwater11, tern5 } from '../test/maps.ts';
import { mixedIntegerModel } from '../test/order-model.ts';
import { chains, randomOrderProblem } from '../test/order-problems.ts';
import { median, noise, percentile, timed } from './measure.ts';

const now = () => performance.now();
const round = (value: number) => Number(value.toPrecision(3));

/** Sixty operations in five independent chains, five tools and two faces: wanted under 1 s, proven. */
function sixtyOperations() {
  const problems = [1, 2, 3, 4, 5].map((seed) => chains(5, 12, seed, 5, 2));
  const medians = problems.map((problem) => {
    if (!solveOrder(problem, { now, limitMs: 30_000 }).optimal) throw new Error('not proven');
    return median(timed(3, () => solveOrder(problem, { now, limitMs: 30_000 })));
  });
  return { wanted_ms: 1000, median_ms: round(median(medians)), worst_ms: round(Math.max(...medians)) };
}

/** Against a mixed-integer model by HiGHS, 10 to 14 operations: equal cost, wanted 100 times as fast over those solved. */
async function againstHighs() {
  const highs = await highsLoader();
  const rows = [];
  for (const size of [10, 11, 12, 13, 14]) {
    const problem = randomOrderProblem(size * 101, size);
    const start = performance.now();
    const solved = highs.solve(mixedIntegerModel(problem), { time_limit: 60 });
    const highs_ms = performance.now() - start;
    const own_ms = median(timed(20, () => solveOrder(problem, { now, limitMs: 5000 })));
    const own = solveOrder(problem, { now, limitMs: 5000 });
    const solvedIt = solved.Status === 'Optimal';
    if (solvedIt && Math.abs(solved.ObjectiveValue - own.setupSeconds) > 1e-4)
      throw new Error(`cost differs at ${size}`);
    rows.push({ size, status: solved.Status, highs_ms: round(highs_ms), own_ms: round(own_ms) });
  }
  const solved = rows.filter((row) => row.status === 'Optimal');
  const sum = (key: 'highs_ms' | 'own_ms') => solved.reduce((total, row) => total + row[key], 0);
  return { wanted_ratio: 100, ratio: round(sum('highs_ms') / sum('own_ms')), solved: solved.length, rows };
}

/** Least set and a legal order with its bound for a full strip of Tern 5: wanted under 50 ms. */
function fullStrip() {
  const map = tern5();
  const targets = [{ full: true } as const];
  const strip = () => {
    const mechanism = mechanismOf(map);
    const start = assembled(mechanism);
    const live = liveJoints(mechanism, start);
    const [set] = leastSets(mechanism, start, goalOf(mechanism, start, targets, { live }), { live }, noWork(mechanism));
    const given = precedenceOf(mechanism, start, set!, { live });
    const by = ruled(mechanism, start, given, { live }, DEFAULT_POLICY);
    const drafts = stripDrafts(mechanism, start, by.precedence, DEFAULT_POLICY, live, by.blocks, new Set());
    return [inCarefulOrder(by, live, []), leastSecondsOf(drafts)];
  };
  const whole = () => planRepair({ map, targets }, { now, limitMs: 0 });
  return { wanted_ms: 50, strip_ms: round(median(timed(25, strip))), wholePlan_ms: round(median(timed(15, whole))) };
}

/** One more event in a job of 1 000, and the plan from there: what a key waits for is the first. */
function keyInLongJob() {
  const mechanism = mechanismOf(tern5());
  const job = {
    id: 'j',
    map: 'tern-5',
    revision: 1,
    targets: [{ replace: 'display' }],
    policy: {},
    title: '',
    createdAt: '',
  };
  let state = newJob(mechanism, job);
  let count = 0;
  const event = (type: string, data: object) =>
    ({ id: `e${count++}`, type, at: '2026-11-24T10:00:00Z', by: 'x', data }) as unknown as BenchEvent;
  const send = (each: BenchEvent) => {
    const outcome = withEvent(mechanism, state, each);
    if ('state' in outcome) state = outcome.state;
  };
  for (const op of planAhead(mechanism, state, { now, limitMs: 500 }).ops.slice(0, 14))
    send(event('did', { steps: [doneStep(op)] }));
  while (count < 1000) send(event('note', { text: 'n' }));
  const [next] = planAhead(mechanism, state, { now, limitMs: 500 }).ops;
  const did = event('did', { steps: [doneStep(next!)] });
  const runs = timed(200, () => withEvent(mechanism, state, did));
  return { wanted_ms: 100, median_ms: round(median(runs)), p99_ms: round(percentile(runs, 0.99)) };
}

/** Sixty loose screws of eight kinds, lengths a quarter of a millimetre apart, back to their holes. */
function screwMatch() {
  const classes = Array.from({ length: 8 }, (_, at) => ({
    id: `k${at}`,
    drive: 'PH000',
    length: 2 + at / 4,
    count: 8,
  }));
  const loose = Array.from({ length: 60 }, (_, at) => ({
    id: `s${at}`,
    drive: null,
    length: 2 + (at % 8) / 4 + 0.05 * Math.sin(at * 12.9898),
  }));
  const runs = timed(9, () => matchScrews({ classes, loose }));
  return { wanted_ms: 200, median_ms: round(median(runs)) };
}

/** Sixteen kinds in five containers, proven. */
function containers() {
  const classes = Array.from({ length: 16 }, (_, at) => `k${at}`);
  const cost = classes.map((_, a) => classes.map((__, b) => (a === b ? 0 : Math.abs(Math.sin((a + 1) * (b + 1))))));
  const runs = timed(5, () => containersFor({ classes, cost, containers: 5 }));
  return { wanted_ms: 1000, median_ms: round(median(runs)) };
}

/** Why will it not come out, on as large a map as is taken: 500 parts and 2 000 joints, for the one under most others. */
function beforeYouPull() {
  const [base] = tern5().parts;
  const plates = Array.from({ length: 499 }, (_, at) => ({
    ...base!,
    id: `p${at}`,
    name: `Plate ${at}`,
    kind: 'plate' as const,
    base: undefined,
    box: { x: at % 60, y: (at * 7) % 140, w: 8, h: 8 },
    under: at > 0 ? [{ part: `p${at - 1}`, until: 'off' as const }] : [],
  }));
  const joints = plates.flatMap(({ id, box }, at) =>
    [0, 1, 2, 3].slice(0, at < 496 ? 4 : 5).map((corner) => ({
      id: `${id}-${corner}`,
      type: 'clip' as const,
      holds: [id],
      to: base!.id,
      face: 'front' as const,
      at: { x: box.x + corner, y: box.y },
    })),
  );
  const map = {
    ...tern5(),
    battery: null,
    parts: [{ ...base!, base: true }, ...plates],
    joints,
  } as unknown as DeviceMap;
  const mechanism = mechanismOf(map);
  const job = { id: 'j', map: map.id, revision: 1, targets: [], policy: {}, title: '', createdAt: '' };
  const state = newJob(mechanism, job);
  const runs = timed(60, () => heldBack(mechanism, state, 'p498'));
  return {
    wanted_ms: 50,
    joints: joints.length,
    median_ms: round(median(runs)),
    p99_ms: round(percentile(runs, 0.99)),
  };
}

/** Up to three faults among forty plugs that serve thirty functions, of which a third failed. */
function faults() {
  const functions = Array.from({ length: 30 }, (_, at) => ({ id: `f${at}` }));
  const connectors = Array.from({ length: 40 }, (_, at) => ({
    id: `c${at}`,
    prior: 0.02 + (at % 7) / 100,
    functions: [`f${at % 30}`, `f${(at * 7) % 30}`],
  }));
  const results = Object.fromEntries(
    functions.slice(0, 20).map(({ id }, at) => [id, at % 3 ? 'pass' : 'fail'] as const),
  );
  const runs = timed(5, () => isolate({ connectors, functions, results }));
  return { wanted_ms: 300, median_ms: round(median(runs)) };
}

/** Where a new display of a tablet is worth trying, where the school tries it only once it is sealed. */
function whereTried() {
  const bench = new TestBench(shearwater11(), [{ replace: 'display' }]);
  bench.send('policy', { change: { test: 'after' } });
  const ops = bench.ahead();
  const runs = timed(10, () => whereToTry(bench.mechanism, bench.state, ops));
  return { median_ms: round(median(runs)) };
}

/** Twelve strips from eight rolls, proven. */
function cutting() {
  const strips = Array.from({ length: 12 }, (_, at) => ({ id: `s${at}`, length_mm: 31 + at * 7 }));
  const rolls = Array.from({ length: 8 }, (_, at) => ({ id: `r${at}`, length_mm: 160 + at * 13 }));
  const runs = timed(5, () => cutFrom(strips, rolls));
  return { median_ms: round(median(runs)) };
}

console.log(
  JSON.stringify({
    noise: round(noise()),
    order60: sixtyOperations(),
    fullStrip: fullStrip(),
    keyInJobOf1000: keyInLongJob(),
    beforeYouPull: beforeYouPull(),
    screwMatch60: screwMatch(),
    containers16: containers(),
    isolate40: faults(),
    whereToTry: whereTried(),
    cutting12of8: cutting(),
    againstHighs: await againstHighs(),
  }),
);
