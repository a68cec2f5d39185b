import { problemText } from '@nibrel/core/model/refusal';
import type { ShopEvent, ShopEventData, ShopEventType } from '@nibrel/core/workshop/shop';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { outbox, SHOP } from '../outbox/index.ts';
import { useSettings } from '../app/settings.ts';

export type ShopSaid = {
  readonly [Type in ShopEventType]: { readonly type: Type; readonly data: ShopEventData[Type] };
}[ShopEventType];

/** Tells the workshop's log something; shown as done once it is on the server's disk. */
export function useTellShop() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (said: ShopSaid | readonly ShopSaid[]) => {
      const by = useSettings.getState().person || 'unnamed';
      const at = new Date().toISOString();
      const all = 'type' in said ? [said] : said;
      const events = all.map((each) => ({ id: crypto.randomUUID(), at, by, ...each }) as ShopEvent);
      const answers = await Promise.all(events.map((event) => outbox.send(SHOP, event)));
      const refused = answers.find((each) => each !== null && 'problem' in each);
      if (refused && 'problem' in refused) throw new Error(problemText(refused.problem));
    },
    onSettled: () => queries.invalidateQueries({ queryKey: ['shop'] }),
  });
}
