import { cellForALead } from '@nibrel/core/job/rules';
import type { Sheet } from '@nibrel/core/asking/question';
import { type DoneStep, type EventData, type TroubleKind } from '@nibrel/core/job/events';
import { type JobState } from '@nibrel/core/job/state';
import type { Part } from '@nibrel/core/model/device-map';
import type { Mechanism } from '@nibrel/core/planner/holds';
import type { Leaving } from '@nibrel/core/bench/in-hand';
import type { Op } from '@nibrel/core/planner/drafts';
import { trialNow, type WhereToTry } from '@nibrel/core/bench/trying';
import type { Target } from '@nibrel/core/planner/search';
import { useState, memo } from 'react';
import { PersonPanel } from '../job/panels/person-panel.tsx';
import { LeadPanel, StopPanel } from '../job/panels/stop-panels.tsx';
import { TransplantPanel } from '../job/panels/transplant-panel.tsx';
import { ClosingPanel } from './panels/closing-panel.tsx';
import { LeavingPanel } from './panels/leaving-panel.tsx';
import { HeldPanel } from './panels/held-panel.tsx';
import { MissingScrewsPanel } from './panels/missing-screws.tsx';
import { NotePanel } from './panels/note-panel.tsx';
import { NotMappedPanel } from './panels/not-mapped-panel.tsx';
import { OtherStepPanel } from './panels/other-step.tsx';
import { TargetPanel } from './panels/target-panel.tsx';
import { TroublePanel } from './panels/trouble-panel.tsx';
import { FlushPanel } from '../closing/flush-panel.tsx';
import type { SelfTest } from '../trying/self-test.tsx';
import { TrialPanel } from '../trying/trial-panel.tsx';
import { WetDecisionPanel } from './panels/wet-decision-panel.tsx';

interface BenchPanelsProps {
  readonly mechanism: Mechanism;
  readonly state: JobState;
  readonly op: Op | undefined;
  /** of the bond in hand, as foreseen */
  readonly bond_C: number | undefined;
  readonly leaving: Leaving;
  readonly ahead: readonly Op[];
  readonly where: WhereToTry | null;
  readonly selfTest: SelfTest | null;
  /** what was closed last from outside */
  readonly closed: Part | null;
  /** the one that lies over the view */
  readonly panel: Sheet | null;
  /** what went wrong, where that was said already */
  readonly trouble: TroubleKind | undefined;
  onPanel(panel: Sheet | null): void;
  send<Type extends keyof EventData>(type: Type, data: EventData[Type], by?: string): Promise<boolean>;
}

/** Everything that is told at the bench beside the step in hand. */
export const BenchPanels = memo(function BenchPanels({
  mechanism,
  state,
  op,
  bond_C,
  leaving,
  ahead,
  where,
  selfTest,
  closed,
  panel,
  trouble,
  onPanel,
  send,
}: BenchPanelsProps) {
  const { map } = mechanism;
  const close = () => onPanel(null);
  // what is being written stays where the plan, or another window, puts another step in hand meanwhile
  const [asked, setAsked] = useState(op);
  if (panel !== 'trouble' && panel !== 'not-mapped' && asked !== op) setAsked(op);
  const other = (done: DoneStep, anyway?: string) => send('did', { steps: [done], ...(anyway ? { anyway } : {}) });
  return (
    <>
      <PersonPanel open={panel === 'person'} onClose={close} />
      <NotePanel open={panel === 'note'} onClose={close} onNote={(text) => void send('note', { text })} />
      <TroublePanel
        key={`${asked?.id} ${trouble}`}
        map={map}
        first={trouble}
        ledger={state.ledger}
        op={asked ?? op}
        open={panel === 'trouble'}
        onClose={close}
        bond_C={bond_C}
        solventBelow_C={state.limits.solventBelow_C}
        onTrouble={(trouble) => send('trouble', trouble)}
        onStop={() => onPanel('stop')}
      />
      <StopPanel open={panel === 'stop'} onClose={close} onStop={(stop) => void send('stop', stop)} />
      <LeadPanel
        stops={state.stops}
        open={panel === 'lead'}
        onClose={close}
        onClear={(clear, lead) => send('clear', clear, lead)}
        onEnd={(end, lead) => send('end', end, lead)}
      />
      <TargetPanel
        map={map}
        targets={state.targets}
        open={panel === 'target'}
        onClose={close}
        onTargets={(targets: readonly Target[]) => void send('targets', { targets })}
      />
      <OtherStepPanel mechanism={mechanism} state={state} open={panel === 'other'} onClose={close} onDone={other} />
      <NotMappedPanel
        key={`not-mapped ${asked?.id}`}
        mechanism={mechanism}
        op={asked ?? op}
        open={panel === 'not-mapped'}
        onClose={close}
        onFound={(found) => send('not-mapped', found)}
        onTrouble={() => onPanel('trouble')}
      />
      <HeldPanel
        key={`held ${op?.id}`}
        mechanism={mechanism}
        state={state}
        op={op}
        open={panel === 'held'}
        onClose={close}
        onNotMapped={() => onPanel('not-mapped')}
      />
      <ClosingPanel
        map={map}
        state={state}
        op={op}
        open={panel === 'closing'}
        onClose={close}
        onClosing={(closing) => void send('closing', closing)}
      />
      <MissingScrewsPanel
        map={map}
        state={state}
        open={panel === 'missing'}
        onClose={close}
        onFound={(screw) => void send('found', screw)}
        onDecision={(text) => void send('decision', { about: 'missing-screw', text })}
        onOrder={(text) => void send('note', { text })}
      />
      <WetDecisionPanel
        open={panel === 'wet'}
        onClose={close}
        onDecision={(board, text) => void send('decision', { about: 'wet', board, text })}
      />
      <TransplantPanel
        state={state}
        iron={op ? cellForALead(map, state, op) : null}
        open={panel === 'transplant'}
        onClose={close}
        onAllowed={(allowed) => void send('transplant-allowed', allowed, allowed.lead)}
        onDone={(checked) => void send('transplant-done', checked)}
      />
      <LeavingPanel map={map} leaving={leaving} open={panel === 'leaving'} onClose={close} />
      <FlushPanel
        map={map}
        part={closed}
        open={panel === 'flush'}
        onClose={close}
        onFlush={(flush) => send('flush', flush)}
      />
      <TrialPanel
        map={map}
        state={state}
        ahead={ahead}
        trial={panel === 'trial' ? trialNow(mechanism, state, ahead) : null}
        where={where}
        selfTest={selfTest}
        open={panel === 'trial'}
        onClose={close}
        onSteps={(steps) => void send('did', { steps })}
        onTest={(test) => void send('test', test)}
      />
    </>
  );
});
