import type { Appended } from '@nibrel/core/api';
import { setImmediate } from 'node:timers/promises';
import { tooFarAhead } from '@nibrel/core/job/state';
import { isSameName } from '@nibrel/core/model/names';
import {
  foldShop,
  hasOthers,
  NEW_SHOP,
  type Shop,
  SHOP_EVENT_DATA,
  type ShopEvent,
  withShopEvent,
} from '@nibrel/core/workshop/shop';
import { asc, eq } from 'drizzle-orm';
import type { Acknowledged } from './acknowledged.ts';
import { appendedInTurns } from './append.ts';
import type { Db } from './database.ts';
import { shopEvents } from './schema.ts';
import { isWhole, sumOf } from './sum.ts';

interface ShopOptions {
  /** is this a demonstration? */
  readonly hasStandIns: boolean;
  told?(revision: number): void;
  /** told of what is on the disk now */
  acknowledge?(entries: readonly Acknowledged[]): void;
}

/** Who is behind a call: signed in, where anybody has to be, and the lead who has shown their secret. */
interface Caller {
  readonly signedIn?: string | null;
  readonly confirmed?: string | null;
}

/** The workshop: its events, and what they fold to. */
export class ShopLog {
  readonly #db: Db;
  readonly #told: (revision: number) => void;
  readonly #hasStandIns: boolean;
  readonly #acknowledge: (entries: readonly Acknowledged[]) => void;
  #shop: Shop = NEW_SHOP;

  constructor(db: Db, { hasStandIns, told = () => undefined, acknowledge = () => undefined }: ShopOptions) {
    this.#acknowledge = acknowledge;
    this.#db = db;
    this.#told = told;
    this.#hasStandIns = hasStandIns;
    this.#shop = foldShop(this.events());
  }

  get shop(): Shop {
    return this.#shop;
  }

  /** Those that can be read; one that can't changes nothing, and stays where it is. */
  events(): ShopEvent[] {
    return this.#rows().flatMap((row) => eventOf(row) ?? []);
  }

  /** Those that were changed on the disk, in words. */
  damaged(): string[] {
    return this.#rows().flatMap((row) => (eventOf(row) ? [] : [`entry ${row.seq} (${row.type}, ${row.by})`]));
  }

  #rows(): Row[] {
    return this.#db.select().from(shopEvents).orderBy(asc(shopEvents.seq)).all();
  }

  /** As a job takes its events: all that can be taken, on the disk when this is answered. */
  async append(incoming: readonly unknown[], now: string, caller: Caller = {}): Promise<Appended> {
    const { signedIn = null, confirmed = null } = caller;
    const around = {
      // nobody confirms who becomes the first of several
      isConfirmed: (name: string) =>
        !hasOthers(this.#shop.people, name) || (confirmed !== null && isSameName(confirmed, name)),
      hasStandIns: this.#hasStandIns,
      isSignedIn: signedIn !== null,
    };
    const inserted: Acknowledged[] = [];
    const told = await appendedInTurns<ShopEvent>(incoming, {
      schemas: SHOP_EVENT_DATA,
      receivedAt: now,
      usesSupplies: () => false,
      signedIn,
      letPass: () => setImmediate(),
      known: (id) => {
        const row = this.#db.select().from(shopEvents).where(eq(shopEvents.id, id)).get();
        return row ? (eventOf(row) ?? 'elsewhere') : null;
      },
      take: (event) => {
        const early = tooFarAhead(event.at, Date.parse(now));
        if (early) return { problem: early };
        const outcome = withShopEvent(this.#shop, event, around);
        if ('problem' in outcome) return outcome;
        this.#shop = outcome.shop;
        return null;
      },
      insert: ({ id, type, at, by, data: said }) => {
        const data = JSON.stringify(said);
        const row = { id, type, at, by, data, receivedAt: now, sum: sumOf(id, type, at, by, data, now) };
        this.#db.insert(shopEvents).values(row).run();
        inserted.push({ what: 'shop', id, type, at: now });
      },
      inTurn: (work) => {
        const before = this.#shop;
        try {
          const { isMore } = this.#db.$client.transaction(work)();
          this.#acknowledge(inserted.splice(0));
          if (this.#shop !== before) this.#told(this.#shop.revision);
          return isMore;
        } catch (error) {
          this.#shop = before;
          inserted.length = 0;
          throw error;
        }
      },
    });
    return { ...told, revision: this.#shop.revision, receivedAt: now };
  }
}

type Row = typeof shopEvents.$inferSelect;

function eventOf({ id, type, at, by, data, receivedAt, sum }: Row): ShopEvent | null {
  if (!isWhole(sum, id, type, at, by, data, receivedAt)) return null;
  try {
    return { id, type, at, by, data: JSON.parse(data), receivedAt } as ShopEvent;
  } catch {
    return null;
  }
}
