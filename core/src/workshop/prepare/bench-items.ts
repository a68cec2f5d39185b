import { packOf } from '../../model/battery/index.ts';
import { type DeviceMap, hasLiftOutCell, jointById } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import type { Limits } from '../../model/limits/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import type { Target } from '../../planner/search/index.ts';
import { partName } from '../../planner/words/index.ts';
import { takesOut, wayIn } from './way-in.ts';

/** One thing that has to be so on the bench before the device is opened. */
export interface BenchItem {
  readonly id: string;
  readonly title: string;
  /** the harm that it keeps away; local rules decide where they say more */
  readonly harm: string;
}

/** What a record calls them. */
const BRIEFLY: Readonly<Record<string, string>> = {
  strap: 'strap on',
  eyes: 'eyes covered',
  sand: 'sand in reach',
  gloves: 'gloves on',
  heat: 'nothing flammable near the heat',
  air: 'window open',
  seals: 'new seal at hand',
  magnets: 'screws kept from the magnets',
};

/** An item of the bench in a word or two; one that is not known here by itself. */
export function benchItemName(id: string): string {
  return Object.hasOwn(BRIEFLY, id) ? BRIEFLY[id]! : id;
}

/**
 * Drawn from the map's hazards, for what the targets reach into by themselves and for what the plan adds, where there is
 * one: nothing is asked that this repair does not need.
 */
export function benchItems(
  map: DeviceMap,
  targets: readonly Target[],
  settings: Pick<Policy, 'heat'> & Pick<Limits, 'gloves_Wh'>,
  ops: readonly Op[] = [],
): BenchItem[] {
  const way = wayIn(map, targets);
  const touched = new Set([
    ...way.parts,
    ...ops.flatMap((op) => [...(op.part ? [op.part] : []), ...(jointById(map, op.joint)?.holds ?? [])]),
  ]);
  const hazards = new Set(map.parts.filter((each) => touched.has(each.id)).flatMap((each) => each.hazards ?? []));
  const named = (name: Op['name']) => ops.some((op) => op.name === name);
  const heats =
    settings.heat !== 'none' && map.joints.some((each) => each.type === 'bond' && each.heat && way.joints.has(each.id));
  // a strap that is pulled dry may snap, and is soaked then
  const undone = new Set(ops.flatMap((op) => (op.kind === 'release' ? [op.joint] : [])));
  const mayBeSoaked = map.joints.some((each) => each.type === 'bond' && each.solvent && undone.has(each.id));
  const seals = sealsToLay(map, ops);
  const { battery } = map;
  const lifted =
    battery &&
    (takesOut(map, targets, battery.part) || ops.some((op) => op.kind === 'lift' && op.part === battery.part));
  const energy_Wh = battery ? packOf(battery.cells, battery.wiring).energy_Wh : 0;
  const items: (BenchItem | false)[] = [
    {
      id: 'strap',
      title: 'Strap on, on the grounded mat',
      harm: 'A spark that nobody feels can ruin a board, at once or weeks later.',
    },
    (hazards.has('glass') || hazards.has('spring') || named('soak')) && {
      id: 'eyes',
      title: 'Eyes covered',
      harm: 'Splinters, springs and solvent reach eyes faster than hands do.',
    },
    battery !== null &&
      !hasLiftOutCell(map) && {
        id: 'sand',
        title: 'Dry sand in reach, the way out clear',
        harm: 'A cell that is cut or bent burns with poisonous smoke and is not put out with water alone. Local rules and the fire service decide.',
      },
    Boolean(lifted && energy_Wh > settings.gloves_Wh) && {
      id: 'gloves',
      title: 'Gloves on, rings and watches off',
      harm: 'Metal across a cell burns skin to the bone in seconds.',
    },
    (heats || named('heat')) && {
      id: 'heat',
      title: 'Nothing flammable near the heat, solvent put away',
      harm: 'Vapour of alcohol catches fire from hot air. Solvent and heat are never on the bench together.',
    },
    (named('soak') || mayBeSoaked) && {
      id: 'air',
      title: 'Window open, heat source off before solvent',
      harm: 'Vapour burns, and makes the head ache. The data sheet and local rules decide.',
    },
    seals.length > 0 && {
      id: 'seals',
      title: `New ${seals.length > 1 ? 'seals' : 'seal'} at hand: ${seals.join(', ')}`,
      harm: 'Opened without one, it stays open until one comes, or is closed unsealed.',
    },
    hazards.has('magnet') && {
      id: 'magnets',
      title: 'Screws and bits kept from the magnets inside',
      harm: 'A screw that a magnet has taken shorts a board, or is sealed in.',
    },
  ];
  return items.filter((each) => each !== false);
}

/** What the plan seals anew all round, by name: the old seal is not opened for a new one that nobody has. */
function sealsToLay(map: DeviceMap, ops: readonly Op[]): string[] {
  const laid = new Set(ops.flatMap((op) => (op.name === 'lay' ? [op.joint] : [])));
  return map.joints.flatMap((joint) =>
    joint.type === 'bond' && joint.style === 'perimeter' && laid.has(joint.id) ? [partName(map, joint.holds[0]!)] : [],
  );
}
