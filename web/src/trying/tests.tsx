import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import { nextUntested, testStage } from '@nibrel/core/bench/in-hand';
import type { JobState } from '@nibrel/core/job/state';
import { lostFunctions } from '@nibrel/core/planner/words';
import { InstrumentCard } from './instrument-card.tsx';
import { type SelfTest, SelfTestButton } from './self-test.tsx';

const RESULTS = { works: 'works', fails: 'fails', 'not-tried': 'not tried' } as const;

interface TestsProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly op: Op;
  readonly selfTest: SelfTest | null;
}

/** What is tried, one function after the other: how, with what, and what came of those before. */
export function Tests({ map, state, op, selfTest }: TestsProps) {
  const next = nextUntested(state, op);
  const byId = new Map(map.functions.map((each) => [each.id, each]));
  const failedBefore = new Set(
    state.tests.flatMap((each) => (each.stage === 'intake' && each.result === 'fails' ? [each.function] : [])),
  );
  const lost = lostFunctions(map, state.targets);
  const resultOf = (id: string) =>
    state.tests.find((each) => each.function === id && each.stage === testStage(op))?.result;
  const left = op.functions?.filter((id) => resultOf(id) === undefined) ?? [];
  return (
    <div className="flex flex-col gap-2">
      {next && failedBefore.has(next) && (
        <strong className="text-lead text-care">An old fault: it failed when it came in.</strong>
      )}
      {next && lost.has(next) && (
        <strong className="text-lead text-care">Lost by this repair, as the owner was told.</strong>
      )}
      {next && <InstrumentCard map={map} tried={next} />}
      <SelfTestButton selfTest={selfTest} functions={left} stage={testStage(op)} />
      <ul className="grid grid-cols-2 gap-x-6 text-body">
        {op.functions?.map((id) => {
          const result = resultOf(id);
          return (
            <li key={id} className="flex justify-between border-b border-hair py-0.5">
              <span className={id === next ? 'font-bold text-now' : ''}>
                {byId.get(id)!.name}
                {failedBefore.has(id) && <span className="text-note text-care"> old fault</span>}
                {lost.has(id) && <span className="text-note text-care"> lost by this repair</span>}
              </span>
              <span className={result === 'fails' ? 'font-bold text-now' : 'text-quiet'}>
                {result ? RESULTS[result] : ''}
              </span>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
