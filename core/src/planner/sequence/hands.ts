import type { Face, Point } from '../../model/device-map/index.ts';
import { isStripOp, type PhysicalOp, type StripOp } from '../holds/index.ts';
import type { Chosen } from './needed.ts';
import { centreOf, distance, placeOf } from './place.ts';

/** What hands are told of the operations before they begin. */
export interface HandsTask {
  readonly chosen: Chosen;
  /** per operation: null is by hand, or any face */
  readonly tools: readonly (string | null)[];
  readonly faces: readonly (Face | null)[];
  /** what was done before, the last one last */
  readonly history: readonly PhysicalOp[];
  readonly toolInHand: string | null;
}

/** Where the hands are: at which place, over which face, with which tool. They choose what is nearest to that. */
export class Hands {
  readonly #task: HandsTask;
  readonly #ids: readonly string[];
  readonly #places: readonly Point[];
  #at: Point;
  #face: Face | null;
  #tool: string | null;

  constructor(task: HandsTask) {
    const { chosen, history, toolInHand } = task;
    const { mechanism, precedence } = chosen;
    const { map } = mechanism;
    const done = history.filter(isStripOp);
    const thingOf = (op: StripOp) => (op.kind === 'release' ? map.joints[op.joint]! : map.parts[op.part]!);
    this.#task = task;
    this.#ids = precedence.ops.map((op) => thingOf(op).id);
    this.#places = precedence.ops.map((op) => placeOf(mechanism, op));
    this.#at = done.length > 0 ? placeOf(mechanism, done.at(-1)!) : centreOf(map);
    this.#face = done.map((op) => thingOf(op).face).findLast((face) => face !== 'edge') ?? null;
    this.#tool = toolInHand;
  }

  moveTo(op: number): void {
    const { tools, faces } = this.#task;
    this.#at = this.#places[op]!;
    this.#tool = tools[op] ?? this.#tool;
    const face = faces[op];
    if (face && face !== 'edge') this.#face = face;
  }

  /** Does the face that is up show it? */
  isShown(op: number): boolean {
    const face = this.#task.faces[op]!;
    return face === null || face === 'edge' || this.#face === null || face === this.#face;
  }

  nearest(ops: readonly number[], from = this.#at): number {
    return best(ops, (op) => [distance(from, this.#places[op]!), this.#ids[op]!, this.#kind(op)]);
  }

  /** Connectors before fasteners, then the tool in hand, then the nearest. */
  handiest(ops: readonly number[]): number {
    const { chosen, tools } = this.#task;
    const kindRank = (op: number) => {
      const each = chosen.precedence.ops[op]!;
      return each.kind === 'release' && chosen.mechanism.map.joints[each.joint]!.type === 'connector' ? 0 : 1;
    };
    const needsTool = (op: number) => (tools[op] === null || tools[op] === this.#tool ? 0 : 1);
    return best(ops, (op) => [
      kindRank(op),
      needsTool(op),
      distance(this.#at, this.#places[op]!),
      this.#ids[op]!,
      this.#kind(op),
    ]);
  }

  #kind(op: number): StripOp['kind'] {
    return this.#task.chosen.precedence.ops[op]!.kind;
  }
}

/** The one with the least key, taken figure by figure. */
function best(ops: readonly number[], keyOf: (op: number) => readonly (number | string)[]): number {
  const keyed = ops.map((op) => ({ op, key: keyOf(op) }));
  return keyed.reduce((a, b) => (isLess(b.key, a.key) ? b : a)).op;
}

function isLess(a: readonly (number | string)[], b: readonly (number | string)[]): boolean {
  const at = a.findIndex((each, index) => each !== b[index]);
  return at >= 0 && a[at]! < b[at]!;
}
