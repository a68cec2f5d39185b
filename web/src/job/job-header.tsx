import type { JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { inWords } from '@nibrel/core/planner/search';
import type { Mechanism } from '@nibrel/core/planner/holds';
import { capital } from '@nibrel/core/planner/words';
import { Link, NavLink } from 'react-router';

const STAGES = [
  ['intake', 'Take in'],
  ['way', 'The whole way'],
  ['prepare', 'Prepare'],
  ['screws', 'Screws'],
  ['', 'At the bench'],
  ['record', 'Record'],
  ['hand-over', 'Hand over'],
] as const;

interface JobHeaderProps {
  readonly mechanism: Mechanism;
  readonly map: DeviceMap;
  readonly state: JobState;
  /** in the frame of a question, which has a heading of its own, and no other way home */
  readonly inFrame?: boolean;
}

/** Which repair this is, and the way through it. */
export function JobHeader({ mechanism, map, state, inFrame = false }: JobHeaderProps) {
  const Title = inFrame ? 'p' : 'h1';
  const targets = state.targets.map((each) => inWords(mechanism, each)).join(', ') || 'close it up';
  return (
    <nav
      aria-label="This repair"
      className="flex flex-wrap items-center justify-between gap-x-8 border-b border-ink px-6"
    >
      <Title className="py-2 text-lead leading-tight font-bold">
        {inFrame && (
          <Link to="/" aria-label="Bench" className="mr-2 no-underline">
            ‹
          </Link>
        )}
        {map.name} · {state.job.title}
        <span className="ml-3 text-body font-normal text-quiet">{capital(targets)}</span>
      </Title>
      <div className="flex flex-wrap gap-x-5">
        {STAGES.map(([path, name]) => (
          <NavLink
            key={path}
            end={path !== 'screws'}
            to={`/jobs/${state.job.id}${path ? `/${path}` : ''}`}
            className={({ isActive }) =>
              `flex min-h-12 items-center text-body ${isActive ? 'font-bold underline decoration-now decoration-4 underline-offset-8' : ''}`
            }
          >
            {name}
          </NavLink>
        ))}
      </div>
    </nav>
  );
}
