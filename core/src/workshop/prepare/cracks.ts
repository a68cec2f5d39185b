import type { DeviceMap, Part } from '../../model/device-map/index.ts';

/** A mark on the drawing, as far as it matters here. */
export interface Mark {
  readonly kind: string;
  readonly part?: string;
}

/** Glass that was marked as cracked: tape over the whole face holds the splinters and gives cups a surface. */
export function crackedGlass(map: DeviceMap, marks: readonly Mark[]): Part[] {
  const cracked = new Set(marks.flatMap((each) => (each.kind === 'crack' && each.part ? [each.part] : [])));
  return map.parts.filter((each) => cracked.has(each.id) && each.hazards?.includes('glass'));
}
