import { elapsed_s } from '../../bench/in-hand/index.ts';
import type { JobState } from '../../job/state/index.ts';
import { type Keyless, saying, type Weight } from '../question/index.ts';

/** A source that is on comes off, whatever else is asked; no answer where none is on. */
export function heatOff({ opening: { heating } }: JobState, now: number, weight: Weight): readonly Keyless[] {
  if (!heating) return [];
  const seconds = Math.max(0, Math.round(elapsed_s(heating, now)));
  const gives = saying('heat-off', { joint: heating.joint, seconds });
  return [{ id: 'heat-off', label: 'Heat off and away', weight, gives }];
}
