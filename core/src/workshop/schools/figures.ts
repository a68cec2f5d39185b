import { chargeNeed } from '../prepare/index.ts';
import { type Option, riskOf } from './risk.ts';
import { minutes } from './words.ts';

/** What an option takes and risks on this device, all from its own plan. */
export interface Figures {
  /** hands-on and waiting, seconds */
  readonly seconds: number;
  readonly risk: string;
}

/** More hands-on seconds a screw, out and back in (guesses). */
const PER_SCREW_S: Readonly<Record<string, number>> = {
  'map-mat': 3,
  'containers-per-stage': 1,
  'containers-apart': 2,
};
const TORQUE_PER_SCREW_S = 2;

export function figuresOf(option: Option): Figures {
  const { strip, rebuild, waiting } = option.plan.seconds;
  return { seconds: strip + rebuild + waiting + besideThePlan(option), risk: riskOf(option) };
}

/** What an option takes that is no operation of the plan. */
function besideThePlan({ map, key, value, plan, limits, charge }: Option): number {
  const screws = plan.screws.reduce((sum, each) => sum + each.count, 0);
  switch (key) {
    case 'screws':
      return screws * (PER_SCREW_S[value] ?? 0);
    case 'tightening':
      return value === 'torque' ? screws * TORQUE_PER_SCREW_S : 0;
    case 'batteryBefore':
      return (
        chargeNeed(map, plan.strip, value as 'run-down' | 'charged', limits, charge ?? UNREAD_CHARGE)?.seconds ?? 0
      );
    case 'display':
    case 'order':
    case 'sealLaid':
    case 'batteryWhilePrying':
    case 'firstGap':
    case 'heat':
    case 'warm':
    case 'tools':
    case 'closing':
    case 'test':
    case 'batteryBond':
    case 'newBattery':
      return 0;
  }
}

/** What a device is taken to hold until somebody reads it (guess). */
const UNREAD_CHARGE = 0.6;

/** *Taken off: 3 min more, 4 connectors of it reconnected once more.* */
export function costWords(label: string, chosen: Figures | null, other: Figures | null): string {
  const name = label.charAt(0).toUpperCase() + label.slice(1);
  if (!other) return `${name}: no plan this way.`;
  const risk = other.risk ? `, ${other.risk}` : '';
  if (!chosen) return `${name}: ${minutes(other.seconds)}${risk}.`;
  const more = Math.round(other.seconds - chosen.seconds);
  if (more === 0)
    return other.risk === chosen.risk ? `${name}: no difference on this device.` : `${name}: the same time${risk}.`;
  return `${name}: ${minutes(Math.abs(more))} ${more > 0 ? 'more' : 'less'}${risk}.`;
}
