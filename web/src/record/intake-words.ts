import type { BenchEvent } from '@nibrel/core/job/events';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { benchItemName } from '@nibrel/core/workshop/prepare';
import { batteryWords, partName, thingName, capital, plural } from '@nibrel/core/planner/words';

export function percent(share: number): string {
  return `${Math.round(share * 100)} %`;
}

/** What was said, seen, measured and agreed before opening, as a line of the record. */
export function intakeLine(map: DeviceMap, event: BenchEvent): string {
  switch (event.type) {
    case 'words':
      return `The owner: ${event.data.text}`;
    case 'damage': {
      const { kind, face, part, text } = event.data;
      return `Marked: ${kind}, ${part ? partName(map, part) : face}${text ? `: ${text}` : ''}`;
    }
    case 'photo':
      return `Photograph${event.data.text ? `: ${event.data.text}` : ''}`;
    case 'retract':
      return 'A mark or photograph taken back';
    case 'measure': {
      const { part, thickness_mm } = event.data;
      return `Measured: ${part ? partName(map, part) : 'the device'}, ${thickness_mm} mm thick`;
    }
    case 'wet':
      return `Liquid damage, indicator ${event.data.indicator.replace('-', ' ')}${event.data.text ? `: ${event.data.text}` : ''}`;
    case 'charge': {
      const { charge, source, simulated } = event.data;
      return `Charge ${percent(charge)}, ${source === 'meter' ? `by the meter${simulated ? ' (simulated)' : ''}` : 'read and typed in'}`;
    }
    case 'told':
      return `${capital(event.data.who)} was told ${plural(event.data.items.length, 'thing')} and agreed, ${event.data.how.replace('-', ' ')}`;
    case 'prepared': {
      const { items, skipped } = event.data;
      const left = skipped.map((each) => `${benchItemName(each.item)} (${each.reason})`).join(', ');
      return `Bench prepared: ${items.map(benchItemName).join(', ')}${left ? `; not: ${left}` : ''}`;
    }
    case 'policy':
      return `School changed: ${Object.entries(event.data.change)
        .map(([key, value]) => `${key} ${value ?? 'as mapped'}`)
        .join(', ')}`;
    case 'battery-read':
      return `Battery report of the ${event.data.of} one: ${batteryWords(event.data)}`;
    case 'transplant-allowed':
      return `An iron or welder at a cell allowed by ${event.data.lead}, charge ${percent(event.data.charge)}; confirmed: ${event.data.confirmed.join(', ')}. ${event.data.text}`;
    case 'transplant-done':
      return `Cell replaced inside the pack: ${event.data.old_V} V before, ${event.data.cells_V.join(', ')} V after; checked: ${event.data.checked.join(', ')}`;
    default:
      return event.type;
  }
}

/** What happened at the parts desk; null for anything else. */
export function deskLine(map: DeviceMap, event: BenchEvent): string | null {
  switch (event.type) {
    case 'part-arrived': {
      const { mapPart, source, arrived, window_days } = event.data;
      return `New ${thingName(map, mapPart)} arrived ${arrived} from ${source}, may go back for ${plural(window_days, 'day')}`;
    }
    case 'part-looked': {
      const { condition, includes, lacks, text } = event.data;
      const came = includes.map((id) => partName(map, id)).join(', ');
      return `New part looked at: ${condition}${came ? `, came with ${came}` : ''}${lacks.length > 0 ? `, no place for ${lacks.join(', ')}` : ''}${text ? `: ${text}` : ''}`;
    }
    case 'part-number':
      return `Number on ${event.data.place}: ${event.data.value || 'taken back'}`;
    case 'part-asked': {
      const { answer, where, number, simulated } = event.data;
      return `Register asked for ${number}: ${answer.replace('-', ' ')}, ${where}${simulated && !where.includes('simulated') ? ' (simulated)' : ''}`;
    }
    case 'part-decided':
      return `New part: ${event.data.decision.replace('-', ' ')}${event.data.text ? `: ${event.data.text}` : ''}`;
    case 'part-sent-back':
      return `New part sent back ${event.data.date}${event.data.text ? `: ${event.data.text}` : ''}`;
    default:
      return null;
  }
}
