import { shopQuery } from '../app/queries.ts';
import type { Ahead } from '@nibrel/core/bench/in-hand';
import { type EventData, type EventType } from '@nibrel/core/job/events';
import { isPrepared } from '@nibrel/core/job/rules';
import { type JobState } from '@nibrel/core/job/state';
import type { Op } from '@nibrel/core/planner/drafts';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useKeys } from '../app/keys.ts';
import { useSettings } from '../app/settings.ts';
import { JobFrame, type OpenJob } from '../job/job-frame.tsx';
import { JobHeader } from '../job/job-header.tsx';
import { NotTaken } from '../job/not-taken.tsx';
import { PersonPanel } from '../job/panels/person-panel.tsx';
import { LeadPanel, StopPanel } from '../job/panels/stop-panels.tsx';
import { Stopped } from '../job/stopped.tsx';

import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { BenchSection } from './bench-section.tsx';
import { chargeAsked } from './charge-asked.ts';
import { ChargeSection } from './charge-section.tsx';
import type { Spread } from './gate-section.tsx';
import { KitSection } from './kit-section.tsx';
import { OwnerSection } from './owner-section.tsx';
import { PartsSection } from './parts-section.tsx';
import { PinHoles } from './pin-holes.tsx';
import { SchoolsPanel } from './schools-panel.tsx';
import { WhileOpenPanel } from './while-open-panel.tsx';

/** Everything up to the moment the device may be opened: told, run down, parts, kit, bench. A few presses, not a form. */
export function PrepareView() {
  return <JobFrame>{(job) => <Prepare {...job} />}</JobFrame>;
}

type Section = 'owner' | 'charge' | 'parts' | 'kit' | 'bench';
type Turn = 'owner' | 'charge' | 'bench';

const OPEN_AT: Readonly<Record<Turn, readonly Section[]>> = {
  owner: ['owner'],
  charge: ['charge'],
  bench: ['parts', 'kit', 'bench'],
};

function turnOf(ahead: Ahead | null, state: JobState): Turn {
  const has = (...names: Op['name'][]) => ahead?.ops.some((op) => names.includes(op.name));
  if (has('agree')) return 'owner';
  return ahead && chargeAsked(ahead, state) ? 'charge' : 'bench';
}

type PanelName = 'stop' | 'lead' | 'person' | 'while-open' | 'schools';

function Prepare(job: OpenJob) {
  const { bench, mechanism, map, state } = job;
  const navigate = useNavigate();
  const person = useSettings((settings) => settings.person);
  const [panel, setPanel] = useState<PanelName | null>(person ? null : 'person');
  const shop = useQuery(shopQuery).data;
  // a section that was pressed is the other way round than its turn would have it
  const [pressed, setPressed] = useState<ReadonlySet<Section>>(new Set());
  const close = () => setPanel(null);
  const send = <Type extends EventType>(type: Type, data: EventData[Type]) => void bench.send(type, data);
  const toBench = () => void navigate(`/jobs/${state.job.id}`);
  const passed = isPrepared(mechanism, state);
  // while it is planned anew what was there stays in sight, and takes no key
  const ahead = bench.lastAhead;
  const isSettled = bench.ahead !== null && bench.unsaved === null;
  const held = state.stopped !== null || state.ended !== null;
  useKeys({
    x: () => setPanel('stop'),
    o: () => setPanel('while-open'),
    s: () => setPanel('schools'),
    y: () => void navigate(`/jobs/${state.job.id}/way`),
    i: () => setPanel('person'),
    ...(held ? {} : { u: () => void bench.undo() }),
    Enter: toBench,
    ...(passed ? { ' ': toBench, PageDown: toBench } : {}),
  });
  const turn = passed ? null : turnOf(ahead, state);
  const spread = (section: Section): Spread => ({
    open: pressed.has(section) !== (turn !== null && OPEN_AT[turn].includes(section)),
    takesKeys: isSettled,
    onPress: () =>
      setPressed(
        new Set(pressed.has(section) ? [...pressed].filter((each) => each !== section) : [...pressed, section]),
      ),
  });
  return (
    <>
      <JobHeader mechanism={mechanism} map={map} state={state} />
      <NotTaken bench={bench} />
      {bench.planProblem && (
        <Trouble title="No plan from here">
          <p>{bench.planProblem}</p>
          <Button className="mt-2" onClick={bench.planAgain}>
            Plan again
          </Button>
        </Trouble>
      )}
      {held ? (
        <Stopped state={state} onLead={() => setPanel('lead')} />
      ) : (
        <main className="grid min-h-0 grow lg:grid-cols-[minmax(0,1fr)_25rem]">
          <div className="flex flex-col">
            {!ahead && bench.planning && <p className="p-6 text-far text-quiet">Planning from here</p>}
            {ahead && (
              <>
                <OwnerSection
                  state={state}
                  ahead={ahead}
                  spread={spread('owner')}
                  onTold={(told) => send('told', told)}
                />
                <ChargeSection job={job} ahead={ahead} standIns={shop?.standIns ?? false} spread={spread('charge')} />
                <PartsSection
                  job={job}
                  spread={spread('parts')}
                  onWithout={(part) =>
                    send('targets', {
                      targets: state.targets.filter((each) => !('replace' in each && each.replace === part)),
                    })
                  }
                />
                <KitSection map={map} plan={ahead.plan} shop={shop} spread={spread('kit')} />
                <BenchSection
                  job={job}
                  ahead={ahead}
                  shop={shop}
                  spread={spread('bench')}
                  onPrepared={(data) => send('prepared', data)}
                />
              </>
            )}
          </div>
          <aside className="order-first flex flex-col gap-4 self-start border-ink bg-sheet px-6 py-4 lg:sticky lg:top-0 lg:order-none lg:border-l">
            {passed ? (
              <Button weight="loud" keyName="Space" data-step="" className="min-h-18 text-lead" onClick={toBench}>
                Prepared: to the bench
              </Button>
            ) : (
              <p className="text-body text-quiet">
                The first thing not done is open; <kbd>Space</kbd> says that it is.
              </p>
            )}
            <Button keyName="Y" onClick={() => void navigate(`/jobs/${state.job.id}/way`)}>
              See the whole way once
            </Button>
            <Button keyName="O" disabled={!ahead} onClick={() => setPanel('while-open')}>
              What else while it is open
            </Button>
            <Button keyName="S" disabled={!ahead} onClick={() => setPanel('schools')}>
              Ways of working for this job
            </Button>
            <Button keyName="X" className="text-now" onClick={() => setPanel('stop')}>
              Stop now
            </Button>
            <PinHoles map={map} />
          </aside>
        </main>
      )}
      <PersonPanel open={panel === 'person'} onClose={close} />
      <StopPanel open={panel === 'stop'} onClose={close} onStop={(stop) => send('stop', stop)} />
      <LeadPanel
        open={panel === 'lead'}
        onClose={close}
        stops={state.stops}
        onClear={(clear, lead) => bench.send('clear', clear, lead)}
        onEnd={(end, lead) => bench.send('end', end, lead)}
      />
      {ahead && (
        <>
          <WhileOpenPanel job={job} plan={ahead.plan} open={panel === 'while-open'} onClose={close} />
          <SchoolsPanel job={job} open={panel === 'schools'} onClose={close} />
        </>
      )}
    </>
  );
}
