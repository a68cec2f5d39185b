import { jobsQuery } from '../app/queries.ts';
import { useQueries, useQuery } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import { opLine, opWords } from '../job/op-words.ts';
import { comingStretches, pastStretches, secondsOf } from '../job/stretches.ts';
import { type JobLine } from '../app/client.ts';
import { clock, countdown, day, duration, plural } from '../app/format.ts';
import { useKeys } from '../app/keys.ts';
import { useNow } from '../app/now.ts';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { TimeBand } from '../ui/time-band.tsx';
import { type Prospect, prospectQuery } from './prospect.ts';
import { ShelfAndDesk } from './shelf-and-desk.tsx';

/** The bench: what to do now in the largest type, and the repairs under way as bands of time. */
export function HomeView() {
  const jobs = useQuery(jobsQuery);
  const open = (jobs.data ?? []).filter((job) => job.status !== 'finished' && job.status !== 'ended');
  const prospects = useQueries({ queries: open.map(prospectQuery) });
  const rows = open.map((job, index) => ({ job, prospect: prospects[index]?.data }));
  const next =
    rows.find(({ job }) => job.status === 'under-way') ??
    rows.find(({ job }) => job.status === 'paused' || job.status === 'new');
  const navigate = useNavigate();
  const goOn = () => next && void navigate(placeOf(next.job));
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
  const finished = jobs.data.filter((job) => job.status === 'finished' || job.status === 'ended');
  const longest = Math.max(1, ...rows.map(({ prospect }) => (prospect ? spanOf(prospect) : 0)));
  return (
    <main className="flex grow flex-col">
      {next ? <Now job={next.job} prospect={next.prospect} onGoOn={goOn} /> : <Empty />}
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
            {finished.slice(0, 6).map((job) => (
              <li key={job.id}>
                <Link to={`/jobs/${job.id}/record`} className="text-body underline decoration-hair underline-offset-4">
                  {job.title}
                </Link>{' '}
                <span className="text-note text-quiet">
                  {job.ended && 'ended by the lead, '}
                  {day(job.finishedAt ?? job.ended!.at)}, {clock(job.finishedAt ?? job.ended!.at)}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </main>
  );
}

/** What was not begun is taken in first. */
function placeOf(job: JobLine): string {
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
        <h1 className="text-[3.4rem] leading-[1.05] font-bold tracking-tight">{words ? words.title : 'Planning'}</h1>
        <p className="text-far leading-tight">{words?.thing ?? ' '}</p>
      </div>
      <Button weight="loud" keyName="Space" data-step="" onClick={onGoOn} className="min-h-20 min-w-64 text-far">
        {job.status === 'new' ? 'Begin' : 'Go on'}
      </Button>
    </section>
  );
}

function Row({ job, prospect, longest }: RowProps & { readonly longest: number }) {
  const now = useNow(1000);
  const past = prospect ? pastStretches(prospect.state.events) : [];
  const coming = prospect ? comingStretches(prospect.map, prospect.ahead?.ops ?? []) : [];
  const span = Math.max(1, secondsOf(past) + secondsOf(coming));
  const toGo = secondsOf(coming);
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
          Stopped, {job.stopped.reason}, since {clock(job.stopped.at)}. The lead decides.
        </p>
      ) : (
        <div>
          <div style={{ width: `${(100 * span) / longest}%` }}>
            <TimeBand
              stretches={[...past, ...coming]}
              span={span}
              label={`Done ${duration(secondsOf(past))}, to go ${duration(toGo)}`}
              height={22}
            />
          </div>
          <p className="mt-1 text-note text-quiet">{prospect ? waitsFor(prospect, now) : 'Planning'}</p>
        </div>
      )}
      <div className="md:text-right">
        <p className="text-lead leading-tight font-bold">{prospect?.ahead ? duration(toGo) : ''}</p>
        <p className="text-note text-quiet">
          {prospect?.ahead && `${duration(secondsOf(coming, 'work'))} hands-on`}
          {job.screws.onMat > 0 && ` · ${plural(job.screws.onMat, 'screw')} on the mat`}
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
