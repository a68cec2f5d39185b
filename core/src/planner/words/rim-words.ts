import { type DeviceMap, partById } from '../../model/device-map/index.ts';
import { belowRim, type RimFit } from '../../fitting/rim/index.ts';
import { heldName, partName, thingName } from './thing-names.ts';
import { placeWords } from './places.ts';
import { pointName } from './point-names.ts';

const SHAPES = {
  flush: 'lies flush all round',
  even: 'stands off evenly all round',
  tilt: 'is tilted: it stands off on one side',
  bend: 'is bent',
  'high-spot': 'stands off at one place',
} as const;

/** *Display stands off at one place: 0.4 mm at the right edge. Below it: upper right clip of Display, Touch flex.* */
export function rimWords(map: DeviceMap, id: string, fit: RimFit): string {
  const part = partById(map, id)!;
  const where = placeWords(map, fit.at, part.face);
  const below = belowRim(map, id, fit.at, part.face).map(({ kind, id: thing, point }) => {
    if (kind === 'flex') return partName(map, thing);
    if (point !== undefined) return pointName(map, thing, point);
    return `${kind} of ${kind === 'hook' ? thingName(map, thing) : heldName(map, thing)}`;
  });
  const look = below.length > 0 ? ` Below it: ${below.join(', ')}.` : '';
  const most = Math.abs(fit.most_mm).toFixed(2);
  return `${part.name} ${SHAPES[fit.kind]}, ${most} mm ${fit.most_mm < 0 ? 'too deep' : 'proud'} at the ${where}.${look}`;
}
