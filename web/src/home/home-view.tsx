import { capital, countdown, duration, functionName, opLine, opWords, plural } from '@nibrel/core/planner/words';
import { finishedJobsQuery, mapsQuery, openJobsQuery } from '../app/queries.ts';
import { useQueries, useQuery } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import { comingStretches, pastStretches, secondsOf } from '../job/stretches.ts';
import type { JobLine } from '@nibrel/core/api';
import { clock, day } from '../app/format.ts';
import { useKeys } from '../app/keys.ts';
import { useNow } from '../app/now.ts';
import { FirstMap } from '../devices/first-map.tsx';
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
  const names = new Map(useQuery(mapsQuery).data?.map(({ id, name }) => [id, name]));
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
      {finished.length === 0 && (
        <p className="border-b border-hair px-6 py-2 text-body text-quiet">
          Nibrel says what comes next and why, where every screw lies, how hot and how long, and what to test.
        </p>
      )}
      {next ? <Now job={next} prospect={prospectOf(next)} onGoOn={goOn} /> : <Empty />}
      <section aria-label="Repairs under way" className="border-t border-ink">
        {rows.map(({ job, prospect }) => (
          <Row key={job.id} job={job} prospect={prospect} name={names.get(job.map)} longest={longest} />
        ))}
        {rows.length > 0 && <BandLegend />}
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
          {prospect?.map.name ?? ''} · {job.title} · {whyFirst(job)}
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
  if (prospect?.state.teardown === 'on') return 'What came off?';
  if (prospect?.ahead) return 'Finish it';
  return job.next?.title ?? 'Planning';
}

interface RowOfRepair extends RowProps {
  /** of its device */
  readonly name: string | undefined;
  readonly longest: number;
}

/** One repair in two lines, however many there are: its name, device and work; its band, and what it waits for. */
function Row({ job, prospect, name, longest }: RowOfRepair) {
  const now = useNow(1000);
  const past = prospect ? pastStretches(prospect.state.events) : [];
  const coming = prospect ? comingStretches(prospect.map, prospect.ahead?.ops ?? []) : [];
  const span = Math.max(1, secondsOf(past) + secondsOf(coming));
  const toGo = prospect ? secondsOf(coming) : job.next ? job.next.handsOn_s + job.next.waiting_s : null;
  const { text, isBad } = stateOf(job, prospect, now);
  const isStill = job.stopped !== null || job.unreadable !== undefined;
  return (
    <Link
      to={placeOf(job)}
      className="grid items-center gap-x-6 gap-y-1 border-b border-hair px-6 py-2 hover:bg-sheet md:grid-cols-[17rem_1fr_8rem]"
    >
      <div className="min-w-0">
        <p className="truncate text-lead leading-tight font-bold">{job.title}</p>
        <p className="truncate text-note text-quiet">
          {[prospect?.map.name ?? name ?? '', ...(job.owner ? [job.owner] : [])].join(' · ')}
        </p>
      </div>
      <div className="min-w-0">
        <div className="h-[18px]" style={{ width: `${(100 * span) / longest}%` }}>
          {prospect && !isStill && (
            <TimeBand
              stretches={[...past, ...coming]}
              span={span}
              label={`Done ${duration(secondsOf(past))}, to go ${duration(secondsOf(coming))}`}
              height={18}
            />
          )}
        </div>
        <p className={`truncate text-note ${isBad ? 'font-bold text-now' : 'text-quiet'}`}>{text}</p>
      </div>
      <div className="md:text-right">
        <p className="text-lead leading-tight font-bold">{!toGo || isStill ? '' : duration(toGo)}</p>
        <p className="truncate text-note text-quiet">
          {job.screws.onMat > 0 ? `${plural(job.screws.onMat, 'screw')} on the mat` : ''}
        </p>
      </div>
    </Link>
  );
}

/** What a repair waits for; a stop and a failed test come first. */
function stateOf(job: JobLine, prospect: Prospect | undefined, now: number): { text: string; isBad: boolean } {
  const [failed] = prospect?.ahead?.failed ?? [];
  if (job.stopped) {
    const reasons = [...new Set(job.stops.map(({ reason }) => reason))].join(' and ');
    return { text: `Stopped, ${reasons}, since ${clock(job.stopped.at)}. The lead decides.`, isBad: true };
  }
  if (job.unreadable) {
    return { text: `Can not be read. ${job.unreadable} Nothing of it is lost: it can be exported.`, isBad: true };
  }
  if (!prospect)
    return { text: job.next ? `Waits for your hands: ${capital(job.next.title)}` : 'Planning', isBad: false };
  if (failed) return { text: `${functionName(prospect.map, failed.function)} fails: not to be closed`, isBad: true };
  return { text: waitsFor(prospect, now), isBad: false };
}

/** Why this one is the next. */
function whyFirst({ status }: JobLine): string {
  return status === 'under-way' ? 'first, since it is under way' : 'first, since nothing else is under way';
}

/** What the bands show. */
function BandLegend() {
  const entry = (look: string, word: string) => (
    <span className="flex items-center gap-2">
      <span aria-hidden="true" className={`inline-block h-3.5 w-8 border border-ink ${look}`} />
      {word}
    </span>
  );
  return (
    <p className="flex flex-wrap gap-x-6 px-6 py-2 text-note text-quiet">
      {entry('bg-done', 'done')}
      {entry('hatched', 'waiting')}
      {entry('bg-sheet', 'to go, hands-on')}
      <span>Lengths are to scale.</span>
    </p>
  );
}

/** What a repair waits for, in words. */
function waitsFor({ state, ahead, map, problem }: Prospect, now: number): string {
  if (problem) return problem;
  if (state.teardown === 'on') return 'Waits for your hands: what came off?';
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
  const maps = useQuery(mapsQuery).data;
  return (
    <section aria-label="Next" className="px-6 py-8">
      <h1 className="text-loud font-bold">The bench is free</h1>
      {maps?.length === 0 ? (
        <FirstMap />
      ) : (
        <>
          <p className="mt-1 text-lead text-quiet">
            Take in a repair: pick the device and the part, and the plan is there at once.
          </p>
          <Button weight="loud" className="mt-5" keyName="N" onClick={() => void navigate('/new')}>
            Take in a repair
          </Button>
        </>
      )}
    </section>
  );
}
