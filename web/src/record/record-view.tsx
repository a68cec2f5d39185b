import { correctionText, stopText } from '@nibrel/core/job/rules';
import { benchUnit } from '../app/units.ts';
import { foldJob } from '@nibrel/core/job/fold';
import { type JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { mechanismOf } from '@nibrel/core/planner/holds';
import type { Plan } from '@nibrel/core/planner/plan';
import { inWords } from '@nibrel/core/planner/search';
import { counts, onMatByKind, screwLetters } from '@nibrel/core/screws/screws';
import { capital, thingName, waterWords, duration } from '@nibrel/core/planner/words';
import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import type { JobLine } from '@nibrel/core/api';
import { api, jobOf } from '../app/client.ts';
import { clock, day } from '../app/format.ts';
import { comingStretches, pastStretches, secondsOf } from '../job/stretches.ts';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { OnlyThis } from '../ui/only-this.tsx';
import { ScrewMark } from '../ui/screw-mark.tsx';
import { computeNow } from '../workers/compute.ts';
import { Happened } from './happened.tsx';
import { PictureStrip } from './picture-strip.tsx';
import { TakenIn } from './taken-in.tsx';
import { UnreadableEnd } from './unreadable-end.tsx';

/** Everything that happened: when, by whom, times against the plan, the screws, the tests, the troubles. */
export function RecordView() {
  const { id = '' } = useParams();
  const record = useQuery({
    queryKey: ['record', id],
    queryFn: async () => {
      const line = await api.job(id);
      if (line.unreadable)
        throw new Error(`${line.unreadable}${line.ended ? ` Ended by ${line.ended.lead}: ${line.ended.text}` : ''}`);
      const [map, { events }] = await Promise.all([api.map(line.map, line.mapRevision), api.events(id)]);
      return { line, map, state: foldJob(mechanismOf(map), jobOf(line), events) };
    },
  });
  const planned = usePlanned(record.data);
  if (record.isError) {
    return (
      <main className="p-8">
        <Trouble title="This record can not be opened">
          <p>{record.error.message} Nothing that was recorded is lost.</p>
          <UnreadableEnd id={id} onEnded={() => void record.refetch()} />
          <p className="mt-2">
            <a href={`/api/v1/jobs/${encodeURIComponent(id)}/export`} download className="underline">
              Export it as it lies on the disk
            </a>
          </p>
        </Trouble>
      </main>
    );
  }
  if (!record.data) return <main className="p-8 text-far text-quiet">Fetching the record</main>;
  const { line, map, state } = record.data;
  const coming = planned ? comingStretches(map, [...planned.strip, ...planned.rebuild]) : [];
  // planned against taken from when the bench was prepared: taking in is no part of the plan
  const past = pastStretches(state.events.slice(state.events.findIndex((each) => each.type === 'prepared') + 1));
  return (
    <main className="mx-auto w-full max-w-6xl px-6 py-6">
      <header className="flex flex-wrap items-end justify-between gap-4 border-b-2 border-ink pb-4">
        <div>
          <h1 className="text-loud leading-tight font-bold">{line.title}</h1>
          <p className="text-lead">
            {map.name}
            {line.colour ? `, ${line.colour}` : ''}
            {line.serial ? ` · ${line.serial}` : ''}
            {line.owner ? ` · ${line.owner}` : ''}
          </p>
          <p className="text-body text-quiet">
            {capital(state.targets.map((each) => inWords(mechanismOf(map), each)).join(', ') || 'close it up')} · taken
            in {day(line.createdAt)}
            {line.by ? ` by ${line.by}` : ''}
            {state.finished ? ` · finished ${day(state.finished)}, ${clock(state.finished)}` : ''}
            {state.handedOver ? ` · with ${state.handedOver.to} since ${clock(state.handedOver.at)}` : ''}
          </p>
        </div>
        <div className="no-print flex gap-2">
          {state.finished && (
            <Link
              to={`/jobs/${line.id}/hand-over`}
              className="inline-flex min-h-12 items-center border border-ink px-4 font-semibold hover:bg-mat"
            >
              {state.handedOver ? 'Handed over' : 'Hand over'}
            </Link>
          )}
          {!state.finished && (
            <Link
              to={`/jobs/${line.id}`}
              className="inline-flex min-h-12 items-center border border-ink px-4 font-semibold hover:bg-mat"
            >
              To the bench
            </Link>
          )}
          <a
            href={`/api/v1/jobs/${line.id}/report.pdf`}
            target="_blank"
            rel="noreferrer"
            className="inline-flex min-h-12 items-center border border-ink bg-ink px-4 font-semibold text-paper hover:border-now hover:bg-now"
          >
            Report, PDF
          </a>
          <Button onClick={() => print()}>Print</Button>
          <a
            href={`/api/v1/jobs/${line.id}/export`}
            download
            className="inline-flex min-h-12 items-center border border-ink px-4 font-semibold hover:bg-mat"
          >
            Export
          </a>
        </div>
      </header>
      {state.photos.length > 0 && <PictureStrip state={state} />}
      <div className="grid gap-x-10 gap-y-6 pt-5 lg:grid-cols-[1fr_22rem]">
        <Happened map={map} state={state} />
        <aside className="flex flex-col gap-6">
          <Times
            taken={secondsOf(past)}
            takenWork={secondsOf(past, 'work')}
            planned={planned && secondsOf(coming)}
            plannedWork={planned && secondsOf(coming, 'work')}
          />
          {[Stops, TakenIn, Screws, Tests].map((Section) => (
            <OnlyThis key={Section.name} broken={<p className="text-body">This part can not be shown.</p>}>
              <Section map={map} state={state} />
            </OnlyThis>
          ))}
          <Told
            map={map}
            warnings={
              planned?.warnings.filter(({ code }) => code !== 'lithium' && code !== 'live').map((each) => each.text) ??
              []
            }
            state={state}
          />
        </aside>
      </div>
    </main>
  );
}

/** What was planned; null until it is known: the record is there before it. */
function usePlanned(record: { readonly line: JobLine; readonly map: DeviceMap } | undefined): Plan | null {
  const { data } = useQuery({
    queryKey: ['record-plan', record?.line.id, record?.line.mapRevision, record?.line.targets, record?.line.policy],
    queryFn: async () => {
      const { map, line } = record!;
      const planned = await computeNow().plan({ map, targets: line.targets, policy: line.policy }, 500);
      return 'value' in planned ? planned.value : null;
    },
    enabled: record !== undefined,
    retry: false,
  });
  return data ?? null;
}

/** What held it, and who let it go on. */
function Stops({ state }: { readonly map: DeviceMap; readonly state: JobState }) {
  if (state.stops.length + state.cleared.length === 0) return null;
  return (
    <section aria-label="Stops">
      <h2 className="text-note text-quiet">Stops</h2>
      <ul className="text-body">
        {state.cleared.map((each) => (
          <li key={each.id} className="border-b border-hair py-0.5">
            {each.reason}
            {each.text ? `: ${stopText(each, benchUnit())}` : ''}. {each.clearedBy} cleared it, {clock(each.clearedAt)}:{' '}
            {each.why}
          </li>
        ))}
        {state.stops.map((each) => (
          <li key={each.id} className="border-b border-hair py-0.5 font-bold text-now">
            {each.reason}
            {each.text ? `: ${stopText(each, benchUnit())}` : ''}. It holds.
          </li>
        ))}
      </ul>
    </section>
  );
}

interface TimesProps {
  readonly taken: number;
  readonly takenWork: number;
  /** null while it is not known */
  readonly planned: number | null;
  readonly plannedWork: number | null;
}

function Times({ taken, takenWork, planned, plannedWork }: TimesProps) {
  return (
    <section aria-label="Times">
      <h2 className="text-note text-quiet">Time, taken and planned (planned times are guesses)</h2>
      <dl className="mt-1 grid grid-cols-3 gap-y-0.5 text-body">
        <dt>In all</dt>
        <dd className="font-bold">{duration(taken)}</dd>
        <dd>{planned === null ? '' : duration(planned)}</dd>
        <dt>Hands-on</dt>
        <dd className="font-bold">{duration(takenWork)}</dd>
        <dd>{plannedWork === null ? '' : duration(plannedWork)}</dd>
      </dl>
    </section>
  );
}

function Screws({ map, state }: { readonly map: DeviceMap; readonly state: JobState }) {
  const { out, onMat, back, lost } = counts(state.ledger);
  const letters = screwLetters(map);
  const left = onMatByKind(state.ledger);
  return (
    <section aria-label="Screws">
      <h2 className="text-note text-quiet">Screws</h2>
      <p className="text-body">
        {out} out, {back} back in, <strong>{onMat === 0 ? 'none left on the mat' : `${onMat} on the mat`}</strong>
        {lost > 0 ? `, ${lost} missing` : ''}
        {state.ledger.fresh.length > 0 ? `, ${state.ledger.fresh.length} new` : ''}
        {state.ledger.leftOut.length > 0 ? `, ${state.ledger.leftOut.length} left out by decision` : ''}
      </p>
      {[...left].map(([kind, count]) => (
        <p key={kind} className="flex items-center gap-3">
          <ScrewMark mark={letters.get(kind)!} /> × {count}
        </p>
      ))}
    </section>
  );
}

function Tests({ map, state }: { readonly map: DeviceMap; readonly state: JobState }) {
  const names = new Map(map.functions.map((each) => [each.id, each.name]));
  const done = state.tests.filter((each) => each.stage !== 'intake' && each.stage !== 'trial');
  // of each function the newest: what was tried before sealing stands
  const shown = [...new Map(done.map((each) => [each.function, each])).values()];
  const failed = new Set(
    state.tests.flatMap((each) => (each.stage === 'intake' && each.result === 'fails' ? [each.function] : [])),
  );
  return (
    <section aria-label="Tests">
      <h2 className="text-note text-quiet">Tests</h2>
      {shown.length === 0 && <p className="text-body">Nothing was tried yet.</p>}
      <ul className="text-body">
        {shown.map((each) => (
          <li key={each.function} className="flex justify-between border-b border-hair py-0.5">
            <span>
              {names.get(each.function)}
              {failed.has(each.function) && <span className="text-note text-care"> old fault</span>}
            </span>
            <span className={each.result === 'fails' ? 'font-bold text-now' : ''}>{each.result.replace('-', ' ')}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

interface ToldProps {
  readonly map: DeviceMap;
  readonly warnings: readonly string[];
  readonly state: JobState;
}

function Told({ map, warnings, state }: ToldProps) {
  const seals = [...state.deviations.closings];
  return (
    <>
      {warnings.length > 0 && (
        <section aria-label="To be told">
          <h2 className="text-note text-quiet">The owner must know</h2>
          <ul className="list-disc pl-5 text-body">
            {warnings.map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ul>
        </section>
      )}
      {seals.length > 0 && (
        <section aria-label="Seals">
          <h2 className="text-note text-quiet">Bonds closed by decision</h2>
          <ul className="text-body">
            {seals.map(([joint, way]) => (
              <li key={joint} className="border-b border-hair py-0.5">
                {thingName(map, joint)}: {waterWords(way)}
              </li>
            ))}
          </ul>
        </section>
      )}
      {state.corrections.length > 0 && (
        <section aria-label="Corrections of the map">
          <h2 className="text-note text-quiet">Corrections proposed for the device map</h2>
          <ul className="text-body">
            {state.corrections.map((each) => (
              <li key={each.path + each.text} className="border-b border-hair py-1">
                {correctionText(each, benchUnit())} <code className="text-note">{each.path}</code>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
