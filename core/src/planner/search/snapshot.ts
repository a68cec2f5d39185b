import {
  carried,
  type DeviceState,
  type Mechanism,
  type Rules,
  type StripOp,
  type Unmet,
  unmetFor,
} from '../holds/index.ts';
import { opKey } from './op-key.ts';

/** A device as it stands, of which the same things are asked again and again: each is found out once. */
export class Snapshot {
  readonly mechanism: Mechanism;
  readonly state: DeviceState;
  readonly rules: Rules;
  readonly #unmet = new Map<string, readonly Unmet[]>();
  readonly #carried = new Map<number, ReadonlySet<number>>();

  /** @param state that does not change while it is asked about */
  constructor(mechanism: Mechanism, state: DeviceState, rules: Rules) {
    this.mechanism = mechanism;
    this.state = state;
    this.rules = rules;
  }

  unmet(op: StripOp): readonly Unmet[] {
    const key = opKey(op);
    const found = this.#unmet.get(key) ?? unmetFor(this.mechanism, this.state, op, this.rules);
    this.#unmet.set(key, found);
    return found;
  }

  carried(part: number): ReadonlySet<number> {
    const found = this.#carried.get(part) ?? carried(this.mechanism, this.state, part);
    this.#carried.set(part, found);
    return found;
  }
}
