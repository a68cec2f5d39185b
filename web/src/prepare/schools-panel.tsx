import type { EventData } from '@nibrel/core/job/events';
import { useState } from 'react';
import type { OpenJob } from '../job/job-frame.tsx';
import { TransplantPanel } from '../job/panels/transplant-panel.tsx';
import { Schools } from '../schools/plan-schools.tsx';
import { Panel } from '../ui/panel.tsx';
import type { Closing } from '../ui/form.ts';

/** The schools of this job, changed for it alone; the plan follows. */
export function SchoolsPanel({ job, open, onClose }: Closing & { readonly job: OpenJob }) {
  const { bench, map, state } = job;
  const [asking, setAsking] = useState(false);
  const allow = async (allowed: EventData['transplant-allowed']) => {
    if (await bench.send('transplant-allowed', allowed, allowed.lead)) {
      await bench.send('policy', { change: { newBattery: 'cell-transplant' } });
    }
  };
  return (
    <Panel
      title="Ways of working for this job"
      said="For this repair alone; the plan follows at once."
      open={open}
      onClose={onClose}
    >
      <Schools
        map={map}
        targets={state.targets}
        policy={state.policy}
        limits={state.limits}
        charge={state.charges.at(-1)?.charge ?? null}
        onPolicy={(change) =>
          change.newBattery === 'cell-transplant' && !state.transplant.allowed
            ? setAsking(true)
            : void bench.send('policy', { change })
        }
      />
      <TransplantPanel
        state={state}
        open={asking}
        onClose={() => setAsking(false)}
        onAllowed={(allowed) => void allow(allowed)}
      />
    </Panel>
  );
}
