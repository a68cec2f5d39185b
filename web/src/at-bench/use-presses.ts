import type { EventData } from '@nibrel/core/job/events';
import {
  type AtHand,
  type Does,
  lookAnswer,
  nextPress,
  nextScrew,
  restWorks,
  testAnswer,
} from '@nibrel/core/bench/in-hand';
import { useNavigate } from 'react-router';
import { sound } from '../app/feedback.ts';
import type { OpenJob } from '../job/job-frame.tsx';
import { useTellShop } from '../kit/tell-shop.ts';

interface Pressing {
  readonly job: Pick<OpenJob, 'bench' | 'mechanism' | 'state'>;
  readonly atHand: AtHand;
  readonly now: number;
  readonly isBusy: boolean;
  /** 0: the step in hand; else looked back or ahead from it */
  readonly look: number;
  onLook(look: number): void;
  onAsk(about: 'transplant' | 'wet'): void;
}

/** Does what the core says of a press: nothing is decided here. */
export function usePresses({ job, atHand, now, isBusy, look, onLook, onAsk }: Pressing) {
  const { bench, mechanism, state } = job;
  const { ahead } = bench;
  const op = ahead?.ops[0];
  const navigate = useNavigate();
  const tell = useTellShop();
  const press = nextPress(mechanism, state, ahead, now, atHand);

  const act = async (does: Does) => {
    switch (does.kind) {
      case 'go':
        return navigate(`/jobs/${state.job.id}/${does.to}`);
      case 'ask':
        return onAsk(does.about);
      case 'nothing':
        return sound('refused');
      case 'say': {
        if (does.events.some((said) => said.type === 'test' && said.data.result === 'fails')) sound('fails');
        for (const said of does.events) if (!(await bench.say(said))) return;
        if (does.teaches) tell.mutate(does.teaches);
        if (does.events.some(({ type }) => type === 'finish')) {
          sound('finished');
          return navigate(`/jobs/${state.job.id}/record`);
        }
      }
    }
  };
  const step = () => {
    // while it is not known what comes next, nothing does
    if (isBusy || !ahead || state.stopped || state.ended) return;
    if (look !== 0) return onLook(0);
    // asked at this very moment: the page's clock ticks a little behind
    const pressed = nextPress(mechanism, state, ahead, Date.now(), atHand);
    if (!pressed.isAllowed) return sound('refused');
    void act(pressed.does);
  };
  const test = (result: EventData['test']['result']) => {
    if (result === 'fails' && press.notSure && !isBusy && look === 0) return void act(press.notSure);
    const looked = result === 'fails' ? lookAnswer(op, 'failed') : [];
    const events = op ? [...testAnswer(mechanism.map, state, op, result), ...looked] : [];
    if (events.length > 0) void act({ kind: 'say', events });
  };
  const testRest = () => {
    const events = restWorks(mechanism.map, state, op);
    if (events.length > 0) void act({ kind: 'say', events });
  };
  const layOne = () => {
    const screw = nextScrew(mechanism, state, op);
    if (screw) void bench.say(screw);
  };
  const unlessBusy = (does: Does | null | undefined) => (does && !isBusy ? () => void act(does) : null);
  const { label, ops } = press;

  return {
    label,
    ops,
    step,
    test,
    testRest,
    layOne,
    endWait: unlessBusy(press.endsWait),
    heatAgain: unlessBusy(press.heatAgain),
    drags: unlessBusy(press.drags),
    notSure: unlessBusy(press.notSure),
  };
}
