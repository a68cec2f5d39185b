import type { BenchEvent } from '@nibrel/core/job/events';
import { type DeviceMap, jointById } from '@nibrel/core/model/device-map';
import { capital, partName, plural, thingName } from '@nibrel/core/planner/words';

/** What was told of a device that was taken apart without a map, as a line of the record; null for anything else. */
export function apartLine(map: DeviceMap, event: BenchEvent): string | null {
  switch (event.type) {
    case 'take-apart':
      return 'Taken apart without a map, from here on';
    case 'came-off': {
      const { part, to, joint, before } = event.data;
      const earlier = before === undefined ? '' : ', told late: it was before';
      if (part !== undefined) return `${capital(partName(map, part))} ${to}${earlier}`;
      const tie = jointById(map, joint);
      const count = tie?.type === 'screw' ? `, ${plural(tie.points.length, 'screw')}` : '';
      return `${capital(thingName(map, joint))}${count}: undone${earlier}`;
    }
    case 'stuck': {
      const { by } = event.data;
      return `${capital(thingOf(map, event.data))} would not move${by ? `: ${thingOf(map, by)} held it` : ''}`;
    }
    case 'what-held': {
      const held = event.data.by.map((each) => thingOf(map, each));
      return `${capital(thingOf(map, event.data))}: held by ${held.join(', ') || 'none of what was asked'}`;
    }
    case 'described': {
      const { parts = [], joints = [], screws = [] } = event.data;
      const said = [
        ...parts.map(({ id, name }) => name ?? partName(map, id)),
        ...joints.map(({ id }) => thingName(map, id)),
        ...screws.map(({ id, length }) => `screw ${id}${length === undefined ? '' : `, ${length} mm`}`),
      ];
      return `Looked at again: ${said.join('; ') || 'its outline'}`;
    }
    case 'layer':
      return `Photographed as it lies, ${event.data.face} up`;
    case 'first-seen':
      return `${capital(thingOf(map, event.data))} came into sight`;
    case 'put-together':
      return 'Nothing more comes off: put together by what was told';
    default:
      return null;
  }
}

function thingOf(
  map: DeviceMap,
  { joint, part }: { readonly joint?: string | undefined; readonly part?: string | undefined },
): string {
  return joint === undefined ? partName(map, part ?? '') : thingName(map, joint);
}
