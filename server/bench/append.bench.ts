import { randomUUID } from 'node:crypto';
import { closeSync, fsyncSync, mkdtempSync, openSync, readFileSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { NEW_SHOP } from '@nibrel/core/workshop/shop';
import { openDatabase } from '../src/store/database.ts';
import { DeviceMaps } from '../src/store/device-maps.ts';
import { Jobs } from '../src/store/jobs.ts';
import { Photos } from '../src/store/photos.ts';

const RUNS = 800;
/** the first runs warm both up and are not counted */
const WARM_UP = 200;
const folder = mkdtempSync(join(tmpdir(), 'nibrel-bench-'));
const map = JSON.parse(readFileSync(new URL('../../docs/examples/sample.json', import.meta.url), 'utf8')) as DeviceMap;

const db = openDatabase(folder);
const maps = new DeviceMaps(db);
const jobs = new Jobs(db, maps, new Photos(db, join(folder, 'photos')), { shop: () => NEW_SHOP, hasStandIns: false });
const at = new Date().toISOString();
const job = {
  id: randomUUID(),
  map: map.id,
  revision: maps.add({ ...map, body: JSON.stringify(map) }, at, null),
  targets: [],
  policy: {},
  title: 'bench',
  createdAt: at,
};
await jobs.add(job);

function percentile(values: number[], share: number): number {
  return values.slice(WARM_UP).toSorted((a, b) => a - b)[Math.floor((values.length - WARM_UP) * share)]!;
}

const line = JSON.stringify({ id: randomUUID(), type: 'note', at, by: 'x', data: { text: 'bench' } });
const file = openSync(join(folder, 'bare.log'), 'a');
const bare: number[] = [];
const own: number[] = [];
// turn and turn about, so that both meet the same disk
for (let run = 0; run < RUNS; run++) {
  let start = performance.now();
  writeSync(file, `${line}\n`);
  fsyncSync(file);
  bare.push(performance.now() - start);
  const event = { id: randomUUID(), type: 'note', at, by: 'x', data: { text: 'bench' } };
  start = performance.now();
  const { accepted } = await jobs.append(job, [event], at);
  own.push(performance.now() - start);
  if (accepted.length !== 1) throw new Error('not taken');
}
closeSync(file);
const round = (value: number) => Number(value.toPrecision(3));
console.log(
  JSON.stringify({
    wanted_ratio: 3,
    ratio: round(percentile(own, 0.99) / percentile(bare, 0.99)),
    own_p99_ms: round(percentile(own, 0.99)),
    own_median_ms: round(percentile(own, 0.5)),
    bare_p99_ms: round(percentile(bare, 0.99)),
    bare_median_ms: round(percentile(bare, 0.5)),
  }),
);
