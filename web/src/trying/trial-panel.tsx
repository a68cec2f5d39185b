import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import type { DoneStep, EventData } from '@nibrel/core/job/events';
import type { JobState } from '@nibrel/core/job/state';
import type { TrialNow, WhereToTry } from '@nibrel/core/bench/trying';
import { lostFunctions, plural, duration } from '@nibrel/core/planner/words';
import { Button } from '../ui/button.tsx';
import { Caution } from '../ui/caution.tsx';
import type { Closing } from '../ui/form.ts';
import { Panel } from '../ui/panel.tsx';
import { InstrumentCard } from './instrument-card.tsx';
import { type SelfTest, SelfTestButton } from './self-test.tsx';

interface TrialPanelProps extends Closing {
  readonly map: DeviceMap;
  readonly state: JobState;
  /** null: nothing can be shown as it lies */
  readonly trial: TrialNow | null;
  readonly where: WhereToTry | null;
  readonly ahead: readonly Op[];
  readonly selfTest: SelfTest | null;
  onSteps(steps: readonly DoneStep[]): void;
  onTest(test: EventData['test']): void;
}

/** The device tried in the middle of the work: alive for it, what it shows, and dead again before the next plug. */
export function TrialPanel({
  map,
  state,
  trial,
  where,
  ahead,
  selfTest,
  open,
  onClose,
  onSteps,
  onTest,
}: TrialPanelProps) {
  return (
    <Panel title="Try it now" said={where ? worthWords(where, ahead) : undefined} open={open} onClose={onClose}>
      {trial ? (
        <OnTrial map={map} state={state} trial={trial} selfTest={selfTest} onSteps={onSteps} onTest={onTest} />
      ) : (
        <p className="text-lead">
          Nothing can be shown as it lies: it is not alive and its plug can’t be pressed from here, or nothing that was
          touched is back yet.
        </p>
      )}
    </Panel>
  );
}

/** *2 trials on the way back are worth the time: about 4 min less is to be expected.* */
function worthWords({ trials }: WhereToTry, ahead: readonly Op[]): string {
  const left = trials.filter(({ before }) => ahead.some(({ id }) => id === before));
  if (left.length === 0) {
    return 'By the chance of a fault and what it costs to get at it later, it need not be tried now.';
  }
  const spared_s = left.reduce((sum, { spares_s }) => sum + spares_s, 0);
  return `${plural(left.length, 'trial')} on the way back ${left.length === 1 ? 'is' : 'are'} worth the time: about ${duration(spared_s)} less is to be expected in all (chances are guesses).`;
}

type OnTrialProps = Pick<TrialPanelProps, 'map' | 'state' | 'selfTest' | 'onSteps' | 'onTest'> & {
  readonly trial: TrialNow;
};

function OnTrial({ map, state, trial, selfTest, onSteps, onTest }: OnTrialProps) {
  const lost = lostFunctions(map, state.targets);
  const result = (id: string) => state.tests.findLast((each) => each.function === id && each.stage === 'trial')?.result;
  const next = trial.functions.find((id) => result(id) === undefined);
  const powerUps = state.steps.get('power-on:trial') ?? 0;
  if (trial.on) {
    return (
      <div className="flex flex-col gap-3">
        <Caution>
          A plug that is half home on a live board can destroy it. See that every plug is home or well away, and nothing
          loose lies on the board.
        </Caution>
        <Button weight="loud" onClick={() => onSteps(trial.on!)} className="min-h-18 text-lead">
          Battery in, power on
        </Button>
        {powerUps > 0 && <p className="text-body text-quiet">Powered up {plural(powerUps, 'time')} for a trial.</p>}
      </div>
    );
  }
  return (
    <div className="flex flex-col gap-3">
      <SelfTestButton selfTest={selfTest} functions={trial.functions} stage="trial" />
      <ul className="border-t border-ink text-lead">
        {trial.functions.map((id) => {
          const { name, how } = map.functions.find((each) => each.id === id)!;
          return (
            <li key={id} className="flex flex-col gap-1 border-b border-hair py-2">
              <span className="flex flex-wrap items-center gap-x-4 gap-y-1">
                <b className="grow">
                  {name}
                  {lost.has(id) && <span className="text-note text-care"> lost by this repair</span>}
                </b>
                <span className={result(id) === 'fails' ? 'font-bold text-now' : 'text-quiet'}>{result(id) ?? ''}</span>
                <Button onClick={() => onTest({ function: id, result: 'works', stage: 'trial' })}>Works</Button>
                <Button onClick={() => onTest({ function: id, result: 'fails', stage: 'trial' })}>Fails</Button>
              </span>
              <span className="text-body text-quiet">{how}</span>
              {id === next && <InstrumentCard map={map} tried={id} />}
            </li>
          );
        })}
      </ul>
      {trial.off && (
        <Button weight="loud" onClick={() => onSteps(trial.off!)} className="min-h-18 text-lead">
          Power off, battery off again
        </Button>
      )}
    </div>
  );
}
