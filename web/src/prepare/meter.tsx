import type { ChargeNeed } from '@nibrel/core/workshop/prepare';
import { packOf } from '@nibrel/core/model/battery';
import { duration } from '@nibrel/core/planner/words';
import { sound } from '../app/feedback.ts';
import type { OpenJob } from '../job/job-frame.tsx';
import { Button } from '../ui/button.tsx';
import { usePowerMeter } from './power-meter.ts';

/** The stand-in of a power meter: its readings, and when they say that it will be there. */
export function Meter({ job: { map, bench, state }, need }: { readonly job: OpenJob; readonly need: ChargeNeed }) {
  const { cells, wiring } = map.battery!;
  const { energy_Wh } = packOf(cells, wiring);
  const reached = (at: number) => {
    sound('time-up');
    void bench.send('charge', { charge: at, source: 'meter', simulated: true });
  };
  const meter = usePowerMeter(reached, need.target);
  const { charge } = need;
  if (charge === null) return null;
  if (!meter.last) {
    const settings = { charge, energy_Wh, load_W: state.limits.load_W };
    return <Button onClick={() => meter.start(settings)}>Read the power meter (simulated)</Button>;
  }
  return (
    <p aria-label="Power meter" className="text-lead">
      <strong className="text-far text-now">{(meter.last.charge * 100).toFixed(1)} %</strong>{' '}
      {meter.last.watts.toFixed(2)} W
      <span className="text-body text-quiet">
        {' '}
        {meter.left_s === null ? 'not predicted yet' : `${duration(meter.left_s)} more by its readings`}, simulated and
        sped up
      </span>
    </p>
  );
}
