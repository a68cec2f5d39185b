import type { ShopEvent, ShopEventData, ShopEventType } from '@nibrel/core/shop';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api } from '../app/client.ts';
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
      const { rejected } = await api.tellShop(events);
      if (rejected[0]) throw new Error(rejected[0].problem);
    },
    onSettled: () => queries.invalidateQueries({ queryKey: ['shop'] }),
  });
}
