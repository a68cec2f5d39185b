import { Block } from '../ui/block.tsx';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { partName, thingName } from '@nibrel/core/planner/words';
import type { Plan } from '@nibrel/core/planner/plan';
import { screwLetters } from '@nibrel/core/screws/screws';
import { Caution } from '../ui/caution.tsx';
import { ScrewMark } from '../ui/screw-mark.tsx';

/** Tools, screws, what moves over, what is used up, and what the owner must know. */
export function PlanNeeds({ map, plan }: { readonly map: DeviceMap; readonly plan: Plan }) {
  const letters = screwLetters(map);
  const toTell = plan.warnings.filter((each) => !['live', 'lithium', 'out-of-order'].includes(each.code));
  const cautions = [
    ...(map.cautions ?? []),
    ...plan.warnings.filter((each) => each.code === 'live').map((each) => each.text),
  ];
  return (
    <>
      {cautions.map((each) => (
        <Caution key={each}>{each}</Caution>
      ))}
      <Block title="Tools">
        <p>{plan.tools.join(', ')}</p>
      </Block>
      {plan.screws.length > 0 && (
        <Block title="Screws">
          <ul>
            {plan.screws.map((each) => (
              <li key={each.fastener} className="flex items-center gap-3">
                <ScrewMark mark={letters.get(each.fastener)!} />
                <span className="w-16">{letters.get(each.fastener)!.length_mm} mm</span>× {each.count}
              </li>
            ))}
          </ul>
        </Block>
      )}
      {plan.moveOver.length > 0 && (
        <Block title="Moves over to the new part">
          <p>{plan.moveOver.map((id) => partName(map, id)).join(', ')}</p>
        </Block>
      )}
      {plan.consumables.length > 0 && (
        <Block title="Used up">
          <ul>
            {plan.consumables.map((each) => (
              <li key={`${each.what} ${each.joint ?? each.part}`}>
                {thingName(map, (each.joint ?? each.part)!)}: {each.text}
                {each.length_mm ? `, ${each.length_mm} mm` : ''}
                {each.count ? ` × ${each.count}` : ''}
              </li>
            ))}
          </ul>
        </Block>
      )}
      {toTell.length > 0 && (
        <Block title="The owner must know">
          <ul className="text-care">
            {toTell.map((each) => (
              <li key={each.text} className="mb-1">
                {each.text}
              </li>
            ))}
          </ul>
        </Block>
      )}
    </>
  );
}
