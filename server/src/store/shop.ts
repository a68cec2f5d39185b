import { foldShop, type Shop, SHOP_EVENT_DATA, type ShopEvent, withShopEvent } from '@nibrel/core/shop';
import { asc, eq } from 'drizzle-orm';
import { type Appended, appended } from './append.ts';
import type { Db } from './database.ts';
import { shopEvents } from './schema.ts';

/** The workshop: its events, and what they fold to. */
export class ShopLog {
  readonly #db: Db;
  #shop: Shop;

  constructor(db: Db) {
    this.#db = db;
    this.#shop = foldShop(this.events());
  }

  get shop(): Shop {
    return this.#shop;
  }

  events(): ShopEvent[] {
    return this.#db.select().from(shopEvents).orderBy(asc(shopEvents.seq)).all().map(eventOf);
  }

  /** As a job takes its events: all that can be taken, on the disk when this returns. */
  append(incoming: readonly unknown[], now: string): Appended {
    const before = this.#shop;
    try {
      const told = this.#db.$client.transaction(() =>
        appended<ShopEvent>(incoming, {
          schemas: SHOP_EVENT_DATA,
          known: (id) => {
            const row = this.#db.select().from(shopEvents).where(eq(shopEvents.id, id)).get();
            return row ? eventOf(row) : null;
          },
          take: (event) => {
            const outcome = withShopEvent(this.#shop, event);
            if ('problem' in outcome) return outcome;
            this.#shop = outcome.shop;
            return null;
          },
          insert: (event) => {
            const row = { ...event, data: JSON.stringify(event.data), receivedAt: now };
            this.#db.insert(shopEvents).values(row).run();
          },
        }),
      )();
      return { ...told, revision: this.#shop.revision };
    } catch (error) {
      this.#shop = before;
      throw error;
    }
  }
}

function eventOf(row: typeof shopEvents.$inferSelect): ShopEvent {
  const { id, type, at, by } = row;
  return { id, type, at, by, data: JSON.parse(row.data) } as ShopEvent;
}
