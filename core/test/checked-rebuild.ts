import {
  applied,
  copyOf,
  type DeviceState,
  inverse,
  isDead,
  isStripOp,
  OFF,
  type PhysicalOp,
  type StripOp,
} from '../src/planner/holds/index.ts';
import { CheckedWay, type CheckedOp, isPhysical, someOrders } from './checked-plan.ts';

const OUTER = ['display', 'cover', 'shell'];
const PIECES = ['mesh', 'label', 'gasket'];

/** The rebuild held against its rules. */
export class CheckedRebuild extends CheckedWay {
  check(): string[] {
    const ops = this.plan.rebuild;
    const states = [this.ops.reduce((state, op) => applied(this.mechanism, state, op), copyOf(this.start))];
    for (const op of ops) {
      const now = states.at(-1)!;
      states.push(isPhysical(op) ? applied(this.mechanism, now, this.#placed(op)) : now);
    }
    this.#deadLong(ops, states);
    this.#displayLast(ops, states);
    this.#seals(ops, states);
    this.#films(ops);
    this.#counts(ops, states);
    this.#tests(ops);
    this.#pieces(ops);
    return [...this.faults];
  }

  /** A fitted part joins the base unless the plan says what it joins, and stays open only where it says so. */
  #placed(op: CheckedOp): PhysicalOp {
    const found = this.numbered(op);
    return found.kind === 'fit' ? { ...found, staysOpen: op.staysOpen === true } : found;
  }

  /** What the rebuild undoes, as strip-down operations. */
  #undone(ops: readonly CheckedOp[]): { op: CheckedOp; down: StripOp }[] {
    return ops.filter(isPhysical).flatMap((op) => {
      const found = this.numbered(op);
      return isStripOp(found) ? [] : [{ op, down: inverse(found) }];
    });
  }

  /** Ids of the rebuild that come after this one in every order: its undoing can't be reached without theirs. */
  #follows(ops: readonly CheckedOp[], op: CheckedOp, surely = false): Set<string> {
    const all = this.#undone(ops);
    const own = all.find((each) => each.op.id === op.id)!.down;
    const among = (dropped: readonly (typeof all)[number][]) => {
      let kept = all;
      for (const each of dropped) {
        const without = kept.filter((one) => one !== each);
        if (
          each.down !== own &&
          this.reaches(
            without.map(({ down }) => down),
            own,
          )
        )
          kept = without;
      }
      return kept;
    };
    // of alternatives either may come after it
    const kept = someOrders(all).map(among);
    const inSome = new Set(kept.flat());
    const inAll = new Set(all.filter((each) => kept.every((set) => set.includes(each))));
    const found = new Set([...(surely ? inAll : inSome)].map(({ op: each }) => each.id));
    found.delete(op.id);
    for (const { op: each } of all) if (each.kind === 'close' && found.has(`fit:${each.part}`)) found.add(each.id);
    return found;
  }

  /** @param surely counts as depending on a closing only what does so in every way; more closings are outer then */
  #outerClosings(ops: readonly CheckedOp[], surely = false): Set<string> {
    const { parts, joints } = this.mechanism.map;
    const kindOf = (id: string) => parts.find((each) => each.id === id)!.kind as string;
    const isOf = (op: CheckedOp, kinds: readonly string[]) => {
      const joint = joints.find((each) => each.id === op.joint);
      if (op.kind === 'make')
        return ['screw', 'bond', 'clip'].includes(joint!.type) && joint!.holds.some((id) => kinds.includes(kindOf(id)));
      return (op.kind === 'close' || (op.kind === 'fit' && !op.staysOpen)) && kinds.includes(kindOf(op.part!));
    };
    const up = ops.filter((op) => isPhysical(op) && !['release', 'open', 'lift'].includes(op.kind));
    const onMat = this.#onMat(ops);
    const follows = new Map<string, Set<string>>();
    const after = (op: CheckedOp) =>
      follows.get(op.id) ?? follows.set(op.id, this.#follows(ops, op, surely)).get(op.id)!;
    const outer = new Set(up.filter((op) => isOf(op, OUTER) && !onMat.has(op.id)).map(({ id }) => id));
    const pieces = up.filter(
      (op) => isOf(op, PIECES) && up.some((each) => outer.has(each.id) && after(each).has(op.id)),
    );
    const found = new Set([...outer, ...pieces.map(({ id }) => id)]);
    const removed = new Set(up.filter((op) => this.#isRemovedFirst(op)).map(({ id }) => id));
    for (let size = -1; size !== found.size;) {
      size = found.size;
      for (const op of up) {
        if (found.has(op.id) && [...after(op)].some((id) => !found.has(id) && !removed.has(id))) found.delete(op.id);
      }
    }
    return found;
  }

  #isRemovedFirst(op: CheckedOp): boolean {
    const { parts, joints } = this.mechanism.map;
    const ids = op.joint ? joints.find((each) => each.id === op.joint)!.holds : [op.part!];
    return ids.every((id) => parts.find((each) => each.id === id)!.removeFirst);
  }

  /** Work on pieces that lie with another part on the mat. */
  #onMat(ops: readonly CheckedOp[]): Set<string> {
    const places = new Map<string, string>();
    const found = new Set<string>();
    for (const op of ops) {
      if (op.kind === 'fit' && op.onto) {
        found.add(op.id);
        places.set(op.part!, op.onto);
      }
      if (op.kind === 'fit' && !op.onto) places.forEach((host, part) => host === op.part && places.delete(part));
      const ids = op.joint ? this.mechanism.map.joints.find((each) => each.id === op.joint)!.holds : [op.part ?? ''];
      if ((op.kind === 'make' || op.kind === 'close') && ids.every((id) => places.has(id))) found.add(op.id);
    }
    return found;
  }

  #isolates(op: CheckedOp): boolean {
    const { alone, jointly, battery } = this.mechanism.isolation;
    const joints = [...alone, ...jointly];
    if (op.joint !== undefined) return joints.includes(this.mechanism.joint.get(op.joint)!);
    return joints.length === 0 && op.kind === 'fit' && this.mechanism.part.get(op.part!) === battery;
  }

  #endOfDead(ops: readonly CheckedOp[], states: readonly DeviceState[]): number {
    return ops.findIndex(
      (op, at) => isPhysical(op) && isDead(this.mechanism, states[at]!) && !isDead(this.mechanism, states[at + 1]!),
    );
  }

  #deadLong(ops: readonly CheckedOp[], states: readonly DeviceState[]): void {
    if (this.mechanism.isolation.battery < 0) return;
    const end = this.#endOfDead(ops, states);
    if (end < 0) return;
    const outer = this.#outerClosings(ops, true);
    const ends = ops.filter((op) => isPhysical(op) && this.#isolates(op) && op.kind !== 'release');
    const covering = new Set(ends.flatMap((op) => [...this.#follows(ops, op)]));
    for (const op of ops.slice(end + 1)) {
      if (!isPhysical(op) || outer.has(op.id) || this.#isRemovedFirst(op) || covering.has(op.id) || this.#isolates(op))
        continue;
      this.faults.push(`dead-long: ${op.id} after ${ops[end]!.id}`);
    }
  }

  #displayLast(ops: readonly CheckedOp[], states: readonly DeviceState[]): void {
    if (this.policy.display === 'on-flexes') return;
    const { map, part } = this.mechanism;
    const outer = this.#outerClosings(ops);
    const onMat = this.#onMat(ops);
    const isDisplay = (op: CheckedOp) => op.part !== undefined && map.parts[part.get(op.part)!]!.kind === 'display';
    for (const [at, op] of ops.entries()) {
      if (op.kind !== 'fit' || !isDisplay(op) || onMat.has(op.id) || outer.has(op.id)) continue;
      if (states[0]!.status[part.get(op.part!)!] !== OFF || !this.hasWorkBeneath(part.get(op.part!)!)) continue;
      const along = map.parts.filter((_, each) => states[at]!.group[each] === part.get(op.part!)!).map(({ id }) => id);
      const plugs = map.joints.filter(
        (joint) =>
          ['connector', 'solder'].includes(joint.type) && [...joint.holds, joint.to].some((id) => along.includes(id)),
      );
      const next = ops.slice(at + 1).find(isPhysical);
      const isNext = next && (plugs.some(({ id }) => next.id === `make:${id}`) || next.id === `close:${op.part}`);
      const follows = this.#follows(ops, op);
      const tied = ops.some(
        (each) =>
          isPhysical(each) && (plugs.some(({ id }) => each.id === `make:${id}`) || each.id === `close:${op.part}`),
      );
      if (tied && !isNext) this.faults.push(`display-last: ${op.id} is followed by ${next?.id}`);
      const closed = ops.findIndex((each) => each.id === `close:${op.part}`);
      for (const each of ops.slice(at + 1, closed < 0 ? at + 1 : closed)) {
        if (!isPhysical(each) || outer.has(each.id) || isDisplay(each) || this.#isolates(each)) continue;
        const isSingle = each.part !== undefined && map.parts[part.get(each.part)!]!.reuse === 'single-use';
        const ofDisplay =
          each.joint !== undefined &&
          map.joints
            .find(({ id }) => id === each.joint)!
            .holds.some((id) => map.parts[part.get(id)!]!.kind === 'display');
        const isNeeded = follows.has(each.id);
        if (!isNeeded && !isSingle && !ofDisplay && !this.#isRemovedFirst(each))
          this.faults.push(`display-last: ${each.id} while ${op.part} stands`);
      }
    }
  }

  #seals(ops: readonly CheckedOp[], states: readonly DeviceState[]): void {
    const { map } = this.mechanism;
    const outer = this.#outerClosings(ops);
    const at = (id: string) => ops.findIndex((op) => op.id === id);
    const test = at('test:before');
    for (const bond of map.joints) {
      if (bond.type !== 'bond' || at(`make:${bond.id}`) < 0) continue;
      const lay = at(`lay:${bond.id}`);
      const liner = at(`liner-off:${bond.id}`);
      const isOuter = outer.has(`make:${bond.id}`);
      if (lay >= 0 && liner >= 0 && lay > liner) this.faults.push(`seal: ${bond.id} is laid after its liner is off`);
      if (lay >= 0 && lay > at(`make:${bond.id}`)) this.faults.push(`seal: ${bond.id} is laid after it is made`);
      if (!isOuter) continue;
      const isLiquid = this.policy.closing === 'liquid' || bond.renew === 'liquid';
      if (lay >= 0 && !isLiquid && liner < 0) this.faults.push(`seal: the liner of ${bond.id} stays on`);
      if (test >= 0 && liner >= 0 && liner < test)
        this.faults.push(`seal: the liner of ${bond.id} is off before the test`);
      const closing = ops.findIndex((op, place) => place > liner && isPhysical(op));
      const down = bond.holds.flatMap((id) => [`close:${id}`, `fit:${id}`]);
      if (liner >= 0 && closing >= 0 && ![...down, `make:${bond.id}`].includes(ops[closing]!.id)) {
        this.faults.push(`seal: ${ops[closing]!.id} between the liner of ${bond.id} and its closing`);
      }
      if (this.policy.sealLaid === 'after-test' || isLiquid || lay < 0) continue;
      const stands = bond.holds
        .map((id) => at(`fit:${id}`))
        .filter((place) => place >= 0 && !outer.has(ops[place]!.id));
      if (stands.some((place) => lay > place)) this.faults.push(`seal: ${bond.id} is laid beneath what stands`);
      const end = this.#endOfDead(ops, states);
      if (end >= 0 && lay > end) this.faults.push(`seal: ${bond.id} is laid on a live device`);
    }
  }

  /** What was put on is off before it would be sealed in. */
  #films(ops: readonly CheckedOp[]): void {
    const { map } = this.mechanism;
    for (const part of map.parts) {
      const off = ops.findIndex((op) => op.id === `film-off:${part.id}`);
      const on = this.plan.strip.some((op) => op.id === `film:${part.id}`);
      if (on && off < 0) this.faults.push(`film: the film on ${part.id} stays on`);
      const over = (part.under ?? []).flatMap((entry) => ('part' in entry && entry.part ? [entry.part] : []));
      // what nothing lies over is covered where it goes down itself
      const covers = (over.length > 0 ? over : [part.id]).flatMap((id) => [`close:${id}`, `fit:${id}`]);
      const covered = ops.findIndex((op) => covers.includes(op.id) && !op.staysOpen);
      if (off >= 0 && covered >= 0 && off > covered) this.faults.push(`film: ${part.id} is covered with its film on`);
    }
  }

  #counts(ops: readonly CheckedOp[], states: readonly DeviceState[]): void {
    const { map } = this.mechanism;
    const isScrew = (op: CheckedOp) =>
      op.kind === 'make' && map.joints.find(({ id }) => id === op.joint)!.type === 'screw';
    const end = this.mechanism.isolation.battery < 0 ? -1 : this.#endOfDead(ops, states);
    const cells = ops.flatMap((op, at) =>
      op.kind === 'fit' && this.mechanism.isolation.cells.includes(this.mechanism.part.get(op.part!)!) ? [at] : [],
    );
    for (const at of [...cells, ...(end < 0 ? [] : [end])]) {
      const counted = ops.slice(0, at).findLastIndex((op) => op.name === 'count');
      const screw = ops.slice(0, at).findLastIndex(isScrew);
      if (counted < 0 || screw > counted) this.faults.push(`count: ${ops[at]!.id} goes in uncounted`);
    }
  }

  #tests(ops: readonly CheckedOp[]): void {
    const test = ops.findIndex((op) => op.id === 'test:before');
    if (test < 0) return;
    const outer = this.#outerClosings(ops);
    const perhaps = this.#outerClosings(ops, true);
    for (const [at, op] of ops.entries()) {
      if (!isPhysical(op)) continue;
      if (outer.has(op.id) && at < test) this.faults.push(`test: ${op.id} closes it before the test`);
      if (!perhaps.has(op.id) && at > test && !this.#isRemovedFirst(op))
        this.faults.push(`test: ${op.id} after the test`);
    }
  }

  /** What moves over is finished on the mat before its host goes in. */
  #pieces(ops: readonly CheckedOp[]): void {
    const fitted = new Set<string>();
    for (const op of ops) {
      if (op.kind !== 'fit') continue;
      if (op.onto !== undefined && fitted.has(op.onto)) this.faults.push(`mirror: ${op.id} after its host went in`);
      if (op.onto === undefined) fitted.add(op.part!);
    }
  }
}
