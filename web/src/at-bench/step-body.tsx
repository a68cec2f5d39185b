import type { EventData } from '@nibrel/core/job/events';
import type { JobState } from '@nibrel/core/job/state';
import { jointById } from '@nibrel/core/model/device-map';
import { settled } from '@nibrel/core/model/policy';
import type { SideBySide } from '@nibrel/core/bench/in-hand';
import type { Op } from '@nibrel/core/planner/drafts';
import type { Mechanism } from '@nibrel/core/planner/holds';
import { LoadCard } from '../closing/load-card.tsx';
import { TapeCuts } from '../closing/tape-cuts.tsx';
import { BatteryReport } from '../trying/battery-report.tsx';
import type { SelfTest } from '../trying/self-test.tsx';
import { Tests } from '../trying/tests.tsx';
import { AsItWas } from './as-it-was.tsx';
import { NoPlace } from './no-place.tsx';
import { ScrewsOfJoint } from './screws-of-joint.tsx';
import { Tabs } from './tabs.tsx';
import { Tightening } from './tightening.tsx';

interface StepBodyProps {
  readonly mechanism: Mechanism;
  readonly state: JobState;
  readonly op: Op;
  /** what it is called by: after a wait that is what comes straight after it */
  readonly lead: Op;
  /** all that one press does */
  readonly together: readonly Op[];
  /** is it the one in hand? */
  readonly isNow: boolean;
  /** null where no device answers for itself */
  readonly selfTest: SelfTest | null;
  /** the old part and the new one, where they lie side by side */
  readonly beside: SideBySide | null;
  onPeak(peak: EventData['tightened']): Promise<boolean>;
  onBattery(read: EventData['battery-read']): void;
  onNoPlace(joint: string, text: string): void;
}

/** What belongs to a step beside its words: its screws, what is measured at it, what it is tried with. */
export function StepBody({ mechanism, state, op, lead, together, isNow, selfTest, beside, ...on }: StepBodyProps) {
  const { map } = mechanism;
  const joint = jointById(map, lead.joint);
  const isMeasured = settled(map, state.policy).policy.tightening === 'torque';
  const bond = joint?.type === 'bond' ? joint : null;
  const tightened = together.flatMap((each) => {
    const screws = each.kind === 'make' ? jointById(map, each.joint) : undefined;
    return screws?.type === 'screw' ? [screws] : [];
  });
  return (
    <>
      {together.length === 1 && joint?.type === 'screw' && <ScrewsOfJoint map={map} state={state} jointId={joint.id} />}
      {isNow &&
        isMeasured &&
        tightened.map((each) => (
          <Tightening
            key={each.id}
            map={map}
            state={state}
            joint={each}
            isOneOfMany={tightened.length > 1}
            onPeak={on.onPeak}
          />
        ))}
      {op.name === 'test' && <Tests map={map} state={state} op={op} selfTest={selfTest} />}
      {(lead.name === 'compare' || lead.name === 'take-up') && beside && isNow && (
        <NoPlace map={map} beside={beside} onNoPlace={on.onNoPlace} />
      )}
      {lead.kind === 'release' && bond && <Tabs state={state} bond={bond} />}
      {lead.name === 'read-battery' && isNow && (
        <BatteryReport of="new" reads={state.batteryReads} onRead={on.onBattery} />
      )}
      {lead.name === 'lay' && bond && <TapeCuts map={map} state={state} bond={bond} />}
      {lead.name === 'press' && bond && <LoadCard map={map} state={state} bond={bond} />}
      <AsItWas state={state} op={lead} />
    </>
  );
}
