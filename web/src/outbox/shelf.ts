import { type Problem, wrong } from '@nibrel/core/model/refusal';
import type { BenchEvent } from '@nibrel/core/job/events';
import type { ShopEvent } from '@nibrel/core/workshop/shop';
import { type DBSchema, openDB } from 'idb';

/** An event on its way to the server: kept from the press until the server has answered. */
export interface Letter {
  /** the event's own id, by which the server knows it again */
  readonly id: string;
  /** the job, or SHOP */
  readonly to: string;
  readonly event: BenchEvent | ShopEvent;
  /** the window that sends it */
  readonly window: string;
  /** later letters have a higher one */
  readonly order: number;
  /** why the server did not take it, where nobody has understood that yet */
  readonly problem?: Problem;
}

export const SHOP = 'shop';

/** Where letters lie while nobody has answered them. */
export interface Shelf {
  put(letter: Letter): Promise<void>;
  drop(id: string): Promise<void>;
  /** all of them, the oldest first */
  all(): Promise<readonly Letter[]>;
}

interface Stored extends DBSchema {
  letters: { key: string; value: StoredLetter };
}

/** Keeps letters in this browser, so that a killed one loses nothing; in memory where the browser has no such store. */
export function openShelf(): Shelf {
  if (!('indexedDB' in globalThis)) return memoryShelf();
  const opened = openDB<Stored>('nibrel', 1, {
    upgrade: (db) => void db.createObjectStore('letters', { keyPath: 'id' }),
  });
  return {
    put: async (letter) => void (await (await opened).put('letters', letter)),
    drop: async (id) => (await opened).delete('letters', id),
    all: async () => (await (await opened).getAll('letters')).map(readLetter).toSorted((a, b) => a.order - b.order),
  };
}

/** As it lies in the browser: an older version has kept the problem as one text. */
type StoredLetter = Omit<Letter, 'problem'> & { readonly problem?: Problem | string };

function readLetter({ problem, ...letter }: StoredLetter): Letter {
  if (problem === undefined) return letter;
  return { ...letter, problem: typeof problem === 'string' ? wrong('', problem) : problem };
}

export function memoryShelf(): Shelf {
  const letters = new Map<string, Letter>();
  return {
    put: async (letter) => void letters.set(letter.id, letter),
    drop: async (id) => void letters.delete(id),
    all: async () => [...letters.values()],
  };
}
