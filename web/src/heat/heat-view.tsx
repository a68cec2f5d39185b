import { temperature } from '../app/units.ts';
import type { BondJoint, DeviceMap } from '@nibrel/core/model/device-map';
import {
  kindFor,
  measuredSource,
  RECIPES,
  settingFor,
  settingOfRecipe,
  SOFTENS_C,
  stackOfBond,
  type Touch,
  type Warming,
  warmingTime_s,
} from '@nibrel/core/physics/heat';
import { thingName } from '@nibrel/core/planner/words';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, Navigate, useNavigate, useParams } from 'react-router';
import type { ShopNow } from '@nibrel/core/api';
import { mapQuery, mapsQuery, shopQuery } from '../app/queries.ts';
import { Button } from '../ui/button.tsx';
import { Caution, Trouble } from '../ui/caution.tsx';
import { SelectField } from '../ui/select-field.tsx';
import { adviceWords } from './advice.ts';
import type { Overlay } from './curves-props.ts';
import { Curves } from './curves.tsx';
import { FieldPanel } from './field-panel.tsx';
import { firstHeatedQuery, hotBonds } from './hot-bonds.ts';
import { MaterialsPanel } from './materials-panel.tsx';
import type { SetUp } from './set-up.ts';
import { SourceForm } from './source-form.tsx';
import { StackPicture } from './stack-picture.tsx';
import { placeOf, useForesight } from './use-heat.ts';

/** The heat bench: a source on a bond, foreseen before anybody warms anything. */
export function HeatView() {
  const { map: id, joint } = useParams();
  const maps = useQuery(mapsQuery);
  const shop = useQuery(shopQuery);
  const first = useQuery({ ...firstHeatedQuery, enabled: id === undefined });
  const map = useQuery(mapQuery(id));
  const problem = maps.error ?? first.error ?? map.error ?? shop.error;
  if (problem) {
    return (
      <main className="p-8">
        <Trouble title="The heat bench can not be set up">
          <p>{problem.message}</p>
        </Trouble>
      </main>
    );
  }
  if (maps.data?.length === 0) return <main className="p-8 text-lead">There is no device map yet. Add one first.</main>;
  if (!id && first.data) return <Navigate to={`/heat/${first.data}`} replace />;
  if (!map.data || !shop.data || !maps.data)
    return <main className="p-8 text-far text-quiet">Fetching the device</main>;
  const bonds = hotBonds(map.data);
  const bond = bonds.find((each) => each.id === joint) ?? bonds[0];
  return (
    <HeatBench
      key={`${map.data.id} ${bond?.id}`}
      maps={maps.data}
      map={map.data}
      bonds={bonds}
      bond={bond}
      shop={shop.data}
    />
  );
}

interface HeatBenchProps {
  readonly maps: readonly { readonly id: string; readonly name: string }[];
  readonly map: DeviceMap;
  readonly bonds: readonly BondJoint[];
  readonly bond: BondJoint | undefined;
  readonly shop: ShopNow;
}

function HeatBench({ maps, map, bonds, bond, shop }: HeatBenchProps) {
  const navigate = useNavigate();
  const [panel, setPanel] = useState<'materials' | null>(null);
  const [laidOver, setLaidOver] = useState<readonly string[]>([]);
  const [setUp, setSetUp] = useState<SetUp | null>(() => (bond ? firstSetUp(map, bond, shop) : null));
  const choosers = (
    <div className="grid grid-cols-2 gap-4 md:grid-cols-1">
      <SelectField
        id="heat-map"
        label="Device"
        value={map.id}
        options={maps.map(({ id, name }) => ({ value: id, label: name }))}
        onChange={(next) => void navigate(`/heat/${next}`)}
      />
      {bond && (
        <SelectField
          id="heat-bond"
          label="Bond"
          value={bond.id}
          options={bonds.map(({ id }) => ({ value: id, label: thingName(map, id) }))}
          onChange={(next) => void navigate(`/heat/${map.id}/${next}`)}
        />
      )}
    </div>
  );
  if (!bond || !setUp) {
    return (
      <main className="max-w-xl px-6 py-5">
        <h1 className="text-far font-bold">Nothing is heated on {map.name}</h1>
        <p className="mt-1 mb-4 text-body text-quiet">No bond of its map asks for heat.</p>
        {choosers}
      </main>
    );
  }
  const stack = stackOfBond(map, bond);
  const soften_C = bond.soften_C ?? SOFTENS_C;
  const on = { map: map.id, joint: bond.id };
  const warming: Warming = {
    stack,
    soften_C,
    setting: setUp.setting,
    heat_s: setUp.heat_s,
    materials: shop.materials,
  };
  const change = (part: Partial<SetUp>) => setSetUp({ ...setUp, ...part });
  return (
    <main className="grid grow gap-x-8 px-6 py-4 md:grid-cols-[15rem_minmax(0,1fr)] lg:grid-cols-[19rem_minmax(0,1fr)]">
      <h1 className="sr-only">Heat bench</h1>
      <div className="flex flex-col gap-4">
        {choosers}
        <SourceForm
          setUp={setUp}
          measured={measuredSource(shop.sources, setUp.setting.kind, on) ?? null}
          on={on}
          laidOver={laidOver}
          onKind={(kind) =>
            change({
              setting: settingFor(bond, kind, measuredSource(shop.sources, kind, on)),
              heat_s: warmingTime_s(map, bond, kind),
            })
          }
          onChange={change}
          onLaidOver={setLaidOver}
        />
        <div className="flex gap-2">
          <Button weight="quiet" onClick={() => setPanel('materials')}>
            Materials
          </Button>
          <Link
            to={`/pick-card/${map.id}/${bond.id}`}
            className="inline-flex min-h-12 items-center px-4 font-semibold underline decoration-hair underline-offset-4 hover:decoration-ink"
          >
            Pick card
          </Link>
        </div>
      </div>
      <Foreseen map={map} bond={bond} warming={warming} touch={setUp.touch} laidOver={laidOver} shop={shop} />
      <MaterialsPanel materials={shop.materials} open={panel === 'materials'} onClose={() => setPanel(null)} />
    </main>
  );
}

function firstSetUp(map: DeviceMap, bond: BondJoint, shop: ShopNow): SetUp {
  const kind = kindFor(bond, shop.schools.heat ?? null);
  const measured = measuredSource(shop.sources, kind, { map: map.id, joint: bond.id });
  return { setting: settingFor(bond, kind, measured), heat_s: warmingTime_s(map, bond, kind), touch: 'all' };
}

interface ForeseenProps {
  readonly map: DeviceMap;
  readonly bond: BondJoint;
  readonly warming: Warming;
  readonly touch: Touch;
  readonly laidOver: readonly string[];
  readonly shop: ShopNow;
}

function Foreseen({ map, bond, warming, touch, laidOver, shop }: ForeseenProps) {
  const { foresight, problem } = useForesight(warming, placeOf(map, bond));
  const overlays = useOverlays(warming, laidOver, placeOf(map, bond));
  if (problem) {
    return (
      <Trouble title="This can not be predicted">
        <p>{problem}</p>
      </Trouble>
    );
  }
  if (!foresight) return <p className="text-far text-quiet">Looking ahead</p>;
  const words = adviceWords(warming, foresight);
  return (
    <div className="flex min-w-0 flex-col gap-3">
      <div aria-live="polite">
        <p className={`text-loud leading-tight font-bold ${words.isGood ? '' : 'text-now'}`}>{words.headline}</p>
        <p className="text-lead text-quiet">{words.detail}</p>
      </div>
      {foresight.warnings.map((each) => (
        <Caution key={each}>{each}</Caution>
      ))}
      <div className="h-[19rem] min-w-0">
        <Curves
          foresight={foresight}
          soften_C={warming.soften_C}
          heat_s={warming.heat_s}
          overlays={overlays}
          label={`Temperatures over time. ${words.headline}. ${words.detail}`}
        />
      </div>
      <div className="grid gap-x-8 gap-y-4 border-t border-ink pt-3 lg:grid-cols-[minmax(0,1fr)_15rem]">
        <FieldPanel
          map={map}
          bond={bond}
          warming={warming}
          touch={touch}
          working_s={foresight.working_s}
          speed_mm_s={shop.limits.cutSpeed_mm_s}
        />
        <StackPicture stack={stackOfBond(map, bond)} face={bond.heatFace ?? bond.face} />
      </div>
    </div>
  );
}

/** Recipes that are laid over, on the same bond. */
function useOverlays(warming: Warming, laidOver: readonly string[], place: string): Overlay[] {
  const [first, second, third] = [0, 1, 2].map((index) => RECIPES.find(({ id }) => id === laidOver[index]));
  const found = [first, second, third].map((recipe) =>
    recipe ? { ...warming, setting: settingOfRecipe(recipe), heat_s: recipe.seconds } : null,
  );
  const foresights = [useForesight(found[0]!, place), useForesight(found[1]!, place), useForesight(found[2]!, place)];
  return [first, second, third].flatMap((recipe, index) => {
    const foresight = foresights[index]!.foresight;
    return recipe && foresight ? [{ name: recipe.name(temperature(recipe.temp_C)), foresight }] : [];
  });
}
