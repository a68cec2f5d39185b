import type { Line } from '../../teardown/record/index.ts';
import type { BenchEvent } from '../events/index.ts';

/**
 * What a repair did on its way down, and what would not move on it, as it teaches the map of its device; from the first thing that goes
 * back on nothing more is learnt of what held what.
 */
export function repairLines(inForce: readonly BenchEvent[]): readonly Line[] {
  const lines: Line[] = [];
  for (const event of inForce) {
    if (event.type === 'trouble' && event.data.kind === 'will-not-lift') {
      const { joint, part } = event.data;
      if (joint !== undefined) lines.push({ kind: 'refused', joint });
      else if (part !== undefined) lines.push({ kind: 'refused', part });
    }
    if (event.type !== 'did') continue;
    for (const { kind, joint, part } of event.data.steps) {
      if (kind === 'make' || kind === 'fit' || kind === 'close') return lines;
      if (kind === 'release') lines.push({ kind, joint: joint! });
      else if (kind === 'open' || kind === 'lift') lines.push({ kind, part: part! });
    }
  }
  return lines;
}
