/** Something that is wrong with the data folder or its disk, in a sentence: what, what is safe, what to do. */
export class DiskProblem extends Error {
  override readonly name = 'DiskProblem';

  /** What an error of the file system or of SQLite means; others pass as they are. */
  static of(error: unknown, folder: string): unknown {
    if (error instanceof DiskProblem) return error;
    const sentence = sentenceFor(error, `the data folder ${folder}`);
    return sentence ? new DiskProblem(sentence, { cause: error }) : error;
  }
}

/** In one plain sentence, or null for what has nothing to do with the disk. */
export function sentenceFor(error: unknown, where = 'the data folder'): string | null {
  const code = codeOf(error);
  switch (code) {
    case 'SQLITE_FULL':
    case 'ENOSPC':
    case 'EDQUOT':
      return `The disk of ${where} is full. What was acknowledged is safe, this was not recorded: free some space and try again.`;
    case 'EROFS':
    case 'EACCES':
    case 'EPERM':
    case 'SQLITE_CANTOPEN':
    case 'SQLITE_READONLY':
      return `Nothing can be written to ${where}. What it holds is safe: give this user the right to write there, or name another folder (NIBREL_DATA).`;
    case 'SQLITE_BUSY':
    case 'SQLITE_LOCKED':
      return `Another program holds the database in ${where}. What it holds is safe: end that program and try again.`;
    case 'SQLITE_CORRUPT':
    case 'SQLITE_NOTADB':
      return `The database in ${where} is damaged and was left as it is. Keep a copy of the folder, then restore a backup into an empty one (npm run restore).`;
    case 'ENOTDIR':
    case 'EEXIST':
    case 'EISDIR':
      return `There is a file where ${where} should be. Nothing was changed: name another folder (NIBREL_DATA).`;
    case 'ENAMETOOLONG':
    case 'ELOOP':
    case 'ENOENT':
      return `There is no way to ${where}. Nothing was changed: name another folder (NIBREL_DATA).`;
    case 'EIO':
    case 'SQLITE_IOERR':
      return `The disk of ${where} does not answer as it should. What was acknowledged is as safe as the disk: look after it, then try again.`;
    default:
      return null;
  }
}

/** SQLite's extended codes by their first part. */
function codeOf(error: unknown): string {
  const code = (error as { code?: unknown } | null)?.code;
  if (typeof code !== 'string') return '';
  return code.startsWith('SQLITE_') ? code.split('_').slice(0, 2).join('_') : code;
}
