import type { WarmSource } from '@nibrel/core/heat';

/** What a device is warmed with, as it stands on a switch. */
export const SOURCE_OPTIONS: readonly { readonly value: WarmSource; readonly label: string }[] = [
  { value: 'plate', label: 'plate' },
  { value: 'pad', label: 'pad' },
  { value: 'air', label: 'hot air' },
  { value: 'pack', label: 'pack' },
];
