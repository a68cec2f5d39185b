import type { BenchEvent } from '@nibrel/core/bench';
import type { DeviceMap } from '@nibrel/core/device-map';
import { strToU8, zipSync } from 'fflate';
import Papa from 'papaparse';

/** A job whole, in open formats: `job.json`, `events.csv`, `device-map.json`. Photographs join them once there are any. */
export function jobZip(job: object, events: readonly BenchEvent[], map: DeviceMap): Uint8Array<ArrayBuffer> {
  const rows = events.map(({ id, type, at, by, data }) => ({ id, type, at, by, data: JSON.stringify(data) }));
  const csv = Papa.unparse(
    { fields: ['id', 'type', 'at', 'by', 'data'], data: rows },
    // a cell that begins like a formula is not to be run by a spreadsheet
    { escapeFormulae: true, newline: '\n' },
  );
  const pretty = (value: unknown) => strToU8(JSON.stringify(value, null, 2));
  return zipSync({
    'job.json': pretty({ job, events }),
    'events.csv': strToU8(csv),
    'device-map.json': pretty(map),
  }) as Uint8Array<ArrayBuffer>;
}
