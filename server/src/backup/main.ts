import { resolve } from 'node:path';
import { DiskProblem } from '../disk/disk-problem.ts';
import { backUp } from './backup.ts';
import { BackupError } from './manifest.ts';
import { restore } from './restore.ts';

// npm run backup -- FILE, npm run restore -- FILE
const [what, file] = process.argv.slice(2);
const folder = resolve(process.env['NIBREL_DATA'] ?? './data/shop');
const started = Date.now();

try {
  if (!file || (what !== 'backup' && what !== 'restore')) {
    throw new BackupError(
      `Name the file: npm run ${what ?? 'backup'} -- FILE. The data folder is NIBREL_DATA, here ${folder}.`,
    );
  }
  const { files, at } = what === 'backup' ? await backUp(folder, file, new Date()) : await restore(file, folder);
  const said = `the database and ${files.length - 1} photographs`;
  const seconds = ((Date.now() - started) / 1000).toFixed(1);
  if (what === 'backup')
    console.log(`${resolve(file)} holds ${said} of ${folder}, whole and on the disk, after ${seconds} s.`);
  else console.log(`${folder} has ${said} again, as they were at ${at}, after ${seconds} s.`);
} catch (error) {
  const known = DiskProblem.of(error, folder);
  const isSentence = error instanceof BackupError || known instanceof DiskProblem;
  console.error(isSentence ? (known as Error).message : error);
  process.exit(1);
}
