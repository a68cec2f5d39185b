import { fastenerAt } from '../device-map/index.ts';
import type { Mechanism } from '../holds/index.ts';
import { type Ledger, lose, type Screw } from '../screws/index.ts';
import type { JobState, Outcome, Trouble } from './state.ts';

/** Records a trouble and what follows from it: operations added, counts corrected, a part that has to be new. */
export function withTrouble(mechanism: Mechanism, state: JobState, trouble: Trouble): Outcome {
  const recorded = { ...state, troubles: [...state.troubles, trouble] };
  const { data } = trouble;
  switch (data.kind) {
    case 'will-not-lift':
      return { state: withStep(mechanism, recorded, 'heat', data.joint) };
    case 'tab-snapped':
      return { state: withStep(mechanism, recorded, 'soak', data.joint) };
    case 'part-cracked':
    case 'connector-damaged':
      return { state: withReplacement(mechanism, recorded, data.part) };
    case 'screw-lost':
      return withScrew(mechanism, recorded, trouble, (ledger, screw) => lose(ledger, screw));
    case 'screw-never-there':
      return withScrew(mechanism, recorded, trouble, (ledger, screw) => ({
        ...ledger,
        neverThere: new Set([...ledger.neverThere, `${screw.joint}/${screw.point}`]),
        onMat: ledger.onMat.filter((each) => each.joint !== screw.joint || each.point !== screw.point),
      }));
    case 'another-length':
      return withScrew(mechanism, recorded, trouble, (ledger, screw) => ({
        ...ledger,
        onMat: ledger.onMat.map((each) =>
          each.joint === screw.joint && each.point === screw.point ? { ...each, length_mm: data.length_mm! } : each,
        ),
      }));
    case 'one-screw-more': {
      if (!data.joint || !data.fastener)
        return { problem: 'Name the joint and the kind of the screw that is one more.' };
      const extra = { joint: data.joint, point: `more-${recorded.troubles.length}`, fastener: data.fastener };
      const ledger = { ...state.ledger, onMat: [...state.ledger.onMat, extra] };
      return { state: { ...recorded, ledger, corrections: [...state.corrections, correction(mechanism, trouble)] } };
    }
    case 'screw-stripped':
    case 'other':
      return { state: recorded };
  }
}

/** Heat and solvent are for bonds; what else will not lift is only recorded. */
function withStep(
  mechanism: Mechanism,
  state: JobState,
  procedure: 'heat' | 'soak',
  joint: string | undefined,
): JobState {
  if (mechanism.map.joints.find((each) => each.id === joint)?.type !== 'bond') return state;
  return { ...state, added: [...state.added, { step: `${procedure}:${joint}`, before: `release:${joint}` }] };
}

function withReplacement(mechanism: Mechanism, state: JobState, part: string | undefined): JobState {
  if (part === undefined || !mechanism.part.has(part)) return state;
  if (state.targets.some((each) => 'replace' in each && each.replace === part)) return state;
  return { ...state, targets: [...state.targets, { replace: part }] };
}

function withScrew(
  mechanism: Mechanism,
  state: JobState,
  trouble: Trouble,
  change: (ledger: Ledger, screw: Screw) => Ledger,
): Outcome {
  const { data } = trouble;
  const joint = mechanism.map.joints.find((each) => each.id === data.joint);
  const point = joint?.type === 'screw' ? joint.points.find((each) => each.id === data.point) : undefined;
  if (joint?.type !== 'screw' || !point) return { problem: 'Name the screw: its joint and its point.' };
  if (data.kind === 'another-length' && data.length_mm === undefined) return { problem: 'Give the length in mm.' };
  const screw = { joint: joint.id, point: point.id, fastener: fastenerAt(joint, point) };
  const ledger = change(state.ledger, screw);
  const corrections =
    data.kind === 'screw-lost' ? state.corrections : [...state.corrections, correction(mechanism, trouble)];
  return { state: { ...state, ledger, corrections } };
}

/** The change to the map that this trouble suggests, by its JSON path. */
function correction(mechanism: Mechanism, { data }: Trouble) {
  const number = mechanism.joint.get(data.joint!) ?? -1;
  const joint = mechanism.map.joints[number];
  const points = joint?.type === 'screw' ? joint.points : [];
  const index = points.findIndex((each) => each.id === data.point);
  const path = `joints[${number}].points${index < 0 ? '' : `[${index}]`}`;
  const from = index < 0 ? null : points[index];
  switch (data.kind) {
    case 'screw-never-there':
      return { path, from, to: null, text: `No screw was found at “${data.point}” of ${data.joint}.` };
    case 'another-length':
      return {
        path,
        from,
        to: { ...from, length_mm: data.length_mm },
        text: `The screw at “${data.point}” of ${data.joint} is ${data.length_mm} mm long.`,
      };
    default:
      return {
        path,
        from,
        to: { fastener: data.fastener },
        text: `${data.joint} has one screw more than the map says.`,
      };
  }
}
