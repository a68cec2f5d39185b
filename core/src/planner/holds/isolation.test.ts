import { describe, expect, it } from 'vitest';
import { isDead } from './device-state.ts';
import { liveJoints } from './live.ts';
import { mechanismOf } from './mechanism.ts';
import { device, clip, plug, after, release, lift, names, blockedBy } from '../../../test/small-device.ts';

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
