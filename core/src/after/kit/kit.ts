import { type DeviceMap, jointById } from '../../model/device-map/index.ts';
import type { Consumable } from '../../planner/plan/index.ts';
import { partName } from '../../planner/words/index.ts';
import type { StockLevel } from '../../workshop/shop/index.ts';
import { type Substitute, substitutesFor } from './substitutes.ts';
import { suppliesOf, type Supply } from './kit-supplies.ts';

export interface ToolLine {
  readonly tool: string;
  readonly owned: boolean;
  /** for a missing one: what is there and could stand in, then what is not */
  readonly substitutes: readonly (Substitute & { readonly owned: boolean })[];
}

export interface SupplyLine extends Supply {
  /** null: nobody ever counted it */
  readonly left: number | null;
  readonly enough: boolean;
  /** a spare is only advised */
  readonly advised: boolean;
}

/** What is part of a person is never looked for on a shelf. */
const PERSON = /^(by )?(hand|finger|thumb|nail|fingernail|fingertip)s?$/i;

/** The tools, bits and consumables of a plan against what the workshop owns. */
export interface Kit {
  readonly tools: readonly ToolLine[];
  readonly supplies: readonly SupplyLine[];
}

export function kitFor(
  map: DeviceMap,
  plan: { readonly tools: readonly string[]; readonly consumables: readonly Consumable[] },
  owned: ReadonlySet<string>,
  stock: readonly StockLevel[],
): Kit {
  const tools = plan.tools
    .filter((tool) => !PERSON.test(tool))
    .map((tool): ToolLine => {
      if (owned.has(tool)) return { tool, owned: true, substitutes: [] };
      const alsoDrives = [
        ...new Set(map.fasteners.filter((each) => each.drive === tool).flatMap((each) => each.alsoDrives ?? [])),
      ];
      const substitutes = substitutesFor(tool, alsoDrives)
        .map((each) => ({ ...each, owned: owned.has(each.tool) }))
        .toSorted((a, b) => Number(b.owned) - Number(a.owned));
      return { tool, owned: false, substitutes };
    });
  const supplies = suppliesOf(map, plan.consumables).map((supply): SupplyLine => {
    const level = stock.find((each) => each.key === supply.key);
    return {
      ...supply,
      name: level?.name ?? supplyName(map, supply),
      left: level ? level.left : null,
      enough: level !== undefined && level.left >= supply.quantity,
      advised: supply.key.startsWith('spare:'),
    };
  });
  return { tools, supplies };
}

/** A supply of one device by the name of its part, where no shelf names it. */
function supplyName(map: DeviceMap, supply: Supply): string {
  const thing = supply.key.split(':')[2];
  if (!thing) return supply.name;
  const joint = jointById(map, thing);
  const name = joint ? joint.holds.map((id) => partName(map, id)).join(' and ') : partName(map, thing);
  return supply.name.replace(thing, name);
}
