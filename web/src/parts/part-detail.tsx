import { mapQuery } from '../app/queries.ts';
import { mechanismOf } from '@nibrel/core/planner/holds';
import { isBoard } from '@nibrel/core/workshop/parts';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { Link } from 'react-router';
import type { PartLine } from '@nibrel/core/api';
import { day } from '../app/format.ts';

import { Trouble } from '../ui/caution.tsx';
import { Deciding } from './deciding.tsx';
import { useTellDesk } from './tell-desk.ts';
import { LookedAt } from './looked-at.tsx';
import { Numbers } from './numbers.tsx';
import { Register } from './register.tsx';
import { verdictWords } from './verdict-words.ts';

/** One part: what becomes of it in the largest type, why, and what there is to look at and to read. */
export function PartDetail({ part }: { readonly part: PartLine }) {
  const map = useQuery(mapQuery(part.map, part.mapRevision)).data;
  const mechanism = useMemo(() => (map ? mechanismOf(map) : null), [map]);
  const tell = useTellDesk(part.job);
  const { word, more } = verdictWords(part);
  return (
    <article aria-label={part.name} className="flex flex-col gap-5 px-7 py-5">
      <header>
        <p className="text-body text-quiet">
          {part.name} for {part.mapName},{' '}
          <Link to={`/jobs/${part.job}/prepare`} className="underline">
            {part.jobTitle}
          </Link>{' '}
          · {part.source} · arrived {day(part.arrived)}
          {part.variant ? ` · ${part.variant}` : ''}
          {part.price ? ` · price ${part.price}` : ''}
        </p>
        <h1 className={`text-loud leading-tight font-bold ${part.isUrgent ? 'text-now' : ''}`}>{word}</h1>
        <p className="text-lead">
          {more}
          {!part.sentBack && (
            <>
              {' '}
              <a href={`/api/v1/parts/${part.id}/return.ics`} className="text-body underline">
                into the calendar
              </a>
            </>
          )}
        </p>
        <ul className="mt-1 text-body text-quiet">
          {part.reasons.map((each) => (
            <li key={each}>{each}</li>
          ))}
          {part.simulated && <li className="font-bold">The register’s answers here are simulated.</li>}
          {part.decision && (
            <li>
              {part.decision.by} decided: {part.decision.decision.replace('-', ' ')}
              {part.decision.text ? `, ${part.decision.text}` : ''}
            </li>
          )}
        </ul>
      </header>
      {tell.isError && (
        <Trouble title="Not taken">
          <p>{tell.error.message}</p>
        </Trouble>
      )}
      {mechanism && !part.sentBack && (
        <>
          <Deciding part={part} onSaid={(said) => tell.mutate(said)} />
          {isBoard(mechanism.map, part) && (
            <div className="grid gap-6 border-t border-hair pt-4 xl:grid-cols-2">
              <Numbers part={part} onSaid={(said) => tell.mutate(said)} />
              <Register part={part} onSaid={(said) => tell.mutate(said)} />
            </div>
          )}
          <LookedAt mechanism={mechanism} part={part} onSaid={(said) => tell.mutate(said)} />
        </>
      )}
    </article>
  );
}
