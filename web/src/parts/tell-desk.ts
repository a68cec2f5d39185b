import type { BenchEvent, EventData, EventType } from '@nibrel/core/job';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api } from '../app/client.ts';
import { useSettings } from '../app/settings.ts';

export type PartSaid = {
  readonly [Type in EventType & `part-${string}`]: { readonly type: Type; readonly data: EventData[Type] };
}[EventType & `part-${string}`];

/** Tells a job what happened to one of its parts; shown once it is on the server's disk. */
export function useTellDesk(job: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (said: PartSaid) => {
      const by = useSettings.getState().person || 'unnamed';
      const event = { id: crypto.randomUUID(), at: new Date().toISOString(), by, ...said } as BenchEvent;
      const { rejected } = await api.append(job, [event]);
      if (rejected[0]) throw new Error(rejected[0].problem.replace(/^data: /, ''));
    },
    onSettled: () =>
      Promise.all([
        queries.invalidateQueries({ queryKey: ['parts'] }),
        queries.invalidateQueries({ queryKey: ['jobs'] }),
      ]),
  });
}
