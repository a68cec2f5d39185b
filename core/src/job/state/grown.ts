/**
 * Lists and maps of a job's state that get one more entry. A state is a value: what grows is copied, so that an earlier
 * state stays what it was. Within `folding`, where nobody sees the states in between, what was copied once is appended
 * to in place, or a fold of n events would copy n² entries. So nothing that grows may be tried and thrown away: look for
 * what is wrong first, then let it grow.
 */
export function grown<T>(list: readonly T[], item: T): readonly T[] {
  if (owned?.has(list)) {
    (list as T[]).push(item);
    return list;
  }
  const copy = [...list, item];
  owned?.add(copy);
  return copy;
}

/** The same for a map and one of its keys. */
export function withKey<K, V>(map: ReadonlyMap<K, V>, key: K, value: V): ReadonlyMap<K, V> {
  const own = owned?.has(map) ? (map as Map<K, V>) : new Map(map);
  owned?.add(own);
  return own.set(key, value);
}

/** What was copied within the fold under way, and so belongs to it alone; null outside of any. */
let owned: WeakSet<object> | null = null;

/** @param fold does its work at once; it calls `keep` where a state in between is kept, and so must not change any more */
export function folding<T>(fold: (keep: () => void) => T): T {
  const outer = owned;
  owned = new WeakSet();
  try {
    return fold(() => {
      owned = new WeakSet();
    });
  } finally {
    owned = outer;
  }
}
