import { type Problem, wrong } from '../../model/refusal/index.ts';
import { fastenerAt, jointById, type ScrewJoint } from '../../model/device-map/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { type Harm, harmOf } from '../../screws/mix-ups/index.ts';
import { keyOf, lose, type Screw, SURE } from '../../screws/screws/index.ts';
import { heldName, pointName } from '../../planner/words/index.ts';
import { peakVerdict, windowOf } from '../../screws/tightening/index.ts';
import type { BenchEvent, ScrewEventData } from '../events/index.ts';
import { type JobState, type Outcome, withKey } from '../state/index.ts';

export type ScrewEvent = Extract<BenchEvent, { type: keyof ScrewEventData }>;

/** Loose screws: measured, or spilled and sorted out again. */
export function atScrews(mechanism: Mechanism, state: JobState, event: ScrewEvent): Outcome {
  switch (event.type) {
    case 'tightened':
      return tightened(mechanism, state, event.data);
    case 'screw-measured':
      return measured(state, event.data);
    case 'spill':
      return spilled(state, event.data);
  }
}

function tightened({ map }: Mechanism, state: JobState, data: ScrewEventData['tightened']): Outcome {
  const { joint: id, point: hole, peak_Ncm, slipped = false } = data;
  const joint = jointById(map, id);
  const point = joint?.type === 'screw' ? joint.points.find((each) => each.id === hole) : undefined;
  if (joint?.type !== 'screw' || !point)
    return {
      problem: wrong('point', `There is no screw “${hole}” in ${id} of this map.`, 'Name one that the map has.'),
    };
  const window = windowOf(map, joint, point);
  if (!window)
    return {
      problem: wrong('joint', `Nothing says how tight the screws of ${heldName(map, id)} are: there is no window.`),
    };
  const verdict = peakVerdict(peak_Ncm, slipped, window);
  return { state: { ...state, peaks: withKey(state.peaks, keyOf(data), { peak_Ncm, verdict }) } };
}

function measured(state: JobState, { joint, point, length_mm }: ScrewEventData['screw-measured']): Outcome {
  const key = keyOf({ joint, point });
  const { ledger } = state;
  if (!ledger.onMat.some((each) => keyOf(each) === key))
    return { problem: wrong('point', `Screw “${point}” is not on the mat.`) };
  const onMat = ledger.onMat.map((each) => (keyOf(each) === key ? asMeasured(each, length_mm, true) : each));
  return { state: { ...state, ledger: { ...ledger, onMat } } };
}

/** A screw that somebody has measured for this hole is no longer in doubt, unless it is said so. */
function asMeasured(screw: Screw, measured_mm: number, isSure: boolean): Screw {
  return { ...screw, measured_mm, isUnsure: !isSure };
}

/** Everything on the mat is there as it was picked up, or lost. */
function spilled(state: JobState, { loose, placed }: ScrewEventData['spill']): Outcome {
  const { ledger } = state;
  const screws = new Map(loose.map((each) => [each.id, each]));
  const onMat = new Map(ledger.onMat.map((each) => [keyOf(each), each]));
  const kept = new Map<string, Screw>();
  for (const { loose: id, joint, point, p } of placed) {
    const screw = screws.get(id);
    const hole = onMat.get(keyOf({ joint, point }));
    if (!screw) return { problem: wrong('placed', `There is no screw “${id}” among those picked up.`) };
    if (!hole) return { problem: wrong('placed', `No screw of “${point}” in ${joint} was on the mat.`) };
    kept.set(keyOf(hole), asMeasured(hole, screw.length_mm, p >= SURE));
  }
  const missing = ledger.onMat.filter((each) => !kept.has(keyOf(each)));
  const after = { ...ledger, onMat: ledger.onMat.map((each) => kept.get(keyOf(each)) ?? each) };
  return { state: { ...state, ledger: missing.reduce(lose, after) } };
}

/** A measure is taken for the kind's own length where it is as near as a caliper is good for: two scatters of it. */
const AS_GOOD_AS_MM = 0.1;

/** A screw on the mat that does harm in the hole that it lies for. */
export interface WrongScrew {
  readonly screw: Screw;
  readonly harm: Harm;
}

/** Of the screws that lie on the mat for a joint, those that must not go in: too long, too short, another thread. */
export function wrongScrews(
  { map }: Mechanism,
  { ledger, limits }: Pick<JobState, 'ledger' | 'limits'>,
  joint: ScrewJoint,
): WrongScrew[] {
  return ledger.onMat.flatMap((screw): WrongScrew[] => {
    const point = screw.joint === joint.id ? joint.points.find(({ id }) => id === screw.point) : undefined;
    const kind = map.fasteners.find(({ id }) => id === screw.fastener);
    const meant = point && map.fasteners.find(({ id }) => id === fastenerAt(joint, point));
    if (!point || !kind || !meant) return [];
    // what was found in a hole that is of another length is its own: it is judged by the depth alone
    const right = { ...meant, length: screw.length_mm ?? meant.length };
    const own_mm = screw.length_mm ?? kind.length;
    const seen_mm = screw.measured_mm ?? own_mm;
    const length = Math.abs(seen_mm - own_mm) <= AS_GOOD_AS_MM ? own_mm : seen_mm;
    const harm = harmOf({ ...kind, length }, right, point, limits);
    return harm ? [{ screw, harm }] : [];
  });
}

/** Why a step that puts screws in is refused: one of them does harm in its hole. A new one in its place does none. */
export function screwsInWrong(mechanism: Mechanism, state: JobState, event: BenchEvent): Problem | null {
  if (event.type !== 'did' || event.data.anyway !== undefined) return null;
  for (const step of event.data.steps) {
    const joint = step.kind === 'make' ? jointById(mechanism.map, step.joint) : undefined;
    if (joint?.type !== 'screw') continue;
    const fresh = new Set(step.freshScrews ?? []);
    const misplaced = wrongScrews(mechanism, state, joint).find(({ screw }) => !fresh.has(screw.point));
    if (misplaced) return wrongScrewProblem(mechanism, misplaced);
  }
  return null;
}

/** *The upper left screw of Connector lid must not go in: it sticks out 1.9 mm, into the board.* */
function wrongScrewProblem({ map }: Mechanism, { screw, harm }: WrongScrew): Problem {
  const length_mm = screw.measured_mm ?? screw.length_mm;
  const long = length_mm === undefined ? '' : `, ${length_mm} mm,`;
  return wrong(
    '',
    `The ${pointName(map, screw.joint, screw.point)}${long} must not go in: ${harm.text}.`,
    'Put in a new one, or find the right one.',
  );
}
