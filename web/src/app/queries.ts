import { queryOptions } from '@tanstack/react-query';
import { api } from './client.ts';

/** What several views ask the server for. */
export const jobsQuery = queryOptions({ queryKey: ['jobs'], queryFn: api.jobs, refetchInterval: 5000 });

export const mapsQuery = queryOptions({ queryKey: ['maps'], queryFn: api.maps });

export function mapQuery(id: string | undefined, revision?: number) {
  return queryOptions({
    queryKey: ['map', id, revision ?? 'newest'],
    queryFn: () => api.map(id!, revision),
    enabled: Boolean(id),
  });
}

export const shopQuery = queryOptions({ queryKey: ['shop'], queryFn: api.shop, refetchInterval: 20_000 });

export const partsQuery = queryOptions({ queryKey: ['parts'], queryFn: api.parts, refetchInterval: 10_000 });
