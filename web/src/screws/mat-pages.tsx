import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Job } from '@nibrel/core/job/events';
import { type Paper, screwMat } from '@nibrel/core/screws/screw-mat';
import { problemText, Refusal } from '@nibrel/core/model/refusal';
import { plural } from '@nibrel/core/planner/words';
import { useMemo, useState } from 'react';
import { Trouble } from '../ui/caution.tsx';
import { Choice } from '../ui/choice.tsx';

/** The sheets, or why there are none: a screw that is larger than the paper, more holes than a mat holds. */
function laidOut(map: DeviceMap, paper: Paper) {
  try {
    return { sheets: screwMat(map, paper), problem: null };
  } catch (error) {
    if (error instanceof Refusal) return { sheets: [], problem: problemText(error) };
    throw error;
  }
}

/** The mat as it is printed, a sheet for each face: a screw is laid on its own outline. */
export function MatPages({ map, job }: { readonly map: DeviceMap; readonly job: Job }) {
  const [paper, setPaper] = useState<Paper>('a4');
  const { sheets, problem } = useMemo(() => laidOut(map, paper), [map, paper]);
  const address = `/api/v1/jobs/${encodeURIComponent(job.id)}/screw-mat`;
  if (problem !== null) {
    return (
      <section aria-label="Mat to print">
        <Trouble title="No mat to print">
          <p>{problem}</p>
        </Trouble>
      </section>
    );
  }
  return (
    <section aria-label="Mat to print">
      <h2 className="text-far font-bold">Mat to print, {plural(sheets.length, 'sheet')}</h2>
      <p className="text-body text-quiet">
        Print at 100 %, and lay a rule on the bar: it has to be 50 mm. Screws are drawn as long as they are; one that
        does not cover its outline belongs elsewhere.
      </p>
      <div className="mt-3 flex flex-wrap items-center gap-4">
        <a
          href={`${address}.pdf?paper=${paper}`}
          target="_blank"
          rel="noreferrer"
          className="inline-flex min-h-14 items-center border border-ink bg-ink px-4 text-lead font-semibold text-paper hover:border-now hover:bg-now"
        >
          All sheets to print, PDF
        </a>
        <Choice
          label="Paper"
          value={paper}
          onChange={setPaper}
          options={[
            { value: 'a4', label: 'A4' },
            { value: 'letter', label: 'Letter' },
          ]}
        />
      </div>
      <ul className="mt-4 flex flex-wrap gap-4">
        {sheets.map(({ title, places }, at) => (
          <li key={title} className="w-[19rem]">
            <a href={`${address}.svg?paper=${paper}&sheet=${at + 1}`} target="_blank" rel="noreferrer">
              <img
                src={`${address}.svg?paper=${paper}&sheet=${at + 1}`}
                alt={`${title}: places for ${plural(places.length, 'screw')}`}
                className="w-full border border-hair bg-white"
              />
              <span className="text-body underline decoration-hair underline-offset-4">
                {title}, {plural(places.length, 'place')}, SVG
              </span>
            </a>
          </li>
        ))}
      </ul>
    </section>
  );
}
