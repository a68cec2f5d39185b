import { setImmediate } from 'node:timers/promises';
import { tooFarAhead } from '@nibrel/core/job';
import { foldShop, NEW_SHOP, type Shop, SHOP_EVENT_DATA, type ShopEvent, withShopEvent } from '@nibrel/core/shop';
import { asc, eq } from 'drizzle-orm';
import { type Appended, appendedInTurns } from './append.ts';
import type { Db } from './database.ts';
import { shopEvents } from './schema.ts';

/** The workshop: its events, and what they fold to. */
export class ShopLog {
  readonly #db: Db;
  readonly #told: (revision: number) => void;
  #shop: Shop = NEW_SHOP;

  constructor(db: Db, told: (revision: number) => void = () => undefined) {
    this.#db = db;
    this.#told = told;
    this.#shop = foldShop(this.events());
  }

  get shop(): Shop {
    return this.#shop;
  }

  /** Those that can be read; one that can't changes nothing, and stays where it is. */
  events(): ShopEvent[] {
    return this.#db
      .select()
      .from(shopEvents)
      .orderBy(asc(shopEvents.seq))
      .all()
      .flatMap((row) => eventOf(row) ?? []);
  }

  /** As a job takes its events: all that can be taken, on the disk when this is answered. */
  async append(incoming: readonly unknown[], now: string, signedIn: string | null = null): Promise<Appended> {
    const told = await appendedInTurns<ShopEvent>(incoming, {
      schemas: SHOP_EVENT_DATA,
      signedIn,
      letPass: () => setImmediate(),
      known: (id) => {
        const row = this.#db.select().from(shopEvents).where(eq(shopEvents.id, id)).get();
        return row ? (eventOf(row) ?? 'elsewhere') : null;
      },
      take: (event) => {
        const early = tooFarAhead(event.at, Date.parse(now));
        if (early) return { problem: early };
        const outcome = withShopEvent(this.#shop, event);
        if ('problem' in outcome) return outcome;
        this.#shop = outcome.shop;
        return null;
      },
      insert: (event) => {
        const row = { ...event, data: JSON.stringify(event.data), receivedAt: now };
        this.#db.insert(shopEvents).values(row).run();
      },
      inTurn: (work) => {
        const before = this.#shop;
        try {
          const { isMore } = this.#db.$client.transaction(work)();
          if (this.#shop !== before) this.#told(this.#shop.revision);
          return isMore;
        } catch (error) {
          this.#shop = before;
          throw error;
        }
      },
    });
    return { ...told, revision: this.#shop.revision };
  }
}

function eventOf(row: typeof shopEvents.$inferSelect): ShopEvent | null {
  const { id, type, at, by } = row;
  try {
    return { id, type, at, by, data: JSON.parse(row.data) } as ShopEvent;
  } catch {
    return null;
  }
}
