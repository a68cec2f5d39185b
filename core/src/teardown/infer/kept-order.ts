import { isSelfParting } from '../../model/device-map/index.ts';
import type { Entry, Thing } from '../record/index.ts';
import type { Guesses } from './guesses.ts';
import type { Scene } from './scene.ts';

/**
 * Keeps the order in which things came off, one after the other: the one way back that is known to work. What makes the device dead
 * is left out of it, so that it is plugged in as late as the rest lets.
 */
export function keepOrder(scene: Scene, guesses: Guesses): void {
  const { told, mechanism } = scene;
  const last = new Map<string, { readonly entry: Entry; readonly holds: readonly string[] }>();
  const moved = new Set<string>();
  const cell = told.device.battery?.part;
  for (const line of told.record) {
    if (line.kind === 'refused') continue;
    const group = line.on ?? '';
    const before =
      last.get(group) ??
      (line.on === undefined ? null : { entry: { part: line.on, until: 'off' } as const, holds: [] });
    const keep = (thing: Thing) =>
      before && guesses.add(thing, before.entry, { why: 'kept-order', certainty: 'likely' });
    if (line.kind === 'release') {
      if (!mechanism.joint.has(line.joint)) continue;
      const tie = scene.joint(line.joint);
      const isLive =
        tie.type === 'connector' && (Boolean(tie.isolates) || (cell !== undefined && tie.holds.includes(cell)));
      if (isSelfParting(tie) || isLive) continue;
      keep({ joint: tie.id });
      last.set(group, { entry: { joint: tie.id }, holds: tie.holds });
      continue;
    }
    const { part } = line;
    // what a part lies under has to go before it is opened; its own joints hold it anyway
    if (!moved.has(part) && !before?.holds.includes(part)) keep({ part });
    moved.add(part);
    last.set(group, { entry: { part, until: line.kind === 'open' ? 'open' : 'off' }, holds: [] });
  }
}
