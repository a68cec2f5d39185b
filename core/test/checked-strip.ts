import { applied, isDead, type PhysicalOp } from '../src/planner/holds/index.ts';
import { CheckedWay, someOrders } from './checked-plan.ts';

/** The strip-down held against its rules. */
export class CheckedStrip extends CheckedWay {
  check(): string[] {
    const { parts } = this.mechanism.map;
    const all = [...this.ops.keys()];
    const lifts = (isIt: (part: number) => boolean) =>
      all.filter((at) => {
        const op = this.ops[at]!;
        return op.kind === 'lift' && isIt(op.part);
      });
    const first = lifts((part) => parts[part]!.removeFirst === true);
    const needed = new Set(first.flatMap((at) => [...this.#needs(at)]));
    const dying = this.#dying();
    // whoever releases a live joint isolates next
    const isLive = (at: number) =>
      this.ops[at]!.kind === 'release' && this.live.has((this.ops[at] as { joint: number }).joint);
    if ([...needed].some(isLive)) dying.forEach((at) => this.#needs(at).forEach((each) => needed.add(each)));
    // where the display is wished off, what came out first may wait for that
    const wishedOff = this.policy.display === 'taken-off' ? lifts((part) => this.hasWorkBeneath(part)) : [];
    const before = new Set([...needed, ...wishedOff.flatMap((at) => [...this.#needs(at)])]);
    this.#only('removed-first', last(first), before);

    dying.forEach((at) => this.#needs(at).forEach((each) => needed.add(each)));
    this.#only('dead-first', last(dying), needed);

    const displays = this.policy.display === 'on-flexes' ? [] : lifts((part) => this.hasWorkBeneath(part));
    displays.forEach((at) => this.#needs(at).forEach((each) => needed.add(each)));
    this.#only('display-off', last(displays), needed);

    this.#partByPart(new Set(dying));
    return [...this.faults];
  }

  /** The operations by which the device becomes dead, where the plan makes it so. */
  #dying(): number[] {
    let state = this.start;
    const { alone, jointly, battery } = this.mechanism.isolation;
    const found: number[] = [];
    for (const [at, op] of this.ops.entries()) {
      if (isDead(this.mechanism, state)) break;
      state = applied(this.mechanism, state, op);
      const isolates = op.kind === 'release' ? [...alone, ...jointly].includes(op.joint) : op.part === battery;
      if (isolates) found.push(at);
    }
    return isDead(this.mechanism, state) ? found : [];
  }

  /** Until this place nothing but what is needed, and single-use parts that were used up by it. */
  #only(rule: string, until: number, needed: ReadonlySet<number>): void {
    for (let at = 0; at < until; at++) {
      if (!needed.has(at) && !this.#usesUp(at)) this.#fault(rule, this.ops[at]!, at);
    }
  }

  #usesUp(at: number): boolean {
    const op = this.ops[at]!;
    const isUsed = (part: number) => this.mechanism.map.parts[part]!.reuse === 'single-use';
    return op.kind === 'release' ? this.mechanism.held[op.joint]!.some(isUsed) : isUsed(op.part);
  }

  /** What a goal needs of the plan, by place: what is left when everything that it can do without is taken away. */
  #needs(goal: number): Set<number> {
    const among = (dropped: readonly number[]) => {
      let kept = Array.from({ length: goal + 1 }, (_, at) => at);
      for (const each of dropped) {
        const without = kept.filter((at) => at !== each);
        const ops = without.map((at) => this.ops[at]!);
        if (each !== goal && this.reaches(ops, this.ops[goal]!)) kept = without;
      }
      return kept;
    };
    const places = Array.from({ length: goal }, (_, at) => at);
    // of alternatives either is taken for needed
    const found = new Set(someOrders(places).flatMap(among));
    // what is lifted is opened on the way, also where the plan opens it by itself
    const lifted = [...found].map((at) => this.ops[at]!).flatMap((op) => (op.kind === 'lift' ? [op.part] : []));
    this.ops.forEach((op, at) => at < goal && op.kind === 'open' && lifted.includes(op.part) && found.add(at));
    return found;
  }

  #fault(rule: string, op: PhysicalOp, at: number): void {
    const thing = 'joint' in op ? this.mechanism.map.joints[op.joint]!.id : this.mechanism.map.parts[op.part]!.id;
    this.faults.push(`${rule}: ${op.kind}:${thing} at ${at}`);
  }

  /** Between two goal steps only releases that the later one needs, or that share its warming. */
  #partByPart(isolating: ReadonlySet<number>): void {
    const isMove = (at: number) => this.ops[at]!.kind !== 'release';
    const needs = new Map([...this.ops.keys()].map((at) => [at, this.#needs(at)]));
    const neededByMove = new Set([...this.ops.keys()].filter(isMove).flatMap((at) => [...needs.get(at)!]));
    let since = 0;
    for (const at of this.ops.keys()) {
      if (!isMove(at) && !isolating.has(at) && neededByMove.has(at)) continue;
      for (let between = since; between < at; between++) {
        const shares = [...needs.get(at)!].some((each) => this.#sharesWarming(between, each));
        if (!needs.get(at)!.has(between) && !shares && !this.#usesUp(at))
          this.#fault('part-by-part', this.ops[between]!, between);
      }
      since = at + 1;
    }
  }

  #sharesWarming(a: number, b: number): boolean {
    const group = (at: number) => {
      const op = this.ops[at]!;
      const bond = op.kind === 'release' ? this.mechanism.map.joints[op.joint]! : undefined;
      return bond?.type === 'bond' ? bond.heatGroup : undefined;
    };
    return group(a) !== undefined && group(a) === group(b);
  }
}

function last(places: readonly number[]): number {
  return Math.max(-1, ...places);
}
