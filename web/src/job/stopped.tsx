import { benchUnit } from '../app/units.ts';
import { stopText } from '@nibrel/core/job/rules';
import type { JobState, Stop } from '@nibrel/core/job/state';
import { clock } from '../app/format.ts';
import { Button } from '../ui/button.tsx';

interface StoppedProps {
  readonly state: JobState;
  /** where no bar of answers has it */
  onLead?(): void;
}

/** What is safe now, and who decides. Nothing of the plan can be done meanwhile. */
export function Stopped({ state, onLead }: StoppedProps) {
  const { stopped, stops, ended } = state;
  if (ended) {
    const since = stops.filter(({ at }) => Date.parse(at) > Date.parse(ended.at));
    const wasBegun = state.done.length > 0 || stops.length > since.length;
    return (
      <section aria-label="Ended" className="flex flex-col gap-4 border-l-8 border-now p-6">
        <h1 className="text-loud leading-tight font-bold text-now">
          {wasBegun ? 'Ended by the lead' : 'Ended without work'}
        </h1>
        <p className="text-lead">
          {ended.lead}, {clock(ended.at)}: {ended.text}
        </p>
        {since.map(({ id, reason, text, by, at }) => (
          <p key={id} className="text-lead font-bold text-now">
            Stopped since: {reason}
            {text ? `: ${text}` : ''}, {by}, {clock(at)}
          </p>
        ))}
        <p className="text-lead">
          Only notes are taken.{stopped && ' Local rules for lithium waste and transport decide.'}
        </p>
      </section>
    );
  }
  if (!stopped) return null;
  return (
    <section aria-label="Stopped" className="flex flex-col gap-4 border-l-8 border-now p-6">
      <h1 className="text-loud leading-tight font-bold text-now">{firstOf(stops)}</h1>
      <p className="text-lead font-bold">
        Heat and charger off. Into the sand, outdoors, if it can be carried safely. Local rules for lithium waste and
        transport decide.
      </p>
      <ul aria-label="What holds it" className="text-lead">
        {stops.map((each, at) => (
          <li key={each.id}>
            <strong>{at === 0 ? `Stopped: ${each.reason}` : `and ${each.reason}`}</strong>
            {each.text ? `${at === 0 ? ',' : ':'} ${stopText(each, benchUnit())}` : ''}. {each.by}, {clock(each.at)}
          </li>
        ))}
      </ul>
      {state.opening.heating && (
        <p className="text-lead font-bold">The heat source is still on. Take it off, then say so:</p>
      )}
      <p className="text-lead">The lead decides whether it goes on or ends here.</p>
      {onLead && (
        <Button onClick={onLead} className="self-start">
          The lead decides
        </Button>
      )}
    </section>
  );
}

/** What is done first, whatever else holds it. */
function firstOf(stops: readonly Stop[]): string {
  return stops.some(({ reason }) => reason === 'smoke') ? 'Leave it, and leave the room' : 'Hands off the cell';
}
