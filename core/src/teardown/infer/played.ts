import { applied, assembled, type DeviceState, type Mechanism, type StripOp } from '../../planner/holds/index.ts';
import { type HeldBy, type Line, type Thing, thingKey } from '../record/index.ts';

/** One line, with the device as it stood before it. */
interface Step {
  /** null for a refusal, and for what the map does not have */
  readonly op: StripOp | null;
  readonly thing: Thing;
  readonly key: string;
  readonly before: DeviceState;
  readonly isRefused: boolean;
  readonly by?: HeldBy;
}

/** A refusal, at a line, and what held it where that is known. */
interface Refused {
  readonly at: number;
  readonly by: HeldBy | undefined;
}

const NONE: readonly Refused[] = [];

/** A record from the whole device, played whether it was legal or not. */
export interface PlayedLines {
  readonly steps: readonly Step[];
  /** the device after so many lines; after all of them where there are fewer */
  after(lines: number): DeviceState;
  /** when something was first released, opened or lifted */
  momentOf(key: string): number | undefined;
  /** when something would not move, in order */
  refusalsOf(key: string): readonly Refused[];
}

export function playedLines(mechanism: Mechanism, lines: readonly Line[]): PlayedLines {
  const steps: Step[] = [];
  const moments = new Map<string, number>();
  const refusals = new Map<string, Refused[]>();
  let state = assembled(mechanism);
  lines.forEach((line, at) => {
    const thing: Thing = 'joint' in line && line.joint !== undefined ? { joint: line.joint } : { part: line.part! };
    const key = thingKey(thing);
    const op = line.kind === 'refused' ? null : opOf(mechanism, line);
    const isRefused = line.kind === 'refused';
    steps.push({
      op,
      thing,
      key,
      before: state,
      isRefused,
      ...(line.kind === 'refused' && line.by ? { by: line.by } : {}),
    });
    if (line.kind === 'refused') refusals.set(key, [...(refusals.get(key) ?? []), { at, by: line.by }]);
    if (!op) return;
    if (!moments.has(key)) moments.set(key, at);
    state = applied(mechanism, state, op);
  });
  return {
    steps,
    after: (count) => steps[count]?.before ?? state,
    momentOf: (key) => moments.get(key),
    refusalsOf: (key) => refusals.get(key) ?? NONE,
  };
}

function opOf(mechanism: Mechanism, line: Exclude<Line, { kind: 'refused' }>): StripOp | null {
  if (line.kind === 'release') {
    const joint = mechanism.joint.get(line.joint);
    return joint === undefined || !mechanism.releasable[joint] ? null : { kind: 'release', joint };
  }
  const part = mechanism.part.get(line.part);
  return part === undefined || part === mechanism.base ? null : { kind: line.kind, part };
}
