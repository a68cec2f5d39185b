import Joi from 'joi';
import { Refusal, wrong } from '../../model/refusal/index.ts';

export interface IsolateRequest {
  /** what may be faulty: how likely that is beforehand, and the functions that it serves */
  readonly connectors: readonly {
    readonly id: string;
    readonly prior: number;
    readonly functions: readonly string[];
  }[];
  /** `leak`: fails with nothing faulty; `miss`: passes although something that serves it is */
  readonly functions: readonly { readonly id: string; readonly leak?: number; readonly miss?: number }[];
  readonly results: Readonly<Record<string, 'pass' | 'fail'>>;
  readonly maxFaults?: number;
}

export interface Isolated {
  /** the likeliest sets of faults first */
  readonly sets: readonly { readonly connectors: readonly string[]; readonly p: number }[];
  readonly marginals: Readonly<Record<string, number>>;
  /** what an untested function would tell, the most telling first */
  readonly nextTests: readonly { readonly function: string; readonly bits: number }[];
}

const LEAK = 0.01;
const MISS = 0.02;
const MAX_FAULTS = 3;
const MOST_SHOWN = 20;
/** More sets of faults than this are not gone through. */
const MOST_SETS = 100_000;

const id = Joi.string().min(1).max(200);
const share = Joi.number().min(0).max(1);

export const isolateRequest = Joi.object<IsolateRequest>({
  connectors: Joi.array()
    .max(500)
    .unique('id')
    .items(
      Joi.object({
        id: id.required(),
        prior: share.required(),
        functions: Joi.array().max(500).items(id).required(),
      }).unknown(true),
    )
    .required(),
  functions: Joi.array()
    .max(500)
    .unique('id')
    .items(Joi.object({ id: id.required(), leak: share, miss: share }).unknown(true))
    .required(),
  results: Joi.object().pattern(id, Joi.string().valid('pass', 'fail')).max(500).required(),
  maxFaults: Joi.number().integer().min(0).max(10),
});

interface FaultSet {
  readonly faults: readonly number[];
  /** logarithm of its weight until it is normalised */
  readonly log: number;
}

/**
 * Which sets of faults explain what was tried. Faults are independent beforehand; sets larger than `maxFaults` are left out
 * and the rest normalised.
 * @throws Refusal by the path of an id that is not there, or where too many sets would have to be gone through
 */
export function isolate(request: IsolateRequest): Isolated {
  const { connectors, functions, results, maxFaults = MAX_FAULTS } = request;
  check(request);
  const at = new Map(functions.map((each, index) => [each.id, index]));
  const serves = connectors.map((each) => new Set(each.functions.map((one) => at.get(one)!)));
  const isTried = (id: string) => Object.hasOwn(results, id);
  const tried = functions.flatMap((each, index) =>
    isTried(each.id) ? [{ index, failed: results[each.id] === 'fail' }] : [],
  );
  const chanceOf = (faults: readonly number[], index: number, failed: boolean) => {
    const { leak = LEAK, miss = MISS } = functions[index]!;
    const fails = faults.some((each) => serves[each]!.has(index)) ? 1 - miss : leak;
    return failed ? fails : 1 - fails;
  };
  const all: FaultSet[] = [];
  const visit = (from: number, faults: readonly number[]): void => {
    all.push({
      faults,
      log: tried.reduce(
        (sum, { index, failed }) => sum + Math.log(chanceOf(faults, index, failed)),
        priorOf(connectors, faults),
      ),
    });
    if (faults.length === maxFaults) return;
    for (let next = from; next < connectors.length; next++) visit(next + 1, [...faults, next]);
  };
  visit(0, []);
  const top = all.reduce((most, { log }) => Math.max(most, log), Number.NEGATIVE_INFINITY);
  if (top === Number.NEGATIVE_INFINITY) {
    throw new Refusal(wrong('results', 'No set of so few faults can explain these results.'));
  }
  const weights = all.map(({ log }) => Math.exp(log - top));
  const total = weights.reduce((sum, each) => sum + each, 0);
  const sets = all.map(({ faults }, index) => ({ faults, p: weights[index]! / total }));
  const best = sets.toSorted((a, b) => b.p - a.p || a.faults.length - b.faults.length);
  const marginals = connectors.map(() => 0);
  for (const { faults, p } of sets) for (const each of faults) marginals[each]! += p;
  const nextTests = functions.flatMap(({ id: untested, leak = LEAK, miss = MISS }, index) => {
    if (isTried(untested)) return [];
    const isServed = connectors.map((_, each) => serves[each]!.has(index));
    const served = sets.reduce((sum, { faults, p }) => (faults.some((each) => isServed[each]) ? sum + p : sum), 0);
    return [{ function: untested, bits: bitsOf(served, 1 - miss, leak) }];
  });
  return {
    sets: best
      .filter(({ p }) => p > 0)
      .slice(0, MOST_SHOWN)
      .map(({ faults, p }) => ({ connectors: faults.map((each) => connectors[each]!.id), p })),
    marginals: Object.fromEntries(connectors.map((each, index) => [each.id, marginals[index]!])),
    nextTests: nextTests.toSorted((a, b) => b.bits - a.bits),
  };
}

function priorOf(connectors: IsolateRequest['connectors'], faults: readonly number[]): number {
  const faulty = new Set(faults);
  return connectors.reduce((sum, { prior }, index) => sum + Math.log(faulty.has(index) ? prior : 1 - prior), 0);
}

/**
 * The information that a result brings on the set of faults: its own entropy less what is left once the set is known.
 * @param served how likely it is that something that serves it is faulty; then it fails with `faulty`, else with `sound`
 */
function bitsOf(served: number, faulty: number, sound: number): number {
  const fails = served * faulty + (1 - served) * sound;
  return Math.max(0, entropy(fails) - served * entropy(faulty) - (1 - served) * entropy(sound));
}

function entropy(p: number): number {
  return p <= 0 || p >= 1 ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p);
}

function check({ connectors, functions, results, maxFaults = MAX_FAULTS }: IsolateRequest): void {
  const known = new Set(functions.map((each) => each.id));
  connectors.forEach((each, index) =>
    each.functions.forEach((one, n) => {
      if (!known.has(one))
        throw new Refusal(wrong(`connectors[${index}].functions[${n}]`, `There is no function "${one}".`));
    }),
  );
  for (const one of Object.keys(results)) {
    if (!known.has(one)) throw new Refusal(wrong(`results.${one}`, `There is no function "${one}".`));
  }
  let [count, ofSize] = [1, 1];
  for (let size = 1; size <= Math.min(maxFaults, connectors.length); size++) {
    ofSize = (ofSize * (connectors.length - size + 1)) / size;
    count += ofSize;
  }
  if (count > MOST_SETS) {
    throw new Refusal(
      wrong('maxFaults', `That is more than ${MOST_SETS} sets of faults: ask for fewer faults at once.`),
    );
  }
}
