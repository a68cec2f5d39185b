import type { EventData } from '@nibrel/core/job/events';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useRef } from 'react';
import { shopQuery } from '../app/queries.ts';
import { useReadings } from '../app/use-readings.ts';
import { sound } from '../app/feedback.ts';
import { Button } from '../ui/button.tsx';

type Test = EventData['test'];

interface SelfTestReading {
  readonly function: string;
  readonly result: 'works' | 'fails';
  readonly isLast: boolean;
}

/** A device under test that answers for its functions by itself. */
export interface SelfTest {
  readonly isOn: boolean;
  readonly problem: string | null;
  start(functions: readonly string[], stage: Test['stage']): void;
}

const DEVICE = { route: 'self-test', name: 'The device', cure: 'Try it by hand.' };

/**
 * The stand-in of a device under test, kept while the bench is open: it goes on answering whatever is planned anew meanwhile. Null where
 * the workshop has none.
 */
export function useSelfTest(job: string, onTest: (test: Test) => void): SelfTest | null {
  const isSimulated = useQuery(shopQuery).data?.standIns === true;
  const stage = useRef<Test['stage']>('before');
  const { isOn, problem, start } = useReadings<SelfTestReading>(DEVICE, ({ function: tried, result }) => {
    sound(result === 'works' ? 'step' : 'fails');
    onTest({ function: tried, result, stage: stage.current, simulated: true });
  });
  const latest = useRef(start);
  useEffect(() => {
    latest.current = start;
  });
  return useMemo(
    () =>
      isSimulated
        ? {
            isOn,
            problem,
            start: (functions, at) => {
              stage.current = at;
              latest.current({ job, functions: functions.join(',') });
            },
          }
        : null,
    [isSimulated, isOn, problem, job],
  );
}

interface SelfTestButtonProps {
  readonly selfTest: SelfTest | null;
  /** ids of those that are still to be tried */
  readonly functions: readonly string[];
  readonly stage: Test['stage'];
}

export function SelfTestButton({ selfTest, functions, stage }: SelfTestButtonProps) {
  if (!selfTest || functions.length === 0) return null;
  return (
    <div>
      <Button disabled={selfTest.isOn} onClick={() => selfTest.start(functions, stage)}>
        {selfTest.isOn ? 'The device answers' : 'Let the device test itself (simulated)'}
      </Button>
      {selfTest.problem && <p className="text-body text-now">{selfTest.problem}</p>}
    </div>
  );
}
