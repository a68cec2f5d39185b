import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { serveStatic } from '@hono/node-server/serve-static';
import { Hono } from 'hono';
import { ComputePool } from './compute/pool.ts';
import { contentPolicy, onlyFromHere, secured } from './http/guard.ts';
import { openApi } from './http/openapi.ts';
import { answerProblem, Problem } from './http/problem.ts';
import { computeRoutes } from './routes/compute.ts';
import { deviceMapRoutes } from './routes/device-maps.ts';
import { jobRoutes } from './routes/jobs.ts';
import { partRoutes } from './routes/parts.ts';
import { photoRoutes } from './routes/photos.ts';
import { shopRoutes } from './routes/shop.ts';
import { standInRoutes } from './routes/stand-ins.ts';
import type { Db } from './store/database.ts';
import { DeviceMaps } from './store/device-maps.ts';
import { Jobs } from './store/jobs.ts';
import { Photos } from './store/photos.ts';
import { ShopLog } from './store/shop.ts';

export interface AppOptions {
  readonly db: Db;
  /** where the bytes of photographs lie */
  readonly photoFolder: string;
  /** instruments that stand in for real ones: only in the demonstration */
  readonly standIns?: boolean;
  /** names beside loopback that the server answers to */
  readonly hosts?: readonly string[];
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
  close(): Promise<void>;
}

/** The API and the web application on one Hono app. */
export function createApp(options: AppOptions): NibrelApp {
  const { db, photoFolder, standIns = false, hosts = [], webRoot, now = () => new Date() } = options;
  const maps = new DeviceMaps(db);
  const photos = new Photos(db, photoFolder);
  const jobs = new Jobs(db, maps, photos);
  const shop = new ShopLog(db);
  const pool = new ComputePool();
  const stamp = () => now().toISOString();
  const app = new Hono();

  app.use(secured);
  app.use(onlyFromHere(hosts));
  app.onError((error, context) => {
    if (error instanceof Problem) return answerProblem(context, error);
    console.error(error);
    return answerProblem(
      context,
      new Problem(500, 'Something went wrong here. Nothing that was acknowledged is lost.'),
    );
  });

  const api = new Hono();
  api.get('/health', (context) => context.json({ status: 'ok' }));
  api.get('/openapi.json', (context) => context.json(openApi()));
  api.route('/device-maps', deviceMapRoutes(maps, pool, stamp));
  api.route('/jobs', jobRoutes(jobs, maps, photos, shop, stamp));
  api.route('/jobs', photoRoutes(photos, jobs, stamp));
  api.route('/parts', partRoutes(jobs, maps, shop, stamp));
  api.route('/shop', shopRoutes(shop, jobs, stamp, standIns));
  if (standIns) api.route('/stand-ins', standInRoutes(maps, stamp));
  api.route('/compute', computeRoutes(pool));
  app.route('/api/v1', api);
  const known = app.routes.filter((route) => route.path.startsWith('/api/') && route.method !== 'ALL');
  for (const path of new Set(known.map((route) => route.path))) {
    const allow = known.filter((route) => route.path === path).map((route) => route.method);
    app.all(path, () => {
      throw new Problem(405, `This address takes ${allow.join(', ')}.`, [], { allow: allow.join(', ') });
    });
  }
  app.all('/api/*', () => {
    throw new Problem(404, 'There is nothing at this address.');
  });
  if (webRoot) serveWeb(app, webRoot);

  return {
    app,
    maps,
    jobs,
    photos,
    shop,
    close: async () => {
      await pool.close();
      db.$client.close();
    },
  };
}

function serveWeb(app: Hono, root: string): void {
  const index = readFileSync(join(root, 'index.html'), 'utf8');
  app.use(
    '/assets/*',
    serveStatic({
      root,
      onFound: (_, context) => context.header('cache-control', 'public, max-age=31536000, immutable'),
    }),
  );
  app.use('/mark.svg', serveStatic({ root }));
  app.get('*', (context) => {
    const nonce = randomBytes(16).toString('base64');
    const headers = { 'cache-control': 'no-store', 'content-security-policy': contentPolicy(nonce) };
    return context.html(index.replace('__STYLE_NONCE__', nonce), 200, headers);
  });
}
