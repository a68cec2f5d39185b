import { isolate, type Isolated } from '../../physics/isolate/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { type JobState, type Suspect, suspectsOf } from '../../job/state/index.ts';
import { lostFunctions } from '../../planner/words/index.ts';

/** Failed and passed tests explained by what this job touched: plugs and parts by id, as *joint:x* or *part:y*. */
export type Explanation = Isolated;

/** How likely a plug is badly seated each time that it was pressed, before anything is tried (guess). */
const PER_PRESS = 0.02;
/** A part that was only moved (guess). */
const PER_MOVE = 0.005;
/** Nobody was sure that it clicked (guess). */
const NOT_SURE = 0.35;
/** Trouble was noted at it (guess). */
const TROUBLED = 0.15;
/** No search goes past so many that may be at fault. */
const MOST_SUSPECTS = 40;

/** A new part that does not work (guess). */
const PER_NEW = 0.02;

/** How likely a suspect is at fault before anything is tried: by what was done to it in this job. */
export function priorOf({ joint, touched, troubled, unsure, isNew }: Suspect): number {
  const each = joint === undefined ? PER_MOVE : PER_PRESS;
  const spared =
    (1 - each) ** touched * (troubled ? 1 - TROUBLED : 1) * (unsure ? 1 - NOT_SURE : 1) * (isNew ? 1 - PER_NEW : 1);
  return 1 - spared;
}

export function nameOf({ joint, part }: Pick<Suspect, 'joint' | 'part'>): string {
  return joint === undefined ? `part:${part!}` : `joint:${joint}`;
}

/**
 * The least sets of plugs and parts that explain what was tried since they were touched, with exact chances, and what to try
 * next. What failed when the device came in, and what this repair is known to lose, is expected and no evidence; neither is
 * what nobody tried.
 */
export function explain(mechanism: Mechanism, state: JobState): Explanation {
  const functions = unexpected(mechanism, state);
  const likeliest = suspected(mechanism, state, functions)
    .map(({ suspect, functions: serves }) => ({ id: nameOf(suspect), prior: priorOf(suspect), functions: serves }))
    .toSorted((a, b) => b.prior - a.prior || (a.id < b.id ? -1 : 1))
    .slice(0, MOST_SUSPECTS);
  return isolate({
    connectors: likeliest,
    functions: functions.map((id) => ({ id })),
    results: resultsOf(state, new Set(functions)),
  });
}

/** The functions whose failing would tell something: neither an old fault nor lost by this repair. */
export function unexpected({ map }: Mechanism, { tests, targets }: JobState): string[] {
  const expected = new Set([
    ...tests.flatMap(({ function: id, result, stage }) => (stage === 'intake' && result === 'fails' ? [id] : [])),
    ...lostFunctions(map, targets),
  ]);
  return map.functions.map(({ id }) => id).filter((id) => !expected.has(id));
}

/** What was touched in this job and serves any of these functions, with which of them. */
export function suspected(
  mechanism: Mechanism,
  state: JobState,
  functions: readonly string[],
): { readonly suspect: Suspect; readonly functions: readonly string[] }[] {
  const suspects = new Map<string, { readonly suspect: Suspect; readonly functions: string[] }>();
  for (const id of functions) {
    for (const suspect of suspectsOf(mechanism, state, id)) {
      const known = suspects.get(nameOf(suspect));
      if (known) known.functions.push(id);
      else suspects.set(nameOf(suspect), { suspect, functions: [id] });
    }
  }
  return [...suspects.values()];
}

/** The last word on each function since the device was opened. */
function resultsOf({ tests }: JobState, known: ReadonlySet<string>): Record<string, 'pass' | 'fail'> {
  const told = tests.filter(
    ({ function: id, stage, result }) => known.has(id) && stage !== 'intake' && result !== 'not-tried',
  );
  // the newest of them is the last in the state, before sealing or after
  return Object.fromEntries(told.map(({ function: id, result }) => [id, result === 'works' ? 'pass' : 'fail']));
}
