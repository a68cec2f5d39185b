import { notInMap, wrong } from '../../model/refusal/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { fitRim } from '../../fitting/rim/index.ts';
import type { BenchEvent, ClosingEventData } from '../events/index.ts';
import { type JobState, type Outcome, withKey } from '../state/index.ts';

export type ClosingEvent = Extract<BenchEvent, { type: keyof ClosingEventData }>;

/** What is told once a device is closed. */
export function atClosing(mechanism: Mechanism, state: JobState, event: ClosingEvent): Outcome {
  switch (event.type) {
    case 'flush':
      return felt(mechanism, state, event.data);
    case 'photos-chosen':
      return chosen(state, event.data);
    case 'handed-over':
      return { state: { ...state, handedOver: { ...event.data, at: event.at, by: event.by } } };
  }
}

function felt(mechanism: Mechanism, state: JobState, { part, points }: ClosingEventData['flush']): Outcome {
  if (!mechanism.part.has(part)) return { problem: notInMap('part', 'part', part) };
  const fit = points.length === 0 ? null : fitRim({ points });
  return { state: { ...state, flush: withKey(state.flush, part, fit?.kind === 'flush' ? null : fit) } };
}

function chosen(state: JobState, { photos }: ClosingEventData['photos-chosen']): Outcome {
  const known = new Set(state.photos.map(({ shown }) => shown));
  const none = photos.find((each) => !known.has(each));
  if (none !== undefined) return { problem: wrong('photos', `This repair has no picture ${none}.`) };
  return { state: { ...state, chosenPhotos: photos } };
}
