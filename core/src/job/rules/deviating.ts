import { notInMap, type Problem, wrong } from '../../model/refusal/index.ts';
import { opId } from '../../planner/drafts/index.ts';
import { isSelfParting, jointById, partById } from '../../model/device-map/index.ts';
import { applied, carried, type Mechanism, type PhysicalOp, SEATED } from '../../planner/holds/index.ts';
import { keyOf, looseScrewsOf } from '../../screws/screws/index.ts';
import { heldName } from '../../planner/words/index.ts';
import type { BenchEvent, DeviationEventData } from '../events/index.ts';
import { type ExtraPart, grown, type JobState, newlyReached, type Outcome, withKey } from '../state/index.ts';
import { withMark } from './mark.ts';

export type DeviationEvent = Extract<BenchEvent, { type: keyof DeviationEventData }>;

export function atDeviation(mechanism: Mechanism, state: JobState, event: DeviationEvent): Outcome {
  switch (event.type) {
    case 'not-mapped':
      return notMapped(mechanism, state, event);
    case 'inspected':
      return inspected(mechanism, state, event.data);
    case 'closing':
      return closing(mechanism, state, event.data);
  }
}

function notMapped(
  mechanism: Mechanism,
  state: JobState,
  { id, data }: DeviationEvent & { type: 'not-mapped' },
): Outcome {
  const { deviations } = state;
  const { map } = mechanism;
  if (data.what === 'extra') {
    const over = data.over as ExtraPart['over'];
    const isKnown = over.joint === undefined ? mechanism.part.has(over.part!) : mechanism.joint.has(over.joint);
    if (!isKnown)
      return { problem: wrong('over', 'There is no such part or joint in this map.', 'Name one that the map has.') };
    const extra = { id, name: data.name!, over };
    const at = { face: data.face ?? null, x: data.x ?? null, y: data.y ?? null };
    const text = `It has one part more: ${data.name}${data.text ? `, ${data.text}` : ''}.`;
    return {
      state: {
        ...state,
        deviations: { ...deviations, extra: grown(deviations.extra, extra) },
        corrections: grown(state.corrections, { path: 'parts', from: null, to: { name: data.name, ...at }, text }),
      },
    };
  }
  const number = mechanism.part.get(data.part!);
  if (number === undefined) return { problem: notInMap('part', 'part', data.part!) };
  const part = map.parts[number]!;
  const note = data.text ? `: ${data.text}` : '';
  if (data.what === 'different') {
    const correction = {
      path: `parts[${number}]`,
      from: part,
      to: { ...part, reuse: 'inspect' },
      text: `${part.name} is not as mapped${note}.`,
    };
    return {
      state: {
        ...state,
        deviations: { ...deviations, different: new Set([...deviations.different, part.id]) },
        corrections: grown(state.corrections, correction),
      },
    };
  }
  const correction = { path: `parts[${number}]`, from: part, to: null, text: `${part.name} was not there${note}.` };
  return withoutPart(mechanism, { ...state, corrections: grown(state.corrections, correction) }, number);
}

/** Why a part can't be taken as missing; null where it can. Nothing that makes the device dead is believed to be gone. */
export function notMissing(mechanism: Mechanism, { device }: JobState, id: string): Problem | null {
  const { map, part, holding, isolation } = mechanism;
  const number = part.get(id);
  if (number === undefined) return null;
  const { base, name } = map.parts[number]!;
  if (base) return wrong('part', `${name} carries everything else: it is there.`);
  if (device.status[number] !== SEATED) return wrong('part', `${name} was there in this job.`);
  const isolating = new Set([...isolation.alone, ...isolation.jointly]);
  const kills = (each: number) =>
    isolation.cells.includes(each) || holding[each]!.some((joint) => isolating.has(joint));
  return [...carried(mechanism, device, number)].some(kills)
    ? wrong(
        'part',
        `${name} is what makes the device dead.`,
        'It is never taken as missing: look again, or record that it was lifted.',
      )
    : null;
}

/** A part that is not there, and what would lie on it, is off and its joints are released; screws were never there. */
function withoutPart(mechanism: Mechanism, state: JobState, number: number): Outcome {
  const { map } = mechanism;
  const gone = [...carried(mechanism, state.device, number)];
  const isGone = new Set(gone);
  const joints = map.joints.flatMap((_, joint) => {
    const isOnlyTheirs = mechanism.held[joint]!.every((each) => isGone.has(each));
    return isOnlyTheirs && !state.device.released[joint] && mechanism.releasable[joint] ? [joint] : [];
  });
  const ops: PhysicalOp[] = [
    ...joints.map((joint): PhysicalOp => ({ kind: 'release', joint })),
    { kind: 'lift', part: number },
  ];
  const device = ops.reduce((now, op) => applied(mechanism, now, op), state.device);
  const holes = joints.flatMap((each) => {
    const joint = map.joints[each]!;
    return joint.type === 'screw' ? looseScrewsOf(map, joint, state.ledger).map(keyOf) : [];
  });
  const { ledger, deviations } = state;
  const after = {
    ...state,
    device,
    ledger: { ...ledger, neverThere: new Set([...ledger.neverThere, ...holes]) },
    deviations: {
      ...deviations,
      missing: new Set([...deviations.missing, ...gone.map((each) => map.parts[each]!.id)]),
    },
  };
  return { state: { ...after, reached: newlyReached(mechanism, after) } };
}

/** Good: it goes back. Failed: the job turns into what the map says of it, else it is renewed itself. */
function inspected(mechanism: Mechanism, state: JobState, data: DeviationEventData['inspected']): Outcome {
  const { map } = mechanism;
  const part = partById(map, data.part);
  if (!part) return { problem: notInMap('part', 'part', data.part!) };
  const { deviations } = state;
  const seen = {
    ...withMark(state, opId('inspect', part.id)),
    deviations: { ...deviations, inspected: withKey(deviations.inspected, part.id, data.result) },
  };
  if (data.result === 'good') return { state: seen };
  const replace = part.ifFailed?.replace ?? part.id;
  const isTarget = state.targets.some((each) => 'replace' in each && each.replace === replace);
  return { state: isTarget ? seen : { ...seen, targets: [...seen.targets, { replace }] } };
}

function closing(mechanism: Mechanism, state: JobState, { joint: id, way }: DeviationEventData['closing']): Outcome {
  const joint = jointById(mechanism.map, id);
  if (joint?.type !== 'bond' || isSelfParting(joint))
    return { problem: wrong('joint', `“${id}” is no bond that is closed again.`, 'Name one that the map has.') };
  const { deviations } = state;
  const names = heldName(mechanism.map, joint);
  const isMade = !state.device.released[mechanism.joint.get(id)!] && state.done.some((op) => op.joint === id);
  if (isMade) return { problem: wrong('joint', `The bond of ${names} is closed already.`, 'Open it again first.') };
  return { state: { ...state, deviations: { ...deviations, closings: withKey(deviations.closings, id, way) } } };
}

/** Extra parts that were taken off and are not back. */
export function extraOff({ deviations, steps }: Pick<JobState, 'deviations' | 'steps'>): ExtraPart[] {
  const isDone = (name: 'take-off' | 'put-back', { id }: ExtraPart) => (steps.get(opId(name, id)) ?? 0) > 0;
  return deviations.extra.filter((each) => isDone('take-off', each) && !isDone('put-back', each));
}

/** Parts that are not there, save those that a new one was fitted for since. */
export function notThere({ deviations, done }: Pick<JobState, 'deviations' | 'done'>): ReadonlySet<string> {
  if (deviations.missing.size === 0) return deviations.missing;
  const fitted = new Set(done.flatMap((op) => (op.kind === 'fit' ? [op.part!] : [])));
  return new Set([...deviations.missing].filter((id) => !fitted.has(id)));
}
