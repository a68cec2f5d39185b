import { sourceNamed } from '@nibrel/core/model/sources';
import type { BenchEvent } from '@nibrel/core/job/events';
import { type DeviceMap, jointById, tabsOf } from '@nibrel/core/model/device-map';

import { capital, countdown, edgeName, plural, tabName, thingName } from '@nibrel/core/planner/words';
import { spaced } from '../app/format.ts';
import { temperature, temperatureGap } from '../app/units.ts';

/** What was warmed, read, cut and soaked, as a line of the record; null for anything else. */
export function openingLine(map: DeviceMap, event: BenchEvent): string | null {
  switch (event.type) {
    case 'heat-on': {
      const { joint, setting, zone, simulated } = event.data;
      const stood = simulated ? ', a stand-in (simulated)' : '';
      return `${capital(sourceNamed(setting.kind).name)} at ${temperature(setting.temp_C)} on ${thingName(map, joint)}${zone === undefined ? '' : `, ${zone}`}${stood}`;
    }
    case 'heat-reading': {
      const { readings, simulated } = event.data;
      const last = readings.at(-1)!;
      return `Thermometer: ${plural(readings.length, 'reading')}, last ${temperature(last.temp_C, 1)} after ${countdown(last.at_s)}${simulated ? ' (simulated)' : ''}`;
    }
    case 'heat-off': {
      const { joint, seconds, bond_C, setting, residual_C } = event.data;
      const reached = bond_C === undefined ? '' : `, bond at about ${temperature(bond_C)}`;
      const learned =
        setting && residual_C !== undefined
          ? `; measured ${Math.round(setting.transfer.likely)} W/m²K, ${temperatureGap(residual_C)} left over`
          : '';
      return `Source off ${thingName(map, joint)} after ${countdown(seconds)}${reached}${learned}`;
    }
    case 'edge':
      return pulledOrCut(map, event.data.joint, event.data.segment);
    case 'placeholder': {
      const { count, material } = event.data;
      return count === 0 ? 'Picks out of the gap' : `${capital(material)} pick left in the gap`;
    }
    case 'solvent':
      return `Solvent on ${thingName(map, event.data.joint)}, ${plural(event.data.drops, 'drop')}, source off and away`;
    case 'aired':
      return event.data.seconds === undefined ? 'Bench aired' : `Bench aired for ${countdown(event.data.seconds)}`;
    default:
      return null;
  }
}

function pulledOrCut(map: DeviceMap, id: string, segment: string): string {
  const joint = jointById(map, id);
  if (joint?.type === 'bond' && tabsOf(joint).length > 0) {
    return `${capital(tabName(joint, segment))} of ${thingName(map, id)} out`;
  }
  return `Cut: ${joint?.type === 'bond' ? edgeName(joint, segment) : spaced(segment)} of ${thingName(map, id)}`;
}
