/**
 * How the cells of a grid lie along one direction: bundles of lines that are worked on together, so that they stay at
 * hand. Cell = start of the bundle + along·stride + lane·laneStep.
 */
export interface Lines {
  readonly starts: readonly number[];
  readonly length: number;
  readonly stride: number;
  readonly lanes: number;
  readonly laneStep: number;
}

/** What a direction conducts, and what the ends of its lines meet; all by cell. */
export interface Direction extends Lines {
  /** from a cell to the next one in this direction, W/K */
  link(cell: number): number;
  /** from outside to the first and the last cell of a line, W/K, and how warm it is there */
  low(cell: number): number;
  high(cell: number): number;
  low_C(cell: number): number;
  high_C(cell: number): number;
  /** what lies at the first cell and grows cold, J/K; 0 where nothing does */
  pack?(cell: number): number;
}

/** A direction made ready for steps of one length: eliminated once, used for every step. In the order of its bundles. */
export interface Prepared {
  readonly lines: Lines;
  readonly step_s: number;
  readonly capacity: Float64Array;
  readonly lower: Float64Array;
  readonly sweep: Float64Array;
  readonly inverse: Float64Array;
  readonly ends: {
    readonly low: Float64Array;
    readonly high: Float64Array;
    readonly high_C: Float64Array;
    /** how warm it is at the first cells; packs grow cold */
    readonly low_C: Float64Array;
    /** what a first cell exchanges with the outside in one stage; less than `low` where a pack grows cold */
    readonly lowNow: Float64Array;
    readonly pack: Float64Array;
  };
}

/** A two-stage method that is implicit, of second order, and damps whatever is stiff (Alexander, 1977). */
const GAMMA = 1 - Math.SQRT1_2;
const REST = (1 - GAMMA) / GAMMA;

/** Steps along one direction at a time, all lines of it, implicitly; heat that passes the ends is summed. */
export class Splitting {
  readonly passed = { in: 0, out: 0 };
  readonly #temps: Float64Array;
  readonly #capacity: Float64Array;
  #now = new Float64Array(0);
  #stage = new Float64Array(0);
  #right = new Float64Array(0);
  #packs = new Float64Array(0);

  constructor(temps: Float64Array, capacity: Float64Array) {
    this.#temps = temps;
    this.#capacity = capacity;
  }

  stored(): number {
    let sum = 0;
    for (let cell = 0; cell < this.#temps.length; cell++) sum += this.#capacity[cell]! * this.#temps[cell]!;
    return sum;
  }

  prepared(direction: Direction, step_s: number): Prepared {
    const { starts, length, stride, lanes, laneStep } = direction;
    const s = GAMMA * step_s;
    const size = this.#temps.length;
    const count = starts.length * lanes;
    const [capacity, lower, sweep, inverse] = [0, 1, 2, 3].map(() => new Float64Array(size)) as Four;
    const [low, high, low_C, high_C, lowNow, pack] = [0, 1, 2, 3, 4, 5].map(() => new Float64Array(count)) as Six;
    starts.forEach((start, bundle) => {
      for (let lane = 0; lane < lanes; lane++) {
        const line = bundle * lanes + lane;
        const first = start + lane * laneStep;
        const last = first + (length - 1) * stride;
        low[line] = direction.low(first);
        low_C[line] = direction.low_C(first);
        high[line] = direction.high(last);
        high_C[line] = direction.high_C(last);
        const held = direction.pack?.(first) ?? 0;
        pack[line] = held;
        // a pack is eliminated before its line: (P + s·g)·Tp = P·Tp₀ + s·g·T
        lowNow[line] = held > 0 ? (low[line]! * held) / (held + s * low[line]!) : low[line]!;
      }
      const carried = new Float64Array(lanes);
      for (let along = 0; along < length; along++) {
        for (let lane = 0; lane < lanes; lane++) {
          const cell = start + along * stride + lane * laneStep;
          const at = (bundle * length + along) * lanes + lane;
          const line = bundle * lanes + lane;
          const before = along === 0 ? 0 : s * direction.link(cell - stride);
          const on = along === length - 1 ? 0 : s * direction.link(cell);
          const ends = (along === 0 ? lowNow[line]! : 0) + (along === length - 1 ? high[line]! : 0);
          capacity[at] = this.#capacity[cell]!;
          lower[at] = before;
          // what a cell has beside its links is carried on by itself, so that nothing is subtracted
          const own = capacity[at]! + s * ends + (along === 0 ? 0 : carried[lane]!);
          inverse[at] = 1 / (own + on);
          sweep[at] = on * inverse[at]!;
          carried[lane] = own * sweep[at]!;
        }
      }
    });
    const lines = { starts, length, stride, lanes, laneStep };
    return { lines, step_s, capacity, lower, sweep, inverse, ends: { low, high, low_C, high_C, lowNow, pack } };
  }

  /** One step along a direction. */
  advance(prepared: Prepared): void {
    const { starts, length, stride, lanes, laneStep } = prepared.lines;
    const { ends } = prepared;
    const block = length * lanes;
    if (this.#now.length < block) {
      [this.#now, this.#stage, this.#right] = [0, 1, 2].map(() => new Float64Array(block)) as Three;
    }
    if (this.#packs.length < lanes) this.#packs = new Float64Array(lanes);
    const [temps, now, stage, right, packs] = [this.#temps, this.#now, this.#stage, this.#right, this.#packs];
    for (let bundle = 0; bundle < starts.length; bundle++) {
      const line = bundle * lanes;
      const capacity = prepared.capacity.subarray(bundle * block, (bundle + 1) * block);
      for (let along = 0, at = 0; along < length; along++) {
        let cell = starts[bundle]! + along * stride;
        for (let lane = 0; lane < lanes; lane++, at++, cell += laneStep) {
          const temp = temps[cell]!;
          now[at] = temp;
          right[at] = capacity[at]! * temp;
        }
      }
      for (let lane = 0; lane < lanes; lane++) packs[lane] = ends.low_C[line + lane]!;
      this.#solve(prepared, bundle, stage);
      this.#sumEnds(prepared, bundle, stage, 1 - GAMMA);
      for (let at = 0; at < block; at++) {
        const temp = now[at]!;
        right[at] = capacity[at]! * (temp + REST * (stage[at]! - temp));
      }
      for (let lane = 0; lane < lanes; lane++) {
        const from = ends.low_C[line + lane]!;
        packs[lane] = from + REST * (packs[lane]! - from);
      }
      this.#solve(prepared, bundle, now);
      this.#sumEnds(prepared, bundle, now, GAMMA);
      for (let lane = 0; lane < lanes; lane++) ends.low_C[line + lane] = packs[lane]!;
      for (let along = 0, at = 0; along < length; along++) {
        let cell = starts[bundle]! + along * stride;
        for (let lane = 0; lane < lanes; lane++, at++, cell += laneStep) temps[cell] = now[at]!;
      }
    }
  }

  /** Solves one bundle for the right side laid ready; packs are set to where the stage leaves them. */
  #solve(prepared: Prepared, bundle: number, into: Float64Array): void {
    const { ends, step_s } = prepared;
    const { length, lanes } = prepared.lines;
    const [right, packs] = [this.#right, this.#packs];
    const s = GAMMA * step_s;
    const block = length * lanes;
    const [from, to] = [bundle * block, (bundle + 1) * block];
    const lower = prepared.lower.subarray(from, to);
    const sweep = prepared.sweep.subarray(from, to);
    const inverse = prepared.inverse.subarray(from, to);
    const line = bundle * lanes;
    const last = block - lanes;
    for (let lane = 0; lane < lanes; lane++) {
      right[lane] = right[lane]! + s * ends.lowNow[line + lane]! * packs[lane]!;
      right[last + lane] = right[last + lane]! + s * ends.high[line + lane]! * ends.high_C[line + lane]!;
      into[lane] = right[lane]! * inverse[lane]!;
    }
    for (let at = lanes, before = 0; at < block; at++, before++) {
      into[at] = (right[at]! + lower[at]! * into[before]!) * inverse[at]!;
    }
    for (let at = last - 1, next = block - 1; at >= 0; at--, next--) into[at] = into[at]! + sweep[at]! * into[next]!;
    for (let lane = 0; lane < lanes; lane++) {
      const held = ends.pack[line + lane]!;
      if (held === 0) continue;
      const given = s * ends.low[line + lane]!;
      packs[lane] = (held * packs[lane]! + given * into[lane]!) / (held + given);
    }
  }

  /** Heat through the ends in one stage, by the temperatures that the stage has come to. */
  #sumEnds({ lines, ends, step_s }: Prepared, bundle: number, at: Float64Array, weight: number): void {
    const { length, lanes } = lines;
    const line = bundle * lanes;
    const last = (length - 1) * lanes;
    for (let lane = 0; lane < lanes; lane++) {
      const front = weight * step_s * ends.low[line + lane]! * (this.#packs[lane]! - at[lane]!);
      const back = weight * step_s * ends.high[line + lane]! * (at[last + lane]! - ends.high_C[line + lane]!);
      this.passed.in += Math.max(0, front) + Math.max(0, -back);
      this.passed.out += Math.max(0, -front) + Math.max(0, back);
    }
  }
}

type Three = [Float64Array<ArrayBuffer>, Float64Array<ArrayBuffer>, Float64Array<ArrayBuffer>];
type Four = [...Three, Float64Array<ArrayBuffer>];
type Six = [...Three, ...Three];
