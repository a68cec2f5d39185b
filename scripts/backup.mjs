import { join } from 'node:path';
import { built, installed, root } from './setup.mjs';
import { run } from './steps.mjs';

// npm run backup -- FILE, npm run restore -- FILE: the data folder is NIBREL_DATA.
await installed();
await built();
process.exit(await run(process.execPath, [join(root, 'server/dist/backup.js'), ...process.argv.slice(2)]));
