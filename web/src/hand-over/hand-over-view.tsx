import { askedInHandingOver, BESIDE_HANDING_OVER } from '@nibrel/core/asking/handing-over';
import type { Gives } from '@nibrel/core/asking/question';
import { MOST_CHOSEN } from '@nibrel/core/job/events';
import { curing } from '@nibrel/core/job/state';
import { thingName } from '@nibrel/core/planner/words';
import { useState } from 'react';
import { photoUrl } from '../app/client.ts';
import { clock, day } from '../app/format.ts';
import { useNow } from '../app/now.ts';
import { NotePanel } from '../at-bench/panels/note-panel.tsx';
import { StageFrame } from '../frame/stage-frame.tsx';
import { JobFrame, type OpenJob } from '../job/job-frame.tsx';
import { StrengthCurve } from './strength-curve.tsx';

/** The last look before a device goes: what is gone through with the owner, what still cures, and the report. */
export function HandOverView() {
  return <JobFrame plans={false}>{(job) => <HandOver {...job} />}</JobFrame>;
}

/** What cures is looked at so often. */
const EVERY_MS = 10_000;

function HandOver(job: OpenJob) {
  const { bench, mechanism, map, state } = job;
  const now = useNow(() => EVERY_MS);
  const [said, setSaid] = useState<ReadonlySet<string>>(new Set());
  const [early, setEarly] = useState<string | null>(null);
  const marked = ({ mark, items, reason = '' }: Extract<Gives, { kind: 'mark' }>) => {
    if (mark === 'without') return setEarly(reason);
    const [only] = items;
    const isTakenBack = items.length === 1 && said.has(only!);
    return setSaid(isTakenBack ? new Set([...said].filter((each) => each !== only)) : new Set([...said, ...items]));
  };
  return (
    <StageFrame
      job={job}
      name="Hand over"
      turns={askedInHandingOver({ mechanism, state, now, said, early, clock: (at) => clockOn(at, now) })}
      beside={BESIDE_HANDING_OVER}
      onMark={marked}
      renderWhere={() => (
        <div
          className="flex h-full flex-col gap-6 overflow-y-auto p-6"
          tabIndex={0}
          role="group"
          aria-label="The report"
        >
          <a
            href={`/api/v1/jobs/${state.job.id}/report.pdf`}
            target="_blank"
            rel="noreferrer"
            className="inline-flex min-h-16 max-w-lg items-center border border-ink px-6 text-lead font-semibold hover:bg-mat"
          >
            Report for the owner, PDF
          </a>
          <Strength mechanism={mechanism} map={map} state={state} now={now} />
          <Pictures state={state} onChosen={(photos) => void bench.send('photos-chosen', { photos })} />
        </div>
      )}
      renderSheets={(open, close) => (
        <NotePanel open={open === 'note'} onClose={close} onNote={(text) => void bench.send('note', { text })} />
      )}
    />
  );
}

const DAY_MS = 86_400_000;

/** *14:05*, and its day where that is another one */
function clockOn(at: string, now: number): string {
  return Math.abs(Date.parse(at) - now) > DAY_MS ? `${day(at)}, ${clock(at)}` : clock(at);
}

type Of<Keys extends keyof OpenJob> = Pick<OpenJob, Keys>;

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
