import { isOuter, isSelfParting } from '../device-map/index.ts';
import type { Mechanism } from '../holds/index.ts';
import { waterWords } from '../words/index.ts';
import type { JobState } from './state.ts';

/** What is said of water resistance: once for every way in which seals that close the device were closed again. */
export function saidOfWater({ map }: Mechanism, { done, found }: JobState): string[] {
  const outer = new Set(map.parts.filter(isOuter).map(({ id }) => id));
  const opened = map.joints.filter(
    (joint) =>
      joint.type === 'bond' &&
      !isSelfParting(joint) &&
      joint.style === 'perimeter' &&
      joint.holds.some((id) => outer.has(id)) &&
      done.some((op) => op.kind === 'release' && op.joint === joint.id),
  );
  return [...new Set(opened.map(({ id }) => waterWords(found.closings.get(id) ?? 'renew')))];
}
