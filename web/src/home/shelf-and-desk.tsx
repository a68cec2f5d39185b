import { partsQuery, shopQuery } from '../app/queries.ts';
import { byUrgency } from '@nibrel/core/workshop/parts';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { amount } from '../kit/amount.ts';

import { verdictWords } from '../parts/verdict-words.ts';

/** What runs low on the shelf, and what has to go back: seen here before it is missed at a repair. */
export function ShelfAndDesk() {
  const shop = useQuery(shopQuery).data;
  const parts = useQuery(partsQuery).data ?? [];
  const low = shop?.stock.filter((each) => each.low) ?? [];
  const pressing = parts.filter((each) => each.isUrgent).toSorted(byUrgency);
  if (low.length + pressing.length === 0) return null;
  return (
    <section aria-label="Shelf and parts" className="grid gap-x-10 gap-y-2 px-6 py-4 md:grid-cols-2">
      {pressing.length > 0 && (
        <div>
          <h2 className="text-note text-quiet">Parts</h2>
          <ul>
            {pressing.slice(0, 4).map((each) => (
              <li key={each.id} className="text-body">
                <Link to={`/parts/${each.id}`} className="underline decoration-hair underline-offset-4">
                  {each.name}, {each.jobTitle}
                </Link>{' '}
                <strong className="text-now">{verdictWords(each).word.toLowerCase()}</strong>{' '}
                <span className="text-quiet">
                  {verdictWords(each).more}
                  {each.simulated && ', simulated'}
                </span>
              </li>
            ))}
          </ul>
        </div>
      )}
      {low.length > 0 && (
        <div>
          <h2 className="text-note text-quiet">Low on the shelf</h2>
          <ul>
            {low.map((each) => (
              <li key={each.id} className="text-body">
                <Link to="/kit" className="underline decoration-hair underline-offset-4">
                  {each.name}
                </Link>{' '}
                <strong className="text-now">{amount(each.left, each.unit)}</strong>{' '}
                <span className="text-quiet">left</span>
              </li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}
