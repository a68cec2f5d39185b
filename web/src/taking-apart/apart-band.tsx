import type { JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { duration, plural } from '@nibrel/core/planner/words';
import { partsOff, type ToldSoFar } from '@nibrel/core/teardown/record';
import { memo, useMemo } from 'react';
import { Link } from 'react-router';
import { clock } from '../app/format.ts';
import { pastStretches, secondsOf } from '../job/stretches.ts';
import { TimeBand } from '../ui/time-band.tsx';

interface ApartBandProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly so: ToldSoFar;
  readonly person: string;
  onPerson(): void;
}

/** What was done as a band of time, and how much lies loose: nobody knows what is to come. */
export const ApartBand = memo(function ApartBand({ map, state, so, person, onPerson }: ApartBandProps) {
  const past = useMemo(() => pastStretches(state.events), [state.events]);
  const off = partsOff(so).size;
  return (
    <header className="grid items-center gap-x-6 gap-y-1 border-b border-ink px-6 py-2.5 md:grid-cols-[minmax(0,auto)_minmax(9rem,1fr)_auto]">
      <div className="min-w-0">
        <p className="truncate text-lead leading-tight font-bold">
          <Link to="/" aria-label="Bench" className="mr-2 no-underline">
            ‹
          </Link>
          {map.name === state.job.title ? map.name : `${map.name} · ${state.job.title}`}
        </p>
        <p className="truncate text-note text-quiet">
          Taken apart for the first time ·{' '}
          <button type="button" onClick={onPerson} className="underline decoration-hair underline-offset-4">
            {person || 'who is here?'}
          </button>
        </p>
      </div>
      <TimeBand
        stretches={past}
        span={Math.max(1, secondsOf(past)) * 1.3}
        height={26}
        label={`Done ${duration(secondsOf(past))}`}
      />
      <div className="text-right">
        {state.stopped ? (
          <>
            <p className="text-lead leading-tight font-bold text-now">Stopped</p>
            <p className="text-note text-quiet">since {clock(state.stopped.at)}, no time counts</p>
          </>
        ) : (
          <>
            <p className="text-lead leading-tight font-bold">{plural(off, 'part')} off</p>
            <p className="text-note text-quiet">{plural(so.steps.length, 'thing')} told</p>
          </>
        )}
      </div>
    </header>
  );
});
