import { always, whatIsWrongApart, whileHeld } from '@nibrel/core/asking/at-bench';
import { aloud, type Answer, byLetter, type Gives, type Sheet, type Telling } from '@nibrel/core/asking/question';
import { askedWhileTakenApart, layersUp, ROOT, type TakingApart as Told } from '@nibrel/core/asking/taking-apart';
import { leaving } from '@nibrel/core/bench/in-hand';
import type { EventData, TroubleKind } from '@nibrel/core/job/events';
import { toldIn } from '@nibrel/core/job/fold';
import type { Point } from '@nibrel/core/model/device-map';
import type { Corner } from '@nibrel/core/model/photos';
import { toldSoFar } from '@nibrel/core/teardown/record';
import { useCallback, useMemo, useState } from 'react';
import { useSpokenStep, useWakeLock } from '../app/feedback.ts';
import { photoUrl } from '../app/client.ts';
import { useKeys } from '../app/keys.ts';
import { useNow } from '../app/now.ts';
import { useSettings } from '../app/settings.ts';
import { BenchPanels } from '../at-bench/bench-panels.tsx';
import { BenchRefusals } from '../at-bench/bench-refusals.tsx';
import { Mat } from '../at-bench/mat.tsx';
import { AnswerBar } from '../frame/answer-bar.tsx';
import { AnswersSheet } from '../frame/answers-sheet.tsx';
import { Asked, FieldAsked } from '../frame/asked.tsx';
import { Frame } from '../frame/frame.tsx';
import { KeysSheet } from '../frame/keys-sheet.tsx';
import { useAnswers } from '../frame/use-answers.ts';
import { useField } from '../frame/use-field.ts';
import { useGive } from '../frame/use-give.ts';
import type { OpenJob } from '../job/job-frame.tsx';
import { Stopped } from '../job/stopped.tsx';
import { cornersOn, useStraight } from '../photos/straighten.ts';
import { usePicture } from '../photos/use-picture.tsx';
import { ApartBand } from './apart-band.tsx';
import { useOpenQuestions } from './use-open-questions.ts';
import { Corners } from './corners.tsx';
import { ApartPicture } from './apart-picture.tsx';

/** A device that has no map is taken apart: what came off is asked again and again, and makes its map. */
export function TakingApart({ session, bench, mechanism, map, state }: OpenJob) {
  const person = useSettings((settings) => settings.person);
  const now = useNow(10_000);
  const [telling, setTelling] = useState<Telling>(ROOT);
  const [before, setBefore] = useState<string | null>(null);
  const [places, setPlaces] = useState<readonly Point[]>([]);
  const [face, setFace] = useState<Told['face']>(() => lastFace(state.inForce) ?? 'front');
  const [sheet, setSheet] = useState<Sheet | null>(person ? null : 'person');
  const [trouble, setTrouble] = useState<TroubleKind | undefined>();
  useWakeLock();

  const [isDrawn, setDrawn] = useState(false);
  const [dragged, setDragged] = useState<readonly Corner[] | null>(null);

  const { base } = bench;
  const so = useMemo(() => toldSoFar(base!, toldIn(state.events)), [base, state.events]);
  const open = useOpenQuestions(state, base!, telling.at === 'what-held');
  const held = state.stopped !== null || state.ended !== null;
  // what it stood before may have been undone meanwhile
  const standing = before !== null && so.steps.some(({ event }) => event === before) ? before : null;
  const [newest, earlier] = layersUp({ so, face });
  // of what was pressed just now the photograph before is shown
  const layer = telling.at === 'seen' ? earlier : newest;
  const pictureOf = (id: string | undefined) => state.photos.find((each) => each.id === id);
  const shot = pictureOf(layer?.photo);
  const { width, height } = map.outline;
  const straight = useStraight(shot ? photoUrl(state.job.id, shot.shown) : null, layer?.corners, width / height);
  const isOnPhoto = straight !== null && !isDrawn;
  const cornered = telling.at === 'corners' ? pictureOf(telling.photo) : undefined;
  const corners = dragged ?? so.layers.find(({ photo }) => photo === cornered?.id)?.corners ?? INSET;
  const question = held
    ? whileHeld(state, now)
    : askedWhileTakenApart({ mechanism, state, so, telling, before: standing, face, places, open, corners, isOnPhoto });
  const busy = bench.asked > 0 || bench.unsaved !== null;
  const wrong = whatIsWrongApart(mechanism, state);
  const ends = always(state);

  const { send } = bench;
  const keepPhoto = useCallback(
    async (photo: EventData['photo']) => {
      if (!(await send('photo', photo))) return false;
      const taken = session.getState().state?.photos.at(-1);
      // what is not taken as a layer stays a photograph of the repair
      if (taken?.shown !== photo.shown) return true;
      const found = await cornersOn(photoUrl(state.job.id, photo.shown));
      await send('layer', { photo: taken.id, face, ...(found ? { corners: found } : {}) });
      return true;
    },
    [send, session, face, state.job.id],
  );
  const { take, shown: pictured } = usePicture(state.job.id, keepPhoto);
  const toldIt = () => {
    setPlaces([]);
    setBefore(null);
  };
  const give = useGive(bench, {
    onAsk: (about, kind) => {
      setTrouble(kind);
      setSheet(about);
    },
    onPicture: (of) => take(of === 'mat' ? { of } : {}),
    onLook: (at) => {
      if (at !== 'other-face') return;
      setFace(face === 'front' ? 'back' : 'front');
      setPlaces([]);
      setTelling(ROOT);
    },
    onTell: (next) => {
      // what was pressed was told with the answer before
      if (telling.at === 'seen') toldIt();
      setTelling(next);
      setDragged(null);
    },
    onInsert: (at) => {
      setBefore(at);
      setTelling(ROOT);
    },
    onSaid: (next) => {
      setTelling(next ?? ROOT);
      if (!next) toldIt();
    },
  });
  const saysNothing = (gives: Gives) => gives.kind !== 'say' && gives.kind !== 'go';
  const field = useField(question, (gives) => {
    const { asked, unsaved } = session.getState();
    return (asked === 0 && unsaved === null) || saysNothing(gives) ? give(gives) : false;
  });
  const answer = (chosen: Answer) => field.give(chosen);
  const other = ({ gives }: Answer) => void give(gives);
  useAnswers([...question.answers, ...question.choices], answer);
  const lettered = [...ends, ...byLetter(wrong.answers)];
  useAnswers(lettered, other);
  useSpokenStep(aloud(question));
  const mayLeave = useMemo(() => leaving(mechanism, state, [], now, null), [mechanism, state, now]);
  useKeys({ d: () => setDrawn(!isDrawn) }, straight !== null);
  const press = useCallback((place: Point) => setPlaces((pressed) => [...pressed, place]), []);

  return (
    <Frame
      askedId={question.id}
      head={<ApartBand map={map} state={state} so={so} person={person} onPerson={() => setSheet('person')} />}
      asked={
        <>
          <BenchRefusals bench={bench} mechanism={mechanism} state={state} onTarget={() => setSheet('note')} />
          {held ? (
            <Stopped state={state} />
          ) : (
            <Asked
              question={question}
              name="What came off"
              why={question.why && <p className="text-body text-quiet">{question.why}</p>}
              field={question.field && <FieldAsked key={question.id} field={question.field} {...field.shown} />}
              onLine={({ gives }) => !busy && gives && void give(gives)}
              onChoice={(chosen) => !busy && answer(chosen)}
            />
          )}
        </>
      }
      where={
        <ApartPicture
          mechanism={mechanism}
          state={state}
          side={face}
          places={places}
          pictured={pictured}
          photo={straight}
          isOnPhoto={isOnPhoto}
          corners={
            cornered && (
              <Corners
                src={photoUrl(state.job.id, cornered.shown)}
                width={cornered.width}
                height={cornered.height}
                corners={corners}
                onCorners={setDragged}
              />
            )
          }
          onPlace={held || telling.at === 'seen' ? undefined : press}
          onOther={() => setDrawn(!isDrawn)}
          onClear={() => setPlaces([])}
        />
      }
      loose={
        <Mat
          mechanism={mechanism}
          containers={NO_CONTAINERS}
          state={state}
          ahead={NO_OPS}
          now={undefined}
          leaving={mayLeave}
          onLeaving={() => setSheet('leaving')}
        />
      }
      bar={
        <>
          <AnswerBar
            answers={question.answers}
            always={ends}
            isBusy={busy}
            onGive={(chosen) => (ends.includes(chosen) ? other(chosen) : answer(chosen))}
          />
          <AnswersSheet question={wrong} open={sheet === 'wrong'} onClose={() => setSheet(null)} onGive={other} />
          <KeysSheet
            answers={[...question.answers, ...question.choices.filter(({ key }) => key !== ''), ...lettered]}
            open={sheet === 'keys'}
            onClose={() => setSheet(null)}
          />
          <BenchPanels
            mechanism={mechanism}
            state={state}
            op={undefined}
            bond_C={undefined}
            leaving={mayLeave}
            ahead={NO_OPS}
            where={null}
            selfTest={null}
            closed={null}
            panel={sheet}
            trouble={trouble}
            onPanel={setSheet}
            send={send}
          />
        </>
      }
    />
  );
}

/** Where corners begin that were not found. */
const INSET: readonly Corner[] = [
  { x: 0.15, y: 0.1 },
  { x: 0.85, y: 0.1 },
  { x: 0.85, y: 0.9 },
  { x: 0.15, y: 0.9 },
];

const NO_OPS: readonly never[] = [];
const NO_CONTAINERS: readonly never[] = [];

/** The face that was up when something was told last. */
function lastFace(inForce: OpenJob['state']['inForce']): Told['face'] | null {
  const faces = inForce.flatMap((each) =>
    each.type === 'came-off' ? (each.data.joints ?? []).map(({ face }) => face) : [],
  );
  const last = faces.findLast((each) => each === 'front' || each === 'back');
  return last === 'front' || last === 'back' ? last : null;
}
