import { duration } from '@nibrel/core/planner/words';
import { type BenchEvent, lateBy_s } from '@nibrel/core/job/events';
import { cutShort, type JobState, shortWords } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { timesTaken } from '@nibrel/core/after/own-times';
import { clock, day, dayAndClock } from '../app/format.ts';
import { OnlyThis } from '../ui/only-this.tsx';
import { eventLine, stepWords } from './event-words.ts';

interface LineProps {
  readonly map: DeviceMap;
  readonly event: BenchEvent;
  /** of each of its steps */
  readonly seconds: readonly number[] | undefined;
  /** waits that it ended before their time, by their step: *0:40 of 2:00* */
  readonly short: ReadonlyMap<string, string>;
}

/** One entry; what one press joined is listed step by step, each with its time. */
function Line({ map, event, seconds, short }: LineProps) {
  const steps = event.type === 'did' && !event.unreadable && event.data.anyway === undefined ? event.data.steps : [];
  if (steps.length === 0) return eventLine(map, event);
  return (
    <ol>
      {steps.map((step, at) => (
        <li key={step.id} className="flex justify-between gap-4">
          <span>
            {stepWords(map, step)}
            {short.has(step.id) && <strong className="text-care"> · cut short, {short.get(step.id)}</strong>}
          </span>
          {/* what was ticked afterwards took nobody no time */}
          {seconds && seconds[at]! >= 1 && (
            <span className="whitespace-nowrap text-quiet">
              {steps.length > 1 ? 'about ' : ''}
              {duration(Math.round(seconds[at]!))}
            </span>
          )}
        </li>
      ))}
    </ol>
  );
}

/** All that was told in a repair, in its order; what one press joined step by step, each with its time. */
export function Happened({ map, state }: { readonly map: DeviceMap; readonly state: JobState }) {
  const undone = new Set(
    state.events.flatMap((each) => (each.type === 'undo' && !each.unreadable ? [each.data.event] : [])),
  );
  const taken = timesTaken(map, state.events);
  const short = cutShort(state);
  return (
    <>
      <table className="w-full border-collapse text-body">
        <thead>
          <tr className="border-b border-ink text-left text-note text-quiet">
            <th className="py-1 pr-4 font-normal">When</th>
            <th className="py-1 pr-4 font-normal">Who</th>
            <th className="py-1 font-normal">What</th>
          </tr>
        </thead>
        <tbody>
          {state.events.map((event) => (
            <tr key={event.id} className="border-b border-hair align-top">
              <td className="py-1 pr-4 whitespace-nowrap">
                {clock(event.at)}
                <Late event={event} />
              </td>
              <td className="py-1 pr-4">{event.by}</td>
              <td
                className={`py-1 ${undone.has(event.id) ? 'line-through' : ''} ${event.type === 'trouble' || event.type === 'stop' || event.type === 'end' ? 'font-bold text-now' : ''}`}
              >
                <OnlyThis broken="This entry can not be shown. It is kept as it is.">
                  <Line
                    map={map}
                    event={event}
                    seconds={taken.get(event.id)}
                    short={
                      new Map(short.flatMap((each) => (each.event === event.id ? [[each.step, shortWords(each)]] : [])))
                    }
                  />
                </OnlyThis>
                {undone.has(event.id) && <span className="sr-only"> (undone)</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {state.events.length === 0 && <p className="py-3 text-lead text-quiet">Nothing was done yet.</p>}
    </>
  );
}

/** Told and received far apart: which of both counts for what is said in the line that goes by it. */
function Late({ event }: { readonly event: BenchEvent }) {
  const seconds = lateBy_s(event);
  if (seconds === 0 || event.receivedAt === undefined) return null;
  const isSameDay = day(event.receivedAt) === day(event.at);
  return (
    <span className="block max-w-32 text-note whitespace-normal text-care">
      received {isSameDay ? clock(event.receivedAt) : dayAndClock(event.receivedAt)}
    </span>
  );
}
