import type { Report } from '@nibrel/core/after/report';
import { correctionText } from '@nibrel/core/job/rules';
import type { JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { thingName, waterWords } from '@nibrel/core/planner/words';
import { benchUnit } from '../app/units.ts';
import { Block } from '../ui/block.tsx';

interface RemainsProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly report: Report;
  /** what a plan warns of that nobody has told yet */
  readonly warnings: readonly string[];
}

/** What the owner has to know from now on, what was decided, and what the map should have said. */
export function Remains({ map, state, report, warnings }: RemainsProps) {
  // what was agreed is told with the fault
  const agreed = new Set(state.agreed?.items);
  const toKnow = [...new Set([...report.toKnow, ...warnings])].filter((each) => !agreed.has(each));
  const seals = [...state.deviations.closings];
  const { corrections } = state;
  return (
    <>
      {!state.finished && <p className="text-body">It is not finished yet.</p>}
      {toKnow.length > 0 && (
        <Block title="The owner must know" name="To be told">
          <ul className="list-disc pl-5">
            {toKnow.map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ul>
        </Block>
      )}
      {seals.length > 0 && (
        <Block title="Bonds closed by decision" name="Seals">
          <ul>
            {seals.map(([joint, way]) => (
              <li key={joint} className="border-b border-hair py-0.5">
                {thingName(map, joint)}: {waterWords(way)}
              </li>
            ))}
          </ul>
        </Block>
      )}
      {corrections.length > 0 && (
        <Block title="Corrections proposed for the device map" name="Corrections of the map">
          <ul>
            {corrections.map((each) => (
              <li key={each.path + each.text} className="border-b border-hair py-1">
                {correctionText(each, benchUnit())}
              </li>
            ))}
          </ul>
        </Block>
      )}
      {state.finished && toKnow.length + seals.length + corrections.length === 0 && (
        <p className="text-body">Nothing remains.</p>
      )}
    </>
  );
}
