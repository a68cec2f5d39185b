import { isSameName } from '@nibrel/core/model/names';
import { type EventData } from '@nibrel/core/job/events';
import { isDrying } from '@nibrel/core/job/rules';
import { type JobState, ONLY_BENCH } from '@nibrel/core/job/state';
import {
  bondToClose,
  clicks,
  doneStep,
  doneUntil,
  elapsed_s,
  isWatched,
  leaving,
  leadOf,
  nextUntested,
  noPlaceFor,
  opFor,
  sideBySide,
  waitLeft_s,
  withNewScrews,
} from '@nibrel/core/bench/in-hand';
import type { DeviceMap, Face } from '@nibrel/core/model/device-map';
import { type Op, TEST_AFTER } from '@nibrel/core/planner/drafts';
import { counts } from '@nibrel/core/screws/screws';
import { targetId } from '@nibrel/core/planner/search';
import { opWords, partName, plural } from '@nibrel/core/planner/words';
import { useQuery } from '@tanstack/react-query';
import { type MouseEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { useKeys } from '../app/keys.ts';
import { useNow } from '../app/now.ts';
import { shopQuery } from '../app/queries.ts';
import { atBench, useSettings } from '../app/settings.ts';
import { mainSide, type Side } from '../drawing/geometry.ts';
import { justClosed } from '../closing/just-closed.ts';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { sound, useSpokenStep, useWakeLock } from '../app/feedback.ts';
import { faceOf } from '../job/shown.ts';
import { BenchPanels } from './bench-panels.tsx';
import { BenchPicture } from './bench-picture.tsx';
import { FailedTests } from './failed-tests.tsx';
import { LookBack } from './look-back.tsx';
import { Mat } from './mat.tsx';
import { Nothing } from './nothing.tsx';
import { MoreBar, type PanelName } from './more-bar.tsx';
import { useSourceAhead } from './opening/use-source-ahead.ts';
import { useHand } from './opening/use-hand.tsx';
import { Operation } from './operation.tsx';
import { usePicture } from '../photos/use-picture.tsx';
import { UntilPanel } from './panels/until-panel.tsx';
import { JobFrame, type OpenJob } from '../job/job-frame.tsx';
import { NotTaken } from '../job/not-taken.tsx';
import { Stopped } from '../job/stopped.tsx';
import { TopBand } from './top-band.tsx';
import { useSelfTest } from '../trying/self-test.tsx';
import { useWhereToTry } from '../trying/use-where-to-try.ts';
import { worthTrying } from '../trying/worth-trying.ts';
import { useContainers } from '../screws/use-keepings.ts';
import { usePresses } from './use-presses.ts';

/** At the bench: one repair, from the plan to the record. */
export function BenchView() {
  return <JobFrame>{(job) => <Bench {...job} />}</JobFrame>;
}

function Bench({ bench, mechanism, map, state }: OpenJob) {
  const person = useSettings((settings) => settings.person);
  const isLarge = useSettings((settings) => settings.isLarge);
  const navigate = useNavigate();
  const now = useNow((at) => (isWatched(state, at) ? 250 : 10_000));
  const [panel, setPanel] = useState<PanelName | null>(person ? null : 'person');
  const [look, setLook] = useState(0);
  const [flippedFor, setFlippedFor] = useState<string | null>(null);
  const [until, setUntil] = useState<readonly Op[] | null>(null);
  useWakeLock();

  // somebody else's solvent counts here as well, and whoever heats next airs it
  const here = atBench().bench ?? ONLY_BENCH;
  const isUnaired = useQuery(shopQuery).data?.benches.some(
    (each) => isSameName(each.bench, here) && each.use.drops.length > 0,
  );

  // readings of a thermometer are put on disk beside the work, which goes on
  const busy = bench.asked > 0 || (bench.unsaved !== null && bench.unsaved.type !== 'heat-reading');
  const { ahead } = bench;
  const ops = ahead?.ops ?? NO_OPS;
  useSourceAhead(map, state, ops);
  const planned = useMemo(() => (ahead ? [...ahead.plan.strip, ...ahead.plan.rebuild] : []), [ahead]);
  const drying = isDrying(state) && ahead !== null;
  const held = state.stopped !== null || state.ended !== null;
  const op = ops[0];
  const shownOp = look > 0 ? ops[Math.min(look, ops.length - 1)] : op;
  const waitLeft = waitLeft_s(state, op, now);
  const timeUp = waitLeft !== null && waitLeft <= 0;
  // nothing sounds while a click is listened for
  const isListening = clicks(map, op);
  useEffect(() => {
    if (timeUp && !isListening) sound('time-up');
  }, [timeUp, isListening]);

  // a flip of the drawing holds for the operation in hand
  const flipped = flippedFor !== null && flippedFor === (op?.id ?? '');
  const face = stoppedAt(state) ?? (shownOp && faceOf(map, shownOp));
  const up: Side = face === 'front' || face === 'back' ? face : mainSide(map);
  const side: Side = flipped ? (up === 'front' ? 'back' : 'front') : up;
  const { hand, atHand } = useHand({ bench, map, state, op, side, now });
  const {
    label,
    ops: inHand,
    step,
    endWait,
    test,
    testRest,
    layOne,
    heatAgain,
    drags,
    notSure,
  } = usePresses({
    job: { bench, mechanism, state },
    atHand,
    now,
    isBusy: busy,
    look,
    onLook: setLook,
    onAsk: setPanel,
  });
  const words = inHand[0] && opWords(map, leadOf(inHand, timeUp));
  useSpokenStep(hand?.spoken ?? spokenOf(map, state, inHand, words));
  const alarm = hand?.alarm ?? null;
  useEffect(() => {
    if (alarm && !isListening) sound('time-up');
  }, [alarm, isListening]);
  const upTo = useCallback(
    (op: Op) => {
      const done = doneUntil(op, ops);
      if (done.length > 0) setUntil(done);
      else sound('refused');
    },
    [ops],
  );
  const pressThing = useCallback(
    (thing: string) => {
      const pressed = opFor(thing, ops);
      if (pressed) upTo(pressed);
    },
    [ops, upTo],
  );
  const takeAll = (taken: readonly Op[]) => {
    setLook(0);
    void bench.send('did', { steps: taken.map(doneStep) });
  };
  const newScrews = () => {
    const asked = bench.refusal?.asked;
    if (asked?.type !== 'did') return;
    void bench.send('did', { steps: withNewScrews(mechanism, state, asked.data.steps) });
  };

  const refusedSteps = bench.refusal?.asked?.type === 'did' ? bench.refusal.asked.data.steps : [];
  const isForNewScrews = withNewScrews(mechanism, state, refusedSteps).some(({ freshScrews }) => freshScrews);

  /** also while it is stopped: then more than ever */
  const sourceOff = () => {
    const { heating } = state.opening;
    if (heating)
      void bench.send('heat-off', { joint: heating.joint, seconds: Math.round(elapsed_s(heating, Date.now())) });
  };

  // what is new begins at its top, whatever was scrolled to before it
  const column = useRef<HTMLDivElement>(null);
  const inSight = `${shownOp?.id ?? ''} ${hand?.title ?? ''}`;
  const wasInSight = useRef('');
  useEffect(() => {
    if (wasInSight.current === inSight) return;
    wasInSight.current = inSight;
    column.current?.scrollTo({ top: 0 });
  }, [inSight]);

  const toClose = bondToClose(map, op);

  const toIntake = useCallback(() => void navigate(`/jobs/${state.job.id}/intake`), [navigate, state.job.id]);

  const toScrews = useCallback(() => void navigate(`/jobs/${state.job.id}/screws`), [navigate, state.job.id]);
  const containers = useContainers(map, state);

  const lookedAt = Math.floor(now / LOOKED_AT_MS) * LOOKED_AT_MS;
  const warm = atHand.warm ?? null;
  const where = useWhereToTry(map, state, ahead?.plan);
  const selfTest = useSelfTest(state.job.id, (test) => void bench.send('test', test));
  const mayLeave = useMemo(
    () => leaving(mechanism, state, ops, lookedAt, warm),
    [mechanism, state, ops, lookedAt, warm],
  );
  const askLeaving = useCallback(() => setPanel('leaving'), []);
  const { send, undo } = bench;
  const keepPhoto = useCallback((photo: EventData['photo']) => send('photo', photo), [send]);
  const { take, shown: pictured } = usePicture(state.job.id, keepPhoto);
  const takePicture = useCallback(
    () => take(op ? { step: op.id, ...(op.part === undefined ? {} : { part: op.part }) } : {}),
    [take, op],
  );
  const takeMat = useCallback(() => take({ of: 'mat' }), [take]);
  const pause = useCallback(() => void send(state.paused ? 'resume' : 'pause', {}), [send, state.paused]);
  const undoLast = useCallback(() => void undo(), [undo]);
  const askWho = useCallback(() => setPanel('person'), []);
  const beside = useMemo(() => sideBySide(mechanism, state, shownOp, ops), [mechanism, state, shownOp, ops]);
  const closed = useMemo(() => justClosed(mechanism, state), [mechanism, state]);
  useKeys({
    x: () => setPanel('stop'),
    n: () => setPanel('note'),
    q: () => setPanel('held'),
    i: () => setPanel('person'),
    r: () => void navigate(`/jobs/${state.job.id}/record`),
    a: toIntake,
    s: toScrews,
    z: () => setPanel('leaving'),
    v: takePicture,
    y: takeMat,
    '?': () => setPanel('keys'),
    ArrowLeft: () => setLook((at) => Math.max(at - 1, -state.events.length)),
    Home: () => setLook(0),
    Escape: () => setLook(0),
    // what goes on with the work waits for the lead while it is stopped
    ...(held
      ? {}
      : {
          ' ': step,
          PageDown: step,
          PageUp: () => setLook((at) => at - 1),
          ArrowRight: () => setLook((at) => Math.min(at + 1, ops.length - 1)),
          Enter: () => look > 0 && shownOp && upTo(shownOp),
          u: undoLast,
          l: layOne,
          ...(endWait ? { w: endWait } : {}),
          ...(heatAgain ? { h: heatAgain } : {}),
          ...(drags ? { d: drags } : {}),
          '2': () => test('fails'),
          '3': () => test('not-tried'),
          '5': testRest,
          f: () => setFlippedFor(flipped ? null : (op?.id ?? '')),
          m: () => setPanel('missing'),
          t: () => setPanel('trouble'),
          e: () => setPanel('other'),
          o: () => setPanel('not-mapped'),
          ...(toClose ? { k: () => setPanel('closing') } : {}),
          j: () => setPanel('trial'),
          '6': () => setPanel('flush'),
          g: () => setPanel('target'),
          c: () => setPanel('target'),
          p: pause,
        }),
  });

  return (
    <div className={`flex min-h-dvh flex-col md:h-dvh ${isLarge ? 'for-far' : ''}`} onClick={letGo}>
      <TopBand
        mechanism={mechanism}
        map={map}
        state={state}
        ahead={bench.ahead}
        now={now}
        person={person}
        onPerson={askWho}
      />
      <main className="grid min-h-0 grow md:grid-cols-[1fr_15.5rem] md:grid-rows-[minmax(0,auto)_minmax(0,1fr)] lg:grid-rows-1 lg:grid-cols-[minmax(25rem,5fr)_6fr_minmax(15.5rem,2.6fr)]">
        <div
          ref={column}
          className="flex min-h-0 flex-col overflow-y-auto border-ink bg-sheet md:col-span-2 md:max-h-[52dvh] lg:max-h-none md:border-b lg:col-span-1 lg:border-r lg:border-b-0"
        >
          <NotTaken bench={bench}>
            {isForNewScrews && <Button onClick={newScrews}>Put in new screws</Button>}
            {bench.refusal?.asked?.type === 'heat-on' && isUnaired && (
              <Button onClick={() => void bench.send('aired', { step: 'vent:bench', ...atBench() })}>
                The bench was aired
              </Button>
            )}
          </NotTaken>
          {bench.planProblem && (
            <Trouble title="No plan from here">
              <p>{bench.planProblem}</p>
              <div className="mt-2 flex flex-wrap gap-2">
                <Button keyName="G" onClick={() => setPanel('target')}>
                  Change the job
                </Button>
                <Button onClick={bench.planAgain}>Plan again</Button>
              </div>
            </Trouble>
          )}
          {ahead && ahead.failed.length > 0 && !state.stopped && !state.ended && (
            <FailedTests
              map={map}
              failed={ahead.failed}
              isBrief={op?.name === 'test' && nextUntested(state, op) !== undefined}
              stage={ops.length === 0 || ops[0]!.id === TEST_AFTER ? 'after' : op?.name === 'test' ? 'before' : 'trial'}
              onTest={(test) => void bench.send('test', test)}
              onDecision={(decision) => void bench.send('decision', decision)}
              onReopen={(again) => {
                const asked = new Set(again.map((each) => targetId(each)));
                const others = state.targets.filter((each) => !asked.has(targetId(each)));
                void bench.send('targets', { targets: [...others, ...again] });
              }}
            />
          )}
          {state.stopped || state.ended ? (
            <Stopped state={state} onLead={() => setPanel('lead')}>
              {state.opening.heating && <Button onClick={sourceOff}>Heat off and away</Button>}
            </Stopped>
          ) : look < 0 ? (
            <LookBack map={map} state={state} back={-look} />
          ) : shownOp ? (
            <Operation
              mechanism={mechanism}
              state={state}
              op={shownOp}
              together={look === 0 && inHand.length > 0 ? inHand : [shownOp]}
              ahead={ops}
              plan={planned}
              onTick={(op) => takeAll(inHand.slice(0, inHand.indexOf(op) + 1))}
              lookahead={Math.max(0, look)}
              left={ops.length}
              waitLeft={look === 0 ? waitLeft : null}
              label={busy ? 'Saving' : label}
              busy={busy}
              hand={look === 0 ? hand : null}
              onHeatAgain={look === 0 ? heatAgain : null}
              onDrags={look === 0 ? drags : null}
              onNotSure={look === 0 ? notSure : null}
              onClosing={look === 0 && toClose ? () => setPanel('closing') : null}
              onEndWait={look === 0 ? endWait : null}
              onPeak={(peak) => bench.send('tightened', peak)}
              selfTest={selfTest}
              worthTrying={look === 0 ? worthTrying(map, where, shownOp) : null}
              onTry={() => setPanel('trial')}
              beside={beside}
              onBattery={(read) => void bench.send('battery-read', read)}
              onNoPlace={(joint, text) => beside && void bench.say(noPlaceFor(state, beside.part, joint, text))}
              toFeel={look === 0 && closed && !state.flush.has(closed.id) ? partName(map, closed.id) : null}
              onFeel={() => setPanel('flush')}
              onStep={step}
            />
          ) : (
            <Nothing
              mechanism={mechanism}
              state={state}
              known={ahead !== null}
              planning={bench.planning}
              drying={drying}
              label={label}
              onStep={step}
              onDecision={(what, text) => bench.send('decision', { about: 'left-open', what, text })}
              onTest={(test) => void bench.send('test', test)}
              onEnd={(text) => bench.send('end', { text })}
            />
          )}
          {state.paused && !state.stopped && (
            <p className="border-t border-hair px-6 py-3 text-lead">
              Paused. The next step, or <kbd>P</kbd>, goes on.
            </p>
          )}
        </div>
        <BenchPicture
          mechanism={mechanism}
          state={state}
          op={shownOp}
          together={look === 0 ? inHand : NO_OPS}
          side={side}
          beside={beside}
          foreseen={look === 0 ? hand?.picture : undefined}
          marks={look === 0 ? hand?.marks : undefined}
          pictured={pictured}
          onPress={pressThing}
        />
        <Mat
          map={map}
          containers={containers}
          state={state}
          ahead={ops}
          now={op}
          leaving={mayLeave}
          onLeaving={askLeaving}
          onScrews={toScrews}
          onPicture={takePicture}
          onMatPicture={takeMat}
        />
      </main>
      <MoreBar
        paused={state.paused}
        held={held}
        onUndo={undoLast}
        onPanel={setPanel}
        onPause={pause}
        onIntake={toIntake}
      />
      <BenchPanels
        mechanism={mechanism}
        state={state}
        op={op}
        bond_C={hand?.bond_C}
        leaving={mayLeave}
        ahead={ops}
        where={where}
        selfTest={selfTest}
        closed={closed}
        panel={panel}
        onPanel={setPanel}
        send={bench.send}
      />
      <UntilPanel map={map} ops={until} onClose={() => setUntil(null)} onTake={takeAll} />
    </div>
  );
}

/** The face on which the damage is marked that stopped it. */
function stoppedAt({ stops, damage }: JobState): Face | undefined {
  return damage.findLast(({ id }) => stops.some((stop) => stop.id === id))?.face;
}

/** The step and its count aloud; of a plug its name only, since its click is listened for. */
function spokenOf(map: DeviceMap, { ledger }: JobState, ops: readonly Op[], words: OpWords | undefined): string {
  if (!words) return '';
  if (clicks(map, ops[0])) return words.title;
  const { onMat } = counts(ledger);
  const mat = ops[0]?.name === 'count' ? ` ${plural(onMat, 'screw')} on the mat.` : '';
  return `${words.title}. ${words.thing}.${mat}`;
}

type OpWords = ReturnType<typeof opWords>;

/** What turns bad is looked at so often. */
const LOOKED_AT_MS = 10_000;

const NO_OPS: readonly Op[] = [];

/** A button that was pressed by hand does not keep the pedal: the next Space is the step again. */
function letGo(event: MouseEvent) {
  if (event.detail > 0) (event.target as HTMLElement).closest('button')?.blur();
}
