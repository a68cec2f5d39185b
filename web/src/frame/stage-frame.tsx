import {
  aloud,
  type Answer,
  byLetter,
  type Gives,
  nextAsked,
  NOTHING_ASKED,
  type Question,
  type Sheet,
  type Turns,
} from '@nibrel/core/asking/question';
import { always, whileHeld } from '@nibrel/core/asking/at-bench';
import type { StopReason } from '@nibrel/core/job/events';
import { type ReactNode, useEffect, useState } from 'react';
import { sound, useSpokenStep } from '../app/feedback.ts';
import { useNow } from '../app/now.ts';
import { useSettings } from '../app/settings.ts';
import type { OpenJob } from '../job/job-frame.tsx';
import { JobHeader } from '../job/job-header.tsx';
import { NotTaken } from '../job/not-taken.tsx';
import { PersonPanel } from '../job/panels/person-panel.tsx';
import { LeadPanel, StopPanel } from '../job/panels/stop-panels.tsx';
import { Stopped } from '../job/stopped.tsx';
import { AnswerBar } from './answer-bar.tsx';
import { AnswersSheet } from './answers-sheet.tsx';
import { Asked, FieldAsked } from './asked.tsx';
import { Frame } from './frame.tsx';
import { KeysSheet } from './keys-sheet.tsx';
import { StageList } from './stage-list.tsx';
import { useAnswers } from './use-answers.ts';
import { useField } from './use-field.ts';
import { useGive } from './use-give.ts';

interface StageFrameProps {
  readonly job: OpenJob;
  /** *Take in*, *Prepare* */
  readonly name: string;
  readonly turns: Turns;
  /** what can be said beside it: *Something is wrong* */
  readonly beside: Question;
  /** what is asked is being found out anew: nothing is said meanwhile */
  readonly isUnsettled?: boolean;
  /** what a stop is for most at this stage */
  readonly stopsFor?: StopReason;
  /** over the question: what has to be known before it */
  readonly above?: ReactNode;
  /** under the question, what has no place in its data */
  renderBody?(question: Question): ReactNode;
  renderWhere(question: Question): ReactNode;
  onMark?(marked: Extract<Gives, { kind: 'mark' }>): void;
  onFlip?(): void;
  /** sheets of this stage alone */
  renderSheets?(open: Sheet | null, close: () => void): ReactNode;
}

/** The questions of a stage, one at a time in the one frame; what was said already can be jumped back to. */
export function StageFrame({
  job,
  name,
  turns,
  beside,
  isUnsettled = false,
  stopsFor,
  above,
  onMark,
  onFlip,
  renderBody,
  renderWhere,
  renderSheets,
}: StageFrameProps) {
  const { bench, mechanism, map, state } = job;
  const person = useSettings((settings) => settings.person);
  const [sheet, setSheet] = useState<Sheet | null>(person ? null : 'person');
  const [jumped, setJumped] = useState<string | null>(null);
  const [then, setThen] = useState<Question | null>(null);
  const now = useNow(() => 1000);
  const [isLeaving, setLeaving] = useState(false);
  const close = () => setSheet(null);
  const held = state.stopped !== null || state.ended !== null;
  const turn = nextAsked(turns, jumped);
  const question = then ?? turn?.question ?? NOTHING_ASKED;
  // what was jumped to while it was being saved stays
  const goOn = () => {
    setThen((now) => (now === then ? null : now));
    setJumped((now) => (now === jumped ? null : now));
  };
  const give = useGive(bench, {
    onAsk: (about) => {
      setThen(null);
      setSheet(about);
    },
    onThen: setThen,
    onLook: (at) => at === 'other-face' && onFlip?.(),
    onSaid: goOn,
    onMark: (marked) => {
      onMark?.(marked);
      // the last of several is one press: the question stays while some of it is open
      if (marked.mark !== 'done') goOn();
    },
  });
  const busy = isLeaving || isUnsettled || bench.asked > 0 || bench.unsaved !== null;
  const field = useField(question, (gives) => {
    const { asked, unsaved } = job.session.getState();
    const isFree = !isLeaving && !isUnsettled && asked === 0 && unsaved === null;
    if (!isFree && gives.kind === 'say') return false;
    // what leads to another page is asked for once: the next press is that page's
    const leads = gives.kind === 'say' && gives.then !== undefined;
    setLeaving(leads);
    return give(gives).finally(() => setLeaving(false));
  });
  const answers = held ? whileHeld(state, now).answers : then ? [...question.answers, BACK] : question.answers;
  const ends = always(state);
  const answer = (chosen: Answer) =>
    chosen === BACK ? setThen(null) : held || ends.includes(chosen) ? void give(chosen.gives) : field.give(chosen);
  const other = ({ gives }: Answer) => void give(gives);
  useAnswers(answers, answer);
  const lettered = [...ends, ...byLetter(beside.answers)];
  useAnswers(lettered, other);
  useSpokenStep(held ? '' : aloud(question));
  const isTimeUp = question.wait?.left_s === 0;
  useEffect(() => {
    if (isTimeUp) sound('time-up');
  }, [isTimeUp]);
  return (
    <Frame
      askedId={question.id}
      head={<JobHeader mechanism={mechanism} map={map} state={state} inFrame />}
      asked={
        <>
          <NotTaken bench={bench} />
          {above}
          {held ? (
            <Stopped state={state} />
          ) : (
            <Asked
              question={question}
              name={then ? question.title : (turn?.name ?? name)}
              isAhead={`${name}${turn ? ` · ${turns.indexOf(turn) + 1} of ${turns.length}` : ''}`}
              field={question.field && <FieldAsked key={question.id} field={question.field} {...field.shown} />}
              onLine={({ gives }) => gives && void give(gives)}
              why={<StageList turns={turns} turn={turn} onJump={(to) => (setThen(null), setJumped(to))} />}
            >
              {renderBody?.(question)}
            </Asked>
          )}
        </>
      }
      where={renderWhere(question)}
      bar={
        <>
          <AnswerBar answers={answers} always={ends} wait={held ? null : question.wait} isBusy={busy} onGive={answer} />
          <AnswersSheet question={beside} open={sheet === 'wrong'} onClose={close} onGive={other} />
          <KeysSheet answers={[...answers, ...lettered]} open={sheet === 'keys'} onClose={close} />
          <PersonPanel open={sheet === 'person'} onClose={close} />
          <StopPanel
            {...(stopsFor ? { first: stopsFor } : {})}
            open={sheet === 'stop'}
            onClose={close}
            onStop={(stop) => void bench.send('stop', stop)}
          />
          <LeadPanel
            open={sheet === 'lead'}
            onClose={close}
            stops={state.stops}
            onClear={(clear, lead) => bench.send('clear', clear, lead)}
            onEnd={(end, lead) => bench.send('end', end, lead)}
          />
          {renderSheets?.(sheet, close)}
        </>
      }
    />
  );
}

const BACK: Answer = { id: 'back', key: 'Escape', label: 'Back', weight: 'quiet', gives: { kind: 'nothing' } };
