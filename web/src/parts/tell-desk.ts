import { problemText } from '@nibrel/core/model/refusal';
import type { BenchEvent, EventData, EventType } from '@nibrel/core/job/events';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { outbox } from '../outbox/index.ts';
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
      const answer = await outbox.send(job, event);
      if (answer && 'problem' in answer) throw new Error(problemText(answer.problem));
    },
    onSettled: () =>
      Promise.all([
        queries.invalidateQueries({ queryKey: ['parts'] }),
        queries.invalidateQueries({ queryKey: ['jobs'] }),
      ]),
  });
}
