import { type DeviceMap, isOuter } from '../../model/device-map/index.ts';
import type { Op } from '../drafts/index.ts';

/** Getting in is over when the device is open: whatever is heated, cut or opened after that is stripping. */
export function withStages(map: DeviceMap, ops: readonly Op[]): Op[] {
  const isShell = new Set(map.parts.flatMap((each) => (isOuter(each) && !each.removeFirst ? [each.id] : [])));
  const isWayIn = ({ kind, part }: Op) => (kind === 'open' || kind === 'lift') && isShell.has(part ?? '');
  const opened = ops.findIndex(isWayIn);
  return ops.map((op, at) => (opened >= 0 && at > opened && op.stage === 'open' ? { ...op, stage: 'strip' } : op));
}
