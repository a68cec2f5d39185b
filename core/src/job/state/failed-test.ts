import { type Problem, wrong } from '../../model/refusal/index.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import { type Mechanism, numberedOp } from '../../planner/holds/index.ts';
import { wayBack, wayUp } from '../../planner/drafts/index.ts';
import { settled } from '../../model/policy/index.ts';
import { lostFunctions } from '../../planner/words/index.ts';
import type { BenchEvent, DoneStep } from '../events/index.ts';
import { asItCame } from './reached.ts';
import type { JobState } from './job-state.ts';

/**
 * Functions that failed when they were tried and of which nothing newer is known: neither do they work by now, nor has
 * somebody decided about them since. What failed when the device came in is an old fault, and what this repair is known to lose is
 * expected: neither is among them.
 */
export function failedTests(map: DeviceMap, { inForce, targets }: Pick<JobState, 'inForce' | 'targets'>): string[] {
  const old = new Set<string>();
  const failed = new Set<string>();
  for (const event of inForce) {
    if (event.type === 'test') {
      const { function: id, result, stage } = event.data;
      if (stage === 'intake') {
        // what is said of the past only once it has failed here excuses nothing
        if (result !== 'fails') old.delete(id);
        else if (!failed.has(id)) old.add(id);
      } else if (result === 'fails') failed.add(id);
      // that it was not tried again says nothing
      else if (result === 'works') failed.delete(id);
    }
    if (event.type === 'decision' && event.data.about === 'failed-test') failed.delete(event.data.function!);
  }
  const lost = lostFunctions(map, targets);
  return [...failed].filter((id) => !old.has(id) && !lost.has(id));
}

/** Why a step is refused while a failed test stands: it would close the device over the fault. Never lifted by `anyway`. */
export function closesOverFault(mechanism: Mechanism, state: JobState, event: BenchEvent): Problem | null {
  if (event.type !== 'did' || !event.data.steps.some((step) => CLOSES.has(step.kind))) return null;
  const failed = failedTests(mechanism.map, state);
  if (failed.length === 0) return null;
  const closings = outerClosings(mechanism, state);
  const closes = (step: DoneStep) => CLOSES.has(step.kind) && closings.has(`${step.kind}:${step.joint ?? step.part}`);
  if (!event.data.steps.some(closes)) return null;
  const names = failed.map((id) => mechanism.map.functions.find((each) => each.id === id)?.name ?? id);
  return wrong(
    '',
    `${names.join(', ')} failed.`,
    'Before it is closed: press the plugs again and try again, or record a decision about the failed test.',
  );
}

const CLOSES: ReadonlySet<string> = new Set(['make', 'close', 'fit']);

/** What of the way back closes the device from outside, where it stands now. */
function outerClosings(mechanism: Mechanism, state: JobState): ReadonlySet<string> {
  const lacking = state.targets.flatMap((each) => ('replace' in each ? (asItCame(state, each).newLacks ?? []) : []));
  const numbers = new Set(lacking.map((id) => mechanism.joint.get(id)!));
  const history = state.done.map((op) => numberedOp(mechanism, op));
  const { display } = settled(mechanism.map, state.policy).policy;
  const back = wayBack(mechanism, state.device, history, numbers, display === 'on-flexes' ? display : 'taken-off');
  return wayUp(mechanism, back.path, (op) => back.path.before[op]!, new Set()).outerClosings;
}

/** Something that was touched in this job and serves a function that failed. */
export interface Suspect {
  readonly joint?: string;
  readonly part?: string;
  /** how often it was undone or done */
  readonly touched: number;
  /** trouble was noted at it */
  readonly troubled: boolean;
  /** nobody was sure that it clicked */
  readonly unsure: boolean;
  /** a part that went in as a new one */
  readonly isNew: boolean;
}

/** A click that nobody was sure of counts as so many touches, trouble noted as so many, a plug as so many more than a part that was only moved (guesses). */
const AS_UNSURE = 6;
const AS_TROUBLED = 3;
const AS_PLUG = 2;

/** Connectors and parts touched in this job that serve the function, the likeliest first. */
export function suspectsOf(mechanism: Mechanism, state: JobState, id: string): Suspect[] {
  const { map } = mechanism;
  const touches = (isIt: (op: JobState['done'][number]) => boolean) => state.done.filter(isIt).length;
  const troubled = (what: string) => state.troubles.some(({ data }) => data.joint === what || data.part === what);
  const serving = new Set(map.parts.flatMap((part) => (part.functions?.includes(id) ? [part.id] : [])));
  const joints = map.joints.flatMap((joint): Suspect[] => {
    if (joint.type !== 'connector' && joint.type !== 'solder') return [];
    const serves =
      joint.functions?.includes(id) || (joint.functions === undefined && joint.holds.some((each) => serving.has(each)));
    const touched = touches((op) => op.joint === joint.id);
    return serves && touched > 0
      ? [{ joint: joint.id, touched, troubled: troubled(joint.id), unsure: state.unsure.has(joint.id), isNew: false }]
      : [];
  });
  const parts = [...serving].flatMap((part): Suspect[] => {
    const touched = touches((op) => op.part === part);
    const isNew = state.done.some((op) => op.kind === 'fit' && op.part === part && op.new === true);
    return touched > 0 ? [{ part, touched, troubled: troubled(part), unsure: false, isNew }] : [];
  });
  const weight = (each: Suspect) =>
    each.touched +
    (each.unsure ? AS_UNSURE : 0) +
    (each.troubled ? AS_TROUBLED : 0) +
    (each.joint === undefined ? 0 : AS_PLUG);
  return [...joints, ...parts].toSorted((a, b) => weight(b) - weight(a));
}
