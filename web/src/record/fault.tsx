import type { JobState } from '@nibrel/core/job/state';
import { type DeviceMap } from '@nibrel/core/model/device-map';
import { functionName, partName } from '@nibrel/core/planner/words';
import { clock, day } from '../app/format.ts';
import { DAMAGE_WORDS } from '../drawing/damage-mark.tsx';
import { Block } from '../ui/block.tsx';
import { percent } from './intake-words.ts';

interface FaultProps {
  readonly map: DeviceMap;
  readonly state: JobState;
}

/** What the owner said, how the device came in, and what was agreed. */
export function Fault({ map, state }: FaultProps) {
  const { words, damage, agreed, charges, measured, wet } = state;
  const old = state.tests.filter((each) => each.stage === 'intake' && each.result === 'fails');
  const charge = charges.at(-1);
  const swelling = measured.at(-1);
  const has = words || damage.length + old.length + charges.length + measured.length > 0 || wet;
  return (
    <>
      <Block title="As it came in">
        {words && <p className="text-lead">“{words}”</p>}
        {old.length > 0 && <p>Failed: {old.map((each) => functionName(map, each.function)).join(', ')}</p>}
        {damage.map((each) => (
          <p key={each.id}>
            {DAMAGE_WORDS[each.kind]}: {each.part ? partName(map, each.part) : each.face}
            {each.text ? `, ${each.text}` : ''}
          </p>
        ))}
        {charge && (
          <p>
            Charge {percent(charge.charge)}
            {charge.simulated && <strong>, simulated</strong>}
          </p>
        )}
        {swelling && (
          <p>
            {swelling.part ? partName(map, swelling.part) : 'Device'} {swelling.thickness_mm} mm thick, map{' '}
            {swelling.mapped_mm.toFixed(1)} mm
          </p>
        )}
        {wet && (
          <p>
            Liquid damage, indicator {wet.indicator.replace('-', ' ')}
            {wet.decided
              ? `; the board is ${wet.decided.board === 'keep' ? 'kept' : 'replaced'}: ${wet.decided.text}`
              : ''}
          </p>
        )}
        {!has && <p>Nothing was noted.</p>}
      </Block>
      {agreed && (
        <Block
          title={`Agreed by ${agreed.who}, ${agreed.how.replace('-', ' ')}, ${day(agreed.at)}, ${clock(agreed.at)}`}
        >
          <ul className="list-disc pl-5">
            {[...new Set(agreed.items)].map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ul>
        </Block>
      )}
    </>
  );
}
