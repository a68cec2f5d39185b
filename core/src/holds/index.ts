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
  sameState,
  SEATED,
} from './state.ts';
export { applied, isTethered, type PhysicalOp, type RebuildOp, type StripOp } from './operation.ts';
export { type ExtraWaits, holds, isolationMissing, type Rules, type Unmet, unmetFor } from './unmet.ts';
export { changesNothing, everyOp, play } from './play.ts';
export { isMarkedLive, liveJoints } from './live.ts';
export { mayRebuild } from './refit.ts';
export { judge, replay } from './legal.ts';
export {
  hostsOf,
  namedNeed,
  type NamedNeed,
  namedOp,
  type NamedOp,
  numberedOp,
  possibleNow,
  rebuildOps,
} from './possible.ts';
