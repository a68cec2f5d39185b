import type { Ahead } from '@nibrel/core/bench/in-hand';
import type { JobState } from '@nibrel/core/job/state';
import { type DeviceMap } from '@nibrel/core/model/device-map';
import { inWords } from '@nibrel/core/planner/search';
import type { Mechanism } from '@nibrel/core/planner/holds';
import { capital, duration } from '@nibrel/core/planner/words';
import { useMemo, memo } from 'react';
import { Link } from 'react-router';
import { about, clock } from '../app/format.ts';
import { TimeBand } from '../ui/time-band.tsx';
import { comingStretches, pastStretches, secondsOf } from '../job/stretches.ts';

interface TopBandProps {
  readonly mechanism: Mechanism;
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly ahead: Ahead | null;
  readonly now: number;
  readonly person: string;
  onPerson(): void;
}

/** Past, now and next as one band, hands-on and waiting to scale. */
export const TopBand = memo(function TopBand({ mechanism, map, state, ahead, now, person, onPerson }: TopBandProps) {
  const past = useMemo(() => pastStretches(state.events), [state.events]);
  const coming = useMemo(() => comingStretches(map, ahead?.ops ?? []), [map, ahead]);
  const span = Math.max(1, secondsOf(past) + secondsOf(coming));
  const toGo = secondsOf(coming);
  const [least, most] = (['low', 'high'] as const).map((end) =>
    (ahead?.ops ?? []).reduce((sum, op) => sum + (op[end] ?? op.seconds) - op.seconds, toGo),
  ) as [number, number];
  const targets = state.targets.map((each) => inWords(mechanism, each)).join(', ') || 'close it up';
  return (
    <header className="grid items-center gap-x-6 gap-y-1 border-b border-ink px-6 py-2.5 md:grid-cols-[minmax(0,auto)_minmax(9rem,1fr)_auto] lg:grid-cols-[fit-content(24rem)_minmax(9rem,1fr)_auto]">
      <div className="min-w-0">
        <p className="truncate text-lead leading-tight font-bold">
          <Link to="/" aria-label="Bench" className="mr-2 no-underline">
            ‹
          </Link>
          {map.name} · {state.job.title}
        </p>
        <p className="truncate text-note text-quiet">
          {capital(targets)} ·{' '}
          <button type="button" onClick={onPerson} className="underline decoration-hair underline-offset-4">
            {person || 'who is here?'}
          </button>
        </p>
      </div>
      <TimeBand
        stretches={[...past, ...coming]}
        span={span}
        height={26}
        label={`Done ${duration(secondsOf(past))}, to go ${duration(toGo)}`}
      />
      <div className="text-right">
        {state.stopped ? (
          <>
            <p className="text-lead leading-tight font-bold text-now">Stopped</p>
            <p className="text-note text-quiet">since {clock(state.stopped.at)}, no time counts</p>
          </>
        ) : state.finished ? (
          <p className="text-lead leading-tight font-bold text-done">Finished {clock(state.finished)}</p>
        ) : (
          <>
            <p className="text-lead leading-tight font-bold">{ahead ? about(least, most) : 'planning'}</p>
            <p className="text-note text-quiet">
              {ahead &&
                `to go, ${duration(roughly(secondsOf(coming, 'work')))} hands-on, ready about ${clock(roughly(now / 1000 + toGo, 300) * 1000)}`}
            </p>
          </>
        )}
      </div>
    </header>
  );
});

/** To five minutes where it is ten and more, else to the minute: nobody knows it better. */
function roughly(seconds: number, step_s = seconds < 600 ? 60 : 300): number {
  return Math.round(seconds / step_s) * step_s;
}
