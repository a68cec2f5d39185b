import { type DeviceMap, partById } from '../../model/device-map/index.ts';
import type { Hole } from './holes.ts';

/**
 * Turns to expect until a screw is free, or down: how deep it sits divided by its pitch. What it clamps is taken as thick as
 * the part that it holds, half of its length at most, since a part is thinner at its ears (guess). Null for a thread that is
 * not written as *M1.4x0.3*.
 */
export function turnsOf(map: DeviceMap, { joint, kind }: Pick<Hole, 'joint' | 'kind'>): number | null {
  const pitch = Number(/x(\d+(?:\.\d+)?)$/.exec(kind.thread)?.[1] ?? 0);
  if (pitch <= 0) return null;
  const held = partById(map, joint.holds[0]);
  const clamped = Math.min(held ? Math.abs(held.z.bottom - held.z.top) : 0, kind.length / 2);
  return Math.max(1, Math.round((kind.length - clamped) / pitch));
}
