import type { StockUnit } from '@nibrel/core/workshop/shop';
import { plural } from '@nibrel/core/planner/words';

/** *3 pieces*, *1.4 m*, *420 mm*, *6 drops* */
export function amount(quantity: number, unit: StockUnit): string {
  if (unit === 'mm')
    return Math.abs(quantity) < 1000 ? `${Math.round(quantity)} mm` : `${(quantity / 1000).toFixed(1)} m`;
  return plural(Math.round(quantity), unit);
}
