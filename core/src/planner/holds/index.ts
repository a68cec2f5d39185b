export { type Mechanism, mechanismOf, type Wait } from './mechanism.ts';
export {
  assembled,
  carried,
  copyOf,
  groupOfJoint,
  type DeviceState,
  isDead,
  isFirm,
  isWired,
  madeBetween,
  OFF,
  OPEN,
  SEATED,
} from './device-state.ts';
export { applied, isTethered, type PhysicalOp, type StripOp } from './operation.ts';
export { isMet, planRules, type Rules, type Unmet, unmetFor } from './unmet.ts';
export { changesNothing, everyOp, play } from './play.ts';
export { isMarkedLive, liveJoints } from './live.ts';
export { judge, replay } from './legal.ts';
export {
  namedNeed,
  type NamedNeed,
  namedOp,
  type NamedOp,
  numberedOp,
  type Possible,
  possibleNow,
} from './possible.ts';
export { isLegalNow, withHost } from './may.ts';
export { inverse, isStripOp } from './inverse.ts';
