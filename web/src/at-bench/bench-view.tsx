import {
  always,
  askedAhead,
  askedAtBench,
  askedBack,
  type BenchNow,
  LOOK_KEYS,
  whatIsWrong,
} from '@nibrel/core/asking/at-bench';
import { type Answer, byLetter, type Gives, type Question, type Sheet } from '@nibrel/core/asking/question';
import {
  clicks,
  doneStep,
  doneUntil,
  isWatched,
  justClosed,
  leadOf,
  leaving,
  nextPress,
  noPlaceFor,
  opFor,
  sideBySide,
  waitLeft_s,
} from '@nibrel/core/bench/in-hand';
import type { EventData, TroubleKind } from '@nibrel/core/job/events';
import type { Op } from '@nibrel/core/planner/drafts';
import { type ReactNode, useCallback, useEffect, useMemo, useState } from 'react';
import { sound, useSpokenStep, useWakeLock } from '../app/feedback.ts';
import { useNow } from '../app/now.ts';
import { useSettings } from '../app/settings.ts';
import { benchUnit } from '../app/units.ts';
import { AnswerBar } from '../frame/answer-bar.tsx';
import { AnswersSheet } from '../frame/answers-sheet.tsx';
import { Asked, FieldAsked } from '../frame/asked.tsx';
import { Frame } from '../frame/frame.tsx';
import { KeysSheet } from '../frame/keys-sheet.tsx';
import { useAnswers } from '../frame/use-answers.ts';
import { useField } from '../frame/use-field.ts';
import { useGive } from '../frame/use-give.ts';
import { JobFrame, type OpenJob } from '../job/job-frame.tsx';
import { Stopped } from '../job/stopped.tsx';
import { usePicture } from '../photos/use-picture.tsx';
import { TakingApart } from '../taking-apart/taking-apart.tsx';
import { useContainers } from '../screws/use-keepings.ts';
import { useSelfTest } from '../trying/self-test.tsx';
import { useWhereToTry } from '../trying/use-where-to-try.ts';
import { BenchPanels } from './bench-panels.tsx';
import { BenchPicture } from './bench-picture.tsx';
import { BenchRefusals } from './bench-refusals.tsx';
import { LookBack } from './look-back.tsx';
import { Mat } from './mat.tsx';
import { useHand } from './opening/use-hand.tsx';
import { useSourceAhead } from './opening/use-source-ahead.ts';
import { UntilPanel } from './panels/until-panel.tsx';
import { ScrewsOfJoint } from './screws-of-joint.tsx';
import { spokenOf } from './spoken.ts';
import { StepBody } from './step-body.tsx';
import { TopBand } from './top-band.tsx';
import { useLooking } from './use-looking.ts';
import { Why } from './why.tsx';

/** At the bench: one repair, from the plan to the record. */
export function BenchView() {
  return <JobFrame>{(job) => (job.state.teardown === 'on' ? <TakingApart {...job} /> : <Bench {...job} />)}</JobFrame>;
}

function Bench({ session, bench, mechanism, map, state }: OpenJob) {
  const person = useSettings((settings) => settings.person);
  const now = useNow((at) => (isWatched(state, at) ? 250 : 10_000));
  const [sheet, setSheet] = useState<Sheet | null>(person ? null : 'person');
  const [trouble, setTrouble] = useState<TroubleKind | undefined>();
  const [until, setUntil] = useState<readonly Op[] | null>(null);
  useWakeLock();

  // readings of a thermometer are put on disk beside the work, which goes on
  const busy = bench.asked > 0 || (bench.unsaved !== null && bench.unsaved.type !== 'heat-reading');
  const { ahead } = bench;
  const ops = ahead?.ops ?? NO_OPS;
  useSourceAhead(map, state, ops);
  const held = state.stopped !== null || state.ended !== null;
  const op = ops[0];
  const looking = useLooking(map, state, ops);
  const { look, op: shownOp, side } = looking;
  const { hand, atHand } = useHand({ bench, map, state, op, side, now });
  const where = useWhereToTry(map, state, ahead?.plan);

  const at: BenchNow = { mechanism, state, ahead, now, atHand, where, unit: benchUnit() };
  const asked = askedAtBench(at);
  const question =
    held || look === 0 ? asked : look < 0 ? askedBack() : shownOp ? askedAhead(at, shownOp, look) : asked;
  const press = nextPress(mechanism, state, ahead, now, atHand);
  const together = look === 0 ? press.ops : NO_OPS;
  const waitLeft = waitLeft_s(state, op, now);
  const timeUp = waitLeft !== null && waitLeft <= 0;
  const isListening = clicks(map, op);
  const lead = shownOp && (look === 0 && together.length > 0 ? leadOf(together, timeUp) : shownOp);
  const wrong = whatIsWrong(mechanism, state, op);
  const ends = always(state);

  useSpokenStep(hand?.spoken ?? spokenOf(map, state, asked, op));
  const alarm = hand?.alarm ?? timeUp;
  useEffect(() => {
    // nothing sounds while a click is listened for
    if (alarm && !isListening) sound('time-up');
  }, [alarm, isListening]);

  const { send } = bench;
  const keepPhoto = useCallback((photo: EventData['photo']) => send('photo', photo), [send]);
  const { take, shown: pictured } = usePicture(state.job.id, keepPhoto);
  const give = useGive(bench, {
    onAsk: (about, kind) => {
      setTrouble(kind);
      setSheet(about);
    },
    onPicture: (of) =>
      take(of === 'mat' ? { of } : op ? { step: op.id, ...(op.part === undefined ? {} : { part: op.part }) } : {}),
    onUntil: () => look > 0 && shownOp && upTo(shownOp),
    onLook: looking.to,
  });
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

  const saysNothing = (gives: Gives) => gives.kind !== 'say' && gives.kind !== 'go';
  const field = useField(question, (gives) => {
    const { asked, unsaved } = session.getState();
    const isFree = asked === 0 && (unsaved === null || unsaved.type === 'heat-reading');
    return isFree || saysNothing(gives) ? give(gives) : false;
  });
  const answer = (chosen: Answer) => {
    if (look !== 0) return field.give(chosen);
    // asked at this very moment: the page's clock ticks a little behind
    const fresh = askedAtBench({ ...at, now: Date.now() });
    const same = fresh.id === question.id && fresh.answers.find(({ id }) => id === chosen.id);
    return field.give(same || chosen);
  };
  const other = ({ gives }: Answer) => void give(gives);
  useAnswers(question.answers, answer);
  const lettered = [...ends, ...byLetter(wrong.answers), ...LOOK_KEYS];
  useAnswers(lettered, other);

  const containers = useContainers(map, state);
  const lookedAt = Math.floor(now / LOOKED_AT_MS) * LOOKED_AT_MS;
  const warm = atHand.warm ?? null;
  const mayLeave = useMemo(
    () => leaving(mechanism, state, ops, lookedAt, warm),
    [mechanism, state, ops, lookedAt, warm],
  );
  const selfTest = useSelfTest(state.job.id, (test) => void send('test', test));
  const beside = useMemo(() => sideBySide(mechanism, state, shownOp, ops), [mechanism, state, shownOp, ops]);
  const closed = useMemo(() => justClosed(mechanism, state), [mechanism, state]);
  const ask = useCallback((about: Sheet) => setSheet(about), []);
  const askWho = useCallback(() => ask('person'), [ask]);
  const askLeaving = useCallback(() => ask('leaving'), [ask]);
  const isStep = !held && look === 0 && op !== undefined;

  const body: ReactNode =
    look < 0 && !held ? (
      <LookBack map={map} state={state} back={-look} />
    ) : (
      <Asked
        question={question}
        name={regionOf(question)}
        lead={isStep ? hand?.lead : undefined}
        field={question.field && <FieldAsked key={question.id} field={question.field} {...field.shown} />}
        renderLine={({ at: thing }) => thing !== null && <ScrewsOfJoint map={map} state={state} jointId={thing} />}
        onLine={(line) => !busy && line.gives && void give(line.gives)}
        why={
          lead &&
          !held && <Why short={question.why} op={lead} isLong={looking.isWhyLong} onPress={() => void give(WHY)} />
        }
      >
        {shownOp && lead && !held && !question.id.startsWith('failed') && (
          <StepBody
            mechanism={mechanism}
            state={state}
            op={shownOp}
            lead={lead}
            together={together.length > 0 ? together : [shownOp]}
            isNow={look === 0}
            selfTest={selfTest}
            beside={beside}
            onPeak={(peak) => send('tightened', peak)}
            onBattery={(read) => void send('battery-read', read)}
            onNoPlace={(joint, text) => beside && void bench.say(noPlaceFor(state, beside.part, joint, text))}
          />
        )}
        {isStep && hand?.body}
      </Asked>
    );

  return (
    <Frame
      askedId={question.id}
      head={
        <TopBand
          mechanism={mechanism}
          map={map}
          state={state}
          ahead={ahead}
          now={now}
          person={person}
          onPerson={askWho}
        />
      }
      asked={
        <>
          <BenchRefusals bench={bench} mechanism={mechanism} state={state} onTarget={() => ask('target')} />
          {held ? <Stopped state={state} /> : body}
          {state.paused && !held && (
            <p className="border-t border-hair px-6 py-3 text-lead">
              Paused. The next step, or <kbd>P</kbd>, goes on.
            </p>
          )}
        </>
      }
      where={
        <BenchPicture
          mechanism={mechanism}
          state={state}
          op={shownOp}
          together={together}
          list={question.list}
          side={side}
          beside={beside}
          foreseen={look === 0 ? hand?.picture : undefined}
          marks={look === 0 ? hand?.marks : undefined}
          pictured={pictured}
          onPress={pressThing}
        />
      }
      loose={
        <Mat
          mechanism={mechanism}
          containers={containers}
          state={state}
          ahead={ops}
          now={op}
          leaving={mayLeave}
          onLeaving={askLeaving}
        />
      }
      bar={
        <>
          <AnswerBar
            answers={question.answers}
            always={ends}
            wait={question.wait}
            isBusy={busy}
            onGive={(chosen) => (ends.includes(chosen) ? other(chosen) : answer(chosen))}
          />
          <AnswersSheet question={wrong} open={sheet === 'wrong'} onClose={() => setSheet(null)} onGive={other} />
          <KeysSheet
            answers={[...question.answers, ...lettered]}
            open={sheet === 'keys'}
            onClose={() => setSheet(null)}
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
            panel={sheet}
            trouble={trouble}
            onPanel={setSheet}
            send={send}
          />
          <UntilPanel
            map={map}
            ops={until}
            onClose={() => setUntil(null)}
            onTake={(taken) => {
              looking.to('here');
              void send('did', { steps: taken.map(doneStep) });
            }}
          />
        </>
      }
    />
  );
}

/** How what is asked is called for who hears the page. */
function regionOf({ id, title }: Question): string {
  if (id.startsWith('failed:')) return title;
  return id.startsWith('left-open:') ? 'Still open' : 'Operation';
}

const WHY: Gives = { kind: 'look', at: 'why' };

/** What turns bad is looked at so often. */
const LOOKED_AT_MS = 10_000;

const NO_OPS: readonly Op[] = [];
