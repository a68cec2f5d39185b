import type { Op } from '@nibrel/core/planner/drafts';
import type { JobState } from '@nibrel/core/job/state';
import { photoUrl } from '../app/client.ts';
import { clock } from '../app/format.ts';

/** The photograph that was taken where this was undone: how a flex lay, beside the drawing of where it goes. */
export function AsItWas({ state, op }: { readonly state: JobState; readonly op: Op }) {
  const undone = UNDONE[op.kind as keyof typeof UNDONE]?.map((kind) => `${kind}:${op.joint ?? op.part}`) ?? [];
  const photo = state.photos.findLast(({ step }) => step !== undefined && undone.includes(step));
  if (!photo) return null;
  return (
    <a href={photoUrl(state.job.id, photo.shown)} target="_blank" rel="noreferrer" className="flex items-center gap-3">
      <img src={photoUrl(state.job.id, photo.thumb)} alt="As it was" className="h-24 w-auto" />
      <span className="text-body text-quiet">As it was at {clock(photo.at)}</span>
    </a>
  );
}

const UNDONE = { make: ['release'], close: ['open', 'lift'], fit: ['lift'] } as const;
