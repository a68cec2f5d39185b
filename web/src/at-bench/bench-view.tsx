import type { DoneStep, EventData } from '@nibrel/core/bench';
import { doneStep } from '@nibrel/core/bench';
import type { Op, Target } from '@nibrel/core/plan';
import { keyOf, looseScrewsOf } from '@nibrel/core/screws';
import { type MouseEvent, useEffect, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useStore } from 'zustand';
import { useKeys } from '../app/keys.ts';
import { useNow } from '../app/now.ts';
import { useSettings } from '../app/settings.ts';
import { DeviceDrawing } from '../drawing/device-drawing.tsx';
import { mainSide, type Side } from '../drawing/geometry.ts';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { sound, useSpokenStep, useWakeLock } from './feedback.ts';
import { LookBack } from './look-back.tsx';
import { Mat } from './mat.tsx';
import { MissingScrewsPanel } from './panels/missing-screws.tsx';
import { nextUntested, Operation, testStage } from './operation.tsx';
import { opWords } from './op-words.ts';
import { OtherStepPanel } from './panels/other-step.tsx';
import { KeysPanel } from './panels/keys-panel.tsx';
import { NotePanel } from './panels/note-panel.tsx';
import { PersonPanel } from './panels/person-panel.tsx';
import { ClearPanel, StopPanel } from './panels/stop-panels.tsx';
import { TargetPanel } from './panels/target-panel.tsx';
import { TroublePanel } from './panels/trouble-panel.tsx';
import { UntilPanel } from './panels/until-panel.tsx';
import { openSession } from './session.ts';
import { shownOf } from './shown.ts';
import { TopBand } from './top-band.tsx';
import { doneUntil, opFor } from './until.ts';

type PanelName = 'person' | 'note' | 'trouble' | 'stop' | 'clear' | 'target' | 'keys' | 'other' | 'missing';

/** At the bench: one repair, from the plan to the record. */
export function BenchView() {
  const { id = '' } = useParams();
  const [session] = useState(() => openSession(id));
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
          <Button className="mt-3" onClick={() => void bench.load()}>
            Try again
          </Button>
        </Trouble>
      </main>
    );
  }
  if (bench.phase === 'loading' || !bench.state || !bench.mechanism) {
    return <main className="p-8 text-far text-quiet">Fetching the repair</main>;
  }
  return <Bench session={session} />;
}

function Bench({ session }: { readonly session: ReturnType<typeof openSession> }) {
  const bench = useStore(session);
  const [mechanism, state] = [bench.mechanism!, bench.state!];
  const { map } = mechanism;
  const person = useSettings((settings) => settings.person);
  const navigate = useNavigate();
  const now = useNow(state.timers.length > 0 ? 250 : 10_000);
  const [panel, setPanel] = useState<PanelName | null>(person ? null : 'person');
  const [look, setLook] = useState(0);
  const [flippedFor, setFlippedFor] = useState<string | null>(null);
  const [until, setUntil] = useState<readonly Op[] | null>(null);
  useWakeLock();

  const ops = bench.ahead?.ops ?? [];
  const op = ops[0];
  const shownOp = look > 0 ? ops[Math.min(look, ops.length - 1)] : op;
  const words = op && opWords(map, op);
  useSpokenStep(words ? `${words.title}. ${words.thing}` : '');
  const timer = state.timers.find((each) => each.step === op?.id);
  const waitLeft = timer ? timer.seconds - (now - Date.parse(timer.startedAt)) / 1000 : null;
  const timeUp = waitLeft !== null && waitLeft <= 0;
  useEffect(() => {
    if (timeUp) sound('time-up');
  }, [timeUp]);

  // a flip of the drawing holds for the operation in hand
  const flipped = flippedFor !== null && flippedFor === (op?.id ?? '');
  const up: Side = shownOp?.face === 'front' || shownOp?.face === 'back' ? shownOp.face : mainSide(map);
  const side: Side = flipped ? (up === 'front' ? 'back' : 'front') : up;
  const told = async (sent: Promise<boolean>, then?: () => void) => {
    const taken = await sent;
    sound(taken ? 'step' : 'refused');
    if (taken) then?.();
  };
  const send = <Type extends keyof EventData>(type: Type, data: EventData[Type]) => void told(bench.send(type, data));
  const test = (result: EventData['test']['result']) => {
    const next = op?.name === 'test' ? nextUntested(state, op) : undefined;
    if (op && next) send('test', { function: next, result, stage: testStage(op) });
    return next !== undefined;
  };

  const step = () => {
    if (state.stopped || bench.unsaved) return;
    if (look !== 0) return setLook(0);
    if (!op) return state.finished ? void navigate(`/jobs/${state.job.id}/record`) : finish();
    if (op.name === 'test' && test('works')) return;
    if (op.wait_s && !timer) return send('timer', { step: op.id, seconds: op.wait_s });
    if (waitLeft !== null && waitLeft > 0) return sound('refused');
    void told(bench.step(op));
  };
  const finish = () => void told(bench.send('finish', {}), () => navigate(`/jobs/${state.job.id}/record`));
  const endWait = () => {
    if (op && timer) void told(bench.step(op));
  };
  const layOne = () => {
    const joint = map.joints.find((each) => each.id === op?.joint);
    if (joint?.type !== 'screw' || op?.kind !== 'release') return;
    const laid = new Set(state.ledger.onMat.map(keyOf));
    const next = looseScrewsOf(map, joint, state.ledger).find((each) => !laid.has(keyOf(each)));
    if (next) send('screw', { joint: joint.id, point: next.point });
  };
  const press = (thing: string) => {
    const pressed = opFor(thing, ops);
    if (pressed) setUntil(doneUntil(pressed, ops));
  };
  const take = (taken: readonly Op[]) => {
    setLook(0);
    send('did', { steps: taken.map(doneStep) });
  };
  const other = (done: DoneStep, anyway?: string) => send('did', { steps: [done], ...(anyway ? { anyway } : {}) });
  const newScrews = () => {
    const asked = bench.refusal?.asked;
    if (asked?.type !== 'did') return;
    const steps = asked.data.steps.map((each) => {
      const joint = map.joints.find((one) => one.id === each.joint);
      return joint?.type === 'screw' && each.kind === 'make'
        ? {
            ...each,
            freshScrews: state.ledger.lost.filter((screw) => screw.joint === joint.id).map((screw) => screw.point),
          }
        : each;
    });
    send('did', { steps });
  };

  useKeys({
    ' ': step,
    PageDown: step,
    PageUp: () => setLook((at) => at - 1),
    ArrowRight: () => setLook((at) => Math.min(at + 1, ops.length - 1)),
    ArrowLeft: () => setLook((at) => Math.max(at - 1, -state.events.length)),
    Home: () => setLook(0),
    Escape: () => setLook(0),
    Enter: () => look > 0 && shownOp && setUntil(doneUntil(shownOp, ops)),
    u: () => void told(bench.undo()),
    l: layOne,
    w: endWait,
    '2': () => test('fails'),
    '3': () => test('not-tried'),
    f: () => setFlippedFor(flipped ? null : (op?.id ?? '')),
    m: () => setPanel('missing'),
    t: () => setPanel('trouble'),
    e: () => setPanel('other'),
    n: () => setPanel('note'),
    g: () => setPanel('target'),
    c: () => setPanel('target'),
    p: () => send(state.paused ? 'resume' : 'pause', {}),
    x: () => setPanel('stop'),
    i: () => setPanel('person'),
    r: () => void navigate(`/jobs/${state.job.id}/record`),
    '?': () => setPanel('keys'),
  });
  const close = () => setPanel(null);

  return (
    <div className="flex min-h-dvh flex-col lg:h-dvh" onClick={letGo}>
      <TopBand
        mechanism={mechanism}
        map={map}
        state={state}
        ahead={bench.ahead}
        now={now}
        person={person}
        onPerson={() => setPanel('person')}
      />
      <main className="grid min-h-0 grow md:grid-cols-[1fr_15.5rem] lg:grid-cols-[minmax(25rem,5fr)_6fr_minmax(15.5rem,2.6fr)]">
        <div className="flex min-h-0 flex-col overflow-y-auto border-ink bg-sheet md:col-span-2 md:border-b lg:col-span-1 lg:border-r lg:border-b-0">
          {bench.unreachable && (
            <Trouble title="The server does not answer">
              <p>Nothing more is shown as done until it does. Trying again by itself.</p>
            </Trouble>
          )}
          {bench.refusal && (
            <Trouble title="Not taken">
              <p>{bench.refusal.problem}</p>
              <div className="mt-2 flex gap-2">
                {state.ledger.lost.length > 0 && bench.refusal.asked.type === 'did' && (
                  <Button onClick={newScrews}>Put in new screws</Button>
                )}
                <Button onClick={bench.dismiss}>Understood</Button>
              </div>
            </Trouble>
          )}
          {bench.planProblem && (
            <Trouble title="No plan from here">
              <p>{bench.planProblem}</p>
              <Button className="mt-2" keyName="G" onClick={() => setPanel('target')}>
                Change the target
              </Button>
            </Trouble>
          )}
          {state.stopped ? (
            <Stopped stopped={state.stopped} onClear={() => setPanel('clear')} />
          ) : look < 0 ? (
            <LookBack map={map} state={state} back={-look} />
          ) : shownOp ? (
            <Operation
              mechanism={mechanism}
              state={state}
              op={shownOp}
              lookahead={Math.max(0, look)}
              left={ops.length}
              waitLeft={look === 0 ? waitLeft : null}
              busy={bench.unsaved !== null}
              onStep={step}
            />
          ) : (
            <Nothing planning={bench.planning || !bench.ahead} finished={state.finished !== null} onStep={step} />
          )}
          {state.paused && !state.stopped && (
            <p className="border-t border-hair px-6 py-3 text-lead">
              Paused. The next step, or <kbd>P</kbd>, goes on.
            </p>
          )}
        </div>
        <div className="relative h-[58dvh] min-h-96 p-3 lg:h-auto lg:min-h-0" role="presentation">
          <DeviceDrawing
            map={map}
            side={side}
            {...shownOf(mechanism, state, shownOp)}
            onPress={press}
            label={`${map.name}, ${side} up`}
          />
          <p className="absolute bottom-2 left-4 text-note text-quiet">
            {side === 'front' ? 'Front up' : 'Back up, drawn mirrored'}
          </p>
        </div>
        <Mat map={map} state={state} ahead={ops} now={op} />
      </main>
      <nav aria-label="More" className="flex flex-wrap gap-x-1 border-t border-ink px-3 text-note">
        <Button weight="quiet" keyName="U" onClick={() => void told(bench.undo())}>
          Undo
        </Button>
        <Button weight="quiet" keyName="T" onClick={() => setPanel('trouble')}>
          Trouble
        </Button>
        <Button weight="quiet" keyName="E" onClick={() => setPanel('other')}>
          Something else
        </Button>
        <Button weight="quiet" keyName="G" onClick={() => setPanel('target')}>
          Target
        </Button>
        <Button weight="quiet" keyName="N" onClick={() => setPanel('note')}>
          Note
        </Button>
        <Button weight="quiet" keyName="P" onClick={() => send(state.paused ? 'resume' : 'pause', {})}>
          {state.paused ? 'Go on' : 'Pause'}
        </Button>
        <Button weight="quiet" keyName="?" onClick={() => setPanel('keys')}>
          Keys
        </Button>
        <Button weight="quiet" keyName="X" className="ml-auto font-bold text-now" onClick={() => setPanel('stop')}>
          Stop now
        </Button>
      </nav>
      <PersonPanel open={panel === 'person'} onClose={close} />
      <NotePanel open={panel === 'note'} onClose={close} onNote={(text) => send('note', { text })} />
      <TroublePanel
        key={op?.id}
        map={map}
        op={op}
        open={panel === 'trouble'}
        onClose={close}
        onTrouble={(trouble) => send('trouble', trouble)}
      />
      <StopPanel open={panel === 'stop'} onClose={close} onStop={(stop) => send('stop', stop)} />
      <ClearPanel open={panel === 'clear'} onClose={close} onClear={(text) => send('clear', { text })} />
      <TargetPanel
        map={map}
        targets={state.targets}
        open={panel === 'target'}
        onClose={close}
        onTargets={(targets: readonly Target[]) => send('targets', { targets })}
      />
      <OtherStepPanel mechanism={mechanism} state={state} open={panel === 'other'} onClose={close} onDone={other} />
      <MissingScrewsPanel
        map={map}
        state={state}
        open={panel === 'missing'}
        onClose={close}
        onFound={(screw) => send('found', screw)}
        onDecision={(text) => send('decision', { about: 'missing-screw', text })}
      />
      <KeysPanel open={panel === 'keys'} onClose={close} />
      <UntilPanel map={map} ops={until} onClose={() => setUntil(null)} onTake={take} />
    </div>
  );
}

/** A button that was pressed by hand does not keep the pedal: the next Space is the step again. */
function letGo(event: MouseEvent) {
  if (event.detail > 0) (event.target as HTMLElement).closest('button')?.blur();
}

function Stopped({
  stopped,
  onClear,
}: {
  readonly stopped: { reason: string; text: string; by: string };
  onClear(): void;
}) {
  return (
    <section aria-label="Stopped" className="flex flex-col gap-4 border-l-8 border-now p-6">
      <h1 className="text-loud leading-tight font-bold text-now">Stopped: {stopped.reason}</h1>
      <p className="text-lead">
        Hands off the cell, heat and charger off. Isolated in the sand, outdoors if it can be carried safely. Local
        rules for lithium waste and transport decide. {stopped.by} stopped it{stopped.text ? `: ${stopped.text}` : '.'}
      </p>
      <p className="text-lead">The lead decides whether it goes on.</p>
      <Button onClick={onClear}>The lead clears it</Button>
    </section>
  );
}

function Nothing({
  planning,
  finished,
  onStep,
}: {
  readonly planning: boolean;
  readonly finished: boolean;
  onStep(): void;
}) {
  if (planning) return <p className="p-6 text-far text-quiet">Planning from here</p>;
  return (
    <section aria-label="Operation" className="flex flex-col gap-4 p-6">
      <h1 className="text-loud leading-tight font-bold">{finished ? 'Finished' : 'Everything is back and tried'}</h1>
      <Button weight="loud" keyName="Space" data-step="" onClick={onStep} className="min-h-18 text-lead">
        {finished ? 'To the record' : 'Finish, to the record'}
      </Button>
    </section>
  );
}
