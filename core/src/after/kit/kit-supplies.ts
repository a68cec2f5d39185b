import { type DeviceMap, jointById, partById } from '../../model/device-map/index.ts';
import { type Consumable, consumablesOf } from '../../planner/plan/index.ts';
import type { Op } from '../../planner/drafts/index.ts';

/** An amount of something used up, by the key under which it lies on the shelf. */
export interface Supply {
  readonly key: string;
  readonly name: string;
  readonly quantity: number;
  readonly unit: 'piece' | 'mm' | 'drop';
}

/** Drops of liquid for one bond (guess). */
const DROPS = 6;

/**
 * What a plan's consumable is on the shelf: seals, single-use parts and screws are of one device, tape and liquids of
 * none. Where the map has no length, tape is counted as the outline of what it holds.
 */
export function supplyOf(map: DeviceMap, used: Consumable): Supply {
  const named = (thing: string, text: string) => `${map.name}: ${thing}, ${text}`;
  const { what, joint, part, fastener, count = 1 } = used;
  switch (what) {
    case 'tape':
      return { key: 'tape', name: 'Cut tape', quantity: used.length_mm ?? outlineOf(map, joint), unit: 'mm' };
    case 'clear-tape':
      return { key: 'clear-tape', name: 'Clear tape', quantity: used.length_mm ?? 0, unit: 'mm' };
    case 'liquid-adhesive':
      return { key: 'liquid-adhesive', name: 'Liquid adhesive', quantity: DROPS, unit: 'drop' };
    case 'thread-locker':
      return { key: 'thread-locker', name: 'Thread locker', quantity: count, unit: 'drop' };
    case 'single-use-screw':
      return { key: `${what}:${map.id}:${fastener}`, name: named(fastener!, 'screw'), quantity: count, unit: 'piece' };
    case 'precut-seal':
    case 'single-use-part':
    case 'spare': {
      const thing = (joint ?? part)!;
      return { key: `${what}:${map.id}:${thing}`, name: named(thing, used.text), quantity: 1, unit: 'piece' };
    }
  }
}

/** Is it what a seal is made of anew? */
export function isForSealing({ key }: Pick<Supply, 'key'>): boolean {
  return SEALING.has(key.split(':')[0]!);
}

const SEALING: ReadonlySet<string> = new Set<Consumable['what']>(['precut-seal', 'tape', 'liquid-adhesive']);

function outlineOf(map: DeviceMap, joint: string | undefined): number {
  const held = jointById(map, joint)?.holds[0];
  const box = partById(map, held)?.box;
  return box ? Math.round(2 * (box.w + box.h)) : 0;
}

/** The supplies of a plan, those of one key together. */
export function suppliesOf(map: DeviceMap, consumables: readonly Consumable[]): Supply[] {
  const byKey = new Map<string, Supply>();
  for (const each of consumables) {
    const supply = supplyOf(map, each);
    const before = byKey.get(supply.key);
    byKey.set(supply.key, { ...supply, quantity: supply.quantity + (before?.quantity ?? 0) });
  }
  return [...byKey.values()];
}

/** What operations that were done have used up: only what goes in, never what was merely advised. */
export function usedBy(map: DeviceMap, done: readonly Pick<Op, 'kind' | 'name' | 'joint' | 'part'>[]): Supply[] {
  return suppliesOf(map, consumablesOf(map, [], done as readonly Op[]));
}
