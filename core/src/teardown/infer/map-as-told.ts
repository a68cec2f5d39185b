import { type DeviceMap, type MapOrigin } from '../../model/device-map/index.ts';
import { type Teardown, teardownOf, type Told, type ToldSoFar, toldSoFar } from '../record/index.ts';
import { draftedMap } from './drafted-map.ts';
import { guessedHosts } from './hosts.ts';
import { type InferredMap, inferMap, mapInferred } from './infer-map.ts';

/**
 * The map that a job goes by whose device is taken apart without one. While it is taken apart it is what was told. From then on it
 * says what holds what, as far as that can be inferred, and for the rest keeps the order in which it came off.
 * @param base the map that the job was taken in with
 * @throws Refusal where what was told makes no map
 */
export function mapAsTold(base: DeviceMap, told: readonly Told[]): DeviceMap {
  const so = toldSoFar(base, told);
  if (!so.isBegun) return base;
  const teardown = teardownOf(base, so);
  if (!so.isOn) return inferredFrom(teardown, so, { keepsOrder: true });
  const map = draftedMap(teardown, { hosts: guessedHosts(teardown), under: new Map() });
  return { ...map, origin: { ...unknownIn(so, teardown), guesses: [] } };
}

/** The map that is kept of a device: what is certain or likely of it, with what it was made of. */
export function mapToKeep(base: DeviceMap, told: readonly Told[]): DeviceMap {
  const so = toldSoFar(base, told);
  return inferredFrom(teardownOf(base, so), so, { keepsOrder: false });
}

/** What to ask of a device that lies open, the most telling first: *What held it?* */
export function openQuestions(base: DeviceMap, told: readonly Told[]): InferredMap['questions'] {
  return inferMap(teardownOf(base, toldSoFar(base, told))).questions;
}

function inferredFrom(teardown: Teardown, so: ToldSoFar, { keepsOrder }: { readonly keepsOrder: boolean }): DeviceMap {
  // what is open is no entry, and can be found again from the record
  const { map, guesses } = mapInferred(teardown, { keepsOrder, hasOpen: false });
  return {
    ...map,
    origin: { ...unknownIn(so, teardown), guesses, ...(keepsOrder ? {} : { record: teardown }) },
  };
}

function unknownIn(
  { screws, joints }: ToldSoFar,
  { parts, fasteners }: Teardown,
): Omit<MapOrigin, 'guesses' | 'record'> {
  return {
    unplaced: [
      ...parts.flatMap(({ id, unplaced }) => (unplaced ? [id] : [])),
      ...[...joints.values()].flatMap(({ id, points, at }) => (points || at ? [] : [id])),
    ],
    unmeasured: fasteners.flatMap(({ id }) => (screws.get(id)?.length === undefined ? [id] : [])),
  };
}
