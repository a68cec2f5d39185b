import type { EventData, EventType } from '@nibrel/core/job/events';
import { plural } from '@nibrel/core/planner/words';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { StoppedBefore } from '@nibrel/core/api';
import { day } from '../app/format.ts';
import { useKeys } from '../app/keys.ts';
import { useSettings } from '../app/settings.ts';
import { mainSide, type Side } from '../drawing/geometry.ts';
import { shownOf } from '../job/shown.ts';
import { JobFrame, type OpenJob } from '../job/job-frame.tsx';
import { JobHeader } from '../job/job-header.tsx';
import { NotTaken } from '../job/not-taken.tsx';
import { PersonPanel } from '../job/panels/person-panel.tsx';
import { LeadPanel, StopPanel } from '../job/panels/stop-panels.tsx';
import { Stopped } from '../job/stopped.tsx';
import { Photos } from '../photos/photos.tsx';
import { ChargeReading } from '../prepare/charge-reading.tsx';
import { Button } from '../ui/button.tsx';
import { Caution } from '../ui/caution.tsx';
import { DamageBoard } from './damage-board.tsx';
import { FunctionsTried } from './functions-tried.tsx';
import { Measuring } from './measuring.tsx';
import { OwnerWords } from './owner-words.tsx';
import { BatteryReport } from '../trying/battery-report.tsx';
import { WetPanel } from './wet-panel.tsx';

/** What came of the last repair of this very device has to be known before it is touched. */
function BeforeThis({ before }: { readonly before: StoppedBefore }) {
  return (
    <Caution>
      <strong>The last repair of this device was stopped</strong>, {before.reason}
      {before.text ? `: ${before.text}` : ''}, {day(before.at)}.{' '}
      {before.clearedBy ? `${before.clearedBy} cleared it.` : 'Nobody cleared it: ask the lead before it is touched.'}{' '}
      <Link to={`/jobs/${before.job}/record`} className="underline">
        {before.title}
      </Link>
    </Caution>
  );
}

/** Taking a device in: what still works, what is broken, what the owner says; and what has to be stopped at once. */
export function IntakeView() {
  return <JobFrame plans={false}>{(job) => <Intake {...job} />}</JobFrame>;
}

type PanelName = 'stop' | 'lead' | 'wet' | 'person';

function Intake({ bench, mechanism, map, state }: OpenJob) {
  const navigate = useNavigate();
  const person = useSettings((settings) => settings.person);
  const [panel, setPanel] = useState<PanelName | null>(person ? null : 'person');
  const [side, setSide] = useState<Side>(() => mainSide(map));
  const close = () => setPanel(null);
  const send = <Type extends EventType>(type: Type, data: EventData[Type]) => bench.send(type, data);
  const sayAll = async (result: EventData['test']['result'], functions: readonly string[]) => {
    for (const id of functions) if (!(await send('test', { function: id, result, stage: 'intake' }))) return;
  };
  const next = () => void navigate(`/jobs/${state.job.id}/prepare`);
  useKeys({
    f: () => setSide(side === 'front' ? 'back' : 'front'),
    ...(state.stopped || state.ended ? {} : { u: () => void bench.undo() }),
    x: () => setPanel('stop'),
    w: () => setPanel('wet'),
    i: () => setPanel('person'),
    Enter: next,
  });
  const tried = state.tests.filter((each) => each.stage === 'intake');
  const fails = tried.filter((each) => each.result === 'fails').length;
  return (
    <>
      <JobHeader mechanism={mechanism} map={map} state={state} />
      <NotTaken bench={bench} />
      {bench.before && <BeforeThis before={bench.before} />}
      {(state.stopped || state.ended) && <Stopped state={state} onLead={() => setPanel('lead')} />}
      <main className="grid min-h-0 grow md:grid-cols-2 lg:h-[calc(100dvh-6.7rem)] lg:grow-0 lg:grid-cols-[24rem_minmax(0,1fr)_23.5rem]">
        <div className="flex min-h-0 flex-col border-ink bg-sheet lg:border-r">
          <FunctionsTried
            map={map}
            state={state}
            onResult={(test) => void send('test', test)}
            onRest={(result, functions) => void sayAll(result, functions)}
          />
        </div>
        <DamageBoard
          map={map}
          state={state}
          side={side}
          shown={shownOf(mechanism, state, undefined)}
          onSide={setSide}
          onDamage={(damage) => void send('damage', damage)}
          onRetract={(event) => void send('retract', { event })}
        />
        <div className="flex min-h-0 flex-col gap-4 overflow-y-auto border-ink px-6 py-4 md:col-span-2 lg:col-span-1 lg:border-l">
          <OwnerWords words={state.words} onWords={(text) => void send('words', { text })} />
          <Photos
            state={state}
            onPhoto={(photo) => send('photo', photo)}
            onRetract={(event) => void send('retract', { event })}
          />
          <ChargeReading state={state} onCharge={(charge) => void send('charge', charge)} />
          <Measuring map={map} state={state} onMeasure={(measure) => void send('measure', measure)} />
          {state.targets.some((each) => 'replace' in each && each.replace === map.battery?.part) && (
            <section aria-label="The old battery">
              <h2 className="text-note text-quiet">What the old battery reports, while it still runs</h2>
              <BatteryReport of="old" reads={state.batteryReads} onRead={(read) => void send('battery-read', read)} />
            </section>
          )}
          {state.wet ? (
            <p className="text-body">
              Liquid damage: its battery comes off at once.{' '}
              <Link to={`/jobs/${state.job.id}/prepare`} className="underline">
                On with it
              </Link>
            </p>
          ) : (
            <Button keyName="W" disabled={!map.battery} onClick={() => setPanel('wet')}>
              Liquid damage
            </Button>
          )}
          <Button keyName="X" className="text-now" onClick={() => setPanel('stop')}>
            Swollen, leaking, burnt: stop
          </Button>
          <div className="mt-auto">
            <p className="mb-2 text-body text-quiet">
              {tried.length} of {plural(map.functions.length, 'function')} tried
              {fails > 0 ? `, ${plural(fails, 'old fault')}` : ''}
            </p>
            <Button weight="loud" keyName="Enter" className="min-h-16 w-full text-lead" onClick={next}>
              Taken in: prepare it
            </Button>
          </div>
        </div>
      </main>
      <PersonPanel open={panel === 'person'} onClose={close} />
      <StopPanel first="swelling" open={panel === 'stop'} onClose={close} onStop={(stop) => void send('stop', stop)} />
      <LeadPanel
        open={panel === 'lead'}
        onClose={close}
        stops={state.stops}
        onClear={(clear, lead) => bench.send('clear', clear, lead)}
        onEnd={(end, lead) => bench.send('end', end, lead)}
      />
      <WetPanel open={panel === 'wet'} onClose={close} onWet={(wet) => void send('wet', wet)} />
    </>
  );
}
