import { curing, type HandOverPoint, handOverPoints, mayGoFrom } from '@nibrel/core/job/state';
import { MOST_CHOSEN } from '@nibrel/core/job/events';
import { thingName } from '@nibrel/core/planner/words';
import Joi from 'joi';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { photoUrl } from '../app/client.ts';
import { clock, day } from '../app/format.ts';
import { useKeys } from '../app/keys.ts';
import { useNow } from '../app/now.ts';
import { JobFrame, type OpenJob } from '../job/job-frame.tsx';
import { JobHeader } from '../job/job-header.tsx';
import { NotTaken } from '../job/not-taken.tsx';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { words } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';
import { StrengthCurve } from './strength-curve.tsx';

/** The last look before a device goes: what is gone through with the owner, what still cures, and the report. */
export function HandOverView() {
  return <JobFrame plans={false}>{(job) => <HandOver {...job} />}</JobFrame>;
}

/** What cures is looked at so often. */
const EVERY_MS = 10_000;

function HandOver({ bench, mechanism, map, state }: OpenJob) {
  const now = useNow(() => EVERY_MS);
  const points = handOverPoints(mechanism, state, now);
  return (
    <>
      <JobHeader mechanism={mechanism} map={map} state={state} />
      <main className="mx-auto grid w-full max-w-6xl gap-x-10 gap-y-6 px-6 py-6 lg:grid-cols-[minmax(0,1fr)_26rem]">
        <div className="flex flex-col gap-6">
          <NotTaken bench={bench} />
          {state.handedOver ? (
            <header>
              <h1 className="text-loud leading-tight font-bold">Handed over</h1>
              <p className="text-lead">
                To {state.handedOver.to}, {day(state.handedOver.at)}, {clock(state.handedOver.at)}, by{' '}
                {state.handedOver.by}
                {state.handedOver.early ? `. Early: ${state.handedOver.early}` : ''}
              </p>
            </header>
          ) : state.finished ? (
            <Points key={points.length} bench={bench} mechanism={mechanism} state={state} points={points} now={now} />
          ) : (
            <header>
              <h1 className="text-loud leading-tight font-bold">Not finished yet</h1>
              <p className="text-lead">
                What is not finished is not handed over.{' '}
                <Link to={`/jobs/${state.job.id}`} className="underline">
                  To the bench
                </Link>
              </p>
            </header>
          )}
          <Pictures state={state} onChosen={(photos) => void bench.send('photos-chosen', { photos })} />
        </div>
        <aside className="flex flex-col gap-6">
          <a
            href={`/api/v1/jobs/${state.job.id}/report.pdf`}
            target="_blank"
            rel="noreferrer"
            className="inline-flex min-h-18 items-center border border-ink bg-ink px-6 text-lead font-semibold text-paper hover:border-now hover:bg-now"
          >
            Report for the owner, PDF
          </a>
          <Strength mechanism={mechanism} map={map} state={state} now={now} />
        </aside>
      </main>
    </>
  );
}

type Of<Keys extends keyof OpenJob> = Pick<OpenJob, Keys>;

interface Handing {
  readonly to: string;
  readonly early: string;
}

interface PointsProps extends Of<'bench' | 'mechanism' | 'state'> {
  readonly points: readonly HandOverPoint[];
  readonly now: number;
}

function Points({ bench, mechanism, state, points, now }: PointsProps) {
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const open = points.filter(({ isDone, from, what }) => !isDone && from === undefined && !ticked.has(what));
  const goes = mayGoFrom(mechanism, state);
  const last = goes !== null && Date.parse(goes) > now ? goes : undefined;
  const schema = Joi.object<Handing>({
    to: words('To whom it goes', 200),
    early: last === undefined ? Joi.string().allow('') : words('Why it goes early', 2000),
  });
  const { field, sent } = useFields<Handing>(schema, { to: state.job.owner ?? '', early: '' });
  const tick = (what: string) =>
    setTicked((before) =>
      before.has(what) ? new Set([...before].filter((each) => each !== what)) : new Set([...before, what]),
    );
  const form = useRef<HTMLFormElement>(null);
  // the next of them is said; once all are, it is asked to whom it goes
  useKeys({ ' ': () => (open[0] ? tick(open[0].what) : form.current?.querySelector('input')?.focus()) });
  return (
    <>
      <header>
        <h1 className="text-loud leading-tight font-bold">
          {last === undefined ? 'It may go' : `It may go from ${clock(last)}`}
        </h1>
        <p className="text-lead text-quiet">
          {last !== undefined && Date.parse(last) - now > DAY_MS ? `${day(last)}. ` : ''}
          {open.length === 0
            ? 'All of it is gone through.'
            : 'Go through this with the owner: Space, one after the other.'}
        </p>
      </header>
      <ul aria-label="Gone through" className="border-t border-ink text-lead">
        {points.map(({ what, text, isDone, from }) => (
          <li key={what} className="border-b border-hair">
            {isDone || from ? (
              <span className="flex min-h-12 items-center gap-3 py-1">
                <Mark isTicked={isDone} />
                <span className={isDone ? 'text-quiet' : ''}>
                  {text}
                  {!isDone && from && <b className="text-now"> from {clock(from)}</b>}
                </span>
              </span>
            ) : (
              <button
                type="button"
                role="checkbox"
                aria-checked={ticked.has(what)}
                className="flex min-h-12 w-full items-center gap-3 py-1 text-left hover:bg-mat"
                onClick={() => tick(what)}
              >
                <Mark isTicked={ticked.has(what)} />
                {text}
              </button>
            )}
          </li>
        ))}
        {points.length === 0 && <li className="py-2 text-quiet">Nothing is to be said beside the report.</li>}
      </ul>
      <form
        ref={form}
        className="flex flex-wrap items-end gap-3"
        onSubmit={sent(({ to, early }) =>
          bench.send('handed-over', { to, points: [...ticked], ...(early ? { early } : {}) }),
        )}
      >
        <div className="min-w-64 grow">
          <Field label="Handed over to" {...field('to')} maxLength={200} />
        </div>
        {last !== undefined && (
          <div className="min-w-64 grow">
            <Field label="It goes before its time, since" {...field('early')} maxLength={2000} />
          </div>
        )}
        <Button
          type="submit"
          weight="loud"
          keyName="Enter"
          disabled={open.length > 0}
          className="min-h-18 px-6 text-lead"
        >
          {last === undefined ? 'Hand it over' : 'Hand it over early'}
        </Button>
      </form>
    </>
  );
}

const DAY_MS = 86_400_000;

function Mark({ isTicked }: { readonly isTicked: boolean }) {
  return (
    <svg aria-hidden="true" viewBox="0 0 16 16" className="size-5 shrink-0 border-2 border-ink">
      {isTicked && <path d="M2 8l4 5 8-11" fill="none" stroke="var(--done)" strokeWidth="2.5" />}
    </svg>
  );
}

function Strength({ mechanism, map, state, now }: Of<'mechanism' | 'map' | 'state'> & { readonly now: number }) {
  const all = curing(mechanism, state);
  const tape = all
    .filter(({ by }) => by === 'tape')
    .toSorted((a, b) => Date.parse(b.pressedAt) - Date.parse(a.pressedAt))[0];
  if (all.length === 0) return null;
  return (
    <section aria-label="How strong by when">
      <h2 className="text-note text-quiet">How strong by when</h2>
      <ul className="text-body">
        {all.map(({ joint, pressedAt, pressedFor, readyAt }) => (
          <li key={joint} className="border-b border-hair py-1">
            {thingName(map, joint)}: pressed {clock(pressedAt)}
            {pressedFor && <span className="font-bold text-care"> for {pressedFor}</span>}, enough from{' '}
            <b>{clock(readyAt)}</b>
            {pressedFor && ' at best'}
          </li>
        ))}
      </ul>
      {tape && (
        <>
          <StrengthCurve
            now_s={(now - Date.parse(tape.pressedAt)) / 1000}
            asked={state.limits.handOverStrength}
            label={`Strength of ${thingName(map, tape.joint)} over time`}
          />
          <p className="text-note text-quiet">
            Acrylic foam tape at room temperature, by a data sheet. Colder is slower. How much is asked for is a limit
            of the workshop.
          </p>
        </>
      )}
    </section>
  );
}

function Pictures({ state, onChosen }: Of<'state'> & { onChosen(photos: readonly string[]): void }) {
  const { photos, chosenPhotos, job } = state;
  if (photos.length === 0) return null;
  const chosen = chosenPhotos ?? [];
  const press = (hash: string) =>
    onChosen(chosen.includes(hash) ? chosen.filter((each) => each !== hash) : [...chosen, hash]);
  return (
    <section aria-label="Pictures for the report">
      <h2 className="text-note text-quiet">
        Pictures for the report{chosenPhotos === null ? ': the last of the device, until some are chosen' : ''}
      </h2>
      <ul className="mt-1 flex flex-wrap gap-2">
        {photos.map(({ id, shown, thumb, at, text }) => (
          <li key={id}>
            <button
              type="button"
              role="checkbox"
              aria-checked={chosen.includes(shown)}
              aria-label={text ?? `At ${clock(at)}`}
              disabled={!chosen.includes(shown) && chosen.length >= MOST_CHOSEN}
              className={`border-4 ${chosen.includes(shown) ? 'border-done' : 'border-transparent'}`}
              onClick={() => press(shown)}
            >
              <img src={photoUrl(job.id, thumb)} alt="" className="h-24 object-cover" />
              <span className="block text-note">
                {chosen.includes(shown) ? `${chosen.indexOf(shown) + 1} of ${chosen.length}` : clock(at)}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
