import type { BenchEvent } from '@nibrel/core/job/events';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { strToU8, Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import Papa from 'papaparse';
import type { StoredEvent } from '../store/event-rows.ts';

interface ZipFile {
  readonly name: string;
  read(): Promise<Uint8Array> | Uint8Array;
  /** pictures are packed already */
  readonly packed?: boolean;
}

/** A job whole, in open formats: `job.json`, `events.csv`, `device-map.json`, and its photographs in `photos/`. */
export function jobFiles(job: object, events: readonly BenchEvent[], map: DeviceMap): ZipFile[] {
  const rows = events.map(({ id, type, at, by, data, receivedAt = '' }) => ({
    id,
    type,
    at,
    by,
    data: JSON.stringify(data),
    receivedAt,
  }));
  const csv = Papa.unparse(
    { fields: ['id', 'type', 'at', 'by', 'data', 'receivedAt'], data: rows },
    // a cell that begins like a formula is not to be run by a spreadsheet
    { escapeFormulae: true, newline: '\n' },
  );
  const pretty = (value: unknown) => strToU8(JSON.stringify(value, null, 2));
  return [
    { name: 'job.json', read: () => pretty({ job, events }) },
    { name: 'events.csv', read: () => strToU8(csv) },
    { name: 'device-map.json', read: () => pretty(map) },
  ];
}

/** A job that can't be read, as it lies in the database: its rows, and what it was taken in as. */
export function rawJobFiles(job: object, pages: Iterable<readonly StoredEvent[]>): ZipFile[] {
  const all = [...pages].flat();
  const rows = () => all;
  const csv = () =>
    Papa.unparse(
      { fields: ['seq', 'id', 'type', 'at', 'by', 'data', 'receivedAt', 'sum'], data: rows() },
      { escapeFormulae: true, newline: '\n' },
    );
  return [
    { name: 'job.json', read: () => strToU8(JSON.stringify({ job, rows: rows() }, null, 2)) },
    { name: 'events-raw.csv', read: () => strToU8(csv()) },
  ];
}

/** Files as one zip, read one after the other as they are taken: hundreds of photographs are never in memory at once. */
export function zipStream(files: readonly ZipFile[]): ReadableStream<Uint8Array> {
  const waiting: Uint8Array[] = [];
  let failed: Error | null = null;
  const zip = new Zip((error, chunk) => {
    if (error) failed = error;
    else waiting.push(chunk);
  });
  let next = 0;
  let ended = false;
  return new ReadableStream({
    async pull(controller) {
      while (waiting.length === 0 && !ended) {
        const file = files[next++];
        if (file) {
          const entry = file.packed ? new ZipPassThrough(file.name) : new ZipDeflate(file.name);
          zip.add(entry);
          entry.push(await file.read(), true);
        } else {
          zip.end();
          ended = true;
        }
        if (failed) throw failed;
      }
      for (const chunk of waiting.splice(0)) controller.enqueue(chunk);
      if (ended) controller.close();
    },
  });
}
