import { type DeviceMap, partById } from '../../model/device-map/index.ts';
import { type Problem, wrong } from '../../model/refusal/index.ts';

/** What of a new revision would judge a device otherwise than the repairs under way do, which keep the one they began with. */
export function changedUnderWay(before: DeviceMap, after: DeviceMap): Problem[] {
  const thickness = (map: DeviceMap, id: string) => {
    const part = partById(map, id);
    return part && part.z.bottom - part.z.top;
  };
  const whole =
    before.outline.thickness === after.outline.thickness
      ? []
      : [found('outline.thickness', 'the device', before.outline.thickness, after.outline.thickness)];
  const parts = after.parts.flatMap(({ id, hazards }, index) => {
    if (!hazards?.includes('lithium') && after.battery?.part !== id) return [];
    const [was, is] = [thickness(before, id), thickness(after, id)!];
    return was === undefined || was === is ? [] : [found(`parts[${index}].z`, `"${id}"`, was, is)];
  });
  return [...whole, ...parts];
}

function found(path: string, what: string, was: number, is: number): Problem {
  const message = `The thickness of ${what} was ${was} mm and is ${is} mm now, while repairs of this device are under way: they go on judging swelling by ${was} mm.`;
  return wrong(path, message, 'Measure one that is new.');
}
