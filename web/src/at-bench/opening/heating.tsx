import { type JobState, lastWarmed, pastOf } from '@nibrel/core/job';
import type { BondJoint, DeviceMap } from '@nibrel/core/device-map';
import {
  fitted,
  type HeatClock,
  isWarmSource,
  kindFor,
  measuredSource,
  type Past,
  settingFor,
  stackOfBond,
  USUAL,
  type Warming,
  warmingTime_s,
  type WarmSource as Source,
  WARM_SOURCES,
} from '@nibrel/core/heat';
import type { Op } from '@nibrel/core/drafts';
import { lazy, Suspense, useState } from 'react';
import { atBench } from '../../app/settings.ts';
import { adviceWords, originWords } from '../../heat/advice.ts';
import { useForesight } from '../../heat/use-heat.ts';
import { sound } from '../../job/feedback.ts';
import { useTellShop } from '../../kit/tell-shop.ts';
import { BeforeHeat, Foretold, type Pace, PACES, Unforeseen } from './before-heat.tsx';
import type { Hand } from './hand.ts';
import { OnTheDevice, WARN_S, Watching } from './on-the-device.tsx';
import type { OpeningWork } from './work.ts';

// the chart's library comes when the first bond is warmed, not with the first view
const Curves = lazy(() => import('../../heat/curves.tsx').then(({ Curves: component }) => ({ default: component })));

/** Fewer readings are no measurement that a workshop would keep. */
const ENOUGH_READINGS = 8;

/** Warming as it is begun from the cut as well: what one more takes from here, as is likely. */
type HeatingHand = Hand & { readonly again_s: number | null; begin(): void };

/** A bond that is to be warmed, or is being warmed: what to set, a count-down that follows what is foreseen, and the end. */
export function useHeating(work: OpeningWork): HeatingHand {
  const { bench, map, state, op, bond, zone, shop, warmth } = work;
  const tell = useTellShop();
  const [chosen, setChosen] = useState<{ readonly op: string; readonly kind: Source } | null>(null);
  const [pace, setPace] = useState<Pace>('real');
  const kind = chosen && chosen.op === op?.id ? chosen.kind : kindOf(state, bond, op);
  const measured = bond && shop ? measuredSource(shop.sources, kind, { map: map.id, joint: bond.id }) : undefined;
  const setting = bond ? settingFor(bond, kind, measured) : null;
  const warmed = bond ? lastWarmed(state.opening, bond.id, zone) : undefined;
  const past = pastOf(warmed, Math.round((warmth?.off?.since_s ?? 0) / 10) * 10);
  const heat_s = bond ? plannedTime_s(map, bond, kind, past) : 0;
  const planned: Warming | null =
    bond && shop && setting && warmth && !warmth.on && isForCut(bond, op)
      ? {
          stack: stackOfBond(map, bond),
          soften_C: warmth.soften_C,
          setting,
          heat_s,
          materials: shop.materials,
          past,
        }
      : null;
  const { foresight, problem } = useForesight(planned);
  const heating = state.opening.heating;

  const begin = () => {
    if (!bond || !setting) return;
    const standIn = shop?.standIns && pace !== 'real' ? { simulated: true, pace: PACES[pace] } : {};
    const at = zone === undefined ? {} : { zone };
    void bench.send('heat-on', { joint: bond.id, setting, heat_s, ...at, ...standIn, ...atBench() });
  };
  const off = () => {
    if (!heating || !warmth?.on) return;
    const { elapsed_s, fit, setting: taught } = warmth.on;
    const learned = fit?.isSound ? { setting: taught, residual_C: round(fit.residual_C) } : {};
    const reached = clock ? { bond_C: round(clock.bond_C.likely) } : {};
    const { joint, simulatedReadings } = heating;
    void bench.send('heat-off', { joint, seconds: round(elapsed_s), ...learned, ...reached });
    if (!fit?.isSound || fit.readings < ENOUGH_READINGS) return;
    const simulated = simulatedReadings ? { simulated: true } : {};
    tell.mutate({
      type: 'source',
      data: {
        setting: fitted(heating.setting, fit),
        residual_C: round(fit.residual_C),
        map: map.id,
        joint,
        ...simulated,
      },
    });
  };
  const clock = warmth?.on?.clock;
  // where it never is for certain, what is likely has to do
  const isSoft = clock ? (clock.toSoft_s ?? clock.toLikely_s) === 0 : false;

  if (heating && warmth?.on) {
    const alarm = alarmOf(warmth.on.clock, isSoft);
    // what can't be foreseen is warmed by feel
    const mayComeOff = isSoft || alarm.alarm === 'limit' || warmth.problem !== null;
    return {
      title: heating.zone === undefined ? 'Heating' : `Heating, ${heating.zone}`,
      cautions: ['heat'],
      label: mayComeOff ? 'Source is off and away' : 'Waiting for it to soften',
      lead: warmth.problem ? (
        <Unforeseen problem={warmth.problem} />
      ) : (
        <Watching clock={warmth.on.clock} working_s={warmth.on.workingNow_s} cut_s={work.cut_s} />
      ),
      body: <OnTheDevice {...work} heating={heating} on={warmth.on} soften_C={warmth.soften_C} />,
      picture: warmth.on.foresight && (
        <Suspense>
          <Curves
            foresight={warmth.on.foresight}
            soften_C={warmth.soften_C}
            heat_s={heating.heat_s}
            readings={heating.readings}
            now_s={warmth.on.elapsed_s}
            end_s={Math.max(heating.heat_s * 1.3, warmth.on.elapsed_s + 120)}
            label={`Foreseen temperatures with ${heating.readings.length} readings`}
          />
        </Suspense>
      ),
      ...(warmth.bond_C ? { bond_C: warmth.bond_C.likely } : {}),
      ...alarm,
      again_s: null,
      begin,
      press: () => (mayComeOff ? off() : sound('refused')),
      skip: off,
    };
  }
  return {
    ...(zone === undefined ? {} : { title: `Heat it, ${zone}` }),
    cautions: ['heat'],
    label: 'Source is on',
    lead: problem ? (
      <Unforeseen problem={problem} />
    ) : (
      planned && foresight && <Foretold words={adviceWords(planned, foresight)} />
    ),
    body: planned && foresight && setting && (
      <BeforeHeat
        setting={setting}
        origin={originWords(setting, measured ?? null, { map: map.id, joint: bond?.id ?? '' })}
        distance_mm={bond?.recipe?.source === kind ? bond.recipe.distance_mm : undefined}
        face={bond?.heatFace ?? bond?.face ?? 'front'}
        standIns={shop?.standIns ?? false}
        pace={pace}
        onKind={(next) => setChosen({ op: op?.id ?? '', kind: next })}
        onPace={setPace}
      />
    ),
    picture: planned && foresight && (
      <Suspense>
        <Curves foresight={foresight} soften_C={planned.soften_C} heat_s={heat_s} label="Foreseen temperatures" />
      </Suspense>
    ),
    again_s: foresight?.ready.late ?? null,
    begin,
    press: begin,
  };
}

/** A limit that comes near is said before all else. */
function alarmOf(clock: HeatClock | null, isSoft: boolean): Pick<Hand, 'alarm' | 'spoken'> {
  if (clock?.toLimit && clock.toLimit.seconds < WARN_S) {
    return { alarm: 'limit', spoken: `${clock.toLimit.what} comes to its limit. Take the source off.` };
  }
  return isSoft ? { alarm: 'soft', spoken: 'Soft. Take the source off and cut.' } : { alarm: null };
}

/** Is the bond to be opened by heat, not closed? */
function isForCut(bond: BondJoint, op: Op | undefined): boolean {
  return op?.name === 'heat' || (bond.heat === true && op?.kind === 'release');
}

/** The school's source, the map's, or what the plan's operation says. */
function kindOf(state: JobState, bond: BondJoint | null, op: Op | undefined): Source {
  const school = state.policy.heat ?? null;
  if (isWarmSource(school)) return school;
  const planned = WARM_SOURCES.find((each) => USUAL[each].name === op?.tool);
  return planned ?? (bond ? kindFor(bond, null) : 'plate');
}

function plannedTime_s(map: DeviceMap, bond: BondJoint, kind: Source, past: Past): number {
  const usual = warmingTime_s(map, bond, kind);
  // what is warmed again, in its turn or after a refusal, starts warm
  return past.length > 0 ? Math.max(60, Math.round(usual / 2)) : usual;
}

function round(value: number): number {
  return Math.round(value * 10) / 10;
}
