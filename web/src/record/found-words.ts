import type { BenchEvent } from '@nibrel/core/job/events';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { partName, thingName } from '@nibrel/core/planner/words';

const CLOSED = { reuse: 'the old one is kept', renew: 'renewed', glue: 'glued' } as const;

/** What was found other than mapped, looked at and decided on sight, as a line of the record; null for anything else. */
export function foundLine(map: DeviceMap, event: BenchEvent): string | null {
  switch (event.type) {
    case 'not-mapped': {
      const { what, part, name, text } = event.data;
      const said = { missing: 'is not there', different: 'is not as mapped', extra: 'is there, and not in the map' }[
        what
      ];
      return `${what === 'extra' ? name : partName(map, part!)} ${said}${noted(text)}`;
    }
    case 'inspected':
      return `${partName(map, event.data.part)} looked at closely: ${event.data.result}${noted(event.data.text)}`;
    case 'closing':
      return `${thingName(map, event.data.joint)}: ${CLOSED[event.data.way]}${noted(event.data.text)}`;
    default:
      return null;
  }
}

function noted(text: string): string {
  return text ? `: ${text}` : '';
}
