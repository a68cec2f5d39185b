import { type QueryClient, queryOptions } from '@tanstack/react-query';
import { onChange } from './changes.ts';
import { api } from './client.ts';

/** The server tells what changes; this is for when its stream is gone. */
const NOW_AND_THEN_MS = 30_000;

/** What several views ask the server for. */
export const jobsQuery = queryOptions({
  queryKey: ['jobs', 'all'],
  queryFn: () => api.jobs(),
  refetchInterval: NOW_AND_THEN_MS,
});

/** Repairs that are under way. */
export const openJobsQuery = queryOptions({
  queryKey: ['jobs', 'open'],
  queryFn: () => api.jobs({ open: true }),
  refetchInterval: NOW_AND_THEN_MS,
});

/** The last that are over. */
export const finishedJobsQuery = queryOptions({
  queryKey: ['jobs', 'finished'],
  queryFn: () => api.jobs({ finished: true, limit: 6 }),
  refetchInterval: NOW_AND_THEN_MS,
});

/** The repair that was taken in last. */
export const lastJobQuery = queryOptions({ queryKey: ['jobs', 'last'], queryFn: () => api.jobs({ limit: 1 }) });

export const sessionQuery = queryOptions({ queryKey: ['session'], queryFn: api.session, staleTime: Infinity });

export const mapsQuery = queryOptions({ queryKey: ['maps'], queryFn: api.maps });

export function mapQuery(id: string | undefined, revision?: number) {
  return queryOptions({
    queryKey: ['map', id, revision ?? 'newest'],
    queryFn: () => api.map(id!, revision),
    enabled: Boolean(id),
  });
}

export const shopQuery = queryOptions({ queryKey: ['shop'], queryFn: api.shop, refetchInterval: NOW_AND_THEN_MS });

export const partsQuery = queryOptions({ queryKey: ['parts'], queryFn: api.parts, refetchInterval: NOW_AND_THEN_MS });

/** Whatever the server says has changed is asked for again where it is in sight; not more often than this. */
const GATHER_MS = 250;

/** Keeps what is shown true to the server's stream of changes. @returns how to stop */
export function followChanges(queries: QueryClient): () => void {
  const stale = new Set<string>();
  let timer: ReturnType<typeof setTimeout> | undefined;
  const ask = () => {
    timer = undefined;
    for (const key of stale) void queries.invalidateQueries({ queryKey: [key] });
    stale.clear();
  };
  const stop = onChange(({ what }) => {
    for (const key of STALE[what]) stale.add(key);
    timer ??= setTimeout(ask, GATHER_MS);
  });
  return () => {
    clearTimeout(timer);
    stop();
  };
}

const STALE = { job: ['jobs', 'parts'], shop: ['shop'], map: ['maps', 'map'] } as const;
