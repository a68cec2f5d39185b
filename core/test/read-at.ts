import { type HeatRequest, heatThrough } from '../src/physics/heat/index.ts';

/** What a probe reads at a moment, °C, on a straight line between the moments that are answered. */
export function readAt(request: HeatRequest, id: string, time_s: number): number {
  const { times_s, probes } = heatThrough(request);
  const right = times_s.findIndex((each) => each >= time_s);
  const [t, v] = [times_s, probes[id]!];
  if (right <= 0) return v[0]!;
  return v[right - 1]! + ((time_s - t[right - 1]!) / (t[right]! - t[right - 1]!)) * (v[right]! - v[right - 1]!);
}
