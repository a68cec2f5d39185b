import type { Turns } from '../question/index.ts';
import { benchAsked } from './bench-asked.ts';
import { chargeAsked } from './charge-asked.ts';
import { gapsAsked } from './gaps-asked.ts';
import { ownerAsked } from './owner-asked.ts';
import { partsAsked } from './parts-asked.ts';
import type { Preparing } from './preparing.ts';

/**
 * What is asked before a device may be opened: each new part, since the owner hears where it comes from; the owner; the
 * charge; what is missing; the bench.
 */
export function askedInPreparing(now: Preparing): Turns {
  return [...partsAsked(now), ...ownerAsked(now), ...chargeAsked(now), ...gapsAsked(now), benchAsked(now)];
}
