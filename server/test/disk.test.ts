import { createHash, randomUUID } from 'node:crypto';
import {
  closeSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readdirSync,
  readFileSync,
  truncateSync,
  writeFileSync,
  writeSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { describe, expect, it } from 'vitest';
import { sentenceFor } from '../src/disk/disk-problem.ts';
import { readJson, spawning, TestServer } from './harness.ts';
import { Spawned } from './spawned.ts';

const folder = () => mkdtempSync(join(tmpdir(), 'nibrel-disk-'));
/** How a start ends that can't be: with an exit code and one sentence, no stack. */
const refusal = async (env: Record<string, string>) => {
  const server = new Spawned('main', [], env);
  const code = await server.ended;
  expect(server.err.trim().split('\n')).toHaveLength(1);
  expect(server.err).not.toMatch(/\bat .*:\d+:\d+/);
  return { code, said: server.err.trim() };
};

spawning('a start that can not be', () => {
  it('says in a sentence what is wrong with the data, what is safe, and what to do', async () => {
    const damaged = folder();
    writeFileSync(
      join(damaged, 'nibrel.sqlite'),
      'this is no database, but it is long enough to be looked at'.repeat(90),
    );
    expect(await refusal({ NIBREL_DATA: damaged })).toEqual({
      code: 1,
      said: expect.stringContaining('was left as it is'),
    });
    const newer = new TestServer();
    await newer.start();
    await newer.stop();
    const db = new Database(join(newer.folder, 'nibrel.sqlite'));
    db.exec("INSERT INTO __drizzle_migrations (hash, created_at) VALUES ('of tomorrow', 9999999999999)");
    db.close();
    expect(await refusal({ NIBREL_DATA: newer.folder })).toEqual({
      code: 1,
      said: expect.stringContaining('newer Nibrel'),
    });
    const file = join(folder(), 'file');
    writeFileSync(file, '');
    expect(await refusal({ NIBREL_DATA: file })).toEqual({ code: 1, said: expect.stringContaining('There is a file') });
    expect(await refusal({ NIBREL_DATA: '/proc/nowhere' })).toEqual({
      code: 1,
      said: expect.stringContaining('NIBREL_DATA'),
    });
  });

  it('says so of a port that is wrong or taken, and of an address that is not here', async () => {
    expect((await refusal({ NIBREL_DATA: folder(), NIBREL_PORT: '70000' })).said).toContain('0 to 65535');
    expect((await refusal({ NIBREL_DATA: folder(), NIBREL_PORT: '' })).said).toContain('port number');
    const taken = createServer().listen(0, '127.0.0.1');
    await new Promise((resolve) => taken.once('listening', resolve));
    const { port } = taken.address() as { port: number };
    expect((await refusal({ NIBREL_DATA: folder(), NIBREL_PORT: String(port) })).said).toContain('is taken');
    taken.close();
  });

  it('knows what errors of disks mean, whatever their extended code', () => {
    for (const [code, said] of [
      ['SQLITE_FULL', 'full'],
      ['ENOSPC', 'full'],
      ['SQLITE_READONLY_DBMOVED', 'Nothing can be written'],
      ['EROFS', 'Nothing can be written'],
      ['SQLITE_BUSY_SNAPSHOT', 'Another program'],
      ['SQLITE_IOERR_WRITE', 'does not answer'],
      ['SQLITE_CORRUPT_VTAB', 'damaged'],
    ]) {
      expect(sentenceFor({ code })).toContain(said!);
    }
    expect(sentenceFor(new Error('else'))).toBeNull();
  });
});

spawning('one server for one folder', () => {
  it('the second says that another holds it; a kill lets go', async () => {
    const data = folder();
    const first = new Spawned('main', [], { NIBREL_DATA: data });
    await first.ready();
    expect(await refusal({ NIBREL_DATA: data })).toEqual({
      code: 1,
      said: expect.stringContaining('Another Nibrel server holds'),
    });
    await first.kill('SIGKILL');
    const next = new Spawned('main', [], { NIBREL_DATA: data });
    expect(await next.ready()).toContain('http://127.0.0.1:');
    await next.kill('SIGTERM');
  });
});

describe('a disk that fills', () => {
  it('refuses in a sentence, keeps what it has, and goes on when there is room', async () => {
    const api = new TestServer();
    await api.start();
    await api.call('POST', '/device-maps', readJson('docs/examples/sample.json'));
    const job = (await api.call('POST', '/jobs', { map: 'sample', targets: [] })).body['id'] as string;
    const note = () => ({
      id: randomUUID(),
      type: 'note',
      at: new Date().toISOString(),
      by: 'Ines',
      data: { text: 'x'.repeat(3000) },
    });
    const send = (...events: object[]) => api.call('POST', `/jobs/${job}/events`, { events });
    const [kept, late] = [note(), note()];
    await send(kept);
    // SQLite says of a database that may not grow what it says of a disk that is full
    const db = api.db.$client;
    const pages = db.pragma('page_count', { simple: true }) as number;
    db.pragma(`max_page_count = ${pages}`);
    const full = await send(late, ...Array.from({ length: 20 }, note));
    expect([full.status, full.body['detail']]).toEqual([503, expect.stringContaining('is full')]);
    expect(full.headers.get('retry-after')).toBe('10');
    db.pragma('max_page_count = 1000000');
    const { body } = await api.call('GET', `/jobs/${job}/events`);
    expect(body['events'].map(({ id }: { id: string }) => id)).toEqual([kept.id]);
    expect((await send(late)).body).toMatchObject({ accepted: [late.id], revision: 2 });
    await api.stop();
  });
});

/** A picture of one pixel, as small as a PNG gets. */
const pixel = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

describe('photographs on the disk', () => {
  it('are what their name says: a half file is swept, a damaged one is written again', async () => {
    const api = new TestServer();
    await api.start();
    await api.call('POST', '/device-maps', readJson('docs/examples/sample.json'));
    const job = (await api.call('POST', '/jobs', { map: 'sample', targets: [] })).body['id'] as string;
    const send = () => api.call('POST', `/jobs/${job}/photos`, pixel, { 'content-type': 'image/png' });
    const { hash, bytes } = (await send()).body as { hash: string; bytes: number };
    const path = join(api.folder, 'photos', hash.slice(0, 2), hash);
    expect(createHash('sha256').update(readFileSync(path)).digest('hex')).toBe(hash);
    expect(bytes).toBe(pixel.length);
    truncateSync(path, 20);
    expect((await send()).status).toBe(201);
    expect(readFileSync(path).equals(pixel)).toBe(true);
    writeFileSync(`${path}.${randomUUID()}.part`, 'half');
    await api.stop();
    await api.start();
    expect(readdirSync(join(path, '..'))).toEqual([hash]);
    await api.stop();
  });
});

spawning('backup and restore', () => {
  const backup = async (data: string, file: string) => {
    const run = new Spawned('backup', ['backup', file], { NIBREL_DATA: data });
    return { code: await run.ended, said: (run.out + run.err).trim() };
  };
  const restored = async (file: string, data: string) => {
    const run = new Spawned('backup', ['restore', file], { NIBREL_DATA: data });
    return { code: await run.ended, said: (run.out + run.err).trim() };
  };

  it('of a server at work puts everything back into an empty folder, and into no other', async () => {
    const data = folder();
    const server = new Spawned('main', ['--demo'], { NIBREL_DATA: data });
    const url = await server.ready();
    const { jobs } = (await (await fetch(`${url}/api/v1/jobs`)).json()) as { jobs: { id: string }[] };
    const post = (path: string, body: Uint8Array | string, type: string) =>
      fetch(`${url}/api/v1${path}`, { method: 'POST', body: body as string, headers: { 'content-type': type } });
    expect((await post(`/jobs/${jobs[0]!.id}/photos`, pixel, 'image/png')).status).toBe(201);
    const file = join(folder(), 'evening.zip');
    expect(await backup(data, file)).toEqual({ code: 0, said: expect.stringContaining('3 photographs') });
    expect(await backup(data, file)).toEqual({ code: 1, said: expect.stringContaining('there already') });
    expect(await restored(file, data)).toEqual({ code: 1, said: expect.stringContaining('is not empty') });
    await server.kill();

    const empty = join(folder(), 'shop');
    mkdirSync(empty);
    expect(await restored(file, empty)).toEqual({ code: 0, said: expect.stringContaining('3 photographs again') });
    const again = new Spawned('main', [], { NIBREL_DATA: empty });
    const from = await again.ready();
    const after = (await (await fetch(`${from}/api/v1/jobs`)).json()) as { jobs: { id: string }[] };
    expect(after.jobs.map(({ id }) => id)).toEqual(jobs.map(({ id }) => id));
    await again.kill();
  }, 60_000);

  it('that was killed half way leaves no backup, and no half folder that looks like one', async () => {
    const data = folder();
    const server = new Spawned('main', ['--demo'], { NIBREL_DATA: data });
    await server.ready();
    await server.kill();
    const place = folder();
    const file = join(place, 'cut.zip');
    let whole = 0;
    for (const after of [60, 120, 180, 240, 320]) {
      const run = new Spawned('backup', ['backup', file], { NIBREL_DATA: data });
      await new Promise((resolve) => setTimeout(resolve, after));
      await run.kill();
      if (!existsSync(file)) continue;
      // what has its name is whole
      whole++;
      expect(await restored(file, join(folder(), 'x'))).toMatchObject({ code: 0 });
      break;
    }
    if (whole === 0) expect(await backup(data, file)).toMatchObject({ code: 0 });
    for (const after of [60, 120, 180, 240]) {
      const target = join(place, `into-${after}`);
      const run = new Spawned('backup', ['restore', file], { NIBREL_DATA: target });
      await new Promise((resolve) => setTimeout(resolve, after));
      await run.kill();
      // all of it or nothing
      if (existsSync(target)) expect(readdirSync(target)).toContain('nibrel.sqlite');
    }
  }, 60_000);

  it('is looked through before it is believed', async () => {
    const data = folder();
    const server = new Spawned('main', ['--demo'], { NIBREL_DATA: data });
    await server.ready();
    await server.kill();
    const file = join(folder(), 'whole.zip');
    expect(await backup(data, file)).toMatchObject({ code: 0 });
    const bytes = readFileSync(file);
    const broken = join(folder(), 'broken.zip');
    writeFileSync(broken, bytes);
    const handle = openSync(broken, 'r+');
    writeSync(handle, Buffer.alloc(200, 7), 0, 200, Math.floor(bytes.length / 2));
    closeSync(handle);
    const target = join(folder(), 'x');
    expect(await restored(broken, target)).toEqual({ code: 1, said: expect.stringContaining('Nothing was put back') });
    expect(existsSync(target)).toBe(false);
    writeFileSync(broken, 'no zip at all');
    expect((await restored(broken, target)).said).toContain('no whole backup');
  }, 60_000);
});
