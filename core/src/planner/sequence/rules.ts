/** The rules of order (docs/device-map.md, *The order of a careful technician*), by name. */
export const ORDER_RULES = [
  // of the strip-down
  'removed-first',
  'dead-first',
  'display-off',
  'part-by-part',
  'follow',
  // of the rebuild
  'mirror',
  'dead-long',
  'display-last',
  'seal',
  'film',
  'count',
  'test',
] as const;

export type OrderRule = (typeof ORDER_RULES)[number];
