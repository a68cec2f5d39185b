import { todayIn } from '@nibrel/core/model/calendar';
import { deskVerdict } from '@nibrel/core/workshop/parts';
import { partName } from '@nibrel/core/planner/words';
import { Hono } from 'hono';
import { returnCalendar } from '../export/return-calendar.ts';
import { HttpProblem } from '../http/http-problem.ts';
import { answer } from '../http/route.ts';
import type { DeviceMaps } from '../store/device-maps.ts';
import type { Jobs } from '../store/jobs.ts';
import type { ShopLog } from '../store/shop.ts';

/** The parts desk over all jobs. What happens to a part is an event of its job. */
export function partRoutes(jobs: Jobs, maps: DeviceMaps, log: ShopLog, now: () => string): Hono {
  const routes = new Hono();

  const all = () => {
    const today = todayIn(log.shop.zone, new Date(now()));
    return jobs.parts().flatMap(({ job: id, parts }) => {
      const job = jobs.find(id);
      const map = job && maps.readable(job.map, job.revision);
      // what is damaged on the disk is said by its repair, and keeps no other from being listed
      if (!job || !map) return [];
      return parts.map((part) => ({
        ...part,
        job: job.id,
        jobTitle: job.title,
        map: job.map,
        mapName: map.name,
        mapRevision: job.revision,
        name: partName(map, part.mapPart),
        ...deskVerdict(map, part, today),
        simulated: part.asked.some((each) => each.simulated),
      }));
    });
  };

  routes.get('/', (context) => answer(context, 'GET /parts', { parts: all() }));

  routes.get('/:id/return.ics', (context) => {
    const part = all().find((each) => each.id === context.req.param('id'));
    if (!part) throw new HttpProblem(404, 'There is no such part at the desk.');
    return context.body(returnCalendar(part), 200, {
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': `attachment; filename="return-${part.id}.ics"`,
    });
  });

  return routes;
}
