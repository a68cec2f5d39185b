import type { Report } from '@nibrel/core/after/report';
import { stopText } from '@nibrel/core/job/rules';
import type { JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { partName } from '@nibrel/core/planner/words';
import { onMatByKind, screwLetters } from '@nibrel/core/screws/screws';
import { isAccepted, type PartDecision, partVerdict, returnBy } from '@nibrel/core/workshop/parts';
import { clock } from '../app/format.ts';
import { benchUnit } from '../app/units.ts';
import { Photos } from '../photos/photos.tsx';
import { Block } from '../ui/block.tsx';
import { ScrewMark } from '../ui/screw-mark.tsx';

interface WorkProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly report: Report;
}

/** What was done, with which parts, by whom, and what went wrong on the way. */
export function Work({ map, state, report }: WorkProps) {
  const { parts, transplant, ledger } = state;
  return (
    <>
      <Block title="Done">
        <ul className="text-lead">
          {report.done.map((each) => (
            <li key={each}>{each}</li>
          ))}
        </ul>
        {report.people.length > 0 && <p>By {report.people.join(', ')}</p>}
      </Block>
      {parts.length > 0 && (
        <Block title="New parts">
          {parts.map((each) => (
            <p key={each.id} className="border-b border-hair py-1">
              <strong>{partName(map, each.mapPart)}</strong> from {each.source}:{' '}
              {each.sentBack
                ? `sent back ${each.sentBack.date}`
                : isAccepted(each)
                  ? DECIDED[each.decision!.decision]
                  : partVerdict(map, each).reasons.join(' ')}
              {each.decision?.text ? `, ${each.decision.text}` : ''}. May go back until {returnBy(each)}.
              {each.numbers.map((number) => ` ${number.place} ${number.value}.`)}
              {each.asked.at(-1) && (
                <>
                  {' '}
                  Register: {each.asked.at(-1)!.answer.replace('-', ' ')}
                  {each.asked.at(-1)!.simulated && <strong>, simulated</strong>}.
                </>
              )}
            </p>
          ))}
        </Block>
      )}
      {transplant.done && (
        <Block title="Disclosed: the cell was replaced inside its pack">
          <p>
            Allowed by {transplant.allowed?.lead}. {transplant.done.old_V} V before,{' '}
            {transplant.done.cells_V.join(', ')} V after. Checked: {transplant.done.checked.join(', ')}.
          </p>
        </Block>
      )}
      <Block title="Screws">
        <p>{report.screws}</p>
        {[...onMatByKind(ledger)].map(([kind, count]) => (
          <p key={kind} className="flex items-center gap-3">
            <ScrewMark mark={screwLetters(map).get(kind)!} /> × {count}
          </p>
        ))}
        {report.torques.map((each) => (
          <p key={each} className="font-bold text-now">
            {each}
          </p>
        ))}
      </Block>
      {report.troubles.length > 0 && (
        <Block title="Troubles">
          {report.troubles.map((each) => (
            <p key={each}>{each}</p>
          ))}
        </Block>
      )}
      <Stops state={state} />
      {state.photos.length > 0 && (
        <Block title="Photographs">
          <Photos state={state} />
        </Block>
      )}
    </>
  );
}

/** What was decided of a new part. */
const DECIDED: Readonly<Record<PartDecision, string>> = {
  accept: 'accepted',
  'accept-anyway': 'accepted all the same',
  hold: 'held back',
  'send-back': 'to go back',
};

/** What held it, and who let it go on. */
function Stops({ state: { stops, cleared } }: { readonly state: JobState }) {
  if (stops.length + cleared.length === 0) return null;
  return (
    <Block title="Stops">
      <ul>
        {cleared.map((each) => (
          <li key={each.id} className="border-b border-hair py-0.5">
            {each.reason}
            {each.text ? `: ${stopText(each, benchUnit())}` : ''}. {each.clearedBy} cleared it, {clock(each.clearedAt)}:{' '}
            {each.why}
          </li>
        ))}
        {stops.map((each) => (
          <li key={each.id} className="border-b border-hair py-0.5 font-bold text-now">
            {each.reason}
            {each.text ? `: ${stopText(each, benchUnit())}` : ''}. It holds.
          </li>
        ))}
      </ul>
    </Block>
  );
}
