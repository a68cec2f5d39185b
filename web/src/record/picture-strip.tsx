import type { JobState } from '@nibrel/core/job/state';
import { photoUrl } from '../app/client.ts';
import { clock } from '../app/format.ts';
import { pastStretches, secondsOf, secondsUntil } from '../job/stretches.ts';
import { TimeBand } from '../ui/time-band.tsx';

/** More are looked at under *As it came in*. */
const MOST = 12;

/** The pictures of a repair along its time: each with a line to the moment at which it was taken. */
export function PictureStrip({ state }: { readonly state: JobState }) {
  const { events, job } = state;
  const past = pastStretches(events);
  const span = Math.max(1, secondsOf(past));
  const step = Math.max(1, state.photos.length / MOST);
  const photos = state.photos.filter((_, at) => Math.floor(at / step) !== Math.floor((at - 1) / step) || at === 0);
  const share = (at: string) => Math.min(1, secondsUntil(events, at) / span);
  return (
    <section aria-label="Pictures along the time" className="pt-4">
      <TimeBand stretches={past} span={span} height={14} label={`${photos.length} pictures along the repair`} />
      <svg aria-hidden="true" viewBox="0 0 1000 20" preserveAspectRatio="none" className="block h-5 w-full">
        {photos.map((photo, at) => (
          <path
            key={photo.id}
            d={`M${share(photo.at) * 1000} 0L${((at + 0.5) / photos.length) * 1000} 20`}
            stroke="var(--ink)"
            strokeWidth="1"
            vectorEffect="non-scaling-stroke"
          />
        ))}
      </svg>
      <ol className="flex">
        {photos.map((photo) => (
          <li key={photo.id} className="min-w-0 flex-1 px-1 text-center text-note">
            <a href={photoUrl(job.id, photo.shown)} target="_blank" rel="noreferrer">
              <img
                src={photoUrl(job.id, photo.thumb)}
                alt={photo.text ?? `At ${clock(photo.at)}`}
                loading="lazy"
                className="mx-auto aspect-[4/3] max-h-28 object-cover"
              />
              {clock(photo.at)}
              {photo.of === 'mat' ? ', mat' : ''}
            </a>
          </li>
        ))}
      </ol>
    </section>
  );
}
