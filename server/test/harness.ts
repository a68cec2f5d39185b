import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { serve } from '@hono/node-server';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { DEFAULT_LIMITS } from '@nibrel/core/model/limits';
import { DEFAULT_POLICY } from '@nibrel/core/model/policy';
import { benchItems, tellAnyhow } from '@nibrel/core/workshop/prepare';
import { describe } from 'vitest';
import { type AppOptions, createApp, type NibrelApp } from '../src/app.ts';
import { type Db, openDatabase } from '../src/store/database.ts';

export interface Answer {
  status: number;
  type: string | null;
  headers: Headers;
  body: Record<string, any>; // oxlint-disable-line typescript/no-explicit-any -- answers of every shape
}

/** A server over real HTTP and a real database, in a folder of its own. */
export class TestServer {
  readonly folder = mkdtempSync(join(tmpdir(), 'nibrel-api-'));
  readonly #more: Partial<AppOptions>;
  nibrel!: NibrelApp;
  db!: Db;
  port = 0;
  #server!: ReturnType<typeof serve>;

  constructor(more: Partial<AppOptions> = {}) {
    this.#more = more;
  }

  get base(): string {
    return `http://127.0.0.1:${this.port}/api/v1`;
  }

  async start(): Promise<void> {
    const photoFolder = join(this.folder, 'photos');
    this.db = openDatabase(this.folder);
    this.nibrel = createApp({ db: this.db, folder: this.folder, photoFolder, ...this.#more });
    await this.nibrel.begin();
    await new Promise<void>((resolve) => {
      this.#server = serve({ fetch: this.nibrel.app.fetch, hostname: '127.0.0.1', port: 0 }, () => resolve());
    });
    this.port = (this.#server.address() as AddressInfo).port;
  }

  async stop(): Promise<void> {
    if ('closeAllConnections' in this.#server) this.#server.closeAllConnections();
    await new Promise((resolve) => this.#server.close(resolve));
    await this.nibrel.close();
  }

  async call(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer> {
    const isRaw = typeof body === 'string' || body instanceof Uint8Array;
    const response = await fetch(this.base + path, {
      method,
      headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
      ...(body === undefined ? {} : { body: isRaw ? (body as string) : JSON.stringify(body) }),
    });
    const text = await response.text();
    return {
      status: response.status,
      type: response.headers.get('content-type'),
      headers: response.headers,
      body: text ? JSON.parse(text) : {},
    };
  }
}

/** What starts processes of its own takes long, and is left to `npm test`. */
export const spawning = describe.skipIf(process.env['NIBREL_LOOP'] === 'fast');

/** Names the lead of a new workshop, as the first start asks. */
export function lead(name: string) {
  const data = { name, role: 'lead' };
  return { id: randomUUID(), type: 'person', at: '2026-11-24T08:00:00Z', by: name, data };
}

/** A bench as it has to be for one part of a demo device, with its cell run down. */
export function shownFor(device: string, part: string) {
  const map = readJson<DeviceMap>(`demo/device-maps/${device}.json`);
  const targets = [{ replace: part }];
  const items = benchItems(map, targets, { ...DEFAULT_POLICY, ...DEFAULT_LIMITS }).map(({ id }) => id);
  return { items, skipped: [], charge: 0.2, told: tellAnyhow(map, targets) };
}

export function readJson<T>(path: string): T {
  return JSON.parse(readFileSync(new URL(`../../${path}`, import.meta.url), 'utf8')) as T;
}
