import type { JobsQuery, StoppedBefore } from '@nibrel/core/api';
import type { BenchUse } from '@nibrel/core/job/state';
import type { Job } from '@nibrel/core/job/events';
import type { DeskPart } from '@nibrel/core/workshop/parts';
import { nameKey } from '@nibrel/core/model/names';
import type { TimeSample } from '@nibrel/core/after/own-times';
import type { Used } from '@nibrel/core/workshop/shop';
import type { Statement } from 'better-sqlite3';
import type { Db } from './database.ts';

/** What is kept beside a job, so that lists fold nothing. */
export interface KeptLine {
  readonly job: string;
  readonly isOpen: boolean;
  /** JSON of the job's line, as it is answered */
  readonly line: string;
  readonly lastAt: string | null;
  readonly serial: string | null;
  readonly parts: readonly DeskPart[];
  readonly used: readonly Used[];
  /** how long its steps took, once it is finished */
  readonly times: readonly TimeSample[];
  readonly uses: readonly (readonly [string, BenchUse])[];
  readonly lastStop: Omit<StoppedBefore, 'job' | 'title'> | null;
}

/** Goes up whenever lines tell something else, so that those of an older version are made again. */
const VERSION = 4;

/** A workshop changes: so many of its last repairs tell how long things take (guess). */
const MOST_LEARNED = 200;

/**
 * Lines of all jobs. The table is derived: each line changes in the transaction of its job's own events, and what is
 * missing is made again from them at the start, so that rows may be deleted.
 */
export class Lines {
  readonly #db: Db['$client'];
  readonly #put: Statement;
  #times: TimeSample[] | null = null;

  constructor(db: Db) {
    this.#db = db.$client;
    this.#put = this.#db.prepare(`
      INSERT OR REPLACE INTO job_lines
        (job, version, is_open, created_at, last_at, serial, line, parts, used, times, uses, last_stop, next)
      VALUES (@job, ${VERSION}, @isOpen, @createdAt, @lastAt, @serial, @line, @parts, @used, @times, @uses, @lastStop, NULL)`);
  }

  put(job: Job, kept: Omit<KeptLine, 'job' | 'serial'>): void {
    this.#times = null;
    const some = (list: readonly unknown[]) => (list.length > 0 ? JSON.stringify(list) : null);
    this.#put.run({
      job: job.id,
      isOpen: kept.isOpen ? 1 : 0,
      createdAt: job.createdAt,
      lastAt: kept.lastAt,
      serial: job.serial ? nameKey(job.serial) : null,
      line: kept.line,
      parts: some(kept.parts),
      used: some(kept.used),
      times: some(kept.times),
      uses: some(kept.uses),
      lastStop: kept.lastStop ? JSON.stringify(kept.lastStop) : null,
    });
  }

  /** Ids of jobs that have no line, or one of another version. */
  missing(): string[] {
    const sql = `SELECT id FROM jobs LEFT JOIN job_lines ON job = id AND version = ${VERSION} WHERE job IS NULL ORDER BY jobs.created_at`;
    return this.#db.prepare(sql).pluck().all() as string[];
  }

  /** A job's line as JSON, with what comes next where that is known. */
  get(job: string): string | null {
    const row = this.#db.prepare('SELECT line, next FROM job_lines WHERE job = ?').get(job) as Row | undefined;
    return row ? withNext(row) : null;
  }

  /** Lines as JSON, the newest job first. */
  list({ open, finished, since, limit }: JobsQuery): string[] {
    const where = [
      ...(open === undefined ? [] : [`is_open = ${open ? 1 : 0}`]),
      ...(finished === undefined ? [] : [`is_open = ${finished ? 0 : 1}`]),
      ...(since === undefined ? [] : ['julianday(coalesce(last_at, created_at)) >= julianday(@since)']),
    ];
    const sql = `SELECT line, next FROM job_lines ${where.length > 0 ? `WHERE ${where.join(' AND ')}` : ''}
      ORDER BY created_at DESC, job LIMIT ${limit ?? -1}`;
    return (this.#db.prepare(sql).all({ since }) as Row[]).map(withNext);
  }

  /** Of all jobs that have any: the parts at the desk. */
  parts(): { job: string; parts: DeskPart[] }[] {
    const sql = 'SELECT job, parts FROM job_lines WHERE parts IS NOT NULL ORDER BY created_at DESC';
    const rows = this.#db.prepare(sql).all() as { job: string; parts: string }[];
    return rows.map(({ job, parts }) => ({ job, parts: JSON.parse(parts) as DeskPart[] }));
  }

  /** What all jobs have used up. */
  used(): Used[] {
    const sql = 'SELECT used FROM job_lines WHERE used IS NOT NULL';
    return (this.#db.prepare(sql).pluck().all() as string[]).flatMap((each) => JSON.parse(each) as Used[]);
  }

  /** How long steps took, in the repairs that were finished last. */
  times(): readonly TimeSample[] {
    if (this.#times) return this.#times;
    const sql = `SELECT times FROM job_lines WHERE times IS NOT NULL ORDER BY last_at DESC LIMIT ${MOST_LEARNED}`;
    const rows = this.#db.prepare(sql).pluck().all() as string[];
    this.#times = rows.flatMap((each) => JSON.parse(each) as TimeSample[]);
    return this.#times;
  }

  /** What one job has used up, as its line has it. */
  usedIn(job: string): readonly Used[] {
    const text = this.#db.prepare('SELECT used FROM job_lines WHERE job = ?').pluck().get(job) as string | null;
    return text ? (JSON.parse(text) as Used[]) : [];
  }

  /** What jobs do at benches, of those that do anything. */
  uses(): { job: string; uses: (readonly [string, BenchUse])[] }[] {
    const sql = 'SELECT job, uses FROM job_lines WHERE uses IS NOT NULL';
    const rows = this.#db.prepare(sql).all() as { job: string; uses: string }[];
    return rows.map(({ job, uses }) => ({ job, uses: JSON.parse(uses) as (readonly [string, BenchUse])[] }));
  }

  /** What one job does at benches, as its line has it; null where it has no line. */
  usesOf(job: string): readonly (readonly [string, BenchUse])[] | null {
    const row = this.#db.prepare('SELECT uses FROM job_lines WHERE job = ?').get(job) as
      { uses: string | null } | undefined;
    return row ? (JSON.parse(row.uses ?? '[]') as (readonly [string, BenchUse])[]) : null;
  }

  /** The last repair of a device before another, where it was stopped. */
  before(serial: string | undefined, createdAt: string, job: string): StoppedBefore | null {
    if (!serial) return null;
    const sql = `SELECT job, json_extract(line, '$.title') AS title, last_stop AS stop FROM job_lines
      WHERE serial = ? AND created_at <= ? AND job <> ? ORDER BY created_at DESC LIMIT 1`;
    const row = this.#db.prepare(sql).get(nameKey(serial), createdAt, job) as
      { job: string; title: string; stop: string | null } | undefined;
    if (!row?.stop) return null;
    return { job: row.job, title: row.title, ...(JSON.parse(row.stop) as Omit<StoppedBefore, 'job' | 'title'>) };
  }

  /** Open jobs of which nobody has found out yet what comes next. */
  withoutNext(limit: number): string[] {
    const sql = 'SELECT job FROM job_lines WHERE is_open = 1 AND next IS NULL ORDER BY created_at DESC LIMIT ?';
    return this.#db.prepare(sql).pluck().all(limit) as string[];
  }

  /** What comes next in a job, as long as it has the events that this was found out from. */
  setNext(job: string, revision: number, next: object): void {
    const sql = "UPDATE job_lines SET next = ? WHERE job = ? AND json_extract(line, '$.revision') = ?";
    this.#db.prepare(sql).run(JSON.stringify(next), job, revision);
  }
}

interface Row {
  readonly line: string;
  readonly next: string | null;
}

function withNext({ line, next }: Row): string {
  return `${line.slice(0, -1)},"next":${next ?? 'null'}}`;
}
