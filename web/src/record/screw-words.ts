import type { BenchEvent } from '@nibrel/core/job/events';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { torqueAt } from '../app/units.ts';
import { plural, thingName } from '@nibrel/core/planner/words';

/** What was told of loose screws, as a line of the record; null for anything else. */
export function screwLine(map: DeviceMap, event: BenchEvent): string | null {
  switch (event.type) {
    case 'screw-measured': {
      const { joint, point, length_mm, simulated } = event.data;
      return `Screw ${point} of ${thingName(map, joint)} measured: ${length_mm} mm${simulated ? ' (simulated)' : ''}`;
    }
    case 'tightened': {
      const { joint, point, peak_Ncm, slipped, simulated } = event.data;
      return `Screw ${point} of ${thingName(map, joint)} ${slipped ? 'slips at' : 'tightened to'} ${torqueAt(peak_Ncm)}${simulated ? ' (simulated)' : ''}`;
    }
    case 'spill': {
      const { loose, placed, text } = event.data;
      const strangers = loose.length - placed.length;
      return `Screws spilled: ${plural(loose.length, 'screw')} picked up, ${placed.length} back at their places${strangers > 0 ? `, ${plural(strangers, 'stranger')}` : ''}${text ? `: ${text}` : ''}`;
    }
    default:
      return null;
  }
}
