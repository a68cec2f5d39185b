import type { Mechanism } from '../../planner/holds/index.ts';
import { countedBudget } from '../../planner/order/index.ts';
import { type Op, opId } from '../../planner/drafts/index.ts';
import type { OwnTime } from '../../planner/plan/index.ts';
import { type Ahead, planAhead } from './ahead.ts';
import { type BenchEvent, type Job, rowOf } from '../../job/events/index.ts';
import { foldJob, foldOn } from '../../job/fold/index.ts';
import { type JobState } from '../../job/state/index.ts';

/** Steps of search that a plan at the bench may take, for a device of some hundred parts and joints. */
const STEPS = 12_000;
const USUAL_SIZE = 100;

/** The budget of every plan that a job goes by, so that all are the same; a step of a large device is a longer one. */
export function benchBudget({ map }: Mechanism) {
  const size = Math.max(1, (map.parts.length + map.joints.length) / USUAL_SIZE);
  return countedBudget(Math.ceil(STEPS / size ** 2));
}

/**
 * What is ahead after an event that went by the plan: the rest of it. Null where the event is none of the plan, which is
 * made anew from there.
 */
export function followed(ahead: Ahead, event: BenchEvent, after: JobState): Ahead | null {
  if (event.type === 'did') {
    const { steps, anyway } = event.data;
    const isNext = anyway === undefined && steps.every((step, index) => ahead.ops[index]?.id === step.id);
    return isNext ? { ...ahead, ops: ahead.ops.slice(steps.length) } : null;
  }
  if (event.type === 'aired') {
    return ahead.ops[0]?.id === event.data.step ? { ...ahead, ops: ahead.ops.slice(1) } : null;
  }
  if (event.type === 'inspected') {
    const isNext = event.data.result === 'good' && ahead.ops[0]?.id === opId('inspect', event.data.part);
    return isNext ? { ...ahead, ops: ahead.ops.slice(1) } : null;
  }
  // what works by now no longer keeps it from being closed
  if (isTurn(event) || (event.type === 'test' && ahead.failed.length > 0)) return null;
  // the last screw of a joint, the last edge of a bond, the last zone that is warmed: with it the operation is done
  const isBitByBit = event.type === 'screw' || event.type === 'edge' || event.type === 'heat-off';
  return isBitByBit && isDone(after, ahead.ops[0]) ? { ...ahead, ops: ahead.ops.slice(1) } : ahead;
}

function isDone(state: JobState, op: Op | undefined): boolean {
  return op !== undefined && state.steps.has(op.id) && !state.added.some(({ step }) => step === op.id);
}

/** Is it a step that the plan may have had next? */
function mayFollow(event: BenchEvent): boolean {
  if (rowOf(event.type)?.turnsPlan !== 'by-plan') return false;
  return event.type !== 'inspected' || event.data.result === 'good';
}

/** Does it change the plan whatever the plan is? */
function isTurn(event: BenchEvent): boolean {
  switch (rowOf(event.type)?.turnsPlan) {
    case true:
      return true;
    case 'by-plan':
      return !mayFollow(event);
    case 'as-it-says':
      return turnsAsItSays(event);
    default:
      return false;
  }
}

function turnsAsItSays(event: BenchEvent): boolean {
  // what did not work when it came in is told to the owner, and so is part of the plan
  // what fails keeps it from being closed until it works
  if (event.type === 'test') return event.data.stage === 'intake' || event.data.result === 'fails';
  return event.type !== 'decision' || !['missing-screw', 'left-open', 'other'].includes(event.data.about);
}

/** Plans that were made already, by where in a job they begin. */
export interface PlansMade {
  get(from: string): Ahead | undefined;
  set(from: string, ahead: Ahead): void;
}

/**
 * The plan that a job goes by, as a function of its events: made where something last went another way, and followed
 * from there. So it is the same in every window and after a reload, and what is undone comes back as it was.
 * @param times the workshop's own; they change no step and no order
 * @throws PlanError where the targets can't be reached from here
 */
export function aheadOf(
  mechanism: Mechanism,
  job: Job,
  events: readonly BenchEvent[],
  made: PlansMade,
  times: readonly OwnTime[] = [],
): Ahead {
  const { inForce } = foldJob(mechanism, job, events);
  const turn = inForce.findLastIndex(isTurn);
  let state = foldJob(mechanism, job, inForce.slice(0, turn + 1));
  let ahead: Ahead | null = null;
  for (const event of inForce.slice(turn + 1)) {
    if (mayFollow(event) && ahead === null) ahead = plannedFrom(mechanism, state, made, times);
    const next = foldOn(mechanism, state, [event], NONE);
    ahead = ahead && followed(ahead, event, next);
    state = next;
  }
  return ahead ?? plannedFrom(mechanism, state, made, times);
}

const NONE: ReadonlySet<string> = new Set();

function plannedFrom(mechanism: Mechanism, state: JobState, made: PlansMade, times: readonly OwnTime[]): Ahead {
  const from = `${state.inForce.length}:${state.inForce.at(-1)?.id ?? ''}`;
  const known = made.get(from);
  if (known) return known;
  const ahead = planAhead(mechanism, state, benchBudget(mechanism), times);
  made.set(from, ahead);
  return ahead;
}
