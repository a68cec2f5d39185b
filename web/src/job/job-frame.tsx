import type { JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Mechanism } from '@nibrel/core/planner/holds';
import { type ReactNode, useEffect, useState } from 'react';
import { useParams } from 'react-router';
import { type StoreApi, useStore } from 'zustand';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { openSession, type Session } from './session.ts';

/** A job that is there: what every view of it starts from. */
export interface OpenJob {
  readonly session: StoreApi<Session>;
  readonly bench: Session;
  readonly mechanism: Mechanism;
  readonly map: DeviceMap;
  readonly state: JobState;
}

interface JobFrameProps {
  /** is the rest of the repair planned while the view is open? */
  readonly plans?: boolean;
  children(job: OpenJob): ReactNode;
}

/** Opens the job of the address and shows it once it is there; closed again when the view is left. */
export function JobFrame({ plans = true, children }: JobFrameProps) {
  const { id = '' } = useParams();
  const [session] = useState(() => openSession(id, plans));
  const bench = useStore(session);
  useEffect(() => {
    void session.getState().load();
    return () => session.getState().close();
  }, [session]);

  if (bench.phase === 'failed') {
    return (
      <main className="p-8">
        <Trouble title="This repair can not be opened">
          <p>{bench.failure} Nothing that was recorded is lost.</p>
          <div className="mt-3 flex flex-wrap items-center gap-4">
            <Button onClick={() => void bench.load()}>Try again</Button>
            <a href={`/api/v1/jobs/${encodeURIComponent(id)}/export`} download className="text-body underline">
              Export it as it lies on the disk
            </a>
          </div>
        </Trouble>
      </main>
    );
  }
  const { mechanism, state } = bench;
  if (bench.phase === 'loading' || !state || !mechanism) {
    return <main className="p-8 text-far text-quiet">Fetching the repair</main>;
  }
  return children({ session, bench, mechanism, map: mechanism.map, state });
}
