import type { Op } from '../../planner/drafts/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { isChargeSettled, isPrepared, runDownFor, targetsForNow } from '../../job/rules/index.ts';
import { type JobState } from '../../job/state/index.ts';
import type { Plan } from '../../planner/plan/index.ts';
import { settled } from '../../model/policy/index.ts';
import {
  agreeOp,
  certainCuts,
  type ChargeNeed,
  chargeNeed,
  chargeOp,
  chargeSchool,
  type OwnerItem,
  ownerMustKnow,
  prepareOp,
  tellAnyhow,
} from '../../workshop/prepare/index.ts';

/** What has to be settled before a device is opened. */
export interface BeforeOpening {
  readonly ops: readonly Op[];
  /** what has to happen to the charge first; null where it is right */
  readonly charge: ChargeNeed | null;
  /** what the owner must know, and which of it was not agreed yet */
  readonly owner: readonly OwnerItem[];
  readonly untold: readonly OwnerItem[];
}

/** A wet device is not switched on to run it down. */
const WET = { seconds: null, why: 'It is wet and stays off: say who decides to open it with the charge as it is.' };

/** What stands before a closed device is opened: the owner's word, the charge, the bench. */
export function beforeOpening(mechanism: Mechanism, state: JobState, plan: Plan, drying: boolean): BeforeOpening {
  const { map } = mechanism;
  const failing = state.tests.flatMap((each) =>
    each.stage === 'intake' && each.result === 'fails' ? [each.function] : [],
  );
  const owner = drying ? [] : ownerMustKnow(map, plan, state.targets, state.parts, failing);
  const told = new Set(state.agreed?.items);
  const untold = state.steps.has('agree') && !state.agreed ? [] : owner.filter(({ text }) => !told.has(text));
  const isClosed = !isPrepared(mechanism, state);
  const { policy } = settled(map, state.policy);
  const last = state.charges.at(-1)?.charge ?? null;
  const needFor = (cuts: Parameters<typeof chargeNeed>[1]) =>
    chargeNeed(map, cuts, chargeSchool(map, state.targets, policy), state.limits, last);
  // what the plan cuts, and what the gate asks for without a plan; a cut that is still to come asks whenever it comes up,
  // and a device that is wet or open is not charged
  const wanted =
    isClosed && !drying
      ? (needFor(plan.strip) ?? needFor(certainCuts(map, targetsForNow(mechanism, state), policy)))
      : runDownFor(mechanism, state, plan.strip);
  const charge = isChargeSettled(state) || !wanted ? null : drying ? { ...wanted, ...WET } : wanted;
  // nobody waits for a wet device: what its charge is, or who opens it all the same, is said with the bench
  const waits = charge && !drying && !state.steps.has(charge.way) ? [chargeOp(charge)] : [];
  // what changed half way is told as well, once the owner had been asked
  const anyhow = new Set(tellAnyhow(map, state.targets));
  const wasAsked = isClosed || state.agreed !== null;
  const asks = untold.some(({ text }) => wasAsked || (anyhow.has(text) && !state.prepared?.told?.includes(text)));
  const opens = isClosed && plan.strip.length > 0;
  return {
    ops: [...(asks ? [agreeOp(untold.length)] : []), ...waits, ...(opens ? [prepareOp()] : [])],
    charge,
    owner,
    untold,
  };
}
