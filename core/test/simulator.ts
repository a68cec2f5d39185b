import type { DeviceMap, Joint, UnderEntry } from '../src/model/device-map/index.ts';

/**
 * Plays operations back by the rules of docs/device-map.md. Written apart from the planner and from `holds`, by ids and
 * sets, so that the two can disagree. Slow and plain on purpose.
 */
export interface Played {
  kind: string;
  joint?: string;
  part?: string;
  onto?: string;
  live?: boolean;
}

export class Simulator {
  readonly map: DeviceMap;
  readonly base: string;
  off = new Set<string>();
  open = new Set<string>();
  released = new Set<string>();
  place = new Map<string, string>();
  /** also what came to ride on an open part has to be free of what lies over it, as a plan asks */
  freeRiders = false;

  constructor(map: DeviceMap) {
    this.map = map;
    this.base = map.parts.find((each) => each.base)!.id;
    for (const each of map.parts) this.place.set(each.id, this.base);
  }

  copy(): Simulator {
    const other = new Simulator(this.map);
    other.off = new Set(this.off);
    other.open = new Set(this.open);
    other.released = new Set(this.released);
    other.place = new Map(this.place);
    other.freeRiders = this.freeRiders;
    return other;
  }

  /** Why the operation may not be done now; null where it may. */
  objection(op: Played): string | null {
    switch (op.kind) {
      case 'release':
        return this.mayRelease(op.joint!);
      case 'open':
        return this.mayOpen(op.part!);
      case 'lift':
        return this.mayLift(op.part!);
      case 'make':
      case 'close':
      case 'fit':
        return this.mayGoBack(op);
      default:
        return `unknown kind ${op.kind}`;
    }
  }

  apply(op: Played, closesLater = false): void {
    if (op.kind === 'release') this.released.add(op.joint!);
    if (op.kind === 'make') this.released.delete(op.joint!);
    if (op.kind === 'open') this.open.add(op.part!);
    if (op.kind === 'close') this.open.delete(op.part!);
    if (op.kind === 'lift') {
      for (const each of this.carried(op.part!)) this.place.set(each, op.part!);
      this.open.delete(op.part!);
      this.off.add(op.part!);
    }
    if (op.kind === 'fit') {
      const to = this.place.get(op.onto ?? this.base)!;
      for (const [each, where] of this.place) if (where === op.part) this.place.set(each, to);
      this.off.delete(op.part!);
      if (closesLater) this.open.add(op.part!);
    }
  }

  carried(part: string): Set<string> {
    const inside = new Set([part]);
    for (let grew = true; grew;) {
      grew = false;
      for (const { id } of this.map.parts) {
        if (inside.has(id) || id === this.base || this.off.has(id) || this.place.get(id) !== this.place.get(part))
          continue;
        if (this.deciders(id).every((joint) => inside.has(joint.to))) {
          inside.add(id);
          grew = true;
        }
      }
    }
    return inside;
  }

  deciders(part: string): Joint[] {
    const own = this.map.joints.filter((each) => each.holds.includes(part));
    const made = own.filter((each) => !this.released.has(each.id));
    const firm = made.filter(
      (each) =>
        ['screw', 'clip', 'bond'].includes(each.type) &&
        !selfParts(each) &&
        !(each.type === 'bond' && each.style === 'tape'),
    );
    if (firm.length > 0) return firm;
    const wired = made.filter((each) => each.type === 'solder' || each.type === 'hinge');
    if (wired.length > 0) return wired;
    const mechanical = own.filter((each) => ['screw', 'clip', 'bond', 'seat'].includes(each.type));
    return mechanical.length > 0 ? mechanical : own;
  }

  holdsUnder(entry: UnderEntry, place: string, host: string): boolean {
    if ('joint' in entry && entry.joint !== undefined) {
      const joint = this.joint(entry.joint);
      return this.released.has(joint.id) || this.place.get(joint.to) !== place;
    }
    const { part, until } = entry as { part: string; until: string };
    if (this.off.has(part) || this.place.get(part) !== place) return true;
    if (until === 'off') return false;
    if (this.open.has(part)) return true;
    return [...this.open, ...this.off].some((carrier) => {
      if (carrier === part) return false;
      const along = this.carried(carrier);
      const isHeld = () =>
        this.made(along, place).some((each) => !isTether(each) && [...each.holds, each.to].includes(part));
      const isFree = () => !this.freeRiders || (!this.coveredAsMapped(part, along, place, carrier) && !isHeld());
      return along.has(part) && !along.has(host) && isFree();
    });
  }

  private coveredAsMapped(...asked: Parameters<Simulator['covered']>): string | null {
    this.freeRiders = false;
    const covered = this.covered(...asked);
    this.freeRiders = true;
    return covered;
  }

  /** What lies over one of the parts that leave together, as text. */
  covered(part: string, inside: Set<string>, place: string, carrier: string): string | null {
    for (const entry of this.map.parts.find(({ id }) => id === part)!.under ?? []) {
      if (part !== carrier) {
        if ('part' in entry && inside.has(entry.part)) continue;
        if ('joint' in entry && entry.joint !== undefined) {
          const joint = this.joint(entry.joint);
          if ([...joint.holds, joint.to].some((end) => inside.has(end))) continue;
        }
      }
      if (!this.holdsUnder(entry, place, carrier)) return `${part} lies under ${JSON.stringify(entry)}`;
    }
    return null;
  }

  dead(): boolean {
    if (!this.map.battery) return true;
    const isolating = this.map.joints.filter((each) => each.type === 'connector' && each.isolates && !selfParts(each));
    const alone = isolating.filter((each) => each.type === 'connector' && each.isolates === 'alone');
    const together = isolating.filter((each) => !alone.includes(each));
    if (alone.some((each) => this.released.has(each.id))) return true;
    if (together.length > 0) return together.every((each) => this.released.has(each.id));
    return isolating.length === 0 && this.off.has(this.map.battery.part);
  }

  asksIsolation(joint: Joint): boolean {
    const { battery } = this.map;
    if (!battery || selfParts(joint) || joint.type === 'hinge') return false;
    if (joint.type === 'connector' && joint.isolates) return false;
    const byJoint = this.map.joints.some((each) => each.type === 'connector' && each.isolates && !selfParts(each));
    const cells = this.map.parts
      .filter((each) => each.kind === 'battery' || each.id === battery.part)
      .map((each) => each.id);
    if (joint.type === 'connector' || joint.type === 'solder') {
      if (!byJoint && joint.holds.includes(battery.part)) return false;
    } else if (!byJoint || !joint.holds.some((each) => cells.includes(each))) return false;
    return !cells.every((cell) => this.place.get(cell) !== this.place.get(joint.to));
  }

  mayRelease(id: string, isolation = true): string | null {
    const joint = this.joint(id);
    if (this.released.has(id)) return `${id} is released already`;
    if (joint.type === 'hinge' || selfParts(joint)) return `${id} is never released`;
    const place = this.place.get(joint.to)!;
    const held = (joint.under ?? []).find((entry) => !this.holdsUnder(entry, place, joint.to));
    if (held) return `${id} waits for ${JSON.stringify(held)}`;
    if (isolation && this.asksIsolation(joint) && !this.dead() && this.couldBeDeadWithout(id)) return `${id} is live`;
    return null;
  }

  /** Could the device be made dead with this joint left alone, and isolation asked of nothing? */
  couldBeDeadWithout(id: string): boolean {
    const trial = this.copy();
    for (let moved = true; moved && !trial.dead();) {
      moved = false;
      for (const each of this.map.joints) {
        if (each.id === id || trial.mayRelease(each.id, false) !== null) continue;
        trial.apply({ kind: 'release', joint: each.id });
        moved = true;
      }
      for (const each of this.map.parts) {
        if (each.base || trial.off.has(each.id)) continue;
        const kind = trial.mayLift(each.id) === null ? 'lift' : trial.mayOpen(each.id) === null ? 'open' : null;
        if (!kind) continue;
        trial.apply({ kind, part: each.id });
        moved = true;
      }
    }
    return trial.dead();
  }

  made(inside: Set<string>, place: string): Joint[] {
    return this.map.joints.filter((each) => {
      if (this.released.has(each.id) || selfParts(each)) return false;
      const ends = [...each.holds, each.to];
      return (
        ends.some((end) => inside.has(end)) && ends.some((end) => !inside.has(end) && this.place.get(end) === place)
      );
    });
  }

  mayOpen(part: string, tethersToo = false): string | null {
    if (this.off.has(part) || this.open.has(part) || part === this.base) return `${part} is not seated`;
    const inside = this.carried(part);
    const place = this.place.get(part)!;
    const made = this.made(inside, place).filter((each) => tethersToo || !isTether(each));
    if (made.length > 0) return `${part} is held by ${made.map((each) => each.id).join(', ')}`;
    for (const each of inside) {
      const covered = this.covered(each, inside, place, part);
      if (covered) return covered;
    }
    return null;
  }

  mayLift(part: string): string | null {
    if (this.off.has(part)) return `${part} is off already`;
    if (!this.open.has(part)) return this.mayOpen(part, true);
    const inside = this.carried(part);
    const place = this.place.get(part)!;
    for (const each of this.freeRiders ? inside : []) {
      const covered = this.covered(each, inside, place, part);
      if (covered) return covered;
    }
    const made = this.made(inside, place);
    return made.length > 0 ? `${part} is tethered by ${made.map((each) => each.id).join(', ')}` : null;
  }

  /** The rebuild is the exact reverse: legal where undoing it would be, and would lead back here. */
  mayGoBack(op: Played): string | null {
    const trial = this.copy();
    if (op.kind === 'make') {
      const joint = this.joint(op.joint!);
      if (!this.released.has(joint.id)) return `${joint.id} is made already`;
      const apart = joint.holds.find((each) => this.place.get(each) !== this.place.get(joint.to));
      if (apart) return `${joint.id} can't be made, ${apart} lies elsewhere`;
      trial.apply(op);
      return trial.mayRelease(joint.id);
    }
    if (op.kind === 'close') {
      if (!this.open.has(op.part!)) return `${op.part} is not open`;
      trial.apply(op);
      return trial.mayOpen(op.part!);
    }
    if (!this.off.has(op.part!)) return `${op.part} is not off`;
    trial.apply(op, true);
    const objection = trial.mayLift(op.part!);
    if (objection) return objection;
    trial.apply({ kind: 'lift', part: op.part! });
    const moved = [...this.place].find(([each, where]) => trial.place.get(each) !== where);
    return moved ? `lifting ${op.part} again would not leave ${moved[0]} where it is` : null;
  }

  joint(id: string): Joint {
    return this.map.joints.find((each) => each.id === id)!;
  }
}

function isTether({ type }: Joint): boolean {
  return ['connector', 'solder', 'hinge'].includes(type);
}

export function selfParts(joint: Joint): boolean {
  if (joint.type === 'seat') return true;
  if (joint.type === 'connector') return joint.style === 'spring' || joint.style === 'blind';
  return joint.type === 'bond' && (joint.style === 'thermal' || joint.style === 'gasket');
}

/** Plays physical operations; returns what was wrong with them, as text. */
export function violations(simulator: Simulator, ops: readonly Played[]): string[] {
  const found: string[] = [];
  ops.forEach((op, index) => {
    const objection = simulator.objection(op);
    if (objection) found.push(`${op.kind} ${op.joint ?? op.part}: ${objection}`);
    const later = ops.slice(index + 1).some((each) => each.kind === 'close' && each.part === op.part);
    simulator.apply(op, later);
    if (op.kind === 'fit' && !later) {
      const seated = simulator.copy();
      const undone = seated.mayLift(op.part!);
      if (undone) found.push(`fit ${op.part} in one movement: ${undone}`);
    }
  });
  return found;
}
