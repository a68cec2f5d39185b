import { jointById } from '../../model/device-map/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { inWords, targetId } from '../../planner/search/index.ts';
import { tellAnyhow } from '../../workshop/prepare/index.ts';
import { functionName, heldName, partName, pointName, rimWords, thingName } from '../../planner/words/index.ts';
import { testedFunctions } from '../../planner/drafts/index.ts';
import { keyOf, type Screw } from '../../screws/screws/index.ts';
import {
  allUses,
  asItCame,
  benchUses,
  dropCount,
  failedTests,
  isMet,
  type JobState,
  putOn,
  type Surroundings,
} from '../state/index.ts';
import { extraOff, notThere } from './deviating.ts';

/** Something that keeps a repair from being finished. */
export interface LeftOpen {
  /** its name, as a decision about it gives it */
  readonly what: string;
  readonly text: string;
  /** a source that is on and a bench that is not aired are not decided away */
  readonly isFixed: boolean;
}

/**
 * What is left open, less what was decided about by name and reason: parts and joints that are not back, screws, targets,
 * functions that were not tried, heat and vapour.
 */
export function leftOpen(mechanism: Mechanism, state: JobState, around: Surroundings): LeftOpen[] {
  const decided = new Set(state.decisions.flatMap(({ what }) => (what === undefined ? [] : [what])));
  return everyOpen(mechanism, state, around).filter(({ what, isFixed }) => isFixed || !decided.has(what));
}

function everyOpen(mechanism: Mechanism, state: JobState, around: Surroundings): LeftOpen[] {
  const { map } = mechanism;
  const { device, ledger } = state;
  const lacking = new Set(
    state.targets.flatMap((each) => ('replace' in each ? (asItCame(state, each).newLacks ?? []) : [])),
  );
  const gone = notThere(state);
  const isGone = holdsNothing(mechanism, gone);
  const open = (what: string, text: string): LeftOpen => ({ what, text, isFixed: false });
  const screw = (each: Screw, where: string) => {
    const joint = jointById(map, each.joint);
    const of = heldName(map, each.joint);
    const isMapped = joint?.type === 'screw' && joint.points.some(({ id }) => id === each.point);
    const which = isMapped
      ? `The ${pointName(map, each.joint, each.point)}`
      : `One screw more than the map has, of ${of},`;
    return open(`screw:${keyOf(each)}`, `${which} ${where}`);
  };
  const named = (id: string) => thingName(map, id);
  return [
    ...heatAndVapour(mechanism, state, around),
    ...map.parts.flatMap((part, index) =>
      device.status[index] === 0 || gone.has(part.id)
        ? []
        : [open(`part:${part.id}`, `${partName(map, part.id)} is not back in its place`)],
    ),
    ...map.joints.flatMap(({ id }, index) =>
      device.released[index] && !lacking.has(id) && !isGone(id) && !wasNeverThere(mechanism, state, id)
        ? [open(`joint:${id}`, `${named(id)} is not made again`)]
        : [],
    ),
    ...ledger.onMat.filter(({ joint }) => !lacking.has(joint)).map((each) => screw(each, 'is on the mat')),
    ...ledger.lost.map((each) => screw(each, 'is lost')),
    ...looseNow(mechanism, state).map(([key, text]) => open(`torque:${key}`, text)),
    ...state.targets.flatMap((target) =>
      isMet(mechanism, state, target)
        ? []
        : [open(`target:${targetId(target)}`, `Still to be done: ${inWords(mechanism, target)}`)],
    ),
    ...extraOff(state).map(({ id, name }) => open(`extra:${id}`, `${name} is not back in its place`)),
    ...putOn(map, state)
      .filter(({ kind }) => kind !== 'cup' && kind !== 'prop')
      .map(({ id, text }) => open(`on:${id}`, `${text} is still on`)),
    ...failedTests(map, state).map((id) => open(`failed:${id}`, `${functionName(map, id)} failed when it was tried`)),
    ...[...state.flush].flatMap(([id, fit]) => (fit ? [open(`flush:${id}`, rimWords(map, id, fit))] : [])),
    ...untold(mechanism, state).map(([at, text]) => open(`told:${at + 1}`, `The owner was not told: ${text}`)),
    ...untried(mechanism, state).map(({ id, name }) => open(`test:${id}`, `${name} was not tried`)),
  ];
}

/** Screws that a driver left below their window, or whose thread slips. */
function looseNow({ map }: Mechanism, { peaks }: JobState): (readonly [key: string, text: string])[] {
  return [...peaks].flatMap(([key, { verdict }]) => {
    if (verdict !== 'low' && verdict !== 'slips') return [];
    const [joint, point] = key.split('/') as [string, string];
    const said = verdict === 'low' ? 'stayed below its torque' : 'has a thread that slips';
    return [[key, `The ${pointName(map, joint, point)} ${said}`] as const];
  });
}

function heatAndVapour(mechanism: Mechanism, state: JobState, around: Surroundings): LeftOpen[] {
  const { heating, solvent } = state.opening;
  const source = heating
    ? [{ what: 'source', text: `The source on ${thingName(mechanism.map, heating.joint)} is on`, isFixed: true }]
    : [];
  const benches = [...solvent.keys()].flatMap((bench) => {
    const own = benchUses(state).get(bench)!;
    const drops = dropCount(allUses([own, around.othersAt(bench)]).drops);
    const text = `${drops} drops of solvent were used, and the bench was not aired`;
    return drops > 0 ? [{ what: `bench:${bench}`, text, isFixed: true }] : [];
  });
  return [...source, ...benches];
}

/** What the owner has to know of the parts that are replaced, and was neither told nor agreed to. */
function untold(
  { map }: Mechanism,
  { agreed, prepared, targets, steps }: JobState,
): (readonly [at: number, text: string])[] {
  if (steps.has('agree')) return [];
  const told = new Set([...(agreed?.items ?? []), ...(prepared?.told ?? [])]);
  return [...tellAnyhow(map, targets).entries()].filter(([, text]) => !told.has(text));
}

/** Functions that this job's work has touched and of which nobody has said how they do, neither before sealing nor after. */
function untried(mechanism: Mechanism, state: JobState) {
  const touched = new Set(testedFunctions(mechanism, state.done));
  const tried = new Set(
    state.tests.flatMap((each) => (each.stage === 'intake' || each.stage === 'trial' ? [] : [each.function])),
  );
  return mechanism.map.functions.filter(({ id }) => touched.has(id) && !tried.has(id));
}

/** Does a joint hold nothing but parts that are not there? */
function holdsNothing({ map }: Mechanism, missing: ReadonlySet<string>): (joint: string) => boolean {
  const gone = new Set(
    map.joints.flatMap(({ id, holds, to }) =>
      holds.every((each) => missing.has(each)) || missing.has(to) ? [id] : [],
    ),
  );
  return (id) => gone.has(id);
}

function wasNeverThere(mechanism: Mechanism, { ledger }: JobState, id: string): boolean {
  const joint = jointById(mechanism.map, id);
  return joint?.type === 'screw' && joint.points.every((point) => ledger.neverThere.has(`${id}/${point.id}`));
}
