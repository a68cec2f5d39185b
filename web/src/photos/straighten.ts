import type { Corner } from '@nibrel/core/model/photos';
import { useQuery } from '@tanstack/react-query';
import { type Remote, wrap } from 'comlink';
import type { Straightener } from './straighten.worker.ts';

let remote: Remote<Straightener> | null = null;

function straightener(): Remote<Straightener> {
  remote ??= wrap<Straightener>(new Worker(new URL('./straighten.worker.ts', import.meta.url), { type: 'module' }));
  return remote;
}

/** The corners of a device on its photograph, by contrast; null where they are not found. */
export async function cornersOn(url: string): Promise<readonly Corner[] | null> {
  return straightener()
    .found(new URL(url, location.href).href)
    .catch(() => null);
}

/** The address of a photograph set straight; null until it is, and where it can't be. @param proportion width by height */
export function useStraight(
  url: string | null,
  corners: readonly Corner[] | undefined,
  proportion: number,
): string | null {
  const { data } = useQuery({
    queryKey: ['straight', url, corners, proportion],
    enabled: url !== null && corners !== undefined,
    staleTime: Infinity,
    queryFn: async () =>
      straightener()
        .straight(new URL(url!, location.href).href, corners!, proportion)
        .catch(() => null),
  });
  return data ?? null;
}
