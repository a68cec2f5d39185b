import type { BenchEvent } from '@nibrel/core/job/events';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { fitRim } from '@nibrel/core/fitting/rim';
import { partName, plural, rimWords } from '@nibrel/core/planner/words';

/** What was told once the device was closed, as a line of the record; null for anything else. */
export function closingLine(map: DeviceMap, event: BenchEvent): string | null {
  switch (event.type) {
    case 'flush': {
      const { part, points } = event.data;
      const fit = points.length > 0 ? fitRim({ points }) : null;
      return fit && fit.kind !== 'flush' ? rimWords(map, part, fit) : `${partName(map, part)}: flush all round`;
    }
    case 'photos-chosen':
      return `Chosen for the report: ${plural(event.data.photos.length, 'picture')}`;
    case 'handed-over': {
      const { to, early } = event.data;
      return `Handed over to ${to}${early === undefined ? '' : `, early: ${early}`}`;
    }
    default:
      return null;
  }
}
