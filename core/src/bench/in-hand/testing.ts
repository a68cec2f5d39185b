import { type Op, TEST_BEFORE } from '../../planner/drafts/index.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import { type EventData } from '../../job/events/index.ts';
import { failedTests, type JobState } from '../../job/state/index.ts';
import { lostFunctions } from '../../planner/words/index.ts';
import { doneStep } from './done-step.ts';
import type { Said } from './said.ts';

/**
 * The answer to the function that is tried next, and with the last of them that the test is through, unless something
 * fails; nothing where all are tried, or where nothing is.
 */
export function testAnswer(
  map: DeviceMap,
  state: JobState,
  op: Op,
  result: EventData['test']['result'],
): readonly [] | readonly [Said & { type: 'test' }, ...Said[]] {
  const next = op.name === 'test' ? nextUntested(state, op) : undefined;
  if (next === undefined) return [];
  const answer = { type: 'test', data: { function: next, result, stage: testStage(op) } } as const;
  const tests = [...state.tests, { ...answer.data, at: '', by: '' }];
  const isLast = nextUntested({ ...state, tests }, op) === undefined;
  const failed = failedTests(map, state).filter((id) => id !== next || result !== 'works');
  const isThrough = isLast && failed.length === 0 && (result !== 'fails' || isExpected(map, state, next));
  return isThrough ? [answer, { type: 'did', data: { steps: [doneStep(op)] } }] : [answer];
}

/**
 * All that was tried in a row and works, in one press; nothing where nothing is tried. What this repair has lost is not said to
 * work.
 */
export function restWorks(map: DeviceMap, state: JobState, op: Op | undefined): readonly Said[] {
  const said: Said[] = [];
  const lost = lostFunctions(map, state.targets);
  let { tests } = state;
  for (;;) {
    const now = { ...state, tests };
    const next = op ? nextUntested(now, op) : undefined;
    const [answer, ...then] = op ? testAnswer(map, now, op, lost.has(next ?? '') ? 'not-tried' : 'works') : [];
    if (!answer) return said;
    said.push(answer, ...then);
    tests = [...tests, { ...answer.data, at: '', by: '' }];
  }
}

/** It failed when the device came in, or this repair is known to lose it. */
function isExpected(map: DeviceMap, { tests, targets }: JobState, id: string): boolean {
  const isOld = tests.some((each) => each.function === id && each.stage === 'intake' && each.result === 'fails');
  return isOld || lostFunctions(map, targets).has(id);
}

export function nextUntested({ tests }: JobState, op: Op): string | undefined {
  const stage = testStage(op);
  return op.functions?.find((id) => !tests.some((each) => each.function === id && each.stage === stage));
}

export function testStage({ id }: Op): 'before' | 'after' {
  return id === TEST_BEFORE ? 'before' : 'after';
}
