import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { EFFORT } from '../../../test/effort.ts';
import { EVERY_EVENT, IN_A_STOP } from '../../../test/every-event.ts';
import { Led } from '../../../test/led.ts';
import { shearwater11, tern5 } from '../../../test/maps.ts';
import { random } from '../../../test/random-map.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import { usualSetting } from '../../physics/heat/index.ts';
import type { BenchEvent, EventData, EventType } from '../events/events.ts';
import { foldJob } from './fold.ts';

// What is true of a repair, kept by somebody who knows nothing of the rules but what happened: the events that were taken.
interface Facts {
  /** stops that nobody who may has cleared, by the event that raised them */
  readonly stops: Set<string>;
  /** the bond whose source is on */
  source: string | null;
  /** bonds that solvent went on */
  readonly wetted: Set<string>;
  /** drops in the air */
  drops: number;
  /** at the last of them */
  lastDrops_ms: number;
}

type Lie = readonly [type: EventType, data: object, by?: string];

const STAYS: readonly EventType[] = ['heat-on', 'heat-off', 'solvent', 'aired', 'heat-reading'];

function liesFor(bench: TestBench, pick: <T>(from: readonly T[]) => T): Lie {
  const { map } = bench.mechanism;
  const bonds = map.joints.filter(({ type }) => type === 'bond').map(({ id }) => id);
  const joint = pick(map.joints).id;
  const bond = pick(bonds);
  const event = bench.state.events.length > 0 ? pick(bench.state.events).id : '00000000-0000-4000-8000-000000000000';
  const release = { id: `release:${joint}`, kind: 'release', joint };
  // a seam that is closed still, and may be heated
  const { joint: numbers } = bench.mechanism;
  const hot = map.joints.find(
    (each) => each.type === 'bond' && each.heat && !bench.state.device.released[numbers.get(each.id)!],
  );
  if (hot && pick([true, ...Array.from({ length: 8 }, () => false)]))
    return ['heat-on', { joint: hot.id, setting: usualSetting('plate'), heat_s: 60 }];
  // any type of event at all, whoever says it, as often as one that is made up for this repair
  if (pick([true, false])) {
    const type = pick(Object.keys(EVERY_EVENT) as EventType[]);
    return [type, EVERY_EVENT[type], pick(['Ines', 'Pip the learner', 'Maren'])];
  }
  return pick<Lie>([
    ['finish', {}],
    ['finish', { text: 'I decide so' }, 'Maren'],
    ['clear', { text: 'nothing to see', lead: 'Maren' }],
    ['clear', { text: 'nothing to see', stop: event, lead: 'Maren' }],
    ['clear', { text: 'looked at', stop: bench.state.stopped?.id ?? event }, 'Maren'],
    ['clear', { text: 'looked at' }, 'Maren'],
    ['stop', { reason: 'puncture', text: '' }],
    ['damage', { kind: 'swelling', face: 'front', x: 3, y: 3 }],
    ['undo', { event }],
    ['undo', { event: bench.state.inForce.findLast(({ type }) => type !== 'undo')?.id ?? event }],
    ['undo', { event: [...bench.state.stops].at(-1)?.id ?? event }],
    ['prepared', { items: [], skipped: [], told: [] }],
    ['prepared', { items: ['everything'], skipped: [], charge: 0, told: ['everything'] }],
    ['did', { steps: [{ id: 'prepare', kind: 'procedure', name: 'prepare' }] }],
    ['did', { steps: [{ id: 'prepare', kind: 'procedure', name: 'prepare' }], anyway: 'it was so' }],
    ['did', { steps: [{ id: 'vent', kind: 'procedure', name: 'vent' }], anyway: 'it was so' }],
    ['did', { steps: [{ id: `soak:${bond}`, kind: 'procedure', name: 'soak', joint: bond }] }],
    ['did', { steps: [{ id: `heat:${bond}`, kind: 'procedure', name: 'heat', joint: bond }], anyway: 'it is warm' }],
    ['did', { steps: [release], anyway: 'it came off by itself' }],
    ['did', { steps: [release] }],
    ['heat-on', { joint: bond, setting: usualSetting('plate'), heat_s: 120 }],
    ['heat-on', { joint: bond, setting: usualSetting('air'), heat_s: 120 }],
    ['heat-off', { joint: bond, seconds: 0 }],
    ['heat-reading', { joint: bond, readings: [{ at_s: 10, temp_C: 21, spot: 'bond' }] }],
    ['solvent', { joint: bond, drops: 3, away: true, bond_C: 20 }],
    ['aired', { step: 'vent', seconds: 1_000_000 }],
    ['decision', { about: 'left-open', what: 'source', text: 'it is off, really' }],
    ['decision', { about: 'left-open', what: 'bench:default', text: 'it does not smell' }],
    ['decision', { about: 'other', text: 'all is well' }, 'Maren'],
    ['end', { text: 'enough of it' }],
  ]);
}

function hold(facts: Facts, { id, type, data, by, at }: BenchEvent): void {
  if (type === 'stop' || (type === 'damage' && data.kind === 'swelling')) facts.stops.add(id);
  if (type === 'clear') {
    expect(by).toBe('Maren');
    const { stop } = data;
    if (stop === undefined) facts.stops.clear();
    else facts.stops.delete(stop);
  }
  if (type === 'heat-on') facts.source = data.joint;
  if (type === 'heat-off') facts.source = null;
  if (type === 'solvent') {
    facts.wetted.add(data.joint);
    facts.drops += data.drops;
    facts.lastDrops_ms = Date.parse(at);
  }
  if (type === 'aired') facts.drops = 0;
}

/** What must not have been taken, as things stood before it. */
function mustNot(facts: Facts, bench: TestBench, before: TestBench['state'], event: BenchEvent): void {
  if (facts.stops.size > 0) {
    const undone = event.type === 'undo' ? before.inForce.find(({ id }) => id === event.data.event)! : event;
    expect(IN_A_STOP).toContain(undone.type);
  }
  if (event.type === 'undo') {
    const undone = before.inForce.find(({ id }) => id === event.data.event)!;
    expect(STAYS).not.toContain(undone.type);
  }
  if (event.type === 'did') {
    for (const { kind, joint, name } of event.data.steps) {
      if (kind === 'release') expect(joint).not.toBe(facts.source);
      expect(name).not.toBe('prepare');
      if (name === 'heat' || name === 'vent') expect(facts.drops).toBe(0);
      if (name === 'soak') expect(facts.wetted).toContain(joint);
    }
  }
  if (event.type === 'heat-on') expect(facts).toMatchObject({ source: null, drops: 0 });
  if (event.type === 'solvent') expect(facts.source).toBeNull();
  // at least a minute, whatever the seconds are that somebody claims
  if (event.type === 'aired') expect(Date.parse(event.at) - facts.lastDrops_ms).toBeGreaterThanOrEqual(60_000);
  if (event.type === 'end' && event.by !== 'Maren') expect([before.done, facts.stops.size]).toEqual([[], 0]);
  if (event.type === 'finish') {
    expect(facts).toMatchObject({ source: null, drops: 0 });
    expect(before.ledger.onMat).toEqual([]);
    expect([...before.device.status, ...before.device.released].filter(Boolean)).toEqual([]);
    for (const target of bench.job.targets) {
      if ('replace' in target)
        expect(before.done).toContainEqual(expect.objectContaining({ kind: 'fit', part: target.replace, new: true }));
    }
  }
}

/** Taken and refused, by type: that the walk went where it should. */
const went = new Map<string, number>();

function walk(map: DeviceMap, part: string, seed: number): void {
  const next = random(seed);
  const pick = <T>(from: readonly T[]) => from[Math.floor(next() * from.length)]!;
  const bench = new TestBench(map, [{ replace: part }]);
  const led = new Led(bench);
  const facts: Facts = { stops: new Set(), source: null, wetted: new Set(), drops: 0, lastDrops_ms: -Infinity };
  for (let n = 0; n < 90 && !bench.state.finished && !bench.state.ended; n++) {
    const before = bench.state;
    const known = before.events.length;
    if (next() < 0.7 && before.stops.length === 0) {
      if (!led.next()) bench.send('finish', {});
    } else {
      const [type, data, by] = liesFor(bench, pick);
      bench.send(type, data as EventData[EventType], by);
    }
    for (const event of bench.state.events.slice(known)) {
      mustNot(facts, bench, before, event);
      hold(facts, event);
      went.set(event.type, (went.get(event.type) ?? 0) + 1);
    }
    expect(bench.state.stops.map(({ id }) => id)).toEqual(expect.arrayContaining([...facts.stops]));
    expect(bench.state.stopped === null).toBe(bench.state.stops.length === 0);
    expect(bench.state.opening.heating?.joint ?? null).toBe(facts.source);
  }
  expect(foldJob(bench.mechanism, bench.job, bench.state.events)).toEqual(bench.state);
}

describe('a client that lies', () => {
  it.each([
    { map: tern5(), part: 'display' },
    { map: tern5(), part: 'cell' },
    { map: shearwater11(), part: 'display' },
  ])('gets nothing past the bench at $part of $map.id', ({ map, part }) => {
    for (let seed = 1; seed <= 20 * EFFORT; seed++) walk(map, part, seed);
    // it stopped and was cleared, heated and wetted, undid and decided, and went on in between
    for (const type of ['stop', 'clear', 'undo', 'did', 'heat-on', 'prepared']) {
      expect(went.get(type) ?? 0, type).toBeGreaterThan(0);
    }
  });
});
