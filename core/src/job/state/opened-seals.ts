import { isOuter, isSelfParting } from '../../model/device-map/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { waterWords } from '../../planner/words/index.ts';
import { closingNow } from './renewal-now.ts';
import type { JobState } from './job-state.ts';

/** What is said of water resistance: once for every way in which seals that close the device were closed again. */
export function saidOfWater({ map }: Mechanism, state: JobState): string[] {
  const outer = new Set(map.parts.filter(isOuter).map(({ id }) => id));
  const wasOpened = (id: string) => state.done.some((op) => op.kind === 'release' && op.joint === id);
  const opened = map.joints.flatMap((joint) => {
    if (joint.type !== 'bond' || isSelfParting(joint) || joint.style !== 'perimeter') return [];
    return joint.holds.some((id) => outer.has(id)) && wasOpened(joint.id) ? [joint] : [];
  });
  return [...new Set(opened.map((bond) => waterWords(closingNow(map, state, bond))))];
}
