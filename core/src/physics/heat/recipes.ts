import { type WarmSource } from '../../model/sources/index.ts';
import { FAR_AIR, type HeatSetting, usualSetting } from './setting.ts';

/** A way of warming that is in use (common practice), to be laid over another. */
export interface Recipe {
  readonly id: string;
  /** @param at the temperature, as the bench reads it */
  name(at: string): string;
  readonly kind: WarmSource;
  readonly temp_C: number;
  readonly seconds: number;
  /** where it differs from what is usual for its kind */
  readonly transfer?: HeatSetting['transfer'];
  readonly note: string;
}

export const RECIPES: readonly Recipe[] = [
  {
    id: 'plate',
    name: (at) => `Plate ${at}, 5 min`,
    kind: 'plate',
    temp_C: 70,
    seconds: 300,
    note: 'Face down on the plate, film off the plate.',
  },
  {
    id: 'pad',
    name: (at) => `Pad ${at}, 7 min`,
    kind: 'pad',
    temp_C: 60,
    seconds: 420,
    note: '5 to 7 min. For thin front seals.',
  },
  {
    id: 'air-halves',
    name: (at) => `Hot air ${at}, 2 min a half`,
    kind: 'air',
    temp_C: 80,
    seconds: 120,
    note: 'One half for 2 min, then the other. Keep the nozzle moving.',
  },
  {
    id: 'air-low',
    name: () => 'Hot air on low, 75 to 100 mm',
    kind: 'air',
    temp_C: 100,
    seconds: 120,
    transfer: FAR_AIR,
    note: 'How hot it is at the face is a guess: measure it.',
  },
  {
    id: 'pack-edge',
    name: () => 'Warm pack on one edge, 2 min',
    kind: 'pack',
    temp_C: 80,
    seconds: 120,
    note: '1 to 2 min; it grows cold, so warm it again for the next edge.',
  },
  {
    id: 'dryer',
    name: () => 'Hair dryer, 6 min',
    kind: 'air',
    temp_C: 85,
    seconds: 360,
    transfer: { low: 30, likely: 45, high: 70 },
    note: 'Slower than hot air.',
  },
  {
    id: 'small-part',
    name: () => 'Hot air on a small part, 90 s',
    kind: 'air',
    temp_C: 80,
    seconds: 90,
    note: '1 to 2 min for small bonded parts and flexes.',
  },
];

export function settingOfRecipe({ kind, temp_C, transfer }: Recipe): HeatSetting {
  const usual = usualSetting(kind, temp_C);
  return transfer ? { ...usual, transfer } : usual;
}
