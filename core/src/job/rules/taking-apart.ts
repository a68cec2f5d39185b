import { wrong } from '../../model/refusal/index.ts';
import { opId } from '../../planner/drafts/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import type { TeardownEventData } from '../../teardown/record/index.ts';
import type { BenchEvent, DoneStep } from '../events/index.ts';
import type { JobState, Outcome } from '../state/index.ts';
import { did } from './steps.ts';

export type TeardownEvent = Extract<BenchEvent, { type: keyof TeardownEventData }>;

/**
 * What was told of a device that is taken apart without a map. The map has it already (`mapAsTold`); here it is done on the
 * device, as it was done, whatever a guess says.
 */
export function atTeardown(mechanism: Mechanism, state: JobState, event: TeardownEvent): Outcome {
  if (state.teardown === 'none' && event.type !== 'take-apart')
    return { problem: wrong('', 'This device is not being taken apart.', 'Say first that it is (`take-apart`).') };
  switch (event.type) {
    case 'take-apart':
      return { state: { ...state, teardown: 'on' } };
    case 'came-off': {
      const step = stepOf(event.data);
      // what makes no joint of the map yet is told again with what it held
      const outcome = did(mechanism, state, { steps: [step], anyway: 'told' });
      return 'state' in outcome ? outcome : { state };
    }
    case 'put-together':
      // what was to be taken apart is: what else was asked for stands
      return { state: { ...state, teardown: 'over', targets: state.targets.filter((each) => !('full' in each)) } };
    case 'stuck':
    case 'what-held':
    case 'described':
    case 'layer':
    case 'first-seen':
      return { state };
  }
}

/** What came off as the step that it was. */
export function stepOf({ joint, part, to }: TeardownEventData['came-off']): DoneStep {
  if (joint !== undefined) return { id: opId('release', joint), kind: 'release', joint };
  const kind = to === 'open' ? 'open' : 'lift';
  return { id: opId(kind, part), kind, part };
}
