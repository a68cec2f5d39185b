import type { BondJoint, DeviceMap } from '@nibrel/core/model/device-map';
import type { DeviceWarming, Fit, Foresight, HeatSetting, Reading, Warming, Yielding } from '@nibrel/core/physics/heat';
import type { SourceVerdict } from '@nibrel/core/bench/in-hand';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { proxy } from 'comlink';
import { useState } from 'react';
import { mapKey } from '../app/map-key.ts';
import { computeLater } from '../workers/compute.ts';
import { heatThread } from '../workers/heat-thread.ts';
import type { Computed, Field } from '../workers/compute.worker.ts';

/** A bond of a map, by name. */
export function placeOf(map: DeviceMap, bond: BondJoint | null): string {
  return `${map.id} ${bond?.id ?? ''}`;
}

/**
 * A warming foreseen in a thread of its own; the last one of the same place stays in sight until the next is there.
 * @param place what is warmed: a picture of another bond is never shown for it
 */
export function useForesight(
  warming: Warming | null,
  place: string,
): { foresight: Foresight | null; problem: string | null } {
  const query = useQuery<Computed<Foresight>>({
    queryKey: ['foresee', place, warming],
    enabled: warming !== null,
    staleTime: Infinity,
    gcTime: 30_000,
    placeholderData: (before, query) => (query?.queryKey[1] === place ? before : undefined),
    queryFn: ({ signal }) =>
      heatThread.run(async (compute): Promise<Computed<Foresight>> => await compute.foresee(warming!), signal),
  });
  if (!warming || !query.data) return { foresight: null, problem: null };
  return 'value' in query.data
    ? { foresight: query.data.value, problem: null }
    : { foresight: null, problem: query.data.problem };
}

/** What each of several sources would do to a bond; null until that is foreseen. */
export function useVerdicts(
  map: DeviceMap,
  bond: BondJoint | null,
  soften_C: number,
  settings: readonly HeatSetting[],
): readonly SourceVerdict[] | null {
  const query = useQuery({
    // parts that lie elsewhere are not in the map that is given
    queryKey: ['verdicts', mapKey(map), map.parts.length, bond?.id, bond?.stack, soften_C, settings],
    enabled: bond !== null,
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      heatThread.run(
        async (compute): Promise<readonly SourceVerdict[]> => await compute.verdicts(map, bond!, soften_C, settings),
        signal,
      ),
  });
  return query.data ?? null;
}

/** What the readings so far teach of the source. */
export function useFit(warming: Warming | null, readings: readonly Reading[]): Fit | null {
  const query = useQuery({
    // readings are only ever added to: the first and the last tell one warming from another
    queryKey: ['fit', warming, readings[0], readings.at(-1), readings.length],
    enabled: warming !== null && readings.length > 0,
    staleTime: Infinity,
    gcTime: 30_000,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      heatThread.run(async (compute): Promise<Computed<Fit | null>> => await compute.fit(warming!, readings), signal),
  });
  return readings.length > 0 && query.data && 'value' in query.data ? query.data.value : null;
}

/** The whole device as it warms and cools, once it has been asked for; how far it has come meanwhile. */
export function useField(
  warming: DeviceWarming | null,
  yields: Yielding,
): { field: Field | null; problem: string | null; share: number } {
  const [share, setShare] = useState(0);
  // the map and its bond are named, not written out: a key is compared at every render
  const { map, bond, ...rest } = warming ?? {};
  const query = useQuery({
    queryKey: ['field', map && mapKey(map), bond?.id, rest, yields],
    enabled: warming !== null,
    staleTime: Infinity,
    gcTime: 60_000,
    queryFn: async (): Promise<Computed<Field>> => {
      setShare(0);
      return await computeLater().field(warming!, yields, proxy(setShare));
    },
  });
  if (!warming || !query.data) return { field: null, problem: null, share };
  return 'value' in query.data
    ? { field: query.data.value, problem: null, share: 1 }
    : { field: null, problem: query.data.problem, share };
}
