import type { Report } from '@nibrel/core/after/report';
import { Block } from '../ui/block.tsx';

/** Each function as it came in and as it is now. */
export function Result({ report: { tests } }: { readonly report: Report }) {
  const tried = tests.filter(({ after }) => after !== '');
  return (
    <Block title="Tests">
      {tried.length === 0 && <p>Nothing was tried yet.</p>}
      {tests.length > 0 && (
        <table className="w-full">
          <thead>
            <tr className="border-b border-ink text-left text-note text-quiet">
              <th className="py-1 font-normal">Function</th>
              <th className="py-1 font-normal">As it came in</th>
              <th className="py-1 font-normal">Now</th>
            </tr>
          </thead>
          <tbody>
            {tests.map(({ name, before, after, note }) => (
              <tr key={name} className="border-b border-hair align-baseline">
                <td className="py-0.5 pr-3">
                  {name}
                  {note && <span className="block text-note text-care">{note}</span>}
                </td>
                <td className={`py-0.5 pr-3 ${before === 'fails' ? 'text-care' : ''}`}>{before || '–'}</td>
                <td className={`py-0.5 ${after === 'fails' ? 'font-bold text-now' : ''}`}>{after || '–'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Block>
  );
}
