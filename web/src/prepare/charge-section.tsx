import { countdown } from '@nibrel/core/planner/words';
import Joi from 'joi';
import type { Ahead } from '@nibrel/core/bench/in-hand';
import { isDrying } from '@nibrel/core/job/rules';
import { packOf } from '@nibrel/core/model/battery';
import { useEffect, useState } from 'react';
import { sound } from '../app/feedback.ts';
import { clock, duration } from '../app/format.ts';
import { useNow } from '../app/now.ts';
import type { OpenJob } from '../job/job-frame.tsx';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { ChargeReading } from './charge-reading.tsx';
import { chargeAsked } from './charge-asked.ts';
import { GateSection, type Spread } from './gate-section.tsx';
import { usePowerMeter } from './power-meter.ts';
import { words } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

interface ChargeSectionProps {
  readonly job: OpenJob;
  readonly ahead: Ahead;
  readonly standIns: boolean;
  readonly spread: Spread;
}

const percent = (share: number) => `${Math.round(share * 100)} %`;

/** Run down, or charged enough: by typed readings first, by the meter's where there is one. */
export function ChargeSection({ job, ahead, standIns, spread }: ChargeSectionProps) {
  const { map, state } = job;
  const need = chargeAsked(ahead, state);
  const last = state.charges.at(-1);
  if (!map.battery) return <GateSection spread={spread} title="Battery" said="the map has none" done />;
  const decided = state.decisions.findLast((each) => each.about === 'charge');
  const said = need
    ? need.charge === null
      ? 'not read yet'
      : `${percent(need.charge)} now, ${need.way === 'run-down' ? 'below' : 'at least'} ${percent(need.target)} wanted`
    : decided
      ? `decided: ${decided.text}`
      : last
        ? `${percent(last.charge)}, right for this repair`
        : 'no charge is asked for here';
  return (
    <GateSection
      spread={spread}
      title={
        isDrying(state) ? 'Battery charge' : need?.way === 'charge-up' ? 'Charge the battery' : 'Run the battery down'
      }
      said={said}
      done={!need}
    >
      {need && <Need job={job} need={need} standIns={standIns} />}
    </GateSection>
  );
}

const schema = Joi.object<{ text: string }>({ text: words('Who decides, and why') });

type NeedProps = { readonly job: OpenJob; readonly need: NonNullable<Ahead['charge']>; readonly standIns: boolean };

function Need({ job, need, standIns }: NeedProps) {
  const { bench, state } = job;
  const [deciding, setDeciding] = useState(false);
  const { field, sent } = useFields(schema, { text: '' });
  const decide = sent(({ text }) => bench.send('decision', { about: 'charge', text }));
  return (
    <div className="flex flex-col gap-3">
      <p className="text-body text-quiet">{need.why}</p>
      <div className="max-w-lg">
        <ChargeReading state={state} onCharge={(charge) => void bench.send('charge', charge)} />
      </div>
      <div className="flex flex-wrap items-center gap-3">
        <Clock job={job} need={need} />
        {standIns && need.way === 'run-down' && <Meter job={job} target={need.target} charge={need.charge} />}
        {!deciding && <Button onClick={() => setDeciding(true)}>Open it as it is</Button>}
      </div>
      {deciding && (
        <form onSubmit={decide} className="flex max-w-lg items-end gap-3">
          <div className="grow">
            <Field label="Who decides, and why" {...field('text')} autoFocus maxLength={1000} />
          </div>
          <Button type="submit">Record it</Button>
        </form>
      )}
    </div>
  );
}

/** The wait by capacity and load; when it is over the charge is read again. */
function Clock({ job, need }: Omit<NeedProps, 'standIns'>) {
  const { bench, state } = job;
  const now = useNow(500);
  const timer = state.timers.find((each) => each.step === need.way);
  const left = timer ? timer.seconds - (now - Date.parse(timer.startedAt)) / 1000 : null;
  const over = left !== null && left <= 0;
  useEffect(() => {
    if (over) sound('time-up');
  }, [over]);
  if (left !== null) {
    return (
      <p role="timer" aria-label="Time left" className="text-lead">
        <strong className="text-far text-now">{countdown(left)}</strong>{' '}
        {over ? 'Time is up: read the charge again' : 'by the clock'}
      </p>
    );
  }
  const { seconds } = need;
  if (seconds === null) return null;
  return (
    <Button onClick={() => void bench.send('timer', { step: need.way, seconds })}>
      Start the clock, {duration(seconds)}, until {clock(now + seconds * 1000)}
    </Button>
  );
}

/** The stand-in of a power meter: its readings, and when they say that it will be there. */
function Meter({
  job,
  target,
  charge,
}: {
  readonly job: OpenJob;
  readonly target: number;
  readonly charge: number | null;
}) {
  const { map, bench, state } = job;
  const { cells, wiring } = map.battery!;
  const { energy_Wh } = packOf(cells, wiring);
  const reached = (at: number) => {
    sound('time-up');
    void bench.send('charge', { charge: at, source: 'meter', simulated: true });
  };
  const meter = usePowerMeter(reached, target);
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
