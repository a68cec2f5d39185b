import { describe, expect, it } from 'vitest';
import { sample } from '../../../test/maps.ts';
import {
  device,
  clip,
  plug,
  after,
  release,
  open,
  lift,
  names,
  blockedBy,
  carriedBy,
} from '../../../test/small-device.ts';

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
