interface BatteryReport {
  readonly health?: number;
  readonly capacity_mAh?: number;
  readonly charge?: number;
  readonly origin?: 'none' | 'as-foretold' | 'not-foretold';
}

const ORIGINS = {
  none: 'no message about its origin',
  'as-foretold': 'the message about its origin is as foretold',
  'not-foretold': 'a message about its origin that was not foretold',
} as const;

/** *health 81 %, 4100 mAh, charge 40 %, no message about its origin* */
export function batteryWords({ health, capacity_mAh, charge, origin }: BatteryReport): string {
  const percent = (share: number) => `${Math.round(share * 100)} %`;
  return [
    ...(health === undefined ? [] : [`health ${percent(health)}`]),
    ...(capacity_mAh === undefined ? [] : [`${Math.round(capacity_mAh)} mAh`]),
    ...(charge === undefined ? [] : [`charge ${percent(charge)}`]),
    ...(origin === undefined ? [] : [ORIGINS[origin]]),
  ].join(', ');
}
