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
