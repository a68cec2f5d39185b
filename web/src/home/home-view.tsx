import { countdown, opLine, opWords, plural } from '@nibrel/core/planner/words';
import { finishedJobsQuery, openJobsQuery } from '../app/queries.ts';
import { useQueries, useQuery } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import { comingStretches, pastStretches, secondsOf } from '../job/stretches.ts';
import type { JobLine } from '@nibrel/core/api';
import { clock, day, duration } from '../app/format.ts';
import { useKeys } from '../app/keys.ts';
import { useNow } from '../app/now.ts';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { TimeBand } from '../ui/time-band.tsx';
import { type Prospect, prospectQuery } from './prospect.ts';
import { ShelfAndDesk } from './shelf-and-desk.tsx';

/** The bench: what to do now in the largest type, and the repairs under way as bands of time. */
export function HomeView() {
  const jobs = useQuery(openJobsQuery);
  const finished = useQuery(finishedJobsQuery).data ?? [];
  const open = jobs.data ?? [];
  const next =
    open.find((job) => job.status === 'under-way') ??
    open.find((job) => job.status === 'paused' || job.status === 'new');
  // the way of these is drawn; of more a line says what comes next
  const drawn = open.filter((job) => job.status !== 'unreadable').slice(0, MOST_DRAWN);
  const prospects = useQueries({ queries: drawn.map(prospectQuery) });
  const prospectOf = (job: JobLine) => prospects[drawn.indexOf(job)]?.data;
  const rows = open.map((job) => ({ job, prospect: prospectOf(job) }));
  const now = useNow(30_000);
  const navigate = useNavigate();
  const goOn = () => next && void navigate(placeOf(next));
  useKeys({ ' ': goOn, Enter: goOn });

  if (jobs.isError) {
    return (
      <main className="p-8">
        <Trouble title="The repairs can not be fetched">
          <p>{jobs.error.message} What was recorded is on the server’s disk.</p>
          <Button className="mt-3" onClick={() => void jobs.refetch()}>
            Try again
          </Button>
        </Trouble>
      </main>
    );
  }
  if (!jobs.data) return <main className="p-8 text-far text-quiet">Fetching the repairs</main>;
  const longest = Math.max(1, ...rows.map(({ prospect }) => (prospect ? spanOf(prospect) : 0)));
  return (
    <main className="flex grow flex-col">
      {next ? <Now job={next} prospect={prospectOf(next)} onGoOn={goOn} /> : <Empty />}
      <section aria-label="Repairs under way" className="border-t border-ink">
        {rows.map(({ job, prospect }) => (
          <Row key={job.id} job={job} prospect={prospect} longest={longest} />
        ))}
      </section>
      <ShelfAndDesk />
      {finished.length > 0 && (
        <section aria-label="Finished" className="mt-auto bg-mat px-6 py-4">
          <h2 className="text-note text-quiet">Finished</h2>
          <ul className="mt-1 flex flex-wrap gap-x-10 gap-y-1">
            {finished.map((job) => (
              <li key={job.id}>
                <Link to={`/jobs/${job.id}/record`} className="text-body underline decoration-hair underline-offset-4">
                  {job.title}
                </Link>{' '}
                <span className="text-note text-quiet">
                  {job.ended && `ended by ${job.ended.lead}, `}
                  {day(job.finishedAt ?? job.ended!.at)}, {clock(job.finishedAt ?? job.ended!.at)}
                  {job.finishedAt && <Going job={job} now={now} />}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </main>
  );
}

/** May a finished device go, and since when; or to whom it went. */
function Going({ job, now }: { readonly job: JobLine; readonly now: number }) {
  if (job.handedOver) return <> · with {job.handedOver.to}</>;
  const waits = job.mayGoFrom !== null && Date.parse(job.mayGoFrom) > now;
  return (
    <>
      {' · '}
      <Link to={`/jobs/${job.id}/hand-over`} className="underline underline-offset-4">
        {waits ? `may go from ${clock(job.mayGoFrom!)}` : 'may go: hand it over'}
      </Link>
    </>
  );
}

/** So many ways are drawn as bands of time. */
const MOST_DRAWN = 8;

/** What was not begun is taken in first; what can't be read can be exported. */
function placeOf(job: JobLine): string {
  if (job.status === 'unreadable') return `/jobs/${job.id}/record`;
  return job.status === 'new' ? `/jobs/${job.id}/intake` : `/jobs/${job.id}`;
}

function spanOf(prospect: Prospect): number {
  return (
    secondsOf(pastStretches(prospect.state.events)) +
    secondsOf(comingStretches(prospect.map, prospect.ahead?.ops ?? []))
  );
}

interface RowProps {
  readonly job: JobLine;
  readonly prospect: Prospect | undefined;
}

function Now({ job, prospect, onGoOn }: RowProps & { onGoOn(): void }) {
  const op = prospect?.ahead?.ops[0];
  const words = op && opWords(prospect.map, op);
  return (
    <section aria-label="Next" className="grid items-end gap-6 bg-now-wash px-6 py-5 md:grid-cols-[1fr_auto]">
      <div>
        <p className="text-body text-quiet">
          {prospect?.map.name ?? job.map} · {job.title}
        </p>
        <h1 className="text-[3.4rem] leading-[1.05] font-bold tracking-tight">
          {words?.title ?? titleOf(job, prospect)}
        </h1>
        <p className="text-far leading-tight">{words?.thing ?? ' '}</p>
      </div>
      <Button weight="loud" keyName="Space" data-step="" onClick={onGoOn} className="min-h-20 min-w-64 text-far">
        {job.status === 'new' ? 'Begin' : 'Go on'}
      </Button>
    </section>
  );
}

/** Where no operation is in hand: nothing is left but to finish, there is no plan, or it is being made. */
function titleOf(job: JobLine, prospect: Prospect | undefined): string {
  if (prospect?.problem) return 'No plan from here';
  if (prospect?.ahead) return 'Finish it';
  return job.next?.title ?? 'Planning';
}

function Row({ job, prospect, longest }: RowProps & { readonly longest: number }) {
  const now = useNow(1000);
  const past = prospect ? pastStretches(prospect.state.events) : [];
  const coming = prospect ? comingStretches(prospect.map, prospect.ahead?.ops ?? []) : [];
  const span = Math.max(1, secondsOf(past) + secondsOf(coming));
  const toGo = prospect ? secondsOf(coming) : job.next ? job.next.handsOn_s + job.next.waiting_s : null;
  const handsOn = prospect?.ahead ? secondsOf(coming, 'work') : (job.next?.handsOn_s ?? null);
  return (
    <Link
      to={placeOf(job)}
      className="grid items-center gap-x-6 gap-y-2 border-b border-hair px-6 py-2.5 hover:bg-sheet md:grid-cols-[15rem_1fr_17rem]"
    >
      <div>
        <p className="text-lead leading-tight font-bold">{job.title}</p>
        <p className="text-note text-quiet">
          {prospect?.map.name ?? job.map}
          {job.owner ? ` · ${job.owner}` : ''}
        </p>
      </div>
      {job.stopped ? (
        <p className="text-lead font-bold text-now">
          Stopped, {[...new Set(job.stops.map(({ reason }) => reason))].join(' and ')}, since {clock(job.stopped.at)}.
          The lead decides.
        </p>
      ) : job.unreadable ? (
        <p className="text-body text-now">
          Can not be read. {job.unreadable} Nothing of it is lost: it can be exported.
        </p>
      ) : !prospect ? (
        <p className="text-body text-quiet">{job.next?.title ?? 'Planning'}</p>
      ) : (
        <div>
          <div style={{ width: `${(100 * span) / longest}%` }}>
            <TimeBand
              stretches={[...past, ...coming]}
              span={span}
              label={`Done ${duration(secondsOf(past))}, to go ${duration(secondsOf(coming))}`}
              height={22}
            />
          </div>
          <p className="mt-1 text-note text-quiet">{waitsFor(prospect, now)}</p>
        </div>
      )}
      <div className="md:text-right">
        <p className="text-lead leading-tight font-bold">{toGo === null || job.stopped ? '' : duration(toGo)}</p>
        <p className="text-note text-quiet">
          {[
            ...(handsOn === null || job.stopped ? [] : [`${duration(handsOn)} hands-on`]),
            ...(job.screws.onMat > 0 ? [`${plural(job.screws.onMat, 'screw')} on the mat`] : []),
          ].join(' · ')}
        </p>
      </div>
    </Link>
  );
}

/** What a repair waits for, in words. */
function waitsFor({ state, ahead, map, problem }: Prospect, now: number): string {
  if (problem) return problem;
  const op = ahead?.ops[0];
  if (!op) return 'Everything is done: finish it';
  const timer = state.timers.find((each) => each.step === op.id);
  if (timer) {
    const left = timer.seconds - (now - Date.parse(timer.startedAt)) / 1000;
    return left > 0
      ? `Waits ${countdown(left)}: ${opWords(map, op).title.toLowerCase()}`
      : `Time is up: ${opWords(map, op).title.toLowerCase()}`;
  }
  if (state.paused) return 'Paused, waits for your hands';
  return state.events.length === 0 ? 'Not begun, waits for your hands' : `Waits for your hands: ${opLine(map, op)}`;
}

function Empty() {
  const navigate = useNavigate();
  return (
    <section aria-label="Next" className="px-6 py-10">
      <h1 className="text-loud font-bold">The bench is free</h1>
      <p className="mt-1 text-lead text-quiet">
        Take in a repair: pick the device and the part, and the plan is there at once.
      </p>
      <Button weight="loud" className="mt-5" keyName="N" onClick={() => void navigate('/new')}>
        Take in a repair
      </Button>
    </section>
  );
}
