import { LIMIT_NEAR_S, type WarmBond } from '@nibrel/core/bench/in-hand';
import type { Heating } from '@nibrel/core/job/state';
import type { HeatClock, Reading } from '@nibrel/core/physics/heat';
import { sourceNamed, WARM_SOURCES, type WarmSource } from '@nibrel/core/model/sources';
import { capital, countdown } from '@nibrel/core/planner/words';
import { Button } from '../../ui/button.tsx';
import { Caution } from '../../ui/caution.tsx';
import { Thermometer } from './thermometer.tsx';
import type { OpeningWork } from './work.ts';
import { temperature, temperatureGap, temperatures } from '../../app/units.ts';

interface OnTheDeviceProps extends OpeningWork {
  readonly heating: Heating;
  readonly on: NonNullable<WarmBond['on']>;
  readonly soften_C: number;
  /** sources that will not do here */
  readonly ruledOut: ReadonlySet<WarmSource>;
  /** this source comes off, and another one goes on in its place */
  onSource(kind: WarmSource): void;
}

export function OnTheDevice({ bench, map, shop, heating, on, soften_C, ruledOut, onSource }: OnTheDeviceProps) {
  const { elapsed_s, clock, fit } = on;
  const read = (readings: readonly Reading[], simulated: boolean) => {
    if (bench.unsaved) return false;
    void bench.send('heat-reading', { joint: heating.joint, readings, ...(simulated ? { simulated } : {}) });
    return true;
  };
  return (
    <div className="flex flex-col gap-3">
      <p className="text-body text-quiet">
        {capital(sourceNamed(heating.setting.kind).name)}, {countdown(elapsed_s)} on
        {heating.simulated ? ', on a stand-in (simulated)' : ''}.{' '}
        {clock && `Bond ${temperatures(clock.bond_C.low, clock.bond_C.high)}, soft from ${temperature(soften_C)}. `}
        {clock?.toLimit &&
          `${clock.toLimit.what}: ${countdown(clock.toLimit.seconds)} to ${temperature(clock.toLimit.max_C)} at the fastest. `}
        {fit && !fit.isSound
          ? `The readings do not fit, ${temperatureGap(fit.residual_C)} off: see where the thermometer is held. The guess stands.`
          : fit
            ? `Measured: ${Math.round(fit.transfer.low)} to ${Math.round(fit.transfer.high)} W/m²K from ${fit.readings} readings, ${temperatureGap(fit.residual_C)} left over.`
            : 'A guess until it is measured.'}
      </p>
      {clock && (clock.toSoft_s ?? clock.toLikely_s) !== 0 && (
        <WaysOn
          heating={heating}
          bond_C={clock.bond_C.likely}
          soften_C={soften_C}
          ruledOut={ruledOut}
          isBusy={bench.unsaved !== null}
          onSource={onSource}
        />
      )}
      <Thermometer map={map.id} heating={heating} standIn={shop?.standIns ?? false} onReadings={read} />
    </div>
  );
}

interface WaysOnProps {
  readonly heating: Heating;
  readonly bond_C: number;
  readonly soften_C: number;
  readonly ruledOut: ReadonlySet<WarmSource>;
  readonly isBusy: boolean;
  onSource(kind: WarmSource): void;
}

/** What can be done while it does not soften: measured, warmed otherwise, or cut as it is, with what that risks. */
function WaysOn({ heating, bond_C, soften_C, ruledOut, isBusy, onSource }: WaysOnProps) {
  const others = WARM_SOURCES.filter((each) => each !== heating.setting.kind && !ruledOut.has(each));
  return (
    <div className="flex flex-col gap-2 text-body">
      <p>
        <strong>Measure it:</strong> a thermometer in the seam narrows the count-down.
      </p>
      {others.length > 0 && (
        <div className="flex flex-wrap items-center gap-2">
          <strong>Another source:</strong>
          {others.map((kind) => (
            <Button key={kind} disabled={isBusy} onClick={() => onSource(kind)}>
              {sourceNamed(kind).label}
            </Button>
          ))}
        </div>
      )}
      <p>
        <strong>Cut it as it is, W:</strong> at about {temperature(bond_C)}, soft from {temperature(soften_C)}. A stiff
        bond takes force: the glass breaks, the pick slips.
      </p>
    </div>
  );
}

interface WatchingProps {
  readonly clock: NonNullable<WarmBond['on']>['clock'];
  readonly working_s: number | null;
  readonly cut_s: number | null;
  /** how long the source has been on past its time; 0 or less while it is not over */
  readonly over_s: number;
}

/** The count-down, and a limit that comes near. */
export function Watching({ clock, working_s, cut_s, over_s }: WatchingProps) {
  if (!clock) return <BeingForeseen />;
  const { toLimit } = clock;
  return (
    <>
      <Count clock={clock} working_s={working_s} cut_s={cut_s} over_s={over_s} />
      {toLimit && toLimit.seconds < LIMIT_NEAR_S && <Caution>{limitWords(toLimit)}</Caution>}
    </>
  );
}

/** What comes near, when, and whether the bond is soft before it: both by the fast end. */
export function limitWords({ what, max_C, seconds, afterSoft_s }: NonNullable<HeatClock['toLimit']>): string {
  const near =
    seconds > 0 ? `may reach ${temperature(max_C)} in ${countdown(seconds)}` : `may have passed ${temperature(max_C)}`;
  if (afterSoft_s !== null && afterSoft_s >= 0) {
    return `${what} ${near}; the bond is soft ${countdown(afterSoft_s)} before that. Heat off, and try the edge.`;
  }
  const never =
    afterSoft_s === null ? 'before the bond is ever soft' : `${countdown(-afterSoft_s)} before the bond is soft`;
  return `${what} ${near}, ${never}. Heat off; then a cooler source, or one that gives its heat to this bond alone.`;
}

/** As high as the count-down that comes, so that the button beneath it does not move. */
function BeingForeseen() {
  return (
    <p className="flex items-baseline gap-4">
      <span className="text-huge leading-none font-bold text-quiet">{countdown(Infinity)}</span>
      <span className="text-lead text-quiet">being predicted</span>
    </p>
  );
}

/** A hand that is on its way is not late (guess). */
const OVER_S = 10;

interface CountProps {
  readonly clock: NonNullable<NonNullable<WarmBond['on']>['clock']>;
  readonly working_s: number | null;
  readonly cut_s: number | null;
  readonly over_s: number;
}

/** Until it is soft, then how long it would stay so: the largest thing on the page. */
function Count({ clock, working_s, cut_s, over_s }: CountProps) {
  const { toSoft_s, toLikely_s } = clock;
  const left_s = toSoft_s ?? toLikely_s;
  if (left_s === null) {
    return (
      <p className="text-far leading-tight font-bold text-now">
        Never soft with this source. More heat, not more force.
      </p>
    );
  }
  if (left_s > 0) {
    return (
      <p role="timer" aria-label="Until it is soft" className="flex items-baseline gap-4">
        <span className="text-huge leading-none font-bold text-now">{countdown(left_s)}</span>
        <span className="text-lead text-quiet">
          {toSoft_s === null
            ? 'until it is likely soft; for certain never: measure it'
            : 'until it is soft, at the latest'}
        </span>
      </p>
    );
  }
  if (over_s >= OVER_S) {
    return (
      <p role="timer" aria-label="Past its time" className="flex items-baseline gap-4">
        <span className="text-huge leading-none font-bold text-care">Off now</span>
        <span className="text-lead text-care">{countdown(over_s)} over</span>
      </p>
    );
  }
  return (
    <p role="timer" aria-label="Time to cut" className="flex items-baseline gap-4">
      <span className="text-huge leading-none font-bold text-done">{countdown(working_s ?? 0)}</span>
      <span className="text-lead text-quiet">
        to cut, if it comes off now{cut_s ? `; the whole cut takes ${countdown(cut_s)}` : ''}
      </span>
    </p>
  );
}
