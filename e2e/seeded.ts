import { DemoServer } from './server.ts';

/** The invented workshop is played once; every file's server begins with a copy of it. */
export default async function seeded(): Promise<void> {
  const server = await DemoServer.start();
  await server.end();
  process.env['NIBREL_SEEDED'] = server.data;
}
