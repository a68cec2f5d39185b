import { type Joint, jointById } from '../../model/device-map/index.ts';
import { type Op, procedureOp, thingOf, TIMES } from '../../planner/drafts/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { behindEdge } from '../../job/rules/index.ts';
import { type JobState } from '../../job/state/index.ts';
import { tapeOp } from '../../workshop/prepare/index.ts';
import { opTitle } from '../../planner/words/index.ts';

/** Procedures that trouble has added stand before the operation they are for. */
export function withAdded(map: Mechanism['map'], ops: readonly Op[], state: JobState): Op[] {
  return ops.flatMap((op) => {
    const before = state.added.filter((each) => each.before === op.id);
    return [...before.map((each) => addedOp(map, each.step, op, state.troubles)), op];
  });
}

type AddedName = 'heat' | 'soak' | 'tape' | 'look';

function addedOp(map: Mechanism['map'], step: string, before: Op, troubles: JobState['troubles']): Op {
  const name = step.slice(0, step.indexOf(':')) as AddedName;
  const joint = jointById(map, before.joint)!;
  const at = { joint: joint.id, face: before.face, stage: before.stage };
  const whyNotEarlier = `Before ${opTitle(map, before)}.`;
  if (name === 'tape') {
    const why = 'Clear tape over the whole face holds splinters and gives a cup a surface.';
    return { ...tapeOp(thingOf(step), at), why, whyNotEarlier };
  }
  return procedureOp({
    name,
    of: thingOf(step),
    ...at,
    ...timesOf(name, joint),
    why: whyAdded(map, name, joint, troubles),
    whyNotEarlier,
  });
}

function timesOf(name: Exclude<AddedName, 'tape'>, joint: Joint): { seconds: number; wait_s?: number } {
  const bond = joint.type === 'bond' ? joint : undefined;
  switch (name) {
    case 'heat':
      // it is warm from before: half the time
      return { seconds: TIMES.heat, wait_s: Math.round((bond?.recipe?.seconds ?? TIMES.heatWait) / 2) };
    case 'soak':
      return { seconds: TIMES.soak, wait_s: bond?.solvent?.soak_s ?? TIMES.cellSoak };
    case 'look':
      return { seconds: TIMES.inspect };
  }
}

function whyAdded(
  map: Mechanism['map'],
  name: Exclude<AddedName, 'tape'>,
  joint: Joint,
  troubles: JobState['troubles'],
): string {
  switch (name) {
    case 'heat':
      return 'It would not lift, or has grown stiff: more heat, not more force.';
    case 'soak':
      return 'The tab snapped: fetch it with blunt tweezers first; else solvent and patience.';
    case 'look': {
      if (joint.type !== 'bond') return 'A clip broke: see that it sits flush all round, else the part is renewed.';
      const cut = troubles.findLast(({ data }) => data.kind === 'cut-too-deep' && data.joint === joint.id);
      const behind = behindEdge(map, joint, cut?.data.segment).map((part) => part.name);
      return `It was cut too deep. Look for damage${behind.length > 0 ? ` at ${behind.join(', ')}` : ' behind the edge'} before going on.`;
    }
  }
}
