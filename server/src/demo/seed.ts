import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { benchBudget } from '@nibrel/core/bench/in-hand';
import type { BenchEvent, Job } from '@nibrel/core/job/events';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { mechanismOf } from '@nibrel/core/planner/holds';
import { planRepair } from '@nibrel/core/planner/plan';
import type { ShopEventData, StockItem } from '@nibrel/core/workshop/shop';
import type { NibrelApp } from '../app.ts';
import { type DemoJob, jobEvents } from './job-events.ts';
import { seedTeardown } from './teardown.ts';

type Seeded = Pick<NibrelApp, 'maps' | 'jobs' | 'photos' | 'shop' | 'secrets'>;

/** What the leads of the demonstration confirm with; it is shown wherever it is asked. */
const SHOWN_SECRET = 'harbour light';

interface Workshop {
  readonly by: string;
  /** the lead first */
  readonly people: readonly ShopEventData['person'][];
  readonly zone: string;
  readonly tools: readonly string[];
  readonly stock: readonly (StockItem & { readonly left: number })[];
  readonly sources: readonly ShopEventData['source'][];
}

/** Fills an empty data folder with the invented workshop: its maps, its shelf, and repairs at every stage. */
export async function seedDemo(nibrel: Seeded, now: Date): Promise<void> {
  const { maps, jobs, shop, secrets } = nibrel;
  const folder = demoFolder();
  const read = <T>(file: string) => JSON.parse(readFileSync(join(folder, file), 'utf8')) as T;
  for (const file of readdirSync(join(folder, 'device-maps'))) {
    const map = read<DeviceMap>(join('device-maps', file));
    if (!maps.has(map.id)) maps.add({ ...map, body: JSON.stringify(map) }, now.toISOString(), null);
  }
  if (shop.shop.revision === 0) await seedWorkshop(nibrel, read<Workshop>('workshop.json'), now);
  for (const [person, role] of shop.shop.people) if (role === 'lead') await secrets.set(person, SHOWN_SECRET, true);
  if (jobs.list({ limit: 1 }).length > 0) return;
  for (const [index, each] of read<DemoJob[]>('jobs.json').entries())
    await seedJob(nibrel, each, new Date(now.getTime() - (index + 1) * 60_000));
  await seedTeardown(nibrel, folder, now);
}

async function seedWorkshop(
  { shop }: Seeded,
  { by, people, zone, tools, stock, sources }: Workshop,
  now: Date,
): Promise<void> {
  // counted the evening before: what the repairs of today use is taken off it
  const at = new Date(now.getTime() - 12 * 3600 * 1000).toISOString();
  const event = (type: string, data: object) => ({ id: randomUUID(), type, at, by, data });
  const events = [
    ...people.map((person) => event('person', person)),
    event('zone', { zone }),
    ...tools.map((name) => event('tool', { name, owned: true })),
    ...stock.flatMap(({ left, ...item }) => [event('item', item), event('counted', { item: item.id, quantity: left })]),
    ...sources.map((source) => event('source', source)),
  ];
  const { rejected } = await shop.append(events, now.toISOString());
  if (rejected.length > 0) throw new Error(`The demo workshop does not play: ${rejected[0]!.problem}`);
}

async function seedJob({ maps, jobs, shop }: Seeded, given: DemoJob, now: Date): Promise<void> {
  const { map, revision } = maps.find(given.map)!;
  const budget = benchBudget(mechanismOf(map));
  const { targets, title, owner, serial, colour } = given;
  const { display } = planRepair({ map, targets }, budget);
  const takenIn = new Date(now.getTime() - (given.progress === 'finished' ? 5 : 1) * 3600 * 1000);
  const job: Job = {
    id: randomUUID(),
    map: map.id,
    revision,
    targets,
    policy: { display },
    limits: shop.shop.limits,
    title,
    owner,
    serial,
    colour,
    createdAt: takenIn.toISOString(),
  };
  await jobs.add(job);
  const events = jobEvents(map, job, given, now, shop.shop.zone, budget);
  // each is received when it was told
  for (const together of groupedByTime(events)) {
    const { rejected } = await jobs.append(job, together, together[0]!.at);
    if (rejected.length > 0) throw new Error(`The demo repair "${title}" does not play: ${rejected[0]!.problem}`);
  }
}

function groupedByTime(events: readonly BenchEvent[]): BenchEvent[][] {
  const groups: BenchEvent[][] = [];
  for (const event of events) {
    const last = groups.at(-1);
    if (last?.[0]!.at === event.at) last.push(event);
    else groups.push([event]);
  }
  return groups;
}

function demoFolder(): string {
  const beside = import.meta.url.endsWith('.ts') ? '../../../demo' : '../../demo';
  return fileURLToPath(new URL(beside, import.meta.url));
}
