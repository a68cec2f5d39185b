import { describe, expect, it } from 'vitest';
import { EFFORT } from '../../test/effort.ts';
import type { DeviceMap, Joint, Part, UnderEntry } from '../device-map/index.ts';
import { sample, tern5 } from '../../test/maps.ts';
import { randomMap } from '../../test/random-map.ts';
import { Simulator } from '../../test/simulator.ts';
import { checkDeviceMap } from '../map-check/index.ts';
import { applied } from './operation.ts';
import { assembled, carried, type DeviceState, isDead } from './state.ts';
import { liveJoints } from './live.ts';
import { mechanismOf } from './mechanism.ts';
import { type NamedOp, numberedOp, possibleNow } from './possible.ts';
import { replay } from './legal.ts';

/** A device of few words: parts by id, joints by type. */
function device(
  parts: readonly (Partial<Part> & { id: string })[],
  joints: readonly (Record<string, unknown> & { id: string; holds: string[]; to: string })[],
  battery: string | null = null,
): DeviceMap {
  const whole = (part: Partial<Part> & { id: string }): Part => ({
    name: part.id,
    kind: 'other',
    face: 'front',
    box: { x: 0, y: 0, w: 9, h: 9 },
    z: { top: 1, bottom: 2 },
    ...part,
  });
  return {
    ...sample(),
    battery: battery
      ? { part: battery, cells: [{ capacity_mAh: 1, nominal_V: 1 }], wiring: 'series', limit_C: 60 }
      : null,
    parts: [whole({ id: 'base', base: true }), ...parts.map(whole)],
    joints: joints.map((joint) => ({ face: 'front', ...joint }) as unknown as Joint),
    functions: [],
  };
}

const clip = (id: string, holds: string, to: string, under?: UnderEntry[]) => ({
  id,
  type: 'clip',
  holds: [holds],
  to,
  ...(under ? { under } : {}),
});
const plug = (id: string, holds: string, to: string, more: object = {}) => ({
  id,
  type: 'connector',
  style: 'press',
  holds: [holds],
  to,
  ...more,
});

function after(map: DeviceMap, ops: readonly NamedOp[]) {
  const mechanism = mechanismOf(map);
  const { state, illegal } = replay(
    mechanism,
    assembled(mechanism),
    ops.map((op) => numberedOp(mechanism, op)),
  );
  return { mechanism, state, illegal, ...possibleNow(mechanism, state) };
}

const release = (joint: string): NamedOp => ({ kind: 'release', joint });
const open = (part: string): NamedOp => ({ kind: 'open', part });
const lift = (part: string): NamedOp => ({ kind: 'lift', part });
const names = (ops: readonly NamedOp[]) => ops.map((op) => `${op.kind} ${op.joint ?? op.part}`);
const blockedBy = (found: ReturnType<typeof after>, name: string) =>
  found.blocked.find((each) => `${each.kind} ${each.joint ?? each.part}` === name)?.by;
const carriedBy = (map: DeviceMap, part: string, state?: DeviceState) => {
  const mechanism = mechanismOf(map);
  return [...carried(mechanism, state ?? assembled(mechanism), mechanism.part.get(part)!)]
    .map((each) => map.parts[each]!.id)
    .sort();
};

describe('the small example', () => {
  it('starts with the edge screws, and says what holds the rest', () => {
    const found = after(sample(), []);
    expect(names(found.possible)).toEqual(['release edge-screws']);
    expect(blockedBy(found, 'release seal')).toEqual([{ joint: 'edge-screws', need: 'released' }]);
    expect(blockedBy(found, 'release screen-plug')).toEqual([
      { part: 'lid', need: 'off' },
      { joint: 'cell-plug', need: 'isolated' },
    ]);
    expect(blockedBy(found, 'lift lid')).toEqual([
      { joint: 'lid-screws', need: 'released' },
      { part: 'screen', need: 'open' },
    ]);
  });

  it('never lists a condition that is met, and lists every part and joint once', () => {
    const found = after(sample(), [
      release('edge-screws'),
      release('seal'),
      open('screen'),
      release('lid-screws'),
      lift('lid'),
    ]);
    expect(blockedBy(found, 'release screen-plug')).toEqual([{ joint: 'cell-plug', need: 'isolated' }]);
    expect(blockedBy(found, 'lift screen')).toEqual([{ joint: 'screen-plug', need: 'released' }]);
    expect(names(found.possible)).toEqual(expect.arrayContaining(['release cell-plug', 'close screen', 'fit lid']));
    expect(found.illegal).toEqual([]);
  });

  it('goes on from a state that was reached against the rules', () => {
    const found = after(sample(), [lift('lid')]);
    expect(found.illegal.map(({ index }) => index)).toEqual([0]);
    expect(names(found.possible)).toContain('release cell-plug');
  });
});

describe('carrying', () => {
  it('follows firm joints through others, tape and plugs apart', () => {
    const map = device(
      [{ id: 'board' }, { id: 'camera' }, { id: 'lens' }, { id: 'taped' }, { id: 'plugged' }],
      [
        clip('b', 'board', 'base'),
        clip('c', 'camera', 'board'),
        clip('l', 'lens', 'camera'),
        { ...clip('t', 'taped', 'board'), type: 'bond', style: 'tape' },
        clip('t2', 'taped', 'base'),
        plug('p', 'plugged', 'board'),
        clip('p2', 'plugged', 'base'),
      ],
    );
    expect(carriedBy(map, 'board')).toEqual(['board', 'camera', 'lens']);
  });

  it('a camera that only its plug holds leaves with the board; a lead plugged at both ends with neither', () => {
    const map = device(
      [{ id: 'board' }, { id: 'camera' }, { id: 'lead' }, { id: 'antenna' }],
      [
        clip('b', 'board', 'base'),
        plug('c', 'camera', 'board'),
        plug('l1', 'lead', 'board'),
        plug('l2', 'lead', 'antenna'),
        clip('a', 'antenna', 'base'),
      ],
    );
    expect(carriedBy(map, 'board')).toEqual(['board', 'camera']);
  });

  it('with its screws out a part stays on what it is soldered to, else where it lay', () => {
    const map = device(
      [{ id: 'board' }, { id: 'earpiece' }, { id: 'speaker' }],
      [
        clip('b', 'board', 'base'),
        clip('e', 'earpiece', 'base'),
        { id: 'wires', type: 'solder', holds: ['earpiece'], to: 'board' },
        clip('s', 'speaker', 'board'),
      ],
    );
    expect(carriedBy(map, 'board')).toEqual(['board', 'speaker']);
    const { state } = after(map, [release('e'), release('s')]);
    expect(carriedBy(map, 'board', state)).toEqual(['board', 'earpiece', 'speaker']);
  });
});

describe('lying apart', () => {
  const map = device(
    [{ id: 'board' }, { id: 'lid' }, { id: 'chip', under: [{ part: 'lid', until: 'off' }] }],
    [
      clip('b', 'board', 'base'),
      clip('lid-clip', 'lid', 'board'),
      clip('chip-clip', 'chip', 'board', [{ part: 'lid', until: 'off' }]),
    ],
  );

  it('what was lifted together still covers each other on the mat', () => {
    const found = after(map, [release('b'), lift('board')]);
    expect(blockedBy(found, 'release chip-clip')).toEqual([{ part: 'lid', need: 'off' }]);
    expect(names(found.possible)).toContain('release lid-clip');
  });

  it('what lies elsewhere covers nothing', () => {
    const cover = device(
      [{ id: 'display' }, { id: 'bracket' }],
      [
        clip('d', 'display', 'base'),
        clip('k', 'bracket', 'display'),
        clip('x', 'display', 'base', [{ part: 'bracket', until: 'off' }]),
      ],
    );
    const found = after(cover, [release('d'), lift('display')]);
    expect(found.illegal).toHaveLength(1);
    expect(names(found.possible)).toContain('release x');
  });

  it('an open carrier opens what it carries, for all but what it carries itself', () => {
    const swing = device(
      [{ id: 'display' }, { id: 'bracket' }],
      [
        clip('d', 'display', 'base'),
        plug('p', 'display', 'base', { under: [{ part: 'bracket', until: 'open' }] }),
        clip('k', 'bracket', 'display'),
        { ...clip('m', 'bracket', 'display'), under: [{ part: 'bracket', until: 'open' }] },
      ],
    );
    const found = after(swing, [release('d'), open('display')]);
    expect(names(found.possible)).toContain('release p');
    expect(blockedBy(found, 'release m')).toEqual([{ part: 'bracket', need: 'open' }]);
  });
});

describe('joints that part by themselves, hinges', () => {
  const map = device(
    [{ id: 'lid' }, { id: 'cell', kind: 'battery', hazards: ['lithium'] }],
    [
      { id: 'hinge', type: 'hinge', edge: 'left', holds: ['lid'], to: 'base' },
      clip('catch', 'lid', 'base'),
      { id: 'pocket', type: 'seat', holds: ['cell'], to: 'base' },
      { id: 'pins', type: 'connector', style: 'spring', holds: ['cell'], to: 'base' },
    ],
    'cell',
  );

  it('a hinge lets a part open, never come off; a seat holds nothing back', () => {
    const found = after(map, [release('catch')]);
    expect(names(found.possible)).toEqual(expect.arrayContaining(['open lid', 'lift cell']));
    expect(blockedBy(found, 'lift lid')).toEqual([{ joint: 'hinge', need: 'released' }]);
    expect(names([...found.possible, ...found.blocked])).not.toContain('release pins');
  });
});

describe('isolation', () => {
  const parts = [{ id: 'board' }, { id: 'cell', kind: 'battery' as const }, { id: 'cell-2', kind: 'battery' as const }];
  const common = [
    clip('b', 'board', 'base'),
    clip('c1', 'cell', 'base'),
    clip('c2', 'cell-2', 'base'),
    plug('cam', 'board', 'base'),
  ];

  it('two leads have both to be off before another connector or a cell', () => {
    const leads = device(
      parts,
      [...common, plug('l1', 'cell', 'base', { isolates: true }), plug('l2', 'cell-2', 'base', { isolates: true })],
      'cell',
    );
    const one = after(leads, [release('l1')]);
    expect(blockedBy(one, 'release cam')).toEqual([{ joint: 'l2', need: 'isolated' }]);
    expect(blockedBy(one, 'release c1')).toEqual([{ joint: 'l2', need: 'isolated' }]);
    expect(names(after(leads, [release('l1'), release('l2')]).possible)).toEqual(
      expect.arrayContaining(['release cam', 'release c1']),
    );
  });

  it('a jumper isolates alone', () => {
    const jumper = device(
      parts,
      [...common, plug('j', 'board', 'base', { isolates: 'alone' }), plug('l1', 'cell', 'base', { isolates: true })],
      'cell',
    );
    expect(blockedBy(after(jumper, []), 'release cam')).toEqual([
      { joint: 'j', need: 'isolated' },
      { joint: 'l1', need: 'isolated' },
    ]);
    expect(names(after(jumper, [release('j')]).possible)).toContain('release cam');
  });

  it('a battery that lifts out does it itself, and its own joints need none', () => {
    const out = device([parts[0]!, parts[1]!], [common[0]!, common[1]!, common[3]!], 'cell');
    const found = after(out, []);
    expect(blockedBy(found, 'release cam')).toEqual([{ part: 'cell', need: 'isolated' }]);
    expect(names(found.possible)).toContain('release c1');
    expect(names(after(out, [release('c1'), lift('cell')]).possible)).toContain('release cam');
  });

  it('without a battery nothing waits, whatever isolates says', () => {
    const none = device([parts[0]!], [common[0]!, common[3]!, plug('j', 'board', 'base', { isolates: true })]);
    expect(names(after(none, []).possible)).toContain('release cam');
  });

  it('a connector that has to come off to reach the battery is live, and marked', () => {
    const map = device(
      [{ id: 'lid' }, { id: 'cell', kind: 'battery' }],
      [
        clip('k', 'lid', 'base'),
        plug('lid-plug', 'lid', 'base'),
        plug('other', 'cell', 'base'),
        plug('lead', 'cell', 'base', { isolates: true, under: [{ part: 'lid', until: 'off' }] }),
      ],
      'cell',
    );
    const found = after(map, []);
    expect(found.possible).toContainEqual({ kind: 'release', joint: 'lid-plug', live: true });
    expect(blockedBy(found, 'release other')).toEqual([{ joint: 'lead', need: 'isolated' }]);
    const mechanism = mechanismOf(map);
    expect(liveJoints(mechanism, found.state).size).toBe(1);
    expect(isDead(mechanism, after(map, [release('lid-plug'), release('k'), lift('lid'), release('lead')]).state)).toBe(
      true,
    );
  });

  it('solder on a lithium part waits all the same, but is marked live always', () => {
    const map = device(
      [{ id: 'cell', kind: 'battery', hazards: ['lithium'] }],
      [{ id: 'wires', type: 'solder', holds: ['cell'], to: 'base' }, plug('lead', 'cell', 'base', { isolates: true })],
      'cell',
    );
    expect(after(map, []).blocked.find((each) => each.joint === 'wires')).toMatchObject({
      live: true,
      by: [{ joint: 'lead', need: 'isolated' }],
    });
    expect(after(map, [release('lead')]).possible).toContainEqual({ kind: 'release', joint: 'wires', live: true });
  });

  it('on the mat, away from every cell, nothing waits for it', () => {
    const map = device(
      [{ id: 'module' }, { id: 'camera' }, { id: 'cell', kind: 'battery' }],
      [clip('m', 'module', 'base'), plug('c', 'camera', 'module'), plug('lead', 'cell', 'base', { isolates: true })],
      'cell',
    );
    expect(blockedBy(after(map, []), 'release c')).toEqual([{ joint: 'lead', need: 'isolated' }]);
    expect(names(after(map, [release('m'), lift('module')]).possible)).toContain('release c');
  });
});

describe('the way back', () => {
  it('makes a tether while the device is dead, hooked and hidden things first', () => {
    const done = [
      release('edge-screws'),
      release('seal'),
      open('screen'),
      release('lid-screws'),
      lift('lid'),
      release('cell-plug'),
      release('screen-plug'),
    ];
    const before = after(sample(), done);
    expect(names(before.possible)).toEqual(expect.arrayContaining(['make screen-plug', 'make cell-plug']));
    const live = after(sample(), [...done, { kind: 'make', joint: 'cell-plug' }]);
    expect(names(live.possible)).not.toContain('make screen-plug');
  });

  it('does not fit a part before what it lies on', () => {
    const map = device([{ id: 'board' }, { id: 'lid' }], [clip('b', 'board', 'base'), clip('l', 'lid', 'board')]);
    const found = after(map, [release('l'), lift('lid'), release('b'), lift('board')]);
    const fits = found.possible.filter((op) => op.kind === 'fit');
    expect(fits).toContainEqual({ kind: 'fit', part: 'board' });
    expect(fits).toContainEqual({ kind: 'fit', part: 'lid', onto: 'board' });
    expect(fits).not.toContainEqual({ kind: 'fit', part: 'lid' });
  });
});

describe('against a simulator written apart', () => {
  it('agrees on what is possible, in every state of a walk over random maps', () => {
    let compared = 0;
    for (let seed = 1; seed <= 60 * EFFORT; seed++) {
      const map = randomMap(seed);
      if (checkDeviceMap(map).errors.length > 0) continue;
      const mechanism = mechanismOf(map);
      const simulator = new Simulator(map);
      let state = assembled(mechanism);
      for (let turn = 0; turn < 60; turn++) {
        const { possible, blocked } = possibleNow(mechanism, state);
        const strip = (ops: readonly NamedOp[]) => ops.filter((op) => ['release', 'open', 'lift'].includes(op.kind));
        for (const op of strip(possible)) expect(`${seed}: ${simulator.objection(op)}`).toBe(`${seed}: null`);
        for (const op of strip(blocked))
          if (op.part !== 'p0') expect(simulator.objection(op), `${seed} ${names([op])[0]}`).not.toBeNull();
        compared += possible.length + blocked.length;
        const next = strip(possible)[(seed * 7 + turn * 13) % Math.max(1, strip(possible).length)];
        if (!next) break;
        simulator.apply(next);
        state = applied(mechanism, state, numberedOp(mechanism, next));
      }
    }
    expect(compared).toBeGreaterThan(10_000 * EFFORT);
  });

  it('knows every part and joint of a real map in every list', () => {
    const map = tern5();
    const found = after(map, []);
    const listed = new Set([...found.possible, ...found.blocked].map((op) => op.joint ?? op.part));
    for (const part of map.parts) expect(listed).toContain(part.id);
  });
});
