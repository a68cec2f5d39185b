import { byUrgency } from '@nibrel/core/workshop/parts';
import { partsQuery } from '../app/queries.ts';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { NavLink, useParams, useSearchParams } from 'react-router';
import type { PartLine } from '@nibrel/core/api';
import { useKeys } from '../app/keys.ts';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { ArrivePanel } from './arrive-panel.tsx';

import { PartDetail } from './part-detail.tsx';
import { verdictWords } from './verdict-words.ts';

/** The parts desk: every replacement part, whose it is, and what becomes of it; what has to go back first. */
export function PartsView() {
  const { part } = useParams();
  const parts = useQuery(partsQuery);
  const [search] = useSearchParams();
  // brought along from a repair that waits for it
  const [forJob, forPart] = [search.get('job') ?? '', search.get('part') ?? ''];
  const [arriving, setArriving] = useState(forJob !== '');
  useKeys({ a: () => setArriving(true) });
  const sorted = parts.data?.toSorted(byUrgency) ?? [];
  const shown = sorted.find((each) => each.id === part) ?? sorted[0];
  return (
    <main className="grid min-h-0 grow lg:h-[calc(100dvh-3.6rem)] lg:grow-0 lg:grid-cols-[25rem_minmax(0,1fr)]">
      <nav aria-label="Parts" className="flex min-h-0 flex-col border-ink lg:border-r">
        <div className="flex items-center justify-between gap-4 border-b border-hair px-6 py-2">
          <h1 className="text-lead font-bold">Parts desk</h1>
          <Button keyName="A" onClick={() => setArriving(true)}>
            A part arrived
          </Button>
        </div>
        {parts.isError && (
          <Trouble title="The parts can not be fetched">
            <p>{parts.error.message}</p>
          </Trouble>
        )}
        <ul className="min-h-0 grow overflow-y-auto">
          {sorted.map((each) => (
            <Row key={each.id} part={each} isShown={each.id === shown?.id} />
          ))}
        </ul>
        {parts.data?.length === 0 && (
          <p className="p-6 text-lead text-quiet">
            No part has arrived. When one does, it is looked at here before anything is opened.
          </p>
        )}
      </nav>
      <div className="min-h-0 overflow-y-auto">{shown ? <PartDetail key={shown.id} part={shown} /> : null}</div>
      <ArrivePanel open={arriving} onClose={() => setArriving(false)} job={forJob} part={forPart} />
    </main>
  );
}

function Row({ part, isShown }: { readonly part: PartLine; readonly isShown: boolean }) {
  const { word, more } = verdictWords(part);
  return (
    <li>
      <NavLink
        to={`/parts/${part.id}`}
        aria-current={isShown ? 'page' : undefined}
        className={`block border-b border-hair px-6 py-2 hover:bg-sheet ${isShown ? 'bg-sheet' : ''}`}
      >
        <span className="flex items-baseline justify-between gap-4">
          <strong className="text-body">{part.name}</strong>
          <strong className={`text-body ${part.isUrgent ? 'text-now' : part.accepted ? 'text-done' : ''}`}>
            {word}
          </strong>
        </span>
        <span className="block text-note text-quiet">
          {part.mapName} · {part.jobTitle} · {part.source}
        </span>
        <span className="block text-note text-quiet">
          {more}
          {part.simulated && ' · simulated'}
        </span>
      </NavLink>
    </li>
  );
}
