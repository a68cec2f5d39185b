import { workshop } from './workshop-server.ts';
import { describe, expect, it } from 'vitest';
import { TEARDOWN } from './teardown.ts';

const { call } = workshop();
describe('compute/battery and compute/identity', () => {
  it('answer as the contract has it', async () => {
    const cells = [
      { capacity_mAh: 5400, nominal_V: 3.8 },
      { capacity_mAh: 5400, nominal_V: 3.8 },
    ];
    const battery = await call('POST', '/compute/battery', {
      cells,
      wiring: 'parallel',
      charge: 0.75,
      target: 0.25,
      load_W: 10.26,
    });
    // 10.8 Ah × 3.8 V = 41.04 Wh, half of it at 10.26 W: two hours
    expect(battery.body).toMatchObject({ capacity_mAh: 10_800, nominal_V: 3.8, seconds: 7200 });
    expect(battery.body['energy_Wh']).toBeCloseTo(41.04, 9);
    const numbers = [
      { place: 'label', value: '26053179 311383 7' },
      { place: 'screen', value: '2605317931138301' },
    ];
    const identity = await call('POST', '/compute/identity', { numbers });
    expect(identity.body).toEqual({
      numbers: [
        { ...numbers[0], kind: 'imei', valid: true },
        { ...numbers[1], kind: 'imeisv', valid: true },
      ],
      agree: true,
    });
  });

  it('make a map of a teardown, and say how sure it is of what lies under what', async () => {
    const { status, body } = await call('POST', '/compute/infer-map', TEARDOWN);
    expect(status).toBe(200);
    expect(body['guesses']).toContainEqual(
      expect.objectContaining({
        joint: 'j1',
        entry: { part: 'lid', until: 'off' },
        certainty: 'certain',
        in: true,
        why: 'refused',
      }),
    );
    const check = await call('POST', '/device-maps', body['map']);
    expect([check.status, check.body['errors']]).toEqual([201, undefined]);
    const lost = { ...TEARDOWN, record: [{ kind: 'lift', part: 'roof' }] };
    const refused = await call('POST', '/compute/infer-map', lost);
    expect([refused.status, refused.body['errors'][0].path]).toEqual([422, 'record[0].part']);
    const shapeless = await call('POST', '/compute/infer-map', { ...TEARDOWN, record: [{ kind: 'lift' }] });
    expect([shapeless.status, shapeless.body['errors'][0].path]).toEqual([422, 'record[0].part']);
  });

  it('refuse what can not be, naming the field', async () => {
    const wrong = await call('POST', '/compute/battery', {
      cells: [],
      wiring: 'parallel',
      charge: 2,
      target: 0,
      load_W: -1,
    });
    expect(wrong.status).toBe(422);
    expect(wrong.body['errors'].map((each: { path: string }) => each.path)).toEqual(['cells', 'charge', 'load_W']);
    expect((await call('POST', '/compute/identity', { numbers: [{ place: 'label', value: 1 }] })).status).toBe(422);
    expect((await call('POST', '/compute/identity', {})).body['errors'][0].path).toBe('numbers');
  });
});

describe('compute/swap-table, containers and screw-match', () => {
  it('answer as the contract has it', async () => {
    const fastener = (id: string, length: number) => ({ id, drive: 'PH000', thread: 'M1.4x0.3', length, head: 2 });
    const joint = { id: 'lid', type: 'screw', holds: ['lid'], to: 'frame', face: 'front', fastener: 'a' };
    const points = [{ id: 'p', x: 1, y: 2, depth: 1.6, below: 'board' }];
    const swap = await call('POST', '/compute/swap-table', {
      fasteners: [fastener('a', 1.2), fastener('b', 3.1)],
      joints: [{ ...joint, points }],
    });
    expect(swap.body).toEqual({
      cells: [
        { fastener: 'a', joint: 'lid', point: 'p', verdict: 'fits' },
        { fastener: 'b', joint: 'lid', point: 'p', verdict: 'long', protrudes_mm: 1.5 },
      ],
    });
    const cost = [
      [0, 5, 1],
      [5, 0, 1],
      [1, 1, 0],
    ];
    const split = await call('POST', '/compute/containers', { classes: ['a', 'b', 'c'], cost, containers: 2 });
    expect(split.body).toMatchObject({ cost: 1, optimal: true });
    const match = await call('POST', '/compute/screw-match', {
      classes: [{ id: 'a', drive: 'PH000', length: 2, count: 2 }],
      loose: [{ id: 'x', drive: null, length: 2.01 }],
    });
    expect(match.body).toMatchObject({
      best: [{ loose: 'x', class: 'a' }],
      ambiguous: [],
      missing: [{ class: 'a', count: 1 }],
    });
  });

  it('refuse what can not be, naming the field', async () => {
    const refused = async (route: string, body: object) => {
      const { status, body: said } = await call('POST', `/compute/${route}`, body);
      return [status, said['errors'][0].path];
    };
    expect(await refused('containers', { classes: ['a'], cost: [[0]], containers: 0 })).toEqual([422, 'containers']);
    expect(
      await refused('containers', {
        classes: ['a', 'b'],
        cost: [
          [0, 1],
          [2, 0],
        ],
        containers: 2,
      }),
    ).toEqual([422, 'cost[0][1]']);
    const loose = [{ id: 'x', drive: null, length: 900 }];
    expect(await refused('screw-match', { classes: [], loose })).toEqual([422, 'loose[0].length']);
    const points = [{ id: 'p', depth: 1 }];
    const joints = [{ id: 'j', type: 'screw', fastener: 'none', points }];
    expect(await refused('swap-table', { fasteners: [], joints })).toEqual([422, 'joints[0].fastener']);
  });
});

describe('compute/torque, bond and isolate', () => {
  it('answer as the contract has it', async () => {
    const friction = { headBearing_mm: 2, muThread: 0.14, muHead: 0.14 };
    const torque = await call('POST', '/compute/torque', {
      thread: { d: 1.6, pitch: 0.35 },
      ...friction,
      preload_N: 100,
    });
    // ISO 898-1, from memory
    expect(torque.body['stressArea_mm2']).toBeCloseTo(1.27, 2);
    const segments = [{ length_mm: 1013, width_mm: 3 }];
    const bond = await call('POST', '/compute/bond', { segments, mass_kg: 32, dwell_s: 1200 });
    // an acrylic foam tape data sheet, from memory
    expect(bond.body['pressure_psi']).toBeCloseTo(15, 1);
    expect(bond.body['strengthFraction']).toBe(0.5);
    const isolated = await call('POST', '/compute/isolate', {
      connectors: [{ id: 'plug', prior: 0.2, functions: ['touch'] }],
      functions: [{ id: 'touch' }],
      results: { touch: 'fail' },
    });
    expect(isolated.body['sets'][0].connectors).toEqual(['plug']);
  });

  it('refuse what can not be, naming the field', async () => {
    const refused = async (route: string, body: object) => {
      const { status, body: said } = await call('POST', `/compute/${route}`, body);
      return [status, said['errors'][0].path];
    };
    expect(await refused('bond', { area_mm2: 10, mass_kg: 0 })).toEqual([422, 'mass_kg']);
    expect(await refused('load', { mass_kg: 0, weights: [], over: { w: 9, h: 9 } })).toEqual([422, 'mass_kg']);
    expect(await refused('rim', { points: [{ x: 0, y: 0, step_mm: 0 }] })).toEqual([422, 'points']);
    const gap = { id: 'top', length_mm: 40, gaps: [{ from_mm: 10, to_mm: 60 }] };
    expect(await refused('tape', { edges: [gap], rolls: [] })).toEqual([422, 'edges[0]']);
    expect(await refused('isolate', { connectors: [], functions: [], results: { moon: 'fail' } })).toEqual([
      422,
      'results.moon',
    ]);
    expect((await call('POST', '/compute/torque', {})).status).toBe(422);
  });
});

describe('compute/heat', () => {
  const layers = [
    { material: 'soda-lime glass', thickness_mm: 0.8 },
    { material: 'acrylic foam tape', thickness_mm: 0.3 },
  ];
  const request = {
    layers,
    source: { kind: 'plate', temp_C: 70, contact_W_m2K: 300 },
    after: { h_W_m2K: 10, temp_C: 22 },
    far: { h_W_m2K: 8, temp_C: 22 },
    initial_C: 22,
    heat_s: 300,
    total_s: 600,
    probes: [{ id: 'bond', layer: 1, fraction: 0.5 }],
    bond: { probe: 'bond', soften_C: 60 },
  };

  it('answers as the contract has it', async () => {
    const { status, body } = await call('POST', '/compute/heat', request);
    expect(status).toBe(200);
    expect(body['times_s']).toHaveLength(body['probes'].bond.length);
    expect(body['ready_s']).toBeGreaterThan(0);
    expect(body['workingTime_s']).toBeGreaterThan(0);
    expect(body).toMatchObject({ limit_s: null, warnings: [] });
    expect(body['energyError']).toBeLessThan(1e-3);
  });

  it('refuses what can not be, naming the field and the cure', async () => {
    const flat = { ...request, layers: [{ ...layers[0], thickness_mm: 0 }, layers[1]] };
    const { status, body } = await call('POST', '/compute/heat', flat);
    expect([status, body['errors'][0].path]).toEqual([422, 'layers[0].thickness_mm']);
    expect(body['errors'][0].message).toContain('more than 0 mm');
  });
});

describe('compute/cut-plan', () => {
  const segments = [
    { id: 'top', from: { x: 0, y: 0 }, to: { x: 70, y: 0 }, depth: 3 },
    { id: 'left', from: { x: 0, y: 0 }, to: { x: 0, y: 140 }, depth: 2, near: 'flex' },
  ];

  it('answers with edges in their order, and refuses a start that is not there', async () => {
    const { body } = await call('POST', '/compute/cut-plan', { segments, speed_mm_s: 2 });
    expect(body).toEqual({
      edges: [
        { segment: 'top', depth: 3, seconds: 35 },
        { segment: 'left', depth: 2, seconds: 70, near: 'flex' },
      ],
      reheats: 0,
      warmings: 1,
      seconds: 105,
    });
    const wrong = await call('POST', '/compute/cut-plan', { segments, speed_mm_s: 2, start: 'middle' });
    expect([wrong.status, wrong.body['errors'][0].message]).toEqual([
      422,
      expect.stringContaining('no segment middle'),
    ]);
  });
});
