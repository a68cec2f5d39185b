import type { JobState } from '../../job/state/index.ts';
import { type Keyless, NOTHING_ASKED, type Question, withKeys } from '../question/index.ts';
import { heatOff } from './heat-off.ts';

/** While it is not known what comes next nothing is in hand. */
export function planning(): Question {
  return { ...NOTHING_ASKED, id: 'planning', title: 'Planning from here' };
}

/** Stopped or ended: nothing of the plan can be done, and the lead decides. */
export function whileHeld(state: JobState, now: number): Question {
  const { stopped, ended } = state;
  const lead: Keyless = {
    id: 'lead',
    label: 'The lead decides',
    weight: 'plain',
    gives: { kind: 'ask', about: 'lead' },
  };
  const record: Keyless = { id: 'record', label: 'Record', weight: 'plain', gives: { kind: 'go', to: 'record' } };
  return {
    ...NOTHING_ASKED,
    id: ended ? 'ended' : 'stopped',
    place: ended ? 'Ended' : 'Stopped',
    title: ended ? 'Ended by the lead' : 'Stopped',
    answers: withKeys(stopped && !ended ? [...heatOff(state, now, 'plain'), lead] : [record]),
  };
}
