import { readdirSync, readFileSync } from 'node:fs';
import { askedAhead } from '@nibrel/core/asking/at-bench';
import { cutOfBond } from '@nibrel/core/planner/cut';
import { checkDeviceMap } from '@nibrel/core/planner/map-check';
import { type DeviceMap, deviceMapSchema, type Joint, type ScrewJoint } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import { dragsBelow, stackOfBond } from '@nibrel/core/physics/heat';
import { type Mechanism, mechanismOf } from '@nibrel/core/planner/holds';
import { planAhead } from '@nibrel/core/bench/in-hand';
import { type BenchEvent } from '@nibrel/core/job/events';
import { type JobState, newJob } from '@nibrel/core/job/state';
import { softensAt } from '@nibrel/core/job/rules';
import { withEvent } from '@nibrel/core/job/fold';
import { kitFor } from '@nibrel/core/after/kit';
import { harmOf, holesOf } from '@nibrel/core/screws/mix-ups';
import { screwLetters } from '@nibrel/core/screws/screws';
import { DEFAULT_LIMITS } from '@nibrel/core/model/limits';
import { type Policy, usualPolicy } from '@nibrel/core/model/policy';
import { benchItems, chargeNeed, pinHoles } from '@nibrel/core/workshop/prepare';
import type { Plan } from '@nibrel/core/planner/plan';
import { PlanError, type Target } from '@nibrel/core/planner/search';
import { sureness, whyNow } from '@nibrel/core/planner/words';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it, vi } from 'vitest';
import { FoldMarks } from '../drawing/fold-marks.tsx';
import { DeviceDrawing } from '../drawing/device-drawing.tsx';
import { shownOf } from '@nibrel/core/drawn/shown';
import { Seam } from './opening/seam.tsx';
import { Asked } from '../frame/asked.tsx';
import { StepBody } from './step-body.tsx';
import { Why } from './why.tsx';

type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

const CLIENT = new QueryClient();

// a device's own camera is asked for at this address
vi.stubGlobal('location', new URL('http://127.0.0.1:4711/'));

const folder = new URL('../../../demo/device-maps/', import.meta.url);
const demo = readdirSync(folder).map((name) => JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as DeviceMap);

/** Tern 5 with what no device of the demo has. */
function rich(): DeviceMap {
  const map = structuredClone(demo.find(({ id }) => id === 'tern-5')!);
  const add = (list: readonly { readonly id: string }[], id: string, more: object) =>
    Object.assign(
      list.find((each) => each.id === id)!,
      more,
    );
  add(map.parts, 'rear-camera', {
    mark: '2',
    mixUpWith: ['front-camera'],
    motion: { angle: 30, turn: 90, firstEdge: 'top' },
    ifFailed: { replace: 'front-camera' },
    liftFrom: { x: 5, y: 5 },
    staysWith: 'lower-board',
    film: true,
    hint: { remove: 'Gently.', fit: 'Straight.' },
    onReplace: [{ effect: 'lost', function: 'touch', note: 'It forgets.' }],
  });
  add(map.parts, 'volume-flex', { through: [{ part: 'frame', x: 1, y: 1 }] });
  add(map.fasteners, 'lid-short', {
    locker: { activator: 'Primer', cure_s: 600 },
    colour: 'black',
    magnetic: false,
    alsoDrives: ['PH00'],
    torque: { min: 5, max: 7 },
    singleUse: true,
  });
  add(map.joints, 'display-plug', {
    lever: { x: 0, y: 60 },
    mark: 'J7',
    tool: 'fine tweezers',
    seconds: 9,
    needs: ['A lamp.'],
  });
  add(map.joints, 'bezel-clips', { tilt: 'top', mark: '4' });
  add(map.joints, 'lower-seat', { tilt: 'left' });
  add(map.joints, 'front-seal', { dragBelow_C: 45 });
  add(map.joints, 'cell-straps', { heat: true, heatGroup: 'inner' });
  add(map.joints, 'front-camera-tape', { heat: true, heatGroup: 'inner' });
  add(map.joints, 'bezel-clips', {
    points: [
      { id: 'a', x: 20, y: 2, order: 2 },
      { id: 'b', x: 50, y: 2, order: 1 },
    ],
  });
  add(map.functions, 'picture', { needs: ['front-seal'] });
  (map.functions as DeviceMap['functions'][number][]).push({ id: 'hum', name: 'Hum', how: 'It hums.' });
  const screws = map.joints.find(({ id }) => id === 'connector-lid-screws') as ScrewJoint;
  add(map.joints, screws.id, {
    at: { x: 3, y: 4 },
    points: screws.points.map((each, at) => ({ ...each, outOrder: at + 1 })),
    hint: { release: 'Slowly.', make: 'Even.' },
  });
  (map.joints as Joint[]).push({
    id: 'vibrator-wires',
    type: 'solder',
    holds: ['vibrator'],
    to: 'frame',
    face: 'front',
    points: [{ id: 'red', x: 12, y: 30, wire: 'red' }],
    functions: ['hum'],
  });
  add(map.parts, 'vibrator', {
    under: [{ part: 'loudspeaker', until: 'off', note: 'Its lead runs over it.' }, { joint: 'display-plug' }],
  });
  const guess = { certainty: 'likely', in: true, why: 'outline', reasons: ['outline'] } as const;
  Object.assign(map, {
    origin: {
      guesses: [
        { ...guess, joint: 'connector-lid-screws', entry: { part: 'display', until: 'open' } },
        { ...guess, part: 'vibrator', entry: { joint: 'display-plug' } },
      ],
      unplaced: ['volume-flex'],
      unmeasured: ['lid-short'],
      refuted: [
        { joint: 'display-plug', entry: { part: 'spreader', until: 'off' } },
        { part: 'spreader', entry: { joint: 'display-plug' } },
      ],
      record: { record: [] },
    },
  });
  add(map.joints, 'vibrator-screw', { under: [{ part: 'display', until: 'open', note: 'Below the foil.' }] });
  return map;
}

/** A device with a lift-out cell, of which a teardown has not said where that lies. */
function unseen(): DeviceMap {
  const map = demo.find(({ id }) => id === 'dunlin-open')!;
  return { ...map, origin: { guesses: [], unplaced: [map.battery!.part], unmeasured: [] } };
}

const maps = [rich(), unseen(), ...demo];

interface Repair {
  readonly targets: readonly Target[];
  readonly policy: Partial<Policy>;
}

/** Counts looks at the clock in place of time: the same search ends at the same place on every machine. */
function budget() {
  let looks = 0;
  return { now: () => looks++, limitMs: 20 };
}

/** All that a plan and the screens of a bench say of a repair, what takes least to find out first. */
function* said(map: DeviceMap, { targets, policy }: Repair, about: string | undefined): Generator<string> {
  const mechanism = mechanismOf(map);
  const job = { id: 'j', map: map.id, revision: 1, targets, policy, title: '', createdAt: '2026-11-24T08:00:00Z' };
  const state = newJob(mechanism, job);
  const { ops, plan, owner, charge } = planAhead(mechanism, state, budget());
  yield JSON.stringify([
    ops.map((op) => [
      op.id,
      op.seconds,
      op.wait_s,
      op.tool,
      whyNow(
        map,
        op,
        ops.find(({ id }) => id === op.serves),
      ),
    ]),
    { ...plan, strip: [], rebuild: [] },
    owner,
    charge,
  ]);
  yield besideThePlan(mechanism, state, plan, ops, about);
  const held = new Set(map.joints.filter(({ holds, to }) => [...holds, to].includes(about ?? '')).map(({ id }) => id));
  const isAbout = (op: Op) => [op.part, op.joint, ...(op.frees ?? [])].includes(about) || held.has(op.joint ?? '');
  const asked = ops.filter(isAbout);
  for (const op of asked) {
    yield drawn(mechanism, state, op);
    yield worded(mechanism, state, op);
  }
  for (const op of ops) if (!asked.includes(op)) yield worded(mechanism, state, op);
}

function worded(mechanism: Mechanism, state: JobState, op: Op): string {
  const at = { mechanism, state, ahead: null, now: 0, atHand: {}, where: null, unit: 'C' } as const;
  const question = askedAhead(at, op, 1);
  return renderToStaticMarkup(
    <QueryClientProvider client={CLIENT}>
      <Asked question={question} name="" why={<Why short={question.why} op={op} isLong onPress={() => {}} />}>
        <StepBody
          {...{ mechanism, state, op, lead: op, together: [op], isNow: true, selfTest: null, beside: null }}
          onPeak={() => Promise.resolve(true)}
          onNoPlace={() => {}}
          onBattery={() => {}}
        />
      </Asked>
    </QueryClientProvider>,
  );
}

function drawn(mechanism: Mechanism, state: JobState, op: Op): string {
  const { map } = mechanism;
  const side = op.face === 'back' ? 'back' : 'front';
  return renderToStaticMarkup(
    <DeviceDrawing map={map} side={side} label="" ops={[op]} {...shownOf(mechanism, state, op)}>
      {op.kind === 'fit' && <FoldMarks map={map} side={side} part={op.part!} />}
    </DeviceDrawing>,
  );
}

/** What is measured, cut, kept, counted and listed of a repair. */
function besideThePlan(
  mechanism: Mechanism,
  state: JobState,
  plan: Plan,
  ops: readonly Op[],
  about: string | undefined,
): string {
  const { map } = mechanism;
  // held against the map where somebody measures it
  const measured = [undefined, about].map((part) => {
    const data = { thickness_mm: 9, ...(part === undefined ? {} : { part }) };
    const event = { id: 'm', type: 'measure', at: state.job.createdAt, by: '', data } as unknown as BenchEvent;
    const outcome = withEvent(mechanism, state, event);
    return 'state' in outcome ? outcome.state.measured : [];
  });
  const bonds = map.joints.flatMap((bond) => {
    if (bond.type !== 'bond') return [];
    const softens = softensAt(state, bond);
    return [
      [softens, dragsBelow(bond, softens), cutOfBond(map, bond, { speed_mm_s: 4 })],
      bond.heat ? [stackOfBond(map, bond), bond.recipe] : [],
      bond.seam ? renderToStaticMarkup(<Seam map={map} bond={bond} depth={2} />) : '',
    ];
  });
  return JSON.stringify([
    chargeNeed(map, plan.strip, 'run-down', DEFAULT_LIMITS, 0.6),
    benchItems(map, state.targets, { ...usualPolicy(map), ...DEFAULT_LIMITS }, ops),
    kitFor(map, plan, new Set(['PH00']), []),
    map.parts.filter(({ kind }) => kind === 'tray').map(({ id }) => pinHoles(map, id)),
    // what a screw of the next kind does in each hole
    holesOf(map).map((hole) =>
      harmOf({ ...hole.kind, length: hole.kind.length + 0.6 }, hole.kind, hole.point, DEFAULT_LIMITS),
    ),
    // listed as they stand, in Prepare and where the parts of a job are picked
    [map.cautions, map.name, map.kind],
    // how sure an entry is, and which screws nobody has measured
    [...map.parts, ...map.joints].flatMap(({ id, under = [] }) => under.map((entry) => sureness(map, id, entry))),
    [...screwLetters(map)],
    bonds,
    measured,
  ]);
}

/** Every field of the format with the words it may have: *parts[].motion.angle*, *joints[screw].points[].depth*. */
function fieldsOf(schema: Described, path: string): (readonly [string, readonly Json[]])[] {
  if (schema.type === 'alternatives') {
    const cases = (schema.matches ?? []).flatMap((each) => each.switch ?? []);
    return cases.length > 0
      ? cases.flatMap(({ is, then }) => fieldsOf(then, path.replace(/\[\]$/, `[${String(is.allow.at(-1))}]`)))
      : [[path, []]];
  }
  if (schema.keys) {
    return Object.entries(schema.keys).flatMap(([key, each]) => fieldsOf(each, path ? `${path}.${key}` : key));
  }
  if (schema.items) return schema.items.flatMap((each) => fieldsOf(each, `${path}[]`));
  const allowed = (schema.allow ?? []).filter((each) => typeof each !== 'object') as Json[];
  return [[COMMON.test(path) ? path.replace(/^joints\[\w+\]/, 'joints[]') : path, allowed]];
}

/** What every type of joint has. */
const COMMON = /^joints\[\w+\]\.(holds|to|face|at|under|tool|needs|seconds|mark|hint)\b/;

interface Described {
  readonly type?: string;
  readonly keys?: Readonly<Record<string, Described>>;
  readonly items?: readonly Described[];
  readonly matches?: readonly {
    readonly switch?: readonly { readonly is: { allow: readonly unknown[] }; readonly then: Described }[];
  }[];
  readonly allow?: readonly unknown[];
}

/** Read by no plan and no screen of a bench, and why not. */
const NOT_SHOWN: Readonly<Record<string, string>> = {
  format: 'the format itself',
  version: 'the format itself',
  kind: 'names it in lists',
  'origin.guesses[].reasons[]': 'all that speaks for an entry: the surest is said',
  'origin.refuted[].joint': 'kept with what refuted it, for what later repairs teach',
  'origin.refuted[].part': 'kept with what refuted it, for what later repairs teach',
  'origin.refuted[].entry.joint': 'kept with what refuted it, for what later repairs teach',
  'origin.refuted[].entry.part': 'kept with what refuted it, for what later repairs teach',
  'origin.refuted[].entry.until': 'kept with what refuted it, for what later repairs teach',
  'origin.record': 'what the map was made of, for what later repairs teach',
};

/** Every place of a field in a map, with the part or joint that it belongs to. */
function placesOf(
  map: DeviceMap,
  field: string,
): { readonly path: readonly (string | number)[]; readonly about?: string }[] {
  let found: { path: (string | number)[]; value: unknown; about?: string }[] = [{ path: [], value: map }];
  for (const step of field.split('.')) {
    const [key, ...lists] = step.split('[');
    found = found.flatMap(({ path, value, about }) => {
      const next = (value as Record<string, unknown> | null)?.[key!];
      return next === undefined ? [] : [{ path: [...path, key!], value: next, ...(about ? { about } : {}) }];
    });
    for (const list of lists) {
      const type = list.replace(']', '');
      found = found.flatMap(({ path, value, about }) =>
        (value as readonly unknown[]).flatMap((each, index) => {
          if (type && (each as { type: string }).type !== type) return [];
          const id = about ?? (each as { id?: string }).id;
          return [{ path: [...path, index], value: each, ...(id ? { about: id } : {}) }];
        }),
      );
    }
  }
  return found.filter(({ value }) => value !== null);
}

/** A map with one value changed, or left out where there is nothing else that it could be. */
function changedAt(map: DeviceMap, path: readonly (string | number)[], to: Json | undefined): DeviceMap {
  const copy = structuredClone(map);
  const inner = path.slice(0, -1).reduce<unknown>((at, key) => (at as Record<string | number, unknown>)[key], copy);
  const last = path.at(-1)!;
  if (to !== undefined) (inner as Record<string | number, unknown>)[last] = to;
  else if (Array.isArray(inner)) inner.splice(last as number, 1);
  else delete (inner as Record<string | number, unknown>)[last];
  return copy;
}

function others(value: unknown, field: string): (Json | undefined)[] {
  if (typeof value === 'number') return [value + 1.5, value * 2 + 3, value / 2, undefined];
  if (typeof value === 'boolean') return [!value];
  const words = fields.get(field)!.filter((each) => each !== value);
  return words.length > 0 ? [...words, undefined] : [`${String(value)} other`, undefined];
}

const fields = new Map(
  fieldsOf(deviceMapSchema.describe() as Described, '').filter(([each]) => !/(^|\.)(id|type)$/.test(each)),
);

/** What is said, found out as far as somebody asks. */
class Telling {
  readonly #told: string[] = [];
  readonly #more: Generator<string>;

  constructor(...asked: Parameters<typeof said>) {
    this.#more = said(...asked);
  }

  /** undefined past its end */
  at(index: number): string | undefined {
    while (this.#told.length <= index) {
      const next = this.#more.next();
      if (next.done) return undefined;
      this.#told.push(next.value);
    }
    return this.#told[index];
  }

  differsFrom(other: Telling): boolean {
    for (let index = 0; ; index++) {
      const [own, others] = [this.at(index), other.at(index)];
      if (own !== others) return true;
      if (own === undefined) return false;
    }
  }
}

const known = new Map<string, Telling>();

/** What is said before a change. */
function before(map: DeviceMap, job: Repair, about: string | undefined): Telling {
  const key = `${maps.indexOf(map)} ${JSON.stringify(job)} ${about}`;
  const telling = known.get(key) ?? new Telling(map, job, about);
  known.set(key, telling);
  return telling;
}

/** A part that can't be replaced at all, before or after a change, is another thing to say. */
function isSaidOtherwise(changed: DeviceMap, map: DeviceMap, job: Repair, about: string | undefined): boolean {
  const isPlanned = (telling: Telling) => {
    try {
      return telling.at(0) !== undefined;
    } catch (error) {
      if (error instanceof PlanError) return false;
      throw error;
    }
  };
  const [now, then] = [new Telling(changed, job, about), before(map, job, about)];
  return isPlanned(now) !== isPlanned(then) || (isPlanned(now) && now.differsFrom(then));
}

/** Does a change of this field change anything that is planned or said, in any repair that it could matter to? */
function isRead(field: string): boolean {
  let isTaken = false;
  let isRefused = false;
  for (const map of maps) {
    for (const { path, about } of spread(placesOf(map, field))) {
      const value = path.reduce<unknown>((at, key) => (at as Record<string | number, unknown>)[key], map);
      const thing = about ?? (field.startsWith('battery') ? map.battery?.part : undefined);
      const part = map.parts.find(({ id, base }) => id === thing && !base)?.id;
      const held = map.joints.find(({ id }) => id === about)?.holds[0];
      const target = part ?? held;
      const jobs: Repair[] = [
        ...(target ? [{ targets: [{ replace: target }], policy: {} }] : []),
        { targets: [{ full: true }], policy: {} },
        { targets: [{ full: true }], policy: { batteryBond: 'solvent-and-heat', display: 'on-flexes' } },
      ];
      for (const job of jobs) {
        for (const to of others(value, field)) {
          const changed = changedAt(map, path, to);
          if (checkDeviceMap(changed).errors.length > 0) {
            isRefused ||= !deviceMapSchema.validate(changed).error;
            continue;
          }
          isTaken = true;
          if (isSaidOtherwise(changed, map, job, thing)) return true;
        }
      }
    }
  }
  // what may be nothing else is read by the check of the map
  return isRefused && !isTaken;
}

/** The first, the last and the middle of many. */
function spread<T>(all: readonly T[]): T[] {
  return [...new Set([0, all.length - 1, all.length >> 1])].flatMap((at) => all[at] ?? []);
}

// whole devices planned and drawn hundreds of times: left to the whole run
describe.skipIf(process.env['NIBREL_LOOP'] === 'fast')('every field of a device map', () => {
  it.each([...fields.keys()].filter((each) => !(each in NOT_SHOWN)))(
    '%s changes what is planned, said or drawn',
    (field) => {
      expect(
        maps.some((map) => placesOf(map, field).length > 0),
        'is in a map',
      ).toBe(true);
      expect(isRead(field)).toBe(true);
    },
    120_000,
  );
});
