import { useState } from 'react';

/** The list as it was before, where the same things are in it: what is worked out from it is kept. */
export function useSame<T>(list: readonly T[]): readonly T[] {
  const [kept, keep] = useState(list);
  const isSame = kept.length === list.length && kept.every((each, at) => each === list[at]);
  if (isSame) return kept;
  keep(list);
  return list;
}
