import type { JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { clock } from '../app/format.ts';
import { eventLine } from '../record/event-words.ts';

/** What was done, the newest first; the one looked at is marked. */
export function LookBack({
  map,
  state,
  back,
}: {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly back: number;
}) {
  const events = state.events.toReversed();
  const at = Math.min(back, events.length) - 1;
  return (
    <section aria-label="Looking back" className="flex flex-col gap-3 p-6">
      <h1 className="text-far font-bold">Looking back</h1>
      {events.length === 0 && <p className="text-lead text-quiet">Nothing was done yet.</p>}
      <ol>
        {events.slice(Math.max(0, at - 3), at + 9).map((event) => (
          <li
            key={event.id}
            aria-current={event === events[at]}
            className={`flex gap-4 border-b border-hair py-1.5 text-body ${event === events[at] ? 'font-bold text-now' : ''}`}
          >
            <time className="text-quiet" dateTime={event.at}>
              {clock(event.at)}
            </time>
            <span>{eventLine(map, event)}</span>
          </li>
        ))}
      </ol>
      <p className="text-body text-quiet">Home or Escape goes back to the step in hand.</p>
    </section>
  );
}
