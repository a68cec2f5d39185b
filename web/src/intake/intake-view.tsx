import { askedInTakingIn, BESIDE_TAKING_IN } from '@nibrel/core/asking/taking-in';
import type { Damage } from '@nibrel/core/job/events';
import { useState } from 'react';
import { NotePanel } from '../at-bench/panels/note-panel.tsx';
import { TargetPanel } from '../at-bench/panels/target-panel.tsx';
import { mainSide, type Side } from '@nibrel/core/drawn/places';
import { StageFrame } from '../frame/stage-frame.tsx';
import { JobFrame, type OpenJob } from '../job/job-frame.tsx';
import { shownOf } from '@nibrel/core/drawn/shown';
import { Photos } from '../photos/photos.tsx';
import { BatteryReport } from '../trying/battery-report.tsx';
import { BeforeThis } from './before-this.tsx';
import { DamageDrawing, DamagePick } from './damage.tsx';
import { Measuring } from './measuring.tsx';
import { WetPanel } from './wet-panel.tsx';

/** Taking a device in: was it wet, what still works, what is broken, what the owner says. */
export function IntakeView() {
  return <JobFrame plans={false}>{(job) => <Intake {...job} />}</JobFrame>;
}

function Intake(job: OpenJob) {
  const { bench, mechanism, map, state } = job;
  const [side, setSide] = useState<Side>(() => mainSide(map));
  const [kind, setKind] = useState<Damage>('crack');
  const [passed, setPassed] = useState<ReadonlySet<string>>(new Set());
  const { send } = bench;
  const shown = shownOf(mechanism, state, undefined);
  const retract = (event: string) => void send('retract', { event });
  const isReplaced = state.targets.some((each) => 'replace' in each && each.replace === map.battery?.part);
  return (
    <StageFrame
      job={job}
      name="Take in"
      turns={askedInTakingIn({ map, state, passed })}
      beside={BESIDE_TAKING_IN}
      stopsFor="swelling"
      onMark={({ items }) => setPassed(new Set([...passed, ...items]))}
      onFlip={() => setSide(side === 'front' ? 'back' : 'front')}
      above={bench.before && <BeforeThis before={bench.before} />}
      renderBody={({ id }) => (
        <>
          {id === 'damage' && (
            <DamagePick
              {...{ map, state, side, kind, shown }}
              onKind={setKind}
              onDamage={(damage) => void send('damage', damage)}
              onRetract={retract}
            />
          )}
          {id === 'charge' && (
            <>
              <Measuring map={map} state={state} onMeasure={(measure) => void send('measure', measure)} />
              {isReplaced && (
                <section aria-label="The old battery">
                  <h2 className="text-note text-quiet">What the old battery reports, while it still runs</h2>
                  <BatteryReport
                    of="old"
                    reads={state.batteryReads}
                    onRead={(read) => void send('battery-read', read)}
                  />
                </section>
              )}
            </>
          )}
          {id === 'words' && <Photos state={state} onPhoto={(photo) => send('photo', photo)} onRetract={retract} />}
        </>
      )}
      renderWhere={({ id }) => (
        <DamageDrawing
          {...{ map, state, side, shown }}
          onPlace={
            id === 'damage'
              ? (at, part) => void send('damage', { kind, face: side, ...at, ...(part ? { part } : {}) })
              : null
          }
        />
      )}
      renderSheets={(open, close) => (
        <>
          <WetPanel open={open === 'wet'} onClose={close} onWet={(wet) => void send('wet', wet)} />
          <NotePanel open={open === 'note'} onClose={close} onNote={(text) => void send('note', { text })} />
          <TargetPanel
            map={map}
            targets={state.targets}
            open={open === 'target'}
            onClose={close}
            onTargets={(targets) => void send('targets', { targets })}
          />
        </>
      )}
    />
  );
}
