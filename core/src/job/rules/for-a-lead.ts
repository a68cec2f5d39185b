import { type BenchEvent, EVENTS } from '../events/index.ts';
import type { JobState } from '../state/index.ts';

/** What an event says that only a lead may say; null where anybody may. Begins a sentence. */
export function forALead(state: JobState, event: BenchEvent): string | null {
  const { saidBy, handedOver } = EVENTS[event.type];
  if (state.handedOver && handedOver === 'by-lead') {
    return 'What was recorded of a device that was handed over is for a lead to take back (a note adds to it)';
  }
  switch (saidBy) {
    case 'anyone':
      return event.type === 'aired' && event.data.anyway !== undefined
        ? 'A bench that was not aired for long enough is for a lead to clear'
        : null;
    case 'lead':
      return event.type === 'clear'
        ? 'A stop is for a lead to clear'
        : 'An iron or welder at a cell is for a lead to allow';
    case 'lead-once-begun':
      if (state.stopped) return 'What is stopped is for a lead to end';
      return state.done.length > 0 || state.finished
        ? 'What was begun is closed up and finished, or ended by a lead'
        : null;
  }
}
