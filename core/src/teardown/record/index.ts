export { BARE_BASE, BARE_CELL, bareMap, isBare, type Unopened } from './bare-map.ts';
export {
  type Answered,
  type Entry,
  entryKey,
  type HeldBy,
  type Line,
  type ReleasedJoint,
  type SeenPart,
  type Teardown,
  type Thing,
  thingKey,
  thingOf,
} from './teardown.ts';
export { teardownSchema } from './teardown-schema.ts';
export { COMES_NEXT, teardownOf } from './teardown-of.ts';
export {
  type TeardownEventData,
  type TeardownEventType,
  type Told,
  type ToldJoint,
  type ToldPart,
  type ToldScrew,
} from './told-events.ts';
export { toldProblem } from './told-problem.ts';
export { MOST_ALIKE, TEARDOWN_DATA } from './told-schema.ts';
export { heldBy, holdingNothing, type Layer, partsOff, type Step, type ToldSoFar, toldSoFar } from './told-so-far.ts';
export { USUAL } from './usual.ts';
