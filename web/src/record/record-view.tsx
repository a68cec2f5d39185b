import { reportOf } from '@nibrel/core/after/report';
import { goingOf } from '@nibrel/core/job/fold';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Plan } from '@nibrel/core/planner/plan';
import { inWords } from '@nibrel/core/planner/search';
import { capital, duration } from '@nibrel/core/planner/words';
import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import type { JobLine } from '@nibrel/core/api';
import { api, jobOf } from '../app/client.ts';
import { clock, day } from '../app/format.ts';
import { JobHeader } from '../job/job-header.tsx';
import { comingStretches, pastStretches, secondsOf } from '../job/stretches.ts';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { computeNow } from '../workers/compute.ts';
import { Happened } from './happened.tsx';
import { PictureStrip } from './picture-strip.tsx';
import { Fault } from './fault.tsx';
import { Remains } from './remains.tsx';
import { Result } from './result.tsx';
import { Section } from './section.tsx';
import { Work } from './work.tsx';
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
      const { mechanism, state } = goingOf(map, jobOf(line), events);
      return { line, mechanism, map: mechanism.map, state };
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
  const { line, mechanism, map, state } = record.data;
  const coming = planned ? comingStretches(map, [...planned.strip, ...planned.rebuild]) : [];
  // planned against taken from when the bench was prepared: taking in is no part of the plan
  const past = pastStretches(state.events.slice(state.events.findIndex((each) => each.type === 'prepared') + 1));
  const report = reportOf(mechanism, state);
  // before it is agreed, what its plan warns of
  const warned = state.agreed
    ? []
    : (planned?.warnings ?? []).filter(({ code }) => code !== 'lithium' && code !== 'live').map(({ text }) => text);
  return (
    <>
      <JobHeader mechanism={mechanism} map={map} state={state} inFrame />
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
              {capital(state.targets.map((each) => inWords(mechanism, each)).join(', ') || 'close it up')} · taken in{' '}
              {day(line.createdAt)}
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
        <div className="grid items-start gap-x-10 gap-y-8 pt-6 lg:grid-cols-2">
          <Section title="Fault">
            <Fault map={map} state={state} />
          </Section>
          <Section title="Work">
            <Work map={map} state={state} report={report} />
          </Section>
          <Section title="Result">
            <Result report={report} />
          </Section>
          <Section title="What remains">
            <Remains map={map} state={state} report={report} warnings={warned} />
          </Section>
        </div>
        <div className="mt-8 flex flex-col gap-8">
          <Section title="Times">
            <Times
              taken={secondsOf(past)}
              takenWork={secondsOf(past, 'work')}
              planned={planned && secondsOf(coming)}
              plannedWork={planned && secondsOf(coming, 'work')}
            />
            {state.photos.length > 0 && <PictureStrip state={state} />}
          </Section>
          <Section title="What happened">
            <Happened map={map} state={state} />
          </Section>
        </div>
      </main>
    </>
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

interface TimesProps {
  readonly taken: number;
  readonly takenWork: number;
  /** null while it is not known */
  readonly planned: number | null;
  readonly plannedWork: number | null;
}

function Times({ taken, takenWork, planned, plannedWork }: TimesProps) {
  return (
    <>
      <p className="text-note text-quiet">Taken and planned; planned times are guesses</p>
      <dl className="grid max-w-md grid-cols-3 gap-y-0.5 text-body">
        <dt>In all</dt>
        <dd className="font-bold">{duration(taken)}</dd>
        <dd>{planned === null ? '' : duration(planned)}</dd>
        <dt>Hands-on</dt>
        <dd className="font-bold">{duration(takenWork)}</dd>
        <dd>{plannedWork === null ? '' : duration(plannedWork)}</dd>
      </dl>
    </>
  );
}
