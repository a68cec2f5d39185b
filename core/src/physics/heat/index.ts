export { stackOfBond, type StackOfBond } from './bond-stack.ts';
export { cellLimit_C, cellsAt, isCellWatched } from './cells.ts';
export { heatClock, type HeatClock, likelyBelow_s, reachAt, untilBelow_s } from './clock.ts';
export {
  coldestOf,
  type CutTimes,
  cutTimesOf,
  type DeviceWarming,
  fieldOfDevice,
  segmentsOf,
  type Touch,
  TOUCHES,
  type Yielding,
} from './device-field.ts';
export { type Drag, dragsBelow } from './drags.ts';
export { type FieldRequest, type FieldResult, heatField, type LevelMaterial } from './field.ts';
export { fitTransfer } from './fit.ts';
export {
  type Advice,
  type Band,
  CUTS_ON_C,
  foresee,
  type Foresight,
  type Past,
  type Spot,
  type Warming,
} from './foresee.ts';
export { type Material, materialNamed, MATERIALS, materialsWith, POUCH_CELL } from './materials.ts';
export { COOLED_s, hottest_C, type Warmed as WarmedBond } from './hottest.ts';
export { foreseeBond, isForeseeable, nearestLimit, SOFTENS_C, warmingOf, warmingTime_s } from './heat-of-bond.ts';
export { cellHeatedBy, longestForCells_s } from './on-cells.ts';
export { type Fit, fitted, overLimit, type Reading, readingProblem } from './readings.ts';
export { type Recipe, RECIPES, settingOfRecipe } from './recipes.ts';
export { type HeatRequest, heatRequest, type HeatSource } from './heat-request.ts';
export {
  type HeatSetting,
  kindFor,
  measuredSource,
  ROOM_C,
  settingFor,
  settingSchema,
  usualSetting,
} from './setting.ts';
export { valueAt } from './series.ts';
export { type HeatResult, heatThrough } from './solve-heat.ts';
