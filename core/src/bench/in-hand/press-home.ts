import { type Op, opId, procedureOp, TIMES } from '../../planner/drafts/index.ts';
import { type DeviceMap, jointById } from '../../model/device-map/index.ts';
import { type JobState } from '../../job/state/index.ts';

/**
 * A plug that this job has pressed and that is got at once more, because something that it serves failed: before anything is closed over
 * it again, it is pressed home. Once for every time that it was asked for.
 * @param ops what is ahead
 * @param back id of the first operation of the way back; undefined where there is none
 */
export function withPressedHome(
  map: DeviceMap,
  state: JobState,
  ops: readonly Op[],
  back: string | undefined,
): readonly Op[] {
  const asked = state.inForce.findLastIndex(({ type }) => type === 'targets');
  const plugs = state.targets.flatMap((target) => {
    const joint = 'reach' in target ? jointById(map, target.reach) : undefined;
    const wasPressed = state.done.some(({ kind, joint: id }) => kind === 'make' && id === joint?.id);
    return joint?.type === 'connector' && wasPressed && asked > lastPressed(state, joint.id) ? [joint] : [];
  });
  const at = ops.findIndex(({ id }) => id === back);
  const presses = plugs.map(({ id, face }) =>
    procedureOp({
      name: 'press-home',
      of: nameOf(state, id),
      joint: id,
      face,
      seconds: TIMES.pressHome,
      stage: 'rebuild',
      why: 'What it serves failed, and it was pressed in this job.',
      whyNotEarlier: 'Once it lies bare and the device is dead.',
    }),
  );
  return at < 0 ? [...ops, ...presses] : ops.toSpliced(at, 0, ...presses);
}

/** Where in the job it was pressed home again the last time. */
function lastPressed({ inForce }: JobState, joint: string): number {
  return inForce.findLastIndex(
    (event) =>
      event.type === 'did' && event.data.steps.some((step) => step.name === 'press-home' && step.joint === joint),
  );
}

/** Told from those before: *touch-plug*, *touch-plug 2*. */
function nameOf({ steps }: JobState, joint: string): string {
  const first = opId('press-home', joint);
  const before = [...steps.keys()].filter((id) => id === first || id.startsWith(`${first} `)).length;
  return before === 0 ? joint : `${joint} ${before + 1}`;
}
