import type { JobLine } from '@nibrel/core/api';
import { capital } from '@nibrel/core/planner/words';
import { inWords } from '@nibrel/core/planner/search';
import { mechanismOf } from '@nibrel/core/planner/holds';
import { useQueries, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { clock, day } from '../app/format.ts';
import { jobsQuery, mapQuery, mapsQuery } from '../app/queries.ts';
import { Choice } from '../ui/choice.tsx';
import { Field } from '../ui/field.tsx';

const STANDINGS = ['all', 'open', 'finished'] as const;
type Standing = (typeof STANDINGS)[number];

/** Every repair, the newest first: found as one types, by job, owner, serial, device or part. */
export function RecordsView() {
  const jobs = useQuery(jobsQuery).data;
  const names = new Map(useQuery(mapsQuery).data?.map(({ id, name }) => [id, name]));
  const maps = useMaps(jobs ?? []);
  const [find, setFind] = useState('');
  const [from, setFrom] = useState('');
  const [standing, setStanding] = useState<Standing>('all');
  const words = find.toLowerCase().split(/\s+/).filter(Boolean);
  const rows = (jobs ?? []).map((job) => ({ job, device: names.get(job.map) ?? '', work: workOf(job, maps) }));
  const shown = rows.filter(({ job, device, work }) => {
    const text = [job.title, job.owner, job.serial, device, work].join(' ').toLowerCase();
    const isOver = job.status === 'finished' || job.status === 'ended';
    const isStanding = standing === 'all' || (standing === 'finished') === isOver;
    return isStanding && words.every((word) => text.includes(word)) && (from === '' || job.createdAt >= from);
  });
  return (
    <main className="px-6 py-6">
      <h1 className="text-far font-bold">Records</h1>
      <div className="mt-3 flex max-w-5xl flex-wrap items-end gap-4">
        <div className="min-w-64 grow">
          <Field
            label="Find: job, owner, serial, device, part"
            value={find}
            autoFocus
            onChange={(event) => setFind(event.target.value)}
          />
        </div>
        <Field label="Taken in since" type="date" value={from} onChange={(event) => setFrom(event.target.value)} />
        <Choice label="Which" value={standing} options={STANDINGS} onChange={setStanding} />
      </div>
      {jobs && shown.length === 0 && (
        <p className="mt-4 text-lead text-quiet">
          {jobs.length === 0 ? 'No repair was taken in yet.' : 'No repair is like that.'}
        </p>
      )}
      <ul className="mt-4 max-w-6xl border-t border-ink" aria-label="Repairs">
        {shown.map(({ job, device, work }) => (
          <li key={job.id} className="border-b border-hair">
            <Link
              to={`/jobs/${job.id}/record`}
              className="grid min-h-14 items-center gap-x-6 py-2 hover:bg-sheet md:grid-cols-[14rem_minmax(0,1fr)_10rem_16rem]"
            >
              <span className="text-body font-bold">{job.title}</span>
              <span className="text-body">
                {device}
                <span className="text-quiet">{work && ` · ${work}`}</span>
              </span>
              <span className="truncate text-body text-quiet">{job.owner ?? job.serial ?? ''}</span>
              <span className="text-body">
                {job.finishedAt
                  ? `finished ${day(job.finishedAt)}, ${clock(job.finishedAt)}`
                  : capital(job.status.replace('-', ' '))}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </main>
  );
}

type Maps = ReadonlyMap<string, ReturnType<typeof mechanismOf>>;

/** The maps that these repairs go by, each once. */
function useMaps(jobs: readonly JobLine[]): Maps {
  const wanted = [...new Set(jobs.map((job) => `${job.map} ${job.mapRevision}`))];
  return useQueries({
    queries: wanted.map((key) => {
      const [id, revision] = key.split(' ') as [string, string];
      return mapQuery(id, Number(revision));
    }),
    combine: (results) =>
      new Map(results.flatMap(({ data }, at) => (data ? [[wanted[at]!, mechanismOf(data)] as const] : []))),
  });
}

/** *Replace Display, reach Card tray* */
function workOf({ map, mapRevision, targets }: JobLine, maps: Maps): string {
  const mechanism = maps.get(`${map} ${mapRevision}`);
  return mechanism ? capital(targets.map((each) => inWords(mechanism, each)).join(', ')) : '';
}
