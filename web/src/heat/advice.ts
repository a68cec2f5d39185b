import { countdown } from '@nibrel/core/planner/words';
import type { Foresight, HeatSetting, Warming } from '@nibrel/core/physics/heat';
import type { MeasuredSource } from '@nibrel/core/workshop/shop';
import { day } from '../app/format.ts';
import { temperature, temperatureGap } from '../app/units.ts';

export interface AdviceWords {
  readonly headline: string;
  readonly detail: string;
  /** may it be done as it is set? */
  readonly isGood: boolean;
}

/** What a foresight comes to, in words: safe for the whole of its reach. */
export function adviceWords({ soften_C, setting, heat_s }: Warming, foresight: Foresight): AdviceWords {
  const { ready, limit, working_s, advice } = foresight;
  const said = countdown(heat_s);
  switch (advice) {
    case 'ready':
      return {
        headline: `Soft after ${countdown(ready.late!)} at the latest`,
        detail: `As early as ${countdown(ready.early!)}. Off at ${said}, it can be cut for ${working_s === null ? 'longer than is looked at' : `at least ${countdown(working_s)}`}, less at the rim.`,
        isGood: true,
      };
    case 'perhaps':
      return {
        headline: 'Perhaps soft, not for certain',
        detail: `Likely after ${countdown(ready.likely!)}, but by the slow end not in ${said}. Heat longer, or measure it.`,
        isGood: false,
      };
    case 'not-ready':
      return {
        headline: `Not soft in ${said}`,
        detail: `It has to reach ${temperature(soften_C)}. Heat longer, or use what gives its heat faster.`,
        isGood: false,
      };
    case 'never':
      return {
        headline: `Never soft at ${temperature(setting.temp_C)}`,
        detail: `The bond comes to ${temperature(Math.floor(foresight.most_C))} at most, and softens at ${temperature(soften_C)}. More heat, not more force.`,
        isGood: false,
      };
    case 'limit':
      return {
        headline: `${limit!.what} may reach ${temperature(limit!.max_C)} after ${countdown(limit!.seconds)}`,
        detail:
          limit!.seconds > heat_s
            ? 'Heat goes on inwards after the source is gone. Shorter, or cooler.'
            : `That is before ${said} are over. Shorter, cooler, or measure it: the fast end may be too careful.`,
        isGood: false,
      };
  }
}

/** Where the figures come from: a guess, or measured, on which bond, when, and what was left over. */
export function originWords(
  setting: HeatSetting,
  measured: Pick<MeasuredSource, 'setting' | 'at' | 'residual_C' | 'simulated' | 'map' | 'joint'> | null,
  on: { readonly map: string; readonly joint: string },
): string {
  if (!measured || setting.origin !== measured.setting.origin) return 'A guess: measure it, and the reach narrows.';
  const isHere = measured.map === on.map && measured.joint === on.joint;
  const where = isHere ? 'Measured here' : 'Measured on another bond, so with a wider reach,';
  return `${where} ${day(measured.at)}, ${temperatureGap(measured.residual_C)} left over${measured.simulated ? ', on a stand-in (simulated)' : ''}.`;
}
