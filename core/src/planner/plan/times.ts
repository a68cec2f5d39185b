import Joi from 'joi';
import { type DeviceMap, jointById } from '../../model/device-map/index.ts';
import type { Op } from '../drafts/index.ts';

/**
 * A workshop's own time for operations of a kind, in place of the built-in guess: hands-on seconds of one of them.
 * `kind` is that of an operation or the name of a procedure, `type` the type of its joint.
 */
export interface OwnTime {
  readonly kind: string;
  readonly type?: string;
  /** of a connector or bond */
  readonly style?: string;
  /** for one point of a joint that has points: a screw, a clip */
  readonly each?: boolean;
  /** from how many of its own */
  readonly from?: number;
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
      style: Joi.string().min(1).max(100),
      each: Joi.boolean(),
      from: Joi.number().integer().min(0).max(1_000_000_000),
      low: seconds,
      likely: seconds.min(Joi.ref('low')),
      high: seconds.min(Joi.ref('likely')),
    }),
  );

/** Operations with what they take at least and at most beside what is likely: by the workshop's own times, else guessed. */
export function timed(map: DeviceMap, ops: readonly Op[], own: readonly OwnTime[]): Op[] {
  return ops.map((op) => {
    const time = timeFor(map, op, own);
    if (!time) return { ...op, low: Math.floor(op.seconds * LOW), high: Math.ceil(op.seconds * HIGH) };
    const points = time.each ? Math.max(1, op.count ?? 1) : 1;
    const { low, likely, high, from } = time;
    return {
      ...op,
      seconds: likely * points,
      low: low * points,
      high: high * points,
      ...(from === undefined ? {} : { timesFrom: from }),
    };
  });
}

/** The one that says most of it: its style, else its type of joint, else its kind alone. */
function timeFor(map: DeviceMap, op: Op, own: readonly OwnTime[]): OwnTime | undefined {
  if (own.length === 0) return undefined;
  const joint = jointById(map, op.joint);
  const style = joint && 'style' in joint ? joint.style : undefined;
  const ofKind = own.filter(({ kind }) => kind === op.kind || kind === op.name);
  const ofType = ofKind.filter((each) => each.type !== undefined && each.type === joint?.type);
  return (
    ofType.findLast((each) => each.style !== undefined && each.style === style) ??
    ofType.findLast((each) => each.style === undefined) ??
    ofKind.findLast((each) => each.type === undefined)
  );
}
