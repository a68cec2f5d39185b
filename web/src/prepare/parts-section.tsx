import { partsQuery } from '../app/queries.ts';
import { heldParts, isPrepared } from '@nibrel/core/job/rules';
import { chosenPart } from '@nibrel/core/workshop/parts';
import { partName } from '@nibrel/core/planner/words';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { verdictWords } from '../parts/verdict-words.ts';
import type { OpenJob } from '../job/job-frame.tsx';
import { Button } from '../ui/button.tsx';
import { GateSection, type Spread } from './gate-section.tsx';

interface PartsSectionProps {
  readonly job: OpenJob;
  readonly spread: Spread;
  /** it is no longer replaced in this repair */
  onWithout(mapPart: string): void;
}

/** The new parts of this repair, as the desk has them. */
export function PartsSection({ job: { map, mechanism, state }, spread, onWithout }: PartsSectionProps) {
  const held = new Set(heldParts(mechanism, state));
  const isClosed = !isPrepared(mechanism, state);
  const lines = useQuery(partsQuery).data ?? [];
  const wanted = state.targets.flatMap((each) => ('replace' in each ? [each.replace] : []));
  const rows = wanted.map((mapPart) => {
    const part = chosenPart(state.parts, mapPart);
    return { mapPart, isHere: part !== undefined, line: lines.find((each) => each.id === part?.id) };
  });
  if (rows.length === 0) return null;
  const done = rows.every(({ line }) => line?.accepted);
  const said = done ? 'accepted at the desk' : rows.some(({ line }) => line) ? 'not all accepted' : 'not at the desk';
  return (
    <GateSection spread={spread} title="New parts" said={said} done={done}>
      <ul className="text-body">
        {rows.map(({ mapPart, isHere, line }) => (
          <li key={mapPart} className="flex flex-wrap items-center justify-between gap-x-4 border-b border-hair py-1">
            <span className="font-bold">{partName(map, mapPart)}</span>
            {line ? (
              <span className="grow text-quiet">
                {line.accepted ? 'accepted' : line.reasons[0]}
                {line.simulated && ' (simulated)'}{' '}
                {(line.standing === 'send-back' || line.standing === 'too-late') &&
                  `${verdictWords(line).word} ${verdictWords(line).more}.`}
              </span>
            ) : (
              <span className="grow text-quiet">none has arrived; without one the gate asks why</span>
            )}
            <Link
              to={line ? `/parts/${line.id}` : `/parts?job=${state.job.id}&part=${mapPart}`}
              className="inline-flex min-h-12 items-center underline"
            >
              Parts desk
            </Link>
            {(held.has(mapPart) || (isClosed && !isHere)) && (
              <Button onClick={() => onWithout(mapPart)}>Close up without</Button>
            )}
          </li>
        ))}
      </ul>
    </GateSection>
  );
}
