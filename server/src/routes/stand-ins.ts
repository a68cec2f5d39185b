import { wrong } from '@nibrel/core/model/refusal';
import { type WarmSource } from '@nibrel/core/model/sources';
import { isForeseeable, settingFor, type Spot, stackOfBond } from '@nibrel/core/physics/heat';
import { REGISTRY_ANSWERS } from '@nibrel/core/model/identity';
import { type Context, Hono } from 'hono';
import { streamSSE } from 'hono/streaming';
import { HttpProblem } from '../http/http-problem.ts';
import { answer, bodyOf, queryOf } from '../http/route.ts';
import { CALIPER_STEP_MS, CaliperStandIn } from '../stand-ins/caliper.ts';
import { DRIVER_STEP_MS, TorqueDriverStandIn } from '../stand-ins/torque-driver.ts';
import { METER_STEP_MS, meterReading } from '../stand-ins/power-meter.ts';
import { THERMOCOUPLE_STEP_MS, ThermocoupleStandIn } from '../stand-ins/thermocouple.ts';
import { brokenFunctions, SELF_TEST_STEP_MS, SelfTestStandIn } from '../stand-ins/self-test.ts';
import type { DeviceMaps } from '../store/device-maps.ts';
import type { Jobs } from '../store/jobs.ts';
import { askWithin, REGISTRY_NAME, RegistryStandIn } from '../stand-ins/registry.ts';

/** Most milliseconds that a register may take before it counts as not reachable. */
const REGISTRY_MS = 5000;
const MOST_METERS = 12;
/** A meter nobody looks at any more is switched off. */
const LONGEST_STEPS = (2 * 3600 * 1000) / METER_STEP_MS;

interface ThermocoupleQuery {
  readonly map: string;
  readonly joint: string;
  readonly kind: WarmSource;
  readonly temp_C: number;
  readonly spot: Spot;
  readonly pace: number;
  readonly from_s: number;
  readonly past?: string;
}

/** Instruments that stand in for real ones in the demonstration; whatever they say is marked as simulated. */
export function standInRoutes(
  maps: DeviceMaps,
  jobs: Jobs,
  now: () => string,
  registry: Pick<RegistryStandIn, 'ask'> = new RegistryStandIn(),
): Hono {
  const routes = new Hono();
  let meters = 0;
  routes.get('/', (context) =>
    answer(context, 'GET /stand-ins', {
      standIns: ['caliper', 'power-meter', 'registry', 'self-test', 'thermocouple', 'torque-driver'],
    }),
  );

  routes.post('/registry', async (context) => {
    const { number } = await bodyOf(context, 'POST /stand-ins/registry');
    const at = now();
    const said = await askWithin(registry, number, REGISTRY_MS);
    const about = { answers: REGISTRY_ANSWERS, number, at, where: REGISTRY_NAME, simulated: true };
    return answer(context, 'POST /stand-ins/registry', { answer: said, ...about });
  });

  routes.get('/caliper', (context) => {
    const { screws, spilled, seed } = queryOf(context, 'GET /stand-ins/caliper');
    const laidIn = screws.split(',').map((each) => {
      const [length, ...drive] = each.split(':');
      return { length_mm: Number(length), drive: drive.join(':') };
    });
    const caliper = new CaliperStandIn(laidIn, spilled === true, seed ?? 1);
    return streamed(
      context,
      CALIPER_STEP_MS,
      (step) => caliper.reading(step),
      ({ isLast }) => isLast,
    );
  });

  routes.get('/torque-driver', (context) => {
    const { windows, seed } = queryOf(context, 'GET /stand-ins/torque-driver');
    const given = windows.split(',').map((each) => {
      const [least_Ncm, most_Ncm] = each.split('-').map(Number) as [number, number];
      return { least_Ncm, most_Ncm };
    });
    const driver = new TorqueDriverStandIn(given, seed ?? 1);
    return streamed(
      context,
      DRIVER_STEP_MS,
      (step) => driver.reading(step),
      ({ isLast }) => isLast,
    );
  });

  routes.get('/self-test', async (context) => {
    const { job: id, functions, faults = '' } = queryOf(context, 'GET /stand-ins/self-test');
    const job = jobs.find(id);
    if (!job) throw new HttpProblem(404, `There is no job "${id}".`);
    const { mechanism, state } = (await jobs.live(job)).going;
    const asked = functions.split(',').filter(Boolean);
    const given = faults.split(',').filter(Boolean);
    const known = new Set(mechanism.map.functions.map((each) => each.id));
    const unknown = (path: string, all: readonly string[], isKnown: (id: string) => boolean) =>
      all
        .filter((each) => !isKnown(each))
        .map((each) => wrong(path, `The map of this job has no "${each}".`, 'Name one that it has.'));
    const errors = [
      ...unknown('functions', asked, (each) => known.has(each)),
      ...unknown('faults', given, (each) => mechanism.joint.has(each)),
    ];
    if (errors.length > 0) throw new HttpProblem(422, 'The device can not answer for that.', errors);
    const device = new SelfTestStandIn(asked, brokenFunctions(mechanism, state, new Set(given)));
    return streamed(
      context,
      SELF_TEST_STEP_MS,
      (step) => device.reading(step),
      ({ isLast }) => isLast,
    );
  });

  routes.get('/power-meter', (context) => {
    const settings = queryOf(context, 'GET /stand-ins/power-meter');
    const read = (step: number) => meterReading(settings, step);
    return streamed(
      context,
      METER_STEP_MS,
      (step) => (step >= LONGEST_STEPS ? null : read(step)),
      ({ charge }) => charge === 0,
    );
  });

  routes.get('/thermocouple', (context) => {
    const query = queryOf(context, 'GET /stand-ins/thermocouple') as ThermocoupleQuery;
    const map = maps.find(query.map)?.map;
    const bond = map?.joints.find((each) => each.id === query.joint);
    if (!map || bond?.type !== 'bond')
      throw new HttpProblem(404, `There is no bond "${query.joint}" in a map "${query.map}".`);
    if (!isForeseeable(stackOfBond(map, bond)))
      throw HttpProblem.at(
        422,
        wrong(
          'joint',
          `The layers of "${query.joint}" name a material that is in no table here.`,
          'Choose a bond whose materials are known.',
        ),
      );
    const setting = { ...settingFor(bond, query.kind), temp_C: query.temp_C };
    const past = (query.past ?? '').split(',').filter(Boolean).map(Number);
    const thermocouple = new ThermocoupleStandIn({ ...query, past, map, bond, setting });
    return streamed(context, THERMOCOUPLE_STEP_MS, (step) =>
      thermocouple.isOver(step) ? null : thermocouple.reading(step),
    );
  });

  /** Readings one after another until there are none, one is the last, or nobody looks any more. */
  function streamed<T extends object>(
    context: Context,
    step_ms: number,
    read: (step: number) => T | null,
    isLast: (reading: T) => boolean = () => false,
  ) {
    if (meters >= MOST_METERS) throw new HttpProblem(503, 'All meters are in use.', [], { 'retry-after': '5' });
    meters++;
    return streamSSE(context, async (stream) => {
      let open = true;
      stream.onAbort(() => {
        open = false;
      });
      try {
        for (let step = 0; open; step++) {
          const reading = read(step);
          if (!reading) break;
          await stream.writeSSE({ data: JSON.stringify(reading) });
          if (isLast(reading)) break;
          await stream.sleep(step_ms);
        }
      } finally {
        meters--;
      }
    });
  }

  return routes;
}
