import type { Mechanism } from '../holds/index.ts';
import type { Budget } from '../order/index.ts';
import { type Op, opTitle, type Plan, planRepair } from '../plan/index.ts';
import type { DoneStep } from './events.ts';
import { targetsLeft } from './reached.ts';
import type { JobState } from './state.ts';

/** What is still to be done: the plan from the job's present state, less the procedures that were done already. */
export interface Ahead {
  readonly plan: Plan;
  readonly ops: readonly Op[];
}

/** @throws PlanError where the targets can't be reached from here */
export function planAhead(mechanism: Mechanism, state: JobState, budget: Budget): Ahead {
  const { map } = mechanism;
  const plan = planRepair(
    { map, targets: targetsLeft(mechanism, state), policy: state.job.policy, done: state.done },
    budget,
  );
  const once = (op: Op) => op.kind !== 'procedure' || !state.steps.has(op.id);
  const ops = [...plan.strip, ...plan.rebuild].filter(once);
  return { plan, ops: withAdded(map, ops, state) };
}

/** Procedures that trouble has added stand before the operation they are for. */
function withAdded(map: Mechanism['map'], ops: readonly Op[], state: JobState): Op[] {
  return ops.flatMap((op) => {
    const before = state.added.filter((each) => each.before === op.id);
    return [...before.map((each) => addedOp(map, each.step, op)), op];
  });
}

function addedOp(map: Mechanism['map'], step: string, before: Op): Op {
  const name = step.startsWith('heat:') ? 'heat' : 'soak';
  const joint = before.joint!;
  const bond = map.joints.find((each) => each.id === joint);
  const recipe = bond?.type === 'bond' ? bond.recipe?.seconds : undefined;
  const soak = bond?.type === 'bond' ? bond.solvent?.soak_s : undefined;
  return {
    id: step,
    kind: 'procedure',
    name,
    joint,
    tool: null,
    face: before.face,
    seconds: 15,
    wait_s: name === 'heat' ? Math.round((recipe ?? 300) / 2) : (soak ?? 240),
    stage: before.stage,
    why:
      name === 'heat'
        ? 'It would not lift: more heat, not more force.'
        : 'The tab snapped: fetch it with blunt tweezers first; else solvent and patience.',
    whyNotEarlier: `Before ${opTitle(map, before)}.`,
    notBefore: [],
  };
}

/** A plan's operation as the step that an event records. */
export function doneStep(op: Op): DoneStep {
  const { id, kind, joint, part, onto, staysOpen, name, isNew } = op;
  return {
    id,
    kind,
    ...(joint === undefined ? {} : { joint }),
    ...(part === undefined ? {} : { part }),
    ...(onto === undefined ? {} : { onto }),
    ...(staysOpen ? { staysOpen } : {}),
    ...(name === undefined ? {} : { name }),
    ...(isNew ? { new: true } : {}),
  };
}
