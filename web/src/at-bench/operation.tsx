import { jointById } from '@nibrel/core/model/device-map';
import { benchUnit } from '../app/units.ts';
import type { EventData } from '@nibrel/core/job/events';
import type { JobState } from '@nibrel/core/job/state';
import { settled } from '@nibrel/core/model/policy';
import { isDead, type Mechanism } from '@nibrel/core/planner/holds';
import { leadOf, type SideBySide } from '@nibrel/core/bench/in-hand';
import { NoPlace } from './no-place.tsx';
import { bitMark, capital, cautionFor, countdown, opWords, plural, whyNow } from '@nibrel/core/planner/words';
import type { Op } from '@nibrel/core/planner/drafts';
import { useState } from 'react';
import { useKeys } from '../app/keys.ts';
import { Button, Key } from '../ui/button.tsx';
import { Caution } from '../ui/caution.tsx';
import { DriveMark } from '../ui/screw-mark.tsx';
import { LoadCard } from '../closing/load-card.tsx';
import { TapeCuts } from '../closing/tape-cuts.tsx';
import { Tabs } from './tabs.tsx';
import { Screws, Ticks } from './ticks.tsx';
import type { Hand } from './opening/hand.ts';
import { AsItWas } from './as-it-was.tsx';
import { Tightening } from './tightening.tsx';
import type { SelfTest } from '../trying/self-test.tsx';
import { BatteryReport } from '../trying/battery-report.tsx';
import { Tests } from '../trying/tests.tsx';

interface OperationProps {
  readonly mechanism: Mechanism;
  readonly state: JobState;
  readonly op: Op;
  /** all that one press does, this operation first */
  readonly together: readonly Op[];
  readonly ahead: readonly Op[];
  /** the plan that is gone by, with what of it is done */
  readonly plan: readonly Op[];
  /** 0: the one in hand; more: looking ahead */
  readonly lookahead: number;
  readonly left: number;
  readonly waitLeft: number | null;
  /** of its button */
  readonly label: string;
  readonly busy: boolean;
  /** work that asks for more than one press */
  readonly hand: Hand | null;
  /** one more warming of the bond that is cut; null where there is none to start */
  readonly onHeatAgain: (() => void) | null;
  /** the seam drags: where is recorded, and it is warmed next; null where nothing is cut */
  readonly onDrags: (() => void) | null;
  /** a plug is pressed home and nobody is sure of its click; null at anything else */
  readonly onNotSure: (() => void) | null;
  /** how a bond is closed is decided on sight; null where none is about to be */
  readonly onClosing: (() => void) | null;
  /** what is waited for is ended before its time; null where nothing is */
  readonly onEndWait: (() => void) | null;
  onPeak(peak: EventData['tightened']): Promise<boolean>;
  /** null where no device answers for itself */
  readonly selfTest: SelfTest | null;
  /** a trial pays here, before this step: how, in words; null where none does */
  readonly worthTrying: string | null;
  onTry(): void;
  /** the old part and the new one, where they lie side by side */
  readonly beside: SideBySide | null;
  onNoPlace(joint: string, text: string): void;
  onBattery(read: EventData['battery-read']): void;
  /** what was closed last, by name, and was not felt round its rim; null where nothing was */
  readonly toFeel: string | null;
  onFeel(): void;
  onStep(): void;
  /** what is done together is done as far as this */
  onTick(op: Op): void;
}

const STAGES = {
  prepare: 'Prepare',
  open: 'Getting in',
  strip: 'Strip',
  move: 'Move over',
  rebuild: 'Rebuild',
  prove: 'Prove',
  close: 'Close',
} as const;

/** The operation in hand: its caution first, then what to do in the largest type, with what, and why now. */
export function Operation({
  mechanism,
  state,
  op,
  together,
  ahead,
  plan,
  lookahead,
  left,
  waitLeft,
  label,
  busy,
  hand,
  onHeatAgain,
  onDrags,
  onNotSure,
  onClosing,
  onEndWait,
  onPeak,
  selfTest,
  worthTrying,
  onTry,
  beside,
  onNoPlace,
  onBattery,
  toFeel,
  onFeel,
  onStep,
  onTick,
}: OperationProps) {
  const { map } = mechanism;
  const lead = leadOf(together, waitLeft !== null && waitLeft <= 0);
  const words = opWords(map, lead);
  const dead = isDead(mechanism, state.device);
  const isMeasured = settled(map, state.policy).policy.tightening === 'torque';
  const cautions = (hand?.cautions ?? ['operation']).map((of) =>
    cautionFor(map, of === 'heat' ? { ...op, kind: 'procedure', name: 'heat' } : op, dead, benchUnit(), hand?.edge),
  );
  // in full before its first step of a stage, then as a mark
  const earlier = plan.slice(
    0,
    Math.max(
      0,
      plan.findIndex(({ id }) => id === op.id),
    ),
  );
  const wasSaid = (caution: string) =>
    earlier.some((each) => each.stage === op.stage && cautionFor(map, each, dead, benchUnit()) === caution);
  const joint = jointById(map, lead.joint);
  const [whyFor, setWhyFor] = useState<string | null>(null);
  const toggleWhy = () => setWhyFor(whyFor === lead.id ? null : lead.id);
  useKeys({ b: toggleWhy });
  const short = whyNow(
    map,
    lead,
    ahead.find((each) => each.id === lead.serves),
  );
  const why = (
    <div className="border-t border-hair pt-1 text-body text-quiet">
      <button
        type="button"
        className="flex min-h-12 w-full items-center justify-between gap-4 text-left"
        onClick={toggleWhy}
      >
        <span>{short || 'Why now'}</span>
        <Key name="B" />
      </button>
      {whyFor === lead.id && (
        <p>
          {lead.why} {lead.whyNotEarlier} {timeWords(lead)}
        </p>
      )}
    </div>
  );
  return (
    <section aria-label="Operation" className="flex flex-col">
      {cautions.map((caution) => {
        if (!caution) return null;
        const isKnown = wasSaid(caution);
        return (
          <Caution key={caution} isKnown={isKnown}>
            {isKnown ? firstSentence(caution) : caution}
          </Caution>
        );
      })}
      <div className="flex flex-col gap-3 px-6 pt-4 pb-5">
        <p className="text-body text-quiet">
          {lookahead > 0 ? `Looking ahead, ${plural(lookahead, 'step')} on` : `${STAGES[op.stage]} · ${left} to go`}
          {op.live ? ' · live' : ''}
          {op.onBoth ? ' · on the old part and the new one' : ''}
        </p>
        <div aria-live="polite">
          <h1 className="text-loud leading-[1.08] font-bold">{hand?.title ?? words.title}</h1>
          <p className="mt-1 text-far leading-tight">{words.thing}</p>
        </div>
        {lead.tool && !hand && (
          <p className="flex items-center gap-3 text-lead">
            {joint?.type === 'screw' && <DriveMark drive={lead.tool} />}
            {capital(bitMark(lead.tool))}
          </p>
        )}
        {joint?.type === 'screw' && <Screws map={map} state={state} jointId={joint.id} />}
        {lookahead === 0 &&
          isMeasured &&
          together.flatMap((each) => {
            const screws = each.kind === 'make' ? jointById(map, each.joint) : undefined;
            return screws?.type === 'screw'
              ? [<Tightening key={screws.id} map={map} state={state} joint={screws} onPeak={onPeak} />]
              : [];
          })}
        {op.name === 'test' && <Tests map={map} state={state} op={op} selfTest={selfTest} />}
        {(lead.name === 'compare' || lead.name === 'take-up') && beside && lookahead === 0 && (
          <NoPlace map={map} beside={beside} onNoPlace={onNoPlace} />
        )}
        {lead.kind === 'release' && joint?.type === 'bond' && <Tabs state={state} bond={joint} />}
        {lead.name === 'read-battery' && lookahead === 0 && (
          <BatteryReport of="new" reads={state.batteryReads} onRead={onBattery} />
        )}
        {lead.name === 'lay' && joint?.type === 'bond' && <TapeCuts map={map} state={state} bond={joint} />}
        {lead.name === 'press' && joint?.type === 'bond' && <LoadCard map={map} state={state} bond={joint} />}
        {op.name === 'inspect' && <p className="text-body text-quiet">Space good · 2 failed</p>}
        {worthTrying && (
          <Button keyName="J" onClick={onTry} className="py-2">
            {worthTrying}
          </Button>
        )}
        {hand?.lead}
        {waitLeft !== null && <Wait seconds={waitLeft} />}
        {words.hint && (!hand || lead.kind === 'release') && <p className="text-lead text-quiet">{words.hint}</p>}
        <AsItWas state={state} op={lead} />
        {!hand && together.length > 1 && <Ticks map={map} state={state} ops={together} lead={lead} onTick={onTick} />}
        {lookahead === 0 && (
          // in sight whatever is listed before it, and nothing shows through around it
          <div className="sticky bottom-0 z-10 bg-sheet py-2">
            <Button
              weight="loud"
              keyName="Space"
              data-step=""
              onClick={onStep}
              disabled={busy}
              className="min-h-18 w-full text-lead"
            >
              {label}
            </Button>
          </div>
        )}
        {!hand && why}
        {(onHeatAgain ?? onDrags) && (
          <div className="grid grid-cols-2 gap-2">
            {onHeatAgain && (
              <Button keyName="H" onClick={onHeatAgain}>
                Heat again
              </Button>
            )}
            {onDrags && (
              <Button keyName="D" onClick={onDrags}>
                It drags
              </Button>
            )}
          </div>
        )}
        {toFeel && (
          <Button keyName="6" onClick={onFeel}>
            {toFeel}: flush all round?
          </Button>
        )}
        {onNotSure && (
          <Button keyName="2" onClick={onNotSure}>
            Done, not sure that it clicked
          </Button>
        )}
        {onClosing && (
          <Button keyName="K" onClick={onClosing}>
            Keep it, renew it or glue it
          </Button>
        )}
        {onEndWait && (
          <Button keyName="W" onClick={onEndWait}>
            {op.name === 'heat' || op.kind === 'release' ? 'Heat off now, cut it as it is' : 'End the wait now'}
          </Button>
        )}
        {hand?.body}
        {hand && why}
      </div>
    </section>
  );
}

/** How long it takes, and from what that is known. */
function timeWords({ seconds, low = seconds, high = seconds, timesFrom }: Op): string {
  if (seconds === 0) return '';
  const from = timesFrom === undefined ? 'a guess' : `from ${plural(timesFrom, 'time')} here`;
  return `Takes ${Math.round(low)} to ${Math.round(high)} s, ${from}.`;
}

/** *The battery is still connected.* */
function firstSentence(text: string): string {
  return /^.*?[.](?=\s|$)/.exec(text)?.[0] ?? text;
}

function Wait({ seconds }: { readonly seconds: number }) {
  return (
    <p className="flex items-baseline gap-4" role="timer" aria-label="Time left">
      <span className="text-loud font-bold text-now">{countdown(seconds)}</span>
      <span className="text-body text-quiet">
        {seconds > 0 ? 'to wait. W: go on now, and it is recorded' : 'waited'}
      </span>
    </p>
  );
}
