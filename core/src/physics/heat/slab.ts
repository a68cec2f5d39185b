import type { Boundary, HeatSource } from './heat-request.ts';
import type { ProbeWeights, Stack } from './stack.ts';

/** What the heated face meets for a while: something at a steady temperature, or a pack that grows cold. */
export type Meeting =
  | { readonly kind: 'steady'; readonly face: Boundary }
  | { readonly kind: 'pack'; readonly capacity: number; readonly contact: number };

export function meetingOf(source: HeatSource, after: Boundary): Meeting {
  switch (source.kind) {
    case 'plate':
      return { kind: 'steady', face: { h_W_m2K: source.contact_W_m2K, temp_C: source.temp_C } };
    case 'air':
      return { kind: 'steady', face: { h_W_m2K: source.h_W_m2K, temp_C: source.temp_C } };
    case 'pack':
      return { kind: 'pack', capacity: source.capacity_J_m2K, contact: source.contact_W_m2K };
    case 'none':
      return { kind: 'steady', face: after };
  }
}

/**
 * Heat conduction through a stack as linear equations C·dT/dt = −K·T + q, with K tridiagonal. A pack is one cell more, at
 * the front, that exchanges heat with the face and nothing else.
 */
export class Slab {
  readonly size: number;
  readonly capacity: Float64Array;
  /** between a cell and the next one, W/m²K */
  readonly conductance: Float64Array;
  /** from outside to the first cell and to the last one, W/m²K */
  readonly front: number;
  readonly back: number;
  /** what the faces push in when the cells behind them are at 0 °C, W/m² */
  readonly pushFront: number;
  readonly pushBack: number;
  readonly #stack: Stack;
  /** cells before the stack's own: 1 with a pack */
  readonly #lead: number;

  constructor(stack: Stack, meeting: Meeting, far: Boundary) {
    const cells = stack.capacity.length;
    this.#stack = stack;
    this.#lead = meeting.kind === 'pack' ? 1 : 0;
    this.size = cells + this.#lead;
    this.capacity = new Float64Array(this.size);
    this.capacity.set(stack.capacity, this.#lead);
    this.conductance = new Float64Array(this.size - 1);
    for (let cell = 0; cell < cells - 1; cell++) {
      this.conductance[cell + this.#lead] = 1 / (stack.half[cell]! + stack.half[cell + 1]!);
    }
    if (meeting.kind === 'pack') {
      this.capacity[0] = meeting.capacity;
      this.conductance[0] = inSeries(meeting.contact, stack.half[0]!);
    }
    this.front = meeting.kind === 'steady' ? inSeries(meeting.face.h_W_m2K, stack.half[0]!) : 0;
    this.back = inSeries(far.h_W_m2K, stack.half[cells - 1]!);
    this.pushFront = meeting.kind === 'steady' ? this.front * meeting.face.temp_C : 0;
    this.pushBack = this.back * far.temp_C;
  }

  /** Heat that flows in at the front, W/m². */
  flowIn(temps: Float64Array): number {
    return this.pushFront - this.front * temps[0]!;
  }

  /** Heat that flows out at the back, W/m². */
  flowOut(temps: Float64Array): number {
    return this.back * temps[this.size - 1]! - this.pushBack;
  }

  /** Net heat into every cell, W/m². */
  heating(temps: Float64Array, into: Float64Array): void {
    const { size, conductance } = this;
    let before = this.flowIn(temps);
    for (let cell = 0; cell < size - 1; cell++) {
      const on = conductance[cell]! * (temps[cell]! - temps[cell + 1]!);
      into[cell] = before - on;
      before = on;
    }
    into[size - 1] = before - this.flowOut(temps);
  }

  /** Stored heat above 0 °C, J/m². */
  stored(temps: Float64Array): number {
    let sum = 0;
    for (let cell = 0; cell < this.size; cell++) sum += this.capacity[cell]! * temps[cell]!;
    return sum;
  }

  /** J/m²K */
  get heldPerKelvin(): number {
    return this.capacity.reduce((sum, each) => sum + each, 0);
  }

  /** Heat that cells have gained or lost between two moments, each for itself, J/m². */
  shifted(before: Float64Array, after: Float64Array): number {
    let sum = 0;
    for (let cell = 0; cell < this.size; cell++) sum += this.capacity[cell]! * Math.abs(after[cell]! - before[cell]!);
    return sum;
  }

  /** What a probe reads, its faces among it. */
  read(temps: Float64Array, reading: ProbeWeights): number {
    const cells = this.size - this.#lead;
    let sum = 0;
    for (const [cell, weight] of reading) {
      const at = cell < 0 ? this.#frontTemp(temps) : cell >= cells ? this.#backTemp(temps) : temps[cell + this.#lead]!;
      sum += weight * at;
    }
    return sum;
  }

  #frontTemp(temps: Float64Array): number {
    const first = temps[this.#lead]!;
    const flow = this.#lead ? this.conductance[0]! * (temps[0]! - first) : this.flowIn(temps);
    return first + flow * this.#stack.half[0]!;
  }

  #backTemp(temps: Float64Array): number {
    const half = this.#stack.half[this.#stack.half.length - 1]!;
    return temps[this.size - 1]! - this.flowOut(temps) * half;
  }
}

/** A transfer and a resistance one after the other; no transfer lets nothing through. */
function inSeries(h: number, resistance: number): number {
  return h === 0 ? 0 : 1 / (1 / h + resistance);
}
