import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { serveStatic } from '@hono/node-server/serve-static';
import { type Context, Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { csrf } from 'hono/csrf';
import { HTTPException } from 'hono/http-exception';
import type { SecureHeadersVariables } from 'hono/secure-headers';
import { MOST_PHOTO_BYTES } from '@nibrel/core/model/photos';
import { ComputePool, DESK, PICTURES, PRESS } from './compute/pool.ts';
import { Prospects } from './compute/prospects.ts';
import { MOST_BYTES, tooLarge } from './http/body.ts';
import { jsonAnswer } from './http/answer.ts';
import { Changes } from './http/changes.ts';
import { onlyFromHere, secured } from './http/guard.ts';
import { openApi } from './http/openapi.ts';
import { answerProblem, HttpProblem } from './http/http-problem.ts';
import { Calls } from './store/calls.ts';
import { type Network, sessionRoutes, signedInOnly } from './network/sign-in.ts';
import { changeRoutes } from './routes/changes.ts';
import { computeRoutes } from './routes/compute.ts';
import { deviceMapRoutes } from './routes/device-maps.ts';
import { jobRoutes } from './routes/jobs.ts';
import { partRoutes } from './routes/parts.ts';
import { photoRoutes } from './routes/photos.ts';
import { shopRoutes } from './routes/shop.ts';
import { standInRoutes } from './routes/stand-ins.ts';
import { Confirmations } from './people/confirmations.ts';
import { LeadSecrets } from './people/lead-secrets.ts';
import { leadRoutes } from './routes/lead.ts';
import { type Acknowledged, AcknowledgedLog, lostSince } from './store/acknowledged.ts';
import { carryBesideWork } from './store/log-carrier.ts';
import type { Db } from './store/database.ts';
import { DamagedMap, DeviceMaps } from './store/device-maps.ts';
import { DiskProblem, sentenceFor } from './disk/disk-problem.ts';
import { Jobs } from './store/jobs.ts';
import { type Look, mended } from './store/looked-through.ts';
import { Photos } from './store/photos.ts';
import { ShopLog } from './store/shop.ts';

export interface AppOptions {
  readonly db: Db;
  /** the data folder, where the last that was acknowledged is written down beside the database; left out where it is not */
  readonly folder?: string;
  /** where the bytes of photographs lie */
  readonly photoFolder: string;
  /** instruments that stand in for real ones: only in the demonstration */
  readonly standIns?: boolean;
  /** names beside loopback that the server answers to */
  readonly hosts?: readonly string[];
  /** who may come in, where others reach the server; null where only this machine does */
  readonly network?: Network | null;
  /** those of the leads; none are kept beyond the end where it is left out */
  readonly secrets?: LeadSecrets;
  /** the built web application; left out where only the API is wanted */
  readonly webRoot?: string;
  readonly now?: () => Date;
}

export interface NibrelApp {
  readonly app: Hono;
  readonly maps: DeviceMaps;
  readonly jobs: Jobs;
  readonly photos: Photos;
  readonly shop: ShopLog;
  readonly secrets: LeadSecrets;
  /** makes the lines that are missing, and says in the repairs what was acknowledged and is lost. @returns sentences for the log */
  begin(onLines?: (count: number) => void): Promise<string[]>;
  /** looks for damage on the disk, and mends what can be. @returns what was found, in sentences */
  lookThrough(): Promise<string[]>;
  close(): Promise<void>;
}

/** The API and the web application on one Hono app. */
export function createApp(options: AppOptions): NibrelApp {
  const { db, photoFolder, standIns = false, hosts = [], network = null, webRoot, now = () => new Date() } = options;
  const { secrets = LeadSecrets.inMemory(), folder } = options;
  const lost = folder === undefined ? [] : lostSince(folder, db);
  const log = folder === undefined ? null : new AcknowledgedLog(folder);
  const acknowledge = (entries: readonly Acknowledged[]) => log?.add(entries);
  const changes = new Changes();
  const jobChanged = (id: string, revision: number) => changes.tell({ what: 'job', id, revision });
  const maps = new DeviceMaps(db, (id, revision) => changes.tell({ what: 'map', id, revision }), acknowledge);
  const photos = new Photos(db, photoFolder);
  const shop = new ShopLog(db, {
    hasStandIns: standIns,
    told: (revision) => changes.tell({ what: 'shop', id: 'shop', revision }),
    acknowledge,
  });
  const calls = new Calls();
  const jobs = new Jobs(db, maps, photos, {
    shop: () => shop.shop,
    hasStandIns: standIns,
    told: jobChanged,
    acknowledge,
    calls,
  });
  const confirmations = new Confirmations();
  const pool = new ComputePool();
  const desk = new ComputePool(DESK);
  const pictures = new ComputePool(PICTURES);
  const press = new ComputePool(PRESS);
  const prospects = new Prospects(jobs, pool, jobChanged);
  const stopCarrying = carryBesideWork(db, (path) => desk.run({ kind: 'carry-over', body: path }, 0));
  const stamp = () => now().toISOString();
  const app = new Hono();

  app.use((_, next) => calls.counted(next));
  app.use(secured);
  app.use(onlyFromHere(hosts));
  app.use(async (context, next) => (fromBrowser(context) ? formsFromHere(context, next) : next()));
  app.onError((error, context) => answerProblem(context, problemOf(error)));

  const api = new Hono();
  api.use(async (context, next) => {
    await next();
    if (!context.res.headers.has('cache-control')) context.header('cache-control', 'no-store');
  });
  api.use(signedInOnly(network));
  api.use(limitedBody);
  api.get('/health', (context) => context.json({ status: 'ok' }));
  let description: string | undefined;
  api.get('/openapi.json', (context) => jsonAnswer(context, (description ??= JSON.stringify(openApi()))));
  api.route('/session', sessionRoutes(network, shop));
  api.route('/lead', leadRoutes({ shop, secrets, confirmations, network }));
  api.route('/changes', changeRoutes(changes, network));
  api.route('/device-maps', deviceMapRoutes({ maps, shop, network, pool, press, now: stamp }));
  const forJobs = { jobs, maps, photos, shop, desk, press, prospects, network, confirmations, now: stamp };
  api.route('/jobs', jobRoutes(forJobs));
  api.route('/jobs', photoRoutes(photos, jobs, pictures, stamp));
  api.route('/parts', partRoutes(jobs, maps, shop, stamp));
  api.route('/shop', shopRoutes({ shop, jobs, network, confirmations, standIns, now: stamp }));
  if (standIns) api.route('/stand-ins', standInRoutes(maps, jobs, stamp));
  api.route('/compute', computeRoutes(pool));
  app.route('/api/v1', api);
  const known = app.routes.filter((route) => route.path.startsWith('/api/') && route.method !== 'ALL');
  for (const path of new Set(known.map((route) => route.path))) {
    const allow = known.filter((route) => route.path === path).map((route) => route.method);
    app.all(path, () => {
      throw new HttpProblem(405, `This address takes ${allow.join(', ')}.`, [], { allow: allow.join(', ') });
    });
  }
  app.all('/api/*', () => {
    throw new HttpProblem(404, 'There is nothing at this address.');
  });
  if (webRoot) serveWeb(app, webRoot);

  return {
    app,
    maps,
    jobs,
    photos,
    shop,
    secrets,
    begin: async (onLines) => {
      await jobs.readAgain(onLines);
      return jobs.nameLost(lost, now());
    },
    lookThrough: async () =>
      mended(db, (await pool.run({ kind: 'look-through', body: db.$client.name }, MOST_LOOK_ms)) as Look),
    close: async () => {
      changes.close();
      prospects.close();
      stopCarrying();
      await Promise.all([pool, desk, pictures, press].map((each) => each.close()));
      db.$client.close();
      log?.close();
    },
  };
}

/** A database of a million entries is looked through in so long. */
const MOST_LOOK_ms = 120_000;

const formsFromHere = csrf();

/**
 * Is this from a browser? Only there can another site make somebody send what they did not mean, and a browser says
 * where a request comes from.
 */
function fromBrowser(context: Context): boolean {
  return (context.req.header('origin') ?? context.req.header('sec-fetch-site')) !== undefined;
}

/** Pictures may be larger than anything else. */
const limited = (maxSize: number) =>
  bodyLimit({ maxSize, onError: (context: Context) => answerProblem(context, tooLarge(maxSize)) });
const limitedPhoto = limited(MOST_PHOTO_BYTES);
const limitedOther = limited(MOST_BYTES);

function limitedBody(context: Context, next: () => Promise<void>) {
  return context.req.path.endsWith('/photos') ? limitedPhoto(context, next) : limitedOther(context, next);
}

/** What an error is answered as. One that nobody foresaw is written to the log, and says so. */
function problemOf(error: Error): HttpProblem {
  if (error instanceof HttpProblem) return error;
  if (error instanceof DamagedMap) return new HttpProblem(409, error.message);
  if (error instanceof HTTPException && error.status === 403) {
    return new HttpProblem(403, 'Requests from other sites are not taken.');
  }
  if (error.name === 'BodyLimitError') return tooLarge(MOST_BYTES);
  const disk = sentenceFor(error);
  if (disk) return new HttpProblem(503, disk, [], { 'retry-after': '10' });
  console.error(error);
  return new HttpProblem(500, 'Something went wrong here. Nothing that was acknowledged is lost.');
}

/** @throws DiskProblem where the application is not built, or its page is damaged */
function pageIn(root: string): string {
  const file = join(root, 'index.html');
  const page = existsSync(file) ? readFileSync(file, 'utf8') : '';
  if (page.includes('__STYLE_NONCE__')) return page;
  throw new DiskProblem(`The page of the application, ${file}, is missing or damaged. Build it again: npm run build.`);
}

function serveWeb(app: Hono, root: string): void {
  const index = pageIn(root);
  app.use(
    '/assets/*',
    serveStatic({
      root,
      onFound: (_, context) => context.header('cache-control', 'public, max-age=31536000, immutable'),
    }),
  );
  app.use('/mark.svg', serveStatic({ root }));
  // a file that is not there is not the page
  app.get('/assets/*', () => {
    throw new HttpProblem(404, 'There is no such file. Load the page again.');
  });
  app.get('*', (context) => {
    const nonce =
      (context as unknown as Context<{ Variables: SecureHeadersVariables }>).get('secureHeadersNonce') ?? '';
    return context.html(index.replace('__STYLE_NONCE__', nonce), 200, { 'cache-control': 'no-store' });
  });
}
