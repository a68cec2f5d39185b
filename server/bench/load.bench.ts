import { execFile } from 'node:child_process';
import { randomBytes, randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { closeSync, fsyncSync, mkdtempSync, openSync, readFileSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { fileURLToPath } from 'node:url';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { NEW_SHOP } from '@nibrel/core/workshop/shop';
import { openDatabase } from '../src/store/database.ts';
import { DeviceMaps } from '../src/store/device-maps.ts';
import { Jobs } from '../src/store/jobs.ts';
import { Photos } from '../src/store/photos.ts';
import { Spawned } from '../test/spawned.ts';
import { note } from './note.ts';

// A workshop of some years: what its server does while three windows work and somebody means harm.
const JOBS = 2000;
const OPEN = 60;
const EVENTS = 300;
const WINDOWS = 3;
const RUN_ms = 20_000;
/** what comes first warms both sides up and is not counted */
const WARM_UP_ms = 3000;

const folder = mkdtempSync(join(tmpdir(), 'nibrel-load-'));
const map = JSON.parse(
  readFileSync(new URL('../../demo/device-maps/tern-5.json', import.meta.url), 'utf8'),
) as DeviceMap;

/** Its jobs, written straight into the tables, and their lines made from them. */
async function filled(): Promise<number> {
  const db = openDatabase(folder);
  const maps = new DeviceMaps(db);
  const start = Date.parse('2026-01-05T08:00:00Z');
  maps.add({ ...map, body: JSON.stringify(map) }, new Date(start).toISOString(), null);
  const job = db.$client.prepare(
    `INSERT INTO jobs (id, map, revision, targets, policy, title, serial, created_at) VALUES (?, ?, 1, '[{"replace":"display"}]', '{}', ?, ?, ?)`,
  );
  const event = db.$client.prepare(
    `INSERT INTO events (job, id, type, at, "by", data, received_at) VALUES (?, ?, ?, ?, 'Ines', ?, '')`,
  );
  db.$client.transaction(() => {
    for (let n = 0; n < JOBS; n++) {
      const id = randomUUID();
      const at = (step: number) => new Date(start + n * 3_600_000 + step * 5000).toISOString();
      job.run(id, map.id, `Repair ${n}`, `BF-${n % 400}`, at(0));
      for (let step = 0; step < EVENTS - 1; step++) {
        const data =
          step % 3 === 0
            ? JSON.stringify({ steps: [{ id: `count:${step}`, kind: 'procedure', name: 'count' }] })
            : JSON.stringify({ text: `what was seen at step ${step}` });
        event.run(id, randomUUID(), step % 3 === 0 ? 'did' : 'note', at(step), data);
      }
      const isOpen = n >= JOBS - OPEN;
      event.run(id, randomUUID(), isOpen ? 'note' : 'end', at(EVENTS), JSON.stringify({ text: 'for the day' }));
    }
  })();
  const jobs = new Jobs(db, maps, new Photos(db, join(folder, 'photos')), { shop: () => NEW_SHOP, hasStandIns: false });
  const began = performance.now();
  await jobs.readAgain();
  const lines_ms = performance.now() - began;
  db.$client.close();
  return lines_ms;
}

const percentile = (values: readonly number[], share: number) =>
  values.toSorted((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))]!;
const round = (value: number) => Number(value.toPrecision(3));

async function timed(act: () => Promise<unknown>): Promise<number> {
  const start = performance.now();
  await act();
  return performance.now() - start;
}

const lines_ms = await filled();
const began = performance.now();
const server = new Spawned('main', [], { NIBREL_DATA: folder });
const url = await server.ready();
const start_ms = performance.now() - began;
const api = `${url}/api/v1`;
const get = async (path: string) => (await (await fetch(api + path)).json()) as Record<string, unknown>;
const post = async (path: string, body: unknown) => {
  const headers = { 'content-type': 'application/json' };
  const answer = await fetch(api + path, { method: 'POST', headers, body: JSON.stringify(body) });
  return (await answer.json()) as Record<string, unknown>;
};

const firstView_ms = await timed(async () => {
  await (await fetch(url)).text();
  await Promise.all(['/session', '/jobs?open=true', '/jobs?finished=true&limit=6', '/shop', '/parts'].map(get));
});
const open: number[] = [];
for (let n = 0; n < 60; n++) open.push(await timed(() => get('/jobs?open=true')));
const whole_ms = await timed(() => get('/jobs'));

// three windows at work, a hostile client, and somebody who only asks whether the server is there
const { jobs } = (await get('/jobs?open=true')) as unknown as { jobs: { id: string }[] };
const from = performance.now() + WARM_UP_ms;
const until = from + RUN_ms;
const counted = (list: number[], ms: number) => performance.now() > from && list.push(ms);
const appends: number[] = [];
const health: number[] = [];
const bare: number[] = [];

async function window(id: string): Promise<void> {
  await get(`/jobs/${id}/events`);
  while (performance.now() < until) {
    counted(appends, await timed(() => post(`/jobs/${id}/events`, { events: [note()] })));
    await get(`/jobs/${id}`);
    await new Promise((resolve) => setTimeout(resolve, 60));
  }
}
async function asking(): Promise<void> {
  while (performance.now() < until) {
    counted(health, await timed(() => get('/health')));
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
}
/** A synced append of the same length, in a process that does nothing else, on the same disk meanwhile. */
async function syncing(): Promise<void> {
  const file = openSync(join(folder, 'bare.log'), 'a');
  const line = `${JSON.stringify(note())}\n`;
  while (performance.now() < until) {
    const began = performance.now();
    writeSync(file, line);
    fsyncSync(file);
    counted(bare, performance.now() - began);
    await new Promise((resolve) => setTimeout(resolve, 60));
  }
  closeSync(file);
}
/** Header of 4000 by 3000, then four megabytes of coded noise (ISO/IEC 10918-1); made before anything is timed. */
const photograph = Buffer.concat([
  Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 16, ...Buffer.from('JFIF\0'), 1, 1, 0, 0, 1, 0, 1, 0, 0]),
  Buffer.from([0xff, 0xc0, 0, 17, 8, 0x0b, 0xb8, 0x0f, 0xa0, 3, 1, 17, 0, 2, 17, 1, 3, 17, 1]),
  Buffer.from([0xff, 0xda, 0, 8, 1, 1, 0, 0, 63, 0]),
  randomBytes(4_000_000).map((each) => (each === 0xff ? 0xfe : each)),
  Buffer.from([0xff, 0xd9]),
]);
/** Another one each time: its last bytes of noise count. */
function nextPhotograph(count: number): Uint8Array<ArrayBuffer> {
  const next = new Uint8Array(photograph);
  next.set([count % 250, Math.floor(count / 250)], next.length - 4);
  return next;
}
const hostile = fileURLToPath(new URL('hostile.ts', import.meta.url));
let attacked = '';
async function attack(): Promise<void> {
  // its process starts while the others warm up
  const child = execFile('npx', ['tsx', hostile, api, jobs[10]!.id, String((WARM_UP_ms + RUN_ms) / 1000)]);
  child.stdout!.on('data', (text: string) => (attacked += text));
  await once(child, 'close');
}
const photographs: number[] = [];
/** A photograph of twelve megapixels, as a camera makes it: so many bytes, another one each time. */
async function photographing(id: string): Promise<void> {
  for (let count = 0; performance.now() < until; count++) {
    const body = nextPhotograph(count);
    const headers = { 'content-type': 'image/jpeg' };
    const ms = await timed(async () => {
      const answer = await fetch(`${api}/jobs/${id}/photos`, { method: 'POST', headers, body });
      if (answer.status !== 201) throw new Error(`A photograph was answered with ${answer.status}.`);
    });
    counted(photographs, ms);
    await new Promise((resolve) => setTimeout(resolve, 1500));
  }
}
await Promise.all([
  ...jobs.slice(0, WINDOWS).map(({ id }) => window(id)),
  photographing(jobs[WINDOWS]!.id),
  asking(),
  syncing(),
  attack(),
]);
await server.kill();

console.log(
  JSON.stringify({
    jobs: JOBS,
    events: JOBS * EVENTS,
    linesMadeAgain_ms: round(lines_ms),
    start: { wanted_ms: 3000, ms: round(start_ms) },
    firstView: { wanted_ms: 1000, ms: round(firstView_ms) },
    listOpen: { wanted_ms: 20, median_ms: round(percentile(open, 0.5)), p99_ms: round(percentile(open, 0.99)) },
    listWhole_ms: round(whole_ms),
    attacked: JSON.parse(attacked) as object,
    health: {
      wanted_p99_ms: 50,
      worst_ms: round(Math.max(...health)),
      p99_ms: round(percentile(health, 0.99)),
      asked: health.length,
    },
    append: {
      wanted_ratio: 3,
      ratio: round(percentile(appends, 0.99) / percentile(bare, 0.99)),
      wanted_worst_ms: 500,
      worst_ms: round(Math.max(...appends)),
      p99_ms: round(percentile(appends, 0.99)),
      median_ms: round(percentile(appends, 0.5)),
      bare_p99_ms: round(percentile(bare, 0.99)),
      bare_median_ms: round(percentile(bare, 0.5)),
    },
    photograph: { wanted_ms: 2000, worst_ms: round(Math.max(...photographs)), kept: photographs.length },
  }),
);
