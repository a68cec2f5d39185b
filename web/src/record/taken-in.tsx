import { Block } from '../ui/block.tsx';
import type { JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { isAccepted, partVerdict, returnBy } from '@nibrel/core/workshop/parts';
import { partName } from '@nibrel/core/planner/words';
import { clock, day } from '../app/format.ts';
import { DAMAGE_WORDS } from '../drawing/damage-mark.tsx';
import { Photos } from '../photos/photos.tsx';
import { percent } from './intake-words.ts';

interface TakenInProps {
  readonly map: DeviceMap;
  readonly state: JobState;
}

/** How the device came in, what was agreed, and which parts went into it. */
export function TakenIn({ map, state }: TakenInProps) {
  const { words, damage, agreed, parts, charges, measured, wet, transplant } = state;
  const old = state.tests.filter((each) => each.stage === 'intake' && each.result === 'fails');
  const names = new Map(map.functions.map((each) => [each.id, each.name]));
  const charge = charges.at(-1);
  const swelling = measured.at(-1);
  const has = words || damage.length + old.length + charges.length + measured.length > 0 || wet;
  return (
    <>
      {has && (
        <Block title="As it came in">
          {words && <p>“{words}”</p>}
          {old.length > 0 && <p>Old faults: {old.map((each) => names.get(each.function)).join(', ')}</p>}
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
        </Block>
      )}
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
      {parts.length > 0 && (
        <Block title="New parts">
          {parts.map((each) => (
            <p key={each.id} className="border-b border-hair py-1">
              <strong>{partName(map, each.mapPart)}</strong> from {each.source}:{' '}
              {each.sentBack
                ? `sent back ${each.sentBack.date}`
                : isAccepted(each)
                  ? each.decision!.decision.replace('-', ' ')
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
      {state.photos.length > 0 && (
        <Block title="Photographs">
          <Photos state={state} />
        </Block>
      )}
    </>
  );
}
