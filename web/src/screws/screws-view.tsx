import { plural } from '@nibrel/core/planner/words';
import { holesOf, kindsIn } from '@nibrel/core/screws/mix-ups';
import { useMemo } from 'react';
import { NavLink, useNavigate, useParams } from 'react-router';
import { useKeys } from '../app/keys.ts';
import { JobFrame, type OpenJob } from '../job/job-frame.tsx';
import { JobHeader } from '../job/job-header.tsx';
import { NotTaken } from '../job/not-taken.tsx';
import { Button } from '../ui/button.tsx';
import { ComingOutList } from './coming-out-list.tsx';
import { InDoubt } from './in-doubt.tsx';
import { KeepingSchools } from './keeping-schools.tsx';
import { MatPages } from './mat-pages.tsx';
import { Spill } from './spill.tsx';
import { SwapMatrix } from './swap-matrix.tsx';

const PARTS = [
  ['', 'What comes out'],
  ['mix-ups', 'Mix-ups'],
  ['keeping', 'How they are kept'],
  ['mat', 'Mat to print'],
  ['doubt', 'One in doubt'],
  ['spill', 'Spilled'],
] as const;

/** The screws of a repair: what comes out, what must not be mixed up, how they are kept, and what to do when it went wrong. */
export function ScrewsView() {
  return <JobFrame>{(job) => <Screws {...job} />}</JobFrame>;
}

function Screws({ bench, mechanism, map, state }: OpenJob) {
  const { what = '' } = useParams();
  const navigate = useNavigate();
  const home = `/jobs/${state.job.id}`;
  const toBench = () => void navigate(home);
  useKeys({ Enter: toBench, Escape: toBench });
  const strip = useMemo(() => bench.ahead?.plan.strip ?? [], [bench.ahead]);
  const kinds = useMemo(() => kindsIn(holesOf(map)), [map]);
  return (
    <>
      <JobHeader mechanism={mechanism} map={map} state={state} />
      <main className="flex min-h-0 grow flex-col">
        <nav aria-label="Screws" className="flex flex-wrap items-center gap-x-2 border-b border-hair px-3">
          {PARTS.map(([path, name]) => (
            <NavLink
              key={path}
              end
              to={`${home}/screws${path ? `/${path}` : ''}`}
              className={({ isActive }) =>
                `flex min-h-12 items-center border-b-4 border-t-4 border-t-transparent px-3 text-body ${isActive ? 'border-b-now font-bold' : 'border-b-transparent'}`
              }
            >
              {name}
            </NavLink>
          ))}
          <div className="ml-auto py-1 pr-3 max-lg:hidden">
            <Button keyName="Enter" onClick={toBench}>
              To the bench
            </Button>
          </div>
        </nav>
        <div className="min-w-0 px-6 py-4">
          <NotTaken bench={bench} />
          {kinds.length === 0 ? (
            <section>
              <h2 className="text-far font-bold">No screw of this device comes out</h2>
              <p className="text-body text-quiet">Its map has none, or they stay in their parts.</p>
            </section>
          ) : what === 'mix-ups' ? (
            <SwapMatrix map={map} limits={state.limits} />
          ) : what === 'keeping' ? (
            <KeepingSchools
              map={map}
              state={state}
              onSchool={(screws) => void bench.send('policy', { change: { screws } })}
            />
          ) : what === 'mat' ? (
            <MatPages map={map} job={state.job} />
          ) : what === 'doubt' ? (
            <InDoubt map={map} state={state} send={bench.send} />
          ) : what === 'spill' ? (
            <Spill map={map} state={state} send={bench.send} />
          ) : (
            <ComingOutList map={map} strip={strip} said={`${plural(kinds.length, 'kind')} on this device`} />
          )}
        </div>
      </main>
    </>
  );
}
