import { createHash } from 'node:crypto';
import {
  createWriteStream,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import Database from 'better-sqlite3';
import { beforeAll, describe, expect, it } from 'vitest';
import { ZipFile } from 'yazl';
import { backUp } from '../src/backup/backup.ts';
import type { Manifest } from '../src/backup/manifest.ts';
import { restore } from '../src/backup/restore.ts';
import { createApp } from '../src/app.ts';
import { schemaAfter, schemaOf } from '../src/store/expected-schema.ts';
import { openDatabase } from '../src/store/database.ts';
import { readJson, TestServer } from './harness.ts';

const folder = () => mkdtempSync(join(tmpdir(), 'nibrel-backup-'));
const now = new Date('2026-11-28T08:00:00Z');
const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
/** A picture of one pixel, as small as a PNG gets. */
const pixel = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

/** A folder with a map, a repair, an event and a photograph. */
let data = '';
let photo = '';
beforeAll(async () => {
  const api = new TestServer();
  await api.start();
  data = api.folder;
  await api.call('POST', '/device-maps', readJson('docs/examples/sample.json'));
  const job = (await api.call('POST', '/jobs', { map: 'sample', targets: [] })).body['id'] as string;
  photo = (await api.call('POST', `/jobs/${job}/photos`, pixel, { 'content-type': 'image/png' })).body[
    'hash'
  ] as string;
  await api.stop();
});

/** The database of that folder as one file, changed by whoever means harm. */
function database(change: (db: Database.Database) => void = () => undefined): Buffer {
  const file = join(folder(), 'copy.sqlite');
  writeFileSync(file, readFileSync(join(data, 'nibrel.sqlite')));
  const db = new Database(file);
  db.pragma('journal_mode = DELETE');
  change(db);
  db.close();
  return readFileSync(file);
}

interface Packed {
  readonly files?: Readonly<Record<string, Buffer>>;
  readonly promised?: Readonly<Record<string, Buffer>>;
  readonly manifest?: object;
}

const picture = () => `photos/${photo.slice(0, 2)}/${photo}`;

/** A backup made by hand: its files, and what its manifest says of them. */
async function packed({ files, promised, manifest = {} }: Packed): Promise<string> {
  const held = files ?? { 'nibrel.sqlite': database(), [picture()]: pixel };
  const said: Manifest = {
    format: 'nibrel.backup',
    version: 1,
    at: now.toISOString(),
    files: Object.entries(promised ?? held).map(([name, bytes]) => ({
      name,
      bytes: bytes.length,
      sha256: sha256(bytes),
    })),
    ...manifest,
  };
  const zip = new ZipFile();
  zip.addBuffer(Buffer.from(JSON.stringify(said)), 'manifest.json');
  for (const [name, bytes] of Object.entries(held)) zip.addBuffer(bytes, name);
  zip.end();
  const file = join(folder(), 'made.zip');
  await pipeline(zip.outputStream, createWriteStream(file));
  return file;
}

const into = () => join(folder(), 'shop');
const refused = async (file: string) => {
  const target = into();
  const said = await restore(file, target).then(
    () => 'taken',
    (error: Error) => error.message,
  );
  expect(existsSync(target)).toBe(said === 'taken');
  return said;
};

describe('a backup', () => {
  it('is whole, and its folder is for its owner alone', async () => {
    const file = join(folder(), 'evening.zip');
    const { counts } = await backUp(data, file, now);
    expect(counts).toMatchObject({ device_maps: 1, jobs: 1, photos: 1, events: 0 });
    const target = into();
    await restore(file, target);
    expect(statSync(join(target, 'nibrel.sqlite')).mode & 0o077).toBe(0);
    expect(statSync(target).mode & 0o077).toBe(0);
    expect(sha256(readFileSync(join(target, picture())))).toBe(photo);
    const db = openDatabase(target);
    expect(db.$client.prepare('SELECT count(*) FROM jobs').pluck().get()).toBe(1);
    db.$client.close();
  });

  it('of a damaged database is none: nothing is written', async () => {
    const damaged = folder();
    const bytes = database((db) => db.exec('CREATE TABLE filler (x); CREATE INDEX filler_by_x ON filler (x)'));
    // a page of zeros in the middle
    bytes.fill(0, 4096 * 3, 4096 * 4);
    writeFileSync(join(damaged, 'nibrel.sqlite'), bytes);
    const file = join(folder(), 'x.zip');
    await expect(backUp(damaged, file, now)).rejects.toThrow(/damaged|malformed/);
    expect(existsSync(file)).toBe(false);
    expect(readdirSync(join(file, '..'))).toEqual([]);
  });
});

describe('what is put back', () => {
  const withTrigger = (name: string): Packed => {
    const deletes = `CREATE TRIGGER ${name} AFTER INSERT ON events BEGIN DELETE FROM events; END`;
    return { files: { 'nibrel.sqlite': database((db) => db.exec(deletes)), [picture()]: pixel } };
  };

  it('is a whole backup of Nibrel made by hand as well', async () => {
    expect(await refused(await packed({}))).toBe('taken');
  });

  it.each<[string, () => Packed, RegExp]>([
    [
      'an empty file as its database',
      () => ({ files: { 'nibrel.sqlite': Buffer.alloc(0), [picture()]: pixel } }),
      /none of this Nibrel/,
    ],
    [
      'the database of another program',
      () => {
        const file = join(folder(), 'other.sqlite');
        const db = new Database(file);
        db.exec('CREATE TABLE songs (title); INSERT INTO songs VALUES (1)');
        db.close();
        return { files: { 'nibrel.sqlite': readFileSync(file) } };
      },
      /none of this Nibrel/,
    ],
    ['a trigger that deletes', () => withTrigger('quiet'), /trigger “quiet”/],
    [
      'a trigger that is called like what is derived',
      () => withTrigger('job_lines_quiet'),
      /trigger “job_lines_quiet”/,
    ],
    [
      'many files that would unfold together',
      () => {
        const empty = Array.from({ length: 12 }, (_, n) => Buffer.alloc(9_000_000, n));
        const named = empty.map((each) => [`photos/${sha256(each).slice(0, 2)}/${sha256(each)}`, each] as const);
        return { files: { 'nibrel.sqlite': database(), [picture()]: pixel, ...Object.fromEntries(named) } };
      },
      /would unfold to more than 200 times its size/,
    ],
    [
      'a view beside the tables',
      () => ({
        files: { 'nibrel.sqlite': database((db) => db.exec('CREATE VIEW v AS SELECT 1')), [picture()]: pixel },
      }),
      /view “v”/,
    ],
    [
      'a column that is missing',
      () => ({
        files: { 'nibrel.sqlite': database((db) => db.exec('ALTER TABLE events DROP COLUMN sum')), [picture()]: pixel },
      }),
      /table “events”/,
    ],
    ['fewer rows than it promises', () => ({ manifest: { counts: { jobs: 2 } } }), /promises 2 rows of jobs and has 1/],
    [
      'a photograph that is missing',
      () => ({ files: { 'nibrel.sqlite': database() } }),
      /photograph [0-9a-f]+ is missing/,
    ],
    [
      'a photograph that nobody knows',
      () => {
        const bytes = Buffer.from('strange');
        const name = `photos/${sha256(bytes).slice(0, 2)}/${sha256(bytes)}`;
        return { files: { 'nibrel.sqlite': database(), [picture()]: pixel, [name]: bytes } };
      },
      /not known to the database/,
    ],
    [
      'a photograph that is another',
      () => ({
        files: { 'nibrel.sqlite': database(), [picture()]: Buffer.from('not it') },
        promised: { 'nibrel.sqlite': database(), [picture()]: Buffer.from('not me') },
      }),
      /is damaged in this backup/,
    ],
    [
      'a name that leads elsewhere',
      () => ({ files: { 'nibrel.sqlite': database(), 'photos/x': pixel }, promised: { 'nibrel.sqlite': database() } }),
      /holds “photos\/x”/,
    ],
    [
      'more bytes than its manifest promises',
      () => ({
        files: { 'nibrel.sqlite': Buffer.alloc(50_000) },
        promised: { 'nibrel.sqlite': Buffer.alloc(40_000) },
      }),
      /another length/,
    ],
    [
      'a bomb',
      () => ({ files: { 'nibrel.sqlite': Buffer.alloc(64_000_000) } }),
      /would unfold “nibrel.sqlite” to more than 200 times/,
    ],
    [
      'no manifest that is one',
      () => ({ manifest: { files: [{ name: '../x', bytes: 1, sha256: 'a' }] } }),
      /no backup of Nibrel/,
    ],
    ['a later format', () => ({ manifest: { version: 2 } }), /no backup of Nibrel/],
  ])('is refused by name where it has %s', async (_, made, said) => {
    expect(await refused(await packed(made()))).toMatch(said);
  });
});

describe('the database', () => {
  it('of the first schema is brought to this one, with all that it held', async () => {
    const old = folder();
    const client = new Database(join(old, 'nibrel.sqlite'));
    for (const statement of readFileSync(new URL('../drizzle/0000_start.sql', import.meta.url), 'utf8').split(
      '--> statement-breakpoint',
    )) {
      client.exec(statement);
    }
    client.exec('CREATE TABLE "__drizzle_migrations" (id SERIAL PRIMARY KEY, hash text NOT NULL, created_at numeric)');
    client.prepare('INSERT INTO __drizzle_migrations (hash, created_at) VALUES (?, ?)').run('first', 1795568220167);
    const map = readJson<{ id: string; name: string; kind: string }>('docs/examples/sample.json');
    client
      .prepare('INSERT INTO device_maps (id, revision, name, kind, body, created_at) VALUES (?, 1, ?, ?, ?, ?)')
      .run(map.id, map.name, map.kind, JSON.stringify(map), now.toISOString());
    client
      .prepare(
        "INSERT INTO jobs (id, map, revision, targets, policy, title, created_at) VALUES ('j', ?, 1, '[]', '{}', 'Old', ?)",
      )
      .run(map.id, now.toISOString());
    client
      .prepare(
        `INSERT INTO events (job, id, type, at, "by", data, received_at) VALUES ('j', 'e', 'note', ?, 'Ines', '{"text":"kept"}', ?)`,
      )
      .run(now.toISOString(), now.toISOString());
    client.close();
    const db = openDatabase(old);
    expect(schemaOf(db.$client, 4)).toEqual(schemaAfter(4));
    const nibrel = createApp({ db, photoFolder: join(old, 'photos') });
    await nibrel.jobs.readAgain();
    const job = nibrel.jobs.find('j')!;
    expect((await nibrel.jobs.live(job)).going.state.events).toMatchObject([{ data: { text: 'kept' } }]);
    expect(JSON.parse(nibrel.jobs.line(job))).toMatchObject({ title: 'Old', status: 'under-way' });
    await nibrel.close();
  });
});
