import type { StoppedBefore } from '@nibrel/core/api';
import { Link } from 'react-router';
import { day } from '../app/format.ts';
import { Caution } from '../ui/caution.tsx';

/** What came of the last repair of this very device has to be known before it is touched. */
export function BeforeThis({ before }: { readonly before: StoppedBefore }) {
  return (
    <Caution>
      <strong>The last repair of this device was stopped</strong>, {before.reason}
      {before.text ? `: ${before.text}` : ''}, {day(before.at)}.{' '}
      {before.clearedBy ? `${before.clearedBy} cleared it.` : 'Nobody cleared it: ask the lead before it is touched.'}{' '}
      <Link to={`/jobs/${before.job}/record`} className="underline">
        {before.title}
      </Link>
    </Caution>
  );
}
