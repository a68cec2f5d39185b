import type { HeatSetting, Touch } from '@nibrel/core/physics/heat';

/** How a source is set up on the bench. */
export interface SetUp {
  readonly setting: HeatSetting;
  readonly heat_s: number;
  readonly touch: Touch;
}
