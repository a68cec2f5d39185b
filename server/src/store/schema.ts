import { sql } from 'drizzle-orm';
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/** Every revision of every map; the newest is the one with the highest number. */
export const deviceMaps = sqliteTable(
  'device_maps',
  {
    id: text('id').notNull(),
    revision: integer('revision').notNull(),
    name: text('name').notNull(),
    kind: text('kind').notNull(),
    /** the map as it came in, unknown fields and all, as JSON */
    body: text('body').notNull(),
    createdAt: text('created_at').notNull(),
    /** who made it; none in rows from before that was asked */
    by: text('by'),
    /** of what the row says (sum.ts); none in rows of an older version */
    sum: text('sum'),
  },
  (table) => [primaryKey({ columns: [table.id, table.revision] })],
);

/** A job as it was taken in. What became of it is in its events; no computed state is kept. */
export const jobs = sqliteTable('jobs', {
  id: text('id').primaryKey(),
  map: text('map').notNull(),
  revision: integer('revision').notNull(),
  targets: text('targets').notNull(),
  policy: text('policy').notNull(),
  title: text('title').notNull(),
  owner: text('owner'),
  serial: text('serial'),
  colour: text('colour'),
  /** the workshop's limits when it was taken in; none in jobs from before there were any */
  limits: text('limits'),
  createdAt: text('created_at').notNull(),
  by: text('by'),
  sum: text('sum'),
});

/** Append only. `seq` is the order of acceptance over all jobs. */
export const events = sqliteTable(
  'events',
  {
    seq: integer('seq').primaryKey({ autoIncrement: true }),
    job: text('job')
      .notNull()
      .references(() => jobs.id),
    id: text('id').notNull().unique(),
    type: text('type').notNull(),
    at: text('at').notNull(),
    by: text('by').notNull(),
    data: text('data').notNull(),
    receivedAt: text('received_at').notNull(),
    sum: text('sum'),
  },
  (table) => [index('events_by_job').on(table.job, table.seq)],
);

/** What happened to the workshop itself: tools, stock, limits, schools. Append only. */
export const shopEvents = sqliteTable('shop_events', {
  seq: integer('seq').primaryKey({ autoIncrement: true }),
  id: text('id').notNull().unique(),
  type: text('type').notNull(),
  at: text('at').notNull(),
  by: text('by').notNull(),
  data: text('data').notNull(),
  receivedAt: text('received_at').notNull(),
  sum: text('sum'),
});

/** Photographs of jobs; their bytes lie in files named by their hash. */
export const photos = sqliteTable(
  'photos',
  {
    job: text('job')
      .notNull()
      .references(() => jobs.id),
    /** SHA-256 of the content, hexadecimal */
    hash: text('hash').notNull(),
    type: text('type').notNull(),
    width: integer('width').notNull(),
    height: integer('height').notNull(),
    bytes: integer('bytes').notNull(),
    receivedAt: text('received_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.job, table.hash] })],
);

/** What is kept beside a job, so that lists fold nothing. Derived: rows may be deleted, and are made again at the start. */
export const jobLines = sqliteTable(
  'job_lines',
  {
    job: text('job').primaryKey(),
    /** of what a line tells; those of another are made again */
    version: integer('version').notNull(),
    isOpen: integer('is_open').notNull(),
    createdAt: text('created_at').notNull(),
    lastAt: text('last_at'),
    serial: text('serial'),
    line: text('line').notNull(),
    parts: text('parts'),
    used: text('used'),
    times: text('times'),
    uses: text('uses'),
    lastStop: text('last_stop'),
    next: text('next'),
  },
  (table) => [
    index('job_lines_by_time').on(table.isOpen, table.createdAt),
    index('job_lines_by_serial')
      .on(table.serial, table.createdAt)
      .where(sql`${table.serial} IS NOT NULL`),
  ],
);
