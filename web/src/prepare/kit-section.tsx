import { type Kit, kitFor } from '@nibrel/core/after/kit';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Plan } from '@nibrel/core/planner/plan';
import { bitMark, plural } from '@nibrel/core/planner/words';
import type { ShopNow } from '@nibrel/core/api';
import { amount } from '../kit/amount.ts';
import { useTellShop } from '../kit/tell-shop.ts';
import { Button } from '../ui/button.tsx';
import { GateSection, type Spread } from './gate-section.tsx';

interface KitSectionProps {
  readonly map: DeviceMap;
  readonly plan: Plan;
  readonly shop: ShopNow | undefined;
}

export function kitOf({ map, plan, shop }: KitSectionProps): Kit | null {
  return shop ? kitFor(map, plan, new Set(shop.tools), shop.stock) : null;
}

/** The tools, bits and consumables of this plan against what the workshop owns. */
export function KitSection({ spread, ...props }: KitSectionProps & { readonly spread: Spread }) {
  const kit = kitOf(props);
  const tell = useTellShop();
  if (!kit) return null;
  const tools = kit.tools.filter((each) => !each.owned);
  const supplies = kit.supplies.filter((each) => !each.enough && !each.advised);
  const missing = tools.length + supplies.length;
  const said = missing === 0 ? `${plural(kit.tools.length, 'tool')}, all here` : `${missing} missing`;
  return (
    <GateSection spread={spread} title="Kit" said={said} done={missing === 0}>
      <p className="text-body text-quiet">Tools: {kit.tools.map((each) => bitMark(each.tool)).join(', ')}</p>
      <ul className="text-body">
        {tools.map(({ tool, substitutes }) => (
          <li key={tool} className="grid grid-cols-[9rem_1fr_auto] items-center border-b border-hair py-1">
            <span className="font-bold">{bitMark(tool)}</span>
            <span className="text-quiet">
              {substitutes.length === 0 && 'Nothing can stand in for it.'}
              {substitutes.slice(0, 2).map((each) => (
                <span key={each.tool} className="block">
                  {bitMark(each.tool)} could stand in{each.owned ? '' : ', not here either'}: {each.risk}.
                </span>
              ))}
            </span>
            <Button
              aria-label={`${tool} is here`}
              onClick={() => tell.mutate({ type: 'tool', data: { name: tool, owned: true } })}
            >
              It is here
            </Button>
          </li>
        ))}
        {supplies.map((each) => (
          <li key={each.key} className="grid grid-cols-[9rem_1fr] border-b border-hair py-1">
            <span className="font-bold">{amount(each.quantity, each.unit)}</span>
            <span>
              {each.name}
              <span className="text-quiet">
                , {each.left === null ? 'never counted' : `${amount(each.left, each.unit)} left`}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </GateSection>
  );
}
