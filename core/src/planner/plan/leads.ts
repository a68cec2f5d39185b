import { applied, type DeviceState, isDead, type Mechanism, numberedOp } from '../holds/index.ts';
import type { Op } from '../drafts/index.ts';

/**
 * Says of each lead that is taken off a live device which of how many it is: with two, the device is live until both are
 * off; where it is dead already, by a jumper or a cell that is out, nothing is said.
 */
export function withLeads(mechanism: Mechanism, start: DeviceState, ops: readonly Op[]): Op[] {
  const { joint: numberOf, isolation } = mechanism;
  const isLead = new Set([...isolation.alone, ...isolation.jointly]);
  let state = start;
  return ops.map((op) => {
    if (op.kind === 'procedure') return op;
    const wasDead = isDead(mechanism, state);
    state = applied(mechanism, state, numberedOp(mechanism, { ...op, kind: op.kind }));
    const joint = op.kind === 'release' ? numberOf.get(op.joint!)! : -1;
    if (wasDead || !isLead.has(joint)) return op;
    const of = isolation.jointly.length;
    const nth = isDead(mechanism, state) ? of : isolation.jointly.filter((each) => state.released[each]).length;
    return { ...op, lead: { nth, of } };
  });
}
