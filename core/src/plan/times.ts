import Joi from 'joi';
import type { DeviceMap } from '../device-map/index.ts';
import type { Op } from '../drafts/index.ts';

/**
 * A workshop's own time for operations of a kind, in place of the built-in guess: hands-on seconds of one of them.
 * `kind` is that of an operation or the name of a procedure, `type` the type of its joint.
 */
export interface OwnTime {
  readonly kind: string;
  readonly type?: string;
  readonly low: number;
  readonly likely: number;
  readonly high: number;
}

/** How far a guess may be off: so much of it at least, so much at most (guesses). */
const LOW = 0.6;
const HIGH = 1.8;

const seconds = Joi.number().min(0).max(100_000).required();

export const timesSchema = Joi.array()
  .max(500)
  .items(
    Joi.object<OwnTime>({
      kind: Joi.string().min(1).max(100).required(),
      type: Joi.string().min(1).max(100),
      low: seconds,
      likely: seconds.min(Joi.ref('low')),
      high: seconds.min(Joi.ref('likely')),
    }),
  );

/** Operations with what they take at least and at most beside what is likely: by the workshop's own times, else guessed. */
export function timed(map: DeviceMap, ops: readonly Op[], own: readonly OwnTime[]): Op[] {
  return ops.map((op) => {
    const time = timeFor(map, op, own);
    return time
      ? { ...op, seconds: time.likely, low: time.low, high: time.high }
      : { ...op, low: Math.floor(op.seconds * LOW), high: Math.ceil(op.seconds * HIGH) };
  });
}

/** One for the very type of joint goes before one for the kind. */
function timeFor(map: DeviceMap, op: Op, own: readonly OwnTime[]): OwnTime | undefined {
  if (own.length === 0) return undefined;
  const type = map.joints.find(({ id }) => id === op.joint)?.type;
  const ofKind = own.filter(({ kind }) => kind === op.kind || kind === op.name);
  return (
    ofKind.findLast((each) => each.type !== undefined && each.type === type) ??
    ofKind.findLast((each) => each.type === undefined)
  );
}
