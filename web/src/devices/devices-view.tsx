import { mapQuery, mapsQuery } from '../app/queries.ts';
import { type DeviceMap, jointById, partById } from '@nibrel/core/model/device-map';
import type { Plan } from '@nibrel/core/planner/plan';
import { useQuery } from '@tanstack/react-query';
import { Slider } from 'radix-ui';
import { useState } from 'react';
import { Link, NavLink, useParams } from 'react-router';
import { mapKey } from '../app/map-key.ts';
import { api } from '../app/client.ts';
import { useKeys } from '../app/keys.ts';
import { Zoomable } from '../drawing/zoomable.tsx';
import { DeviceDrawing } from '../drawing/device-drawing.tsx';
import { fromTheTop, mainSide, type Side } from '@nibrel/core/drawn/places';

import { Trouble } from '../ui/caution.tsx';
import { Choice } from '../ui/choice.tsx';
import { computeNow } from '../workers/compute.ts';
import { FirstMap } from './first-map.tsx';
import { ImportMap } from './import-map.tsx';
import { ThingInfo } from './thing-info.tsx';

/** The maps; one device drawn to scale, layers peeled, and what holds what. */
export function DevicesView() {
  const { id } = useParams();
  const maps = useQuery(mapsQuery);
  const shown = id ?? maps.data?.[0]?.id;
  const map = useQuery(mapQuery(shown));
  return (
    <main className="grid min-h-0 grow lg:grid-cols-[14rem_1fr]">
      <nav aria-label="Device maps" className="border-ink px-6 py-5 lg:border-r">
        <h1 className="text-note text-quiet">Device maps</h1>
        <ul className="mt-1 mb-6">
          {maps.data?.map((each) => (
            <li key={each.id}>
              <NavLink
                to={`/devices/${each.id}`}
                className={`flex min-h-12 items-center border-b border-hair text-lead ${each.id === shown ? 'font-bold text-now' : ''}`}
              >
                {each.name}
              </NavLink>
            </li>
          ))}
        </ul>
        {maps.data?.length !== 0 && (
          <div className="flex flex-col items-start gap-3">
            <ImportMap known={new Set(maps.data?.map((each) => each.id))} />
            <Link
              to="/unmapped"
              className="inline-flex min-h-12 items-center border border-ink px-4 font-semibold hover:bg-mat"
            >
              Take apart one without a map
            </Link>
          </div>
        )}
      </nav>
      {map.isError && (
        <div className="p-8">
          <Trouble title="This map can not be fetched">
            <p>{map.error.message}</p>
          </Trouble>
        </div>
      )}
      {map.data && <Device key={map.data.id} map={map.data} />}
      {maps.data?.length === 0 && (
        <div className="p-8">
          <FirstMap />
        </div>
      )}
    </main>
  );
}

function Device({ map }: { readonly map: DeviceMap }) {
  const [side, setSide] = useState<Side>(() => mainSide(map));
  const [peeled, setPeeled] = useState(0);
  const [selected, setSelected] = useState<string | null>(null);
  // what of the way to it is lit on the drawing
  const [lit, setLit] = useState<number | null>(null);
  const layers = fromTheTop(map, side);
  const way = useWay(map, selected);
  const select = (thing: string | null) => {
    setSelected(thing);
    setLit(null);
  };
  const steps = way?.strip ?? [];
  const walk = (by: 1 | -1) =>
    steps.length > 0 && setLit(lit === null ? 0 : Math.min(steps.length - 1, Math.max(0, lit + by)));
  const light = lit === null ? null : steps[lit];
  const litJoint = jointById(map, light?.joint);
  const flip = (to: Side) => {
    setSide(to);
    setPeeled(0);
  };
  useKeys({
    f: () => flip(side === 'front' ? 'back' : 'front'),
    Escape: () => select(null),
    ArrowDown: () => walk(1),
    ArrowUp: () => walk(-1),
  });
  const check = useQuery({ queryKey: ['check', mapKey(map)], staleTime: Infinity, queryFn: () => api.checkMap(map) });
  const part = partById(map, selected);
  const touching = map.joints.filter((each) => part && (each.holds.includes(part.id) || each.to === part.id));
  const marked = new Set([...touching.map((each) => each.id), ...(part ? [] : selected ? [selected] : [])]);
  return (
    <div className="grid min-h-0 lg:grid-cols-[1fr_24rem]">
      <div className="flex min-h-0 flex-col">
        <div className="flex flex-wrap items-center gap-x-6 gap-y-2 px-6 pt-4">
          <Choice label="Side" value={side} onChange={flip} options={['front', 'back']} />
          <label className="flex grow items-center gap-4 text-body">
            <span>Peel</span>
            <Slider.Root
              aria-label="Layers peeled"
              min={0}
              max={layers.length}
              value={[peeled]}
              onValueChange={([next]) => setPeeled(next ?? 0)}
              className="relative flex h-12 min-w-40 grow touch-none items-center"
            >
              <Slider.Track className="relative h-1 grow bg-hair">
                <Slider.Range className="absolute h-full bg-ink" />
              </Slider.Track>
              <Slider.Thumb aria-label="Layers peeled" className="block size-7 border-2 border-ink bg-sheet" />
            </Slider.Root>
            <span className="w-48 truncate text-quiet">
              {layers[peeled] ? `on top: ${layers[peeled].name}` : 'the base'}
            </span>
          </label>
        </div>
        <div className="h-[calc(100dvh-10rem)] min-h-96 p-4">
          <Zoomable>
            <DeviceDrawing
              map={map}
              side={side}
              peeled={peeled}
              selected={selected}
              marked={litJoint ? new Set([litJoint.id]) : marked}
              now={
                new Set([light?.part, light?.joint, ...(litJoint?.holds ?? [])].filter((each) => each !== undefined))
              }
              label={`${map.name}, ${side}`}
              onPress={select}
            />
          </Zoomable>
        </div>
      </div>
      <ThingInfo
        map={map}
        selected={selected}
        way={way}
        warnings={check.data?.warnings ?? []}
        lit={lit}
        onLight={setLit}
        onSelect={select}
      />
    </div>
  );
}

/** The way to a thing, computed: what has to come off before it, and it. */
function useWay(map: DeviceMap, selected: string | null): Plan | null {
  const query = useQuery({
    queryKey: ['way', mapKey(map), selected],
    enabled: selected !== null,
    staleTime: Infinity,
    queryFn: async () => {
      const part = partById(map, selected);
      if (part?.base) return null;
      const target = part ? { remove: part.id } : { reach: selected! };
      const found = await computeNow().plan({ map, targets: [target] }, 300);
      return 'value' in found ? found.value : null;
    },
  });
  return selected === null ? null : (query.data ?? null);
}
