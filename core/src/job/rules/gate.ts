import { jointById, partById } from '../../model/device-map/index.ts';
import { type Problem, wrong } from '../../model/refusal/index.ts';
import { opId } from '../../planner/drafts/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import type { DoneOp } from '../../planner/plan/index.ts';
import { partName } from '../../planner/words/index.ts';
import { settled } from '../../model/policy/index.ts';
import type { Target } from '../../planner/search/index.ts';
import { benchItems, certainCuts, chargeNeed, chargeSchool, tellAnyhow } from '../../workshop/prepare/index.ts';
import { heldParts, notAccepted } from './desk.ts';
import { isChargeSettled, isNewReading } from './charge-rule.ts';
import type { BenchEvent, DoneStep, EventData } from '../events/index.ts';
import { type JobState, targetsLeft } from '../state/index.ts';
import { stepOf } from './taking-apart.ts';

/**
 * Nothing of a closed device is opened before the bench is prepared; trays and cards, which come out first anyway, may.
 * What happened all the same is recorded with `anyway`, and then the gate is behind.
 */
export function notPrepared(mechanism: Mechanism, state: JobState, event: BenchEvent): Problem | null {
  if (!OPENS.has(event.type)) return null;
  const given = event as BenchEvent & { type: 'did' | 'screw' | 'heat-on' | 'edge' | 'solvent' | 'came-off' };
  const steps =
    given.type === 'did'
      ? given.data.steps
      : [given.type === 'came-off' ? stepOf(given.data) : releaseOf(given.data.joint)];
  if (steps.some((step) => step.id === 'prepare')) {
    return wrong('', 'The bench is not prepared by ticking a step.', 'Say what was prepared (`prepared`).');
  }
  if (given.type === 'did' && given.data.anyway !== undefined) return null;
  if (isPrepared(mechanism, state)) return null;
  for (const step of steps) {
    if (step.kind === 'procedure') continue;
    const id = step.part ?? jointById(mechanism.map, step.joint)?.holds[0];
    if (!comesOutFirst(mechanism, id)) {
      return wrong(
        '',
        `Not yet: ${id ? partName(mechanism.map, id) : step.id}.`,
        'First prepare the bench, a few presses.',
      );
    }
  }
  return null;
}

/**
 * What a gate lacks that is shown: things of the bench that are neither so nor left out with a reason, the charge, what
 * the owner has to know. Held against the map's hazards and the targets; no plan is asked.
 */
export function notShown(mechanism: Mechanism, state: JobState, shown: EventData['prepared']): Problem | null {
  const { map } = mechanism;
  const targets = targetsForNow(mechanism, state);
  const { policy } = settled(map, state.policy);
  const settledItems = new Set([...shown.items, ...shown.skipped.map(({ item }) => item)]);
  const lacking = benchItems(map, targets, { ...policy, ...state.limits }).filter(
    ({ id, title }) => !settledItems.has(id) && !settledItems.has(title),
  );
  if (lacking.length > 0) {
    const list = lacking.map(({ id, title }) => `${title} (${id})`).join('; ');
    return wrong('items', `Not prepared yet: ${list}.`, 'Do it, or skip it with a reason.');
  }
  const held = isDrying(state) ? [] : heldParts(mechanism, state);
  if (held.length > 0) {
    const why = held.map((id) => notAccepted(mechanism, state, id)!.message).join(' ');
    return wrong('parts', why, 'Decide about it at the parts desk, or close up without it.');
  }
  const charge = shown.charge ?? state.charges.at(-1)?.charge ?? null;
  const isSettled = isChargeSettled(state) && !isNewReading(state, shown);
  const cuts = certainCuts(map, targets, policy);
  const need = isSettled ? null : chargeNeed(map, cuts, chargeSchool(map, state.targets, policy), state.limits, charge);
  if (need && !(isDrying(state) && need.way === 'charge-up')) {
    const read = charge === null ? 'Nobody has read it. ' : '';
    return wrong('charge', `${read}${need.why}`, 'Read it and put it right, or decide about it with the reason.');
  }
  if (isDrying(state)) return null;
  const told = new Set([...(state.agreed?.items ?? []), ...(shown.told ?? [])]);
  const untold = tellAnyhow(map, targets).filter((text) => !told.has(text));
  return untold.length > 0 ? wrong('told', 'The owner was not told all of it.', `Say: ${untold.join(' ')}`) : null;
}

/** A wet device has its battery taken off, and nothing else, until it was washed, dried and tried. */
export function isDrying({ wet }: JobState): boolean {
  return wet !== null && wet.decided === null;
}

/** What is planned for now. */
export function targetsForNow(mechanism: Mechanism, state: JobState): readonly Target[] {
  const { battery } = mechanism.map;
  return isDrying(state) && battery ? [{ remove: battery.part }] : targetsLeft(mechanism, state);
}

/** What begins to open a device. */
const OPENS: ReadonlySet<string> = new Set(['did', 'screw', 'heat-on', 'edge', 'solvent', 'came-off']);

/** A screw that is laid, a bond that is warmed, an edge that is cut is the beginning of its joint's release. */
function releaseOf(joint: string): DoneStep {
  return { id: opId('release', joint), kind: 'release', joint };
}

/** Is the gate behind: passed, or the device open already? */
export function isPrepared(mechanism: Mechanism, state: JobState): boolean {
  return state.steps.has('prepare') || state.done.some((op) => !comesOutFirst(mechanism, thingOf(mechanism, op)));
}

function thingOf(mechanism: Mechanism, op: DoneOp): string | undefined {
  return op.part ?? jointById(mechanism.map, op.joint)?.holds[0];
}

function comesOutFirst(mechanism: Mechanism, part: string | undefined): boolean {
  return partById(mechanism.map, part)?.removeFirst === true;
}
