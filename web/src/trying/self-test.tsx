import type { EventData } from '@nibrel/core/job';
import { useQuery } from '@tanstack/react-query';
import { shopQuery } from '../app/queries.ts';
import { useReadings } from '../app/use-readings.ts';
import { sound } from '../job/feedback.ts';
import { Button } from '../ui/button.tsx';

/** What came of one function. */
export type Answer = Pick<EventData['test'], 'function' | 'result' | 'simulated'>;

interface SelfTestReading {
  readonly function: string;
  readonly result: 'works' | 'fails';
  readonly isLast: boolean;
}

const DEVICE = { route: 'self-test', name: 'The device', cure: 'Try it by hand.' };

interface SelfTestProps {
  readonly job: string;
  /** ids of those that are still to be tried */
  readonly functions: readonly string[];
  onAnswer(answer: Answer): void;
}

/** The device under test answers for its functions by itself, where the demonstration has one that stands in for it. */
export function SelfTest({ job, functions, onAnswer }: SelfTestProps) {
  const isSimulated = useQuery(shopQuery).data?.standIns === true;
  const device = useReadings<SelfTestReading>(DEVICE, ({ function: tried, result }) => {
    sound(result === 'works' ? 'step' : 'fails');
    onAnswer({ function: tried, result, simulated: true });
  });
  if (!isSimulated) return null;
  return (
    <div>
      <Button disabled={device.isOn} onClick={() => device.start({ job, functions: functions.join(',') })}>
        {device.isOn ? 'The device answers' : 'Let the device test itself (simulated)'}
      </Button>
      {device.problem && <p className="text-body text-now">{device.problem}</p>}
    </div>
  );
}
