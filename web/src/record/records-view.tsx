import { jobsQuery } from '../app/queries.ts';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { clock, day } from '../app/format.ts';

/** Every repair, the newest first. */
export function RecordsView() {
  const jobs = useQuery(jobsQuery);
  return (
    <main className="max-w-5xl px-6 py-6">
      <h1 className="text-far font-bold">Records</h1>
      {jobs.data?.length === 0 && <p className="mt-2 text-lead text-quiet">No repair was taken in yet.</p>}
      <ul className="mt-4 border-t border-ink">
        {jobs.data?.map((job) => (
          <li key={job.id} className="border-b border-hair">
            <Link
              to={`/jobs/${job.id}/record`}
              className="grid min-h-14 grid-cols-[1fr_1fr_auto] items-center gap-6 py-2 hover:bg-sheet"
            >
              <span className="text-body font-bold">{job.title}</span>
              <span className="text-body text-quiet">
                {job.map}, {job.serial ?? 'no serial'}
              </span>
              <span className="text-body">
                {job.finishedAt
                  ? `finished ${day(job.finishedAt)}, ${clock(job.finishedAt)}`
                  : job.status.replace('-', ' ')}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </main>
  );
}
