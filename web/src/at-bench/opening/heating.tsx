import { asItLies, isCellBehind } from '@nibrel/core/job/state';
import { softensAt } from '@nibrel/core/job/rules';
import { isWarmSource, WARM_SOURCES, type WarmSource as Source } from '@nibrel/core/model/sources';
import { type HeatClock, type HeatSetting, measuredSource, settingFor } from '@nibrel/core/physics/heat';
import {
  alarmOf,
  bondBasis,
  cutForeseen,
  elapsed_s,
  nextWarming,
  sourceFor,
  type SourceVerdict,
} from '@nibrel/core/bench/in-hand';
import { lazy, Suspense, useState } from 'react';
import { adviceWords, originWords } from '../../heat/advice.ts';
import { placeOf, useForesight, useVerdicts } from '../../heat/use-heat.ts';
import { temperature } from '../../app/units.ts';
import { BeforeHeat, Foretold, type Other, type Pace, PACES, Unforeseen } from './before-heat.tsx';
import type { Hand } from './hand.ts';
import { limitWords, OnTheDevice, Watching } from './on-the-device.tsx';
import type { OpeningWork } from './work.ts';

// the chart's library comes when the first bond is warmed, not with the first view
const Curves = lazy(() => import('../../heat/curves.tsx').then(({ Curves: component }) => ({ default: component })));

interface Heating {
  readonly on: Hand | null;
  readonly before: Hand | null;
  /** the source that is chosen, as it is set up */
  readonly setting: HeatSetting | null;
  readonly standIn?: { readonly simulated: true; readonly pace: number };
  /** the chosen source will not do; the first that does */
  readonly hopeless?: { readonly instead: HeatSetting | null };
  /** what one more warming takes from here, for certain; null where that is not known */
  readonly again_s: number | null;
}

/** A bond that is to be warmed, or is being warmed: what to set, and a count-down that follows what is foreseen. */
export function useHeating(work: OpeningWork): Heating {
  const { map, state, op, bond, shop, warm, cut } = work;
  const [chosen, setChosen] = useState<{ readonly op: string; readonly kind: Source } | null>(null);
  const [pace, setPace] = useState<Pace>('real');
  const running = state.opening.heating?.setting.kind;
  const kind =
    running && isWarmSource(running)
      ? running
      : chosen && chosen.op === op?.id
        ? chosen.kind
        : bond
          ? sourceFor(map, state, bond, op)
          : 'plate';
  const measured = bond && shop ? measuredSource(shop.sources, kind, { map: map.id, joint: bond.id }) : undefined;
  const setting = bond && shop ? settingFor(bond, kind, measured) : null;
  const planned =
    bond && shop && setting
      ? nextWarming(map, state, op, bond, bondBasis(map, bond, state, shop.materials), setting, warm)
      : null;
  const { foresight, problem } = useForesight(planned, placeOf(map, bond));
  const { others, works } = useOthers(work, planned !== null || warm?.on != null, kind);
  const cutThen =
    bond && planned && foresight && warm && cutForeseen(map, state, bond, foresight, warm, planned.heat_s);
  const { heating } = state.opening;
  const on = warm?.on;
  const alarm = warm ? alarmOf(warm) : null;

  /** one off, the other on, each only where the one before it was taken */
  const changeSource = async (next: Source) => {
    if (!heating || !on || !bond || !shop || work.bench.unsaved) return;
    const seconds = Math.round(elapsed_s(heating, Date.now()));
    setChosen({ op: op?.id ?? '', kind: next });
    if (!(await work.bench.send('heat-off', { joint: heating.joint, seconds }))) return;
    const setting = settingFor(bond, next, measuredSource(shop.sources, next, { map: map.id, joint: bond.id }));
    await work.bench.send('heat-on', {
      joint: heating.joint,
      setting,
      heat_s: heating.heat_s,
      bench: heating.bench,
      ...(heating.zone === undefined ? {} : { zone: heating.zone }),
      ...(heating.simulated ? { simulated: true, pace: heating.pace ?? 1 } : {}),
    });
  };

  const whileOn: Hand | null =
    heating && on
      ? {
          lead: warm.problem ? (
            <Unforeseen problem={warm.problem} />
          ) : (
            <Watching
              clock={on.clock}
              working_s={on.workingNow_s}
              cut_s={cut?.seconds ?? null}
              over_s={on.elapsed_s - heating.heat_s}
            />
          ),
          body: (
            <OnTheDevice
              {...work}
              heating={heating}
              on={on}
              soften_C={warm.soften_C}
              ruledOut={new Set(others.map((each) => each.kind))}
              onSource={(next) => void changeSource(next)}
            />
          ),
          picture: on.foresight && (
            <Suspense>
              <Curves
                foresight={on.foresight}
                soften_C={warm.soften_C}
                heat_s={heating.heat_s}
                readings={heating.readings}
                now_s={on.elapsed_s}
                end_s={Math.max(heating.heat_s * 1.3, on.elapsed_s + 120)}
                label={`Predicted temperatures with ${heating.readings.length} readings`}
              />
            </Suspense>
          ),
          ...(warm.bond_C ? { bond_C: warm.bond_C.likely } : {}),
          ...(alarm ? { spoken: spokenAlarm(alarm, on.clock) } : {}),
          alarm,
        }
      : null;
  const before: Hand = {
    lead: problem ? (
      <Unforeseen problem={problem} />
    ) : (
      planned && <Foretold words={foresight ? adviceWords(planned, foresight) : FORESEEING} />
    ),
    body: planned && foresight && setting && (
      <BeforeHeat
        setting={setting}
        origin={originWords(setting, measured ?? null, { map: map.id, joint: bond?.id ?? '' })}
        distance_mm={bond?.recipe?.source === kind ? bond.recipe.distance_mm : undefined}
        face={bond?.heatFace ?? bond?.face ?? 'front'}
        standIns={shop?.standIns ?? false}
        hasCellBehind={bond !== null && isCellBehind(map, state, bond)}
        pace={pace}
        others={others}
        warmings={cutThen?.warmings ?? null}
        onKind={(next) => setChosen({ op: op?.id ?? '', kind: next })}
        onPace={setPace}
      />
    ),
    picture: planned && foresight && (
      <Suspense>
        <Curves
          foresight={foresight}
          soften_C={planned.soften_C}
          heat_s={planned.heat_s}
          label="Predicted temperatures"
        />
      </Suspense>
    ),
  };
  return {
    on: whileOn,
    before,
    setting,
    ...(shop?.standIns && pace !== 'real' ? { standIn: { simulated: true, pace: PACES[pace] } } : {}),
    ...(others.some(({ isChosen }) => isChosen) ? { hopeless: { instead: works } } : {}),
    again_s: foresight?.ready.late ?? null,
  };
}

/** The sources that will not do, and why; the first that does. */
function useOthers(
  { map, state, bond, shop }: OpeningWork,
  isWanted: boolean,
  kind: Source,
): { readonly others: Other[]; readonly works: HeatSetting | null } {
  const settings =
    isWanted && bond && shop
      ? WARM_SOURCES.map((each) =>
          settingFor(bond, each, measuredSource(shop.sources, each, { map: map.id, joint: bond.id })),
        )
      : [];
  const soften_C = bond ? softensAt(state, bond) : 0;
  const lying = bond && asItLies(map, state.device, bond);
  const verdicts = useVerdicts(lying?.map ?? map, settings.length > 0 && lying ? lying.bond : null, soften_C, settings);
  const others = settings.flatMap(({ kind: each, temp_C }, index): Other[] => {
    const verdict = verdicts?.[index];
    if (!verdict || verdict.kind === 'works') return [];
    return [{ kind: each, isChosen: each === kind, why: whyNot(verdict, temp_C, soften_C) }];
  });
  return { others, works: settings.find((_, index) => verdicts?.[index]?.kind === 'works') ?? null };
}

function whyNot(verdict: SourceVerdict, temp_C: number, soften_C: number): string {
  return verdict.kind === 'limit'
    ? `${verdict.what} comes to ${temperature(verdict.max_C)} before the bond is soft`
    : temp_C > soften_C
      ? `does not get it soft, ${temperature(soften_C)}, in the time that anybody warms`
      : `at ${temperature(temp_C)} it never softens what softens at ${temperature(soften_C)}`;
}

/** Until it is there: as high as what comes. */
const FORESEEING = {
  headline: 'Predicting',
  detail: 'How soon it is soft, and what comes near its limit.',
  isGood: true,
};

/** Said aloud. */
function spokenAlarm(alarm: 'limit' | 'soft', clock: HeatClock | null): string {
  return alarm === 'limit' && clock?.toLimit ? limitWords(clock.toLimit) : 'Soft. Take the source off and cut.';
}
