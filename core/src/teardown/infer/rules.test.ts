import { describe, expect, it } from 'vitest';
import type { Part } from '../../model/device-map/index.ts';
import {
  type Entry,
  entryKey,
  type Line,
  type SeenPart,
  type Teardown,
  teardownSchema,
  type Thing,
  thingKey,
} from '../record/index.ts';
import { inferMap } from './index.ts';

const WHOLE = { x: 0, y: 0, w: 70, h: 140 };

const part = (id: string, layer: number, box: Part['box'], more: Partial<SeenPart> = {}): SeenPart => ({
  id,
  name: id,
  kind: 'other',
  face: 'front',
  layer,
  box,
  ...more,
});

const plug = (joint: string, holds: string, x: number, y: number, more: object = {}): Line =>
  ({
    kind: 'release',
    joint,
    type: 'connector',
    style: 'press',
    holds: [holds],
    to: 'frame',
    face: 'front',
    points: [{ x, y }],
    ...more,
  }) as Line;
const screws = (joint: string, holds: string, x: number, y: number, more: object = {}): Line =>
  ({
    kind: 'release',
    joint,
    type: 'screw',
    fastener: 's',
    holds: [holds],
    to: 'frame',
    face: 'front',
    points: [{ x, y }],
    ...more,
  }) as Line;
const lift = (id: string): Line => ({ kind: 'lift', part: id });
const open = (id: string): Line => ({ kind: 'open', part: id });

/** A frame, and over it a lid with its screws; a camera with its plug beneath. */
function device(record: readonly Line[], more: Partial<Teardown> = {}): Teardown {
  return {
    device: {
      id: 'new',
      name: 'New',
      kind: 'phone',
      outline: { width: 70, height: 140, thickness: 8, corner: 8 },
      battery: null,
    },
    fasteners: [{ id: 's', drive: 'PH000', thread: 'M1.4', length: 3, head: 2.4 }],
    hinges: [],
    parts: [
      part('frame', 9, WHOLE, { base: true, kind: 'frame' }),
      part('lid', 1, { x: 10, y: 10, w: 30, h: 30 }),
      part('camera', 2, { x: 15, y: 15, w: 10, h: 10 }),
      part('other', 1, { x: 45, y: 90, w: 20, h: 20 }),
    ],
    record,
    photos: [],
    seen: [],
    answers: [],
    repairs: [],
    ...more,
  };
}

const LID: readonly Line[] = [screws('lid-screws', 'lid', 12, 12), lift('lid')];
const CAMERA: readonly Line[] = [plug('camera-plug', 'camera', 30, 30), lift('camera')];

/** How sure an entry of a thing is, and by which rule; null where there is none. */
function told(given: Teardown, thing: Thing, entry: Entry) {
  const { guesses } = inferMap(given);
  const found = guesses.find(
    (each) =>
      thingKey(each.joint === undefined ? { part: each.part! } : { joint: each.joint }) === thingKey(thing) &&
      entryKey(each.entry) === entryKey(entry),
  );
  return found ? `${found.certainty} ${found.why}${found.in ? '' : ', not in'}` : null;
}

const LID_OFF = { part: 'lid', until: 'off' } as const;
const PLUG = { joint: 'camera-plug' } as const;
const photographed = (photos: readonly number[], seen: Record<string, number>): Partial<Teardown> => ({
  photos: photos.map((after) => ({ id: `f${after}`, after })),
  seen: Object.entries(seen).map(([key, after]) => {
    const [kind, id] = key.split(' ') as ['joint' | 'part', string];
    return { [kind]: id, photo: `f${after}` } as never;
  }),
});

describe('what lies under what, from a record', () => {
  const plain = device([...LID, ...CAMERA]);

  it('is likely where an outline lies over it, open where it only came before, and none where it did not hold', () => {
    expect(told(plain, PLUG, LID_OFF)).toBe('likely outline');
    expect(told(device([...LID, lift('other'), ...CAMERA]), PLUG, { part: 'other', until: 'off' })).toBe(
      'open candidate, not in',
    );
    expect(told(plain, { joint: 'lid-screws' }, PLUG)).toBeNull();
    // its own joints are no matter of what lies over it
    expect(told(plain, { part: 'lid' }, { joint: 'lid-screws' })).toBeNull();
    // seen while it stood, an outline says nothing
    const seen = device([...LID, ...CAMERA], photographed([0, 2], { 'joint camera-plug': 0 }));
    expect(told(seen, PLUG, LID_OFF)).toBe('open candidate, not in');
  });

  it('is certain by a refusal that says by what, or that one thing alone ended; not over a joint of its own', () => {
    const refused: Line = { kind: 'refused', joint: 'camera-plug' };
    expect(told(device([{ ...refused, by: { part: 'lid' } }, ...LID, ...CAMERA]), PLUG, LID_OFF)).toBe(
      'certain refused',
    );
    expect(told(device([LID[0]!, refused, LID[1]!, ...CAMERA]), PLUG, LID_OFF)).toBe('certain refused');
    expect(told(device([refused, ...LID, ...CAMERA]), PLUG, LID_OFF)).toBe('likely outline');
    const stuck = device([...LID, { kind: 'refused', part: 'camera' }, CAMERA[0]!, lift('other'), CAMERA[1]!]);
    expect(told(stuck, { part: 'camera' }, { part: 'other', until: 'off' })).toBe('open candidate, not in');
  });

  it('is certain by sight where one part alone was moved before it came into view', () => {
    const seen = photographed([0, 2, 3], { 'joint camera-plug': 2 });
    expect(told(device([...LID, ...CAMERA], seen), PLUG, LID_OFF)).toBe('certain sight');
    // several: those that are drawn over it
    const several = device([...LID, lift('other'), ...CAMERA], photographed([0, 3], { 'joint camera-plug': 3 }));
    expect(told(several, PLUG, LID_OFF)).toBe('likely sight');
    expect(told(several, PLUG, { part: 'other', until: 'off' })).toBe('open candidate, not in');
    // or the last, where none is
    const far = device(
      [...LID, lift('other'), plug('camera-plug', 'camera', 5, 120), lift('camera')],
      photographed([0, 3], { 'joint camera-plug': 3 }),
    );
    expect(told(far, PLUG, { part: 'other', until: 'off' })).toBe('likely sight');
  });

  it('is in doubt where it went along on the part, on its face', () => {
    const riding = (face: 'front' | 'back') =>
      device(
        [
          LID[0]!,
          LID[1]!,
          plug('camera-plug', 'camera', 30, 30, { to: 'lid', on: 'lid', face }),
          { kind: 'lift', part: 'camera', on: 'lid' },
        ],
        {
          ...photographed([0, 2], { 'joint camera-plug': 2 }),
        },
      );
    expect(told(riding('front'), PLUG, LID_OFF)).not.toContain('certain');
    expect(inferMap(riding('back')).map.joints.find(({ id }) => id === 'camera-plug')!.to).toBe('lid');
  });

  it('is in doubt where a part that stayed is drawn over it', () => {
    const cover = part('cover', 0, { x: 25, y: 25, w: 10, h: 10 });
    const given = device([...LID, ...CAMERA, lift('cover')], photographed([0, 2], { 'joint camera-plug': 2 }));
    expect(told({ ...given, parts: [...given.parts, cover] }, PLUG, LID_OFF)).toBe('likely sight');
    // on the other face it covers nothing of it
    expect(told({ ...given, parts: [...given.parts, { ...cover, face: 'back' }] }, PLUG, LID_OFF)).toBe(
      'certain sight',
    );
  });

  it('is in doubt where another part that had been seen went along, unless only the first is drawn over it', () => {
    const shield = (x: number) => part('shield', 1, { x, y: 20, w: 12, h: 12 });
    const held = screws('shield-screws', 'shield', 36, 22, { to: 'lid', on: 'lid' });
    const given = device(
      [...LID, ...CAMERA, held, { kind: 'lift', part: 'shield', on: 'lid' }],
      photographed([0, 2], { 'joint camera-plug': 2, 'part shield': 0 }),
    );
    expect(told({ ...given, parts: [...given.parts, shield(24)] }, PLUG, LID_OFF)).toBe('likely sight');
    expect(told({ ...given, parts: [...given.parts, shield(33)] }, PLUG, LID_OFF)).toBe('certain sight');
  });

  it('is in doubt where a plug was pulled between the photographs, unless the part lies over it and is no flex', () => {
    const pulled = plug('other-plug', 'other', 60, 100);
    const seen = photographed([0, 3], { 'joint camera-plug': 3 });
    const given = device([LID[0]!, pulled, LID[1]!, ...CAMERA, lift('other')], seen);
    expect(told(given, PLUG, LID_OFF)).toBe('certain sight');
    const flex = {
      ...given,
      parts: given.parts.map((each) => (each.id === 'lid' ? { ...each, kind: 'flex' as const } : each)),
    };
    expect(told(flex, PLUG, LID_OFF)).toBe('likely sight');
  });

  it('says open where the part stood open, off where that was not enough, and both where nobody knows', () => {
    const tie = plug('lid-plug', 'lid', 38, 38);
    const LID_OPEN = { part: 'lid', until: 'open' } as const;
    const by = { kind: 'refused', joint: 'camera-plug', by: { part: 'lid' } } as const;
    const stands = device([by, LID[0]!, open('lid'), ...CAMERA, tie, lift('lid')]);
    expect([told(stands, PLUG, LID_OPEN), told(stands, PLUG, LID_OFF)]).toEqual(['certain refused', null]);
    const refusedOpen = device([LID[0]!, open('lid'), by, tie, lift('lid'), ...CAMERA]);
    expect([told(refusedOpen, PLUG, LID_OPEN), told(refusedOpen, PLUG, LID_OFF)]).toEqual([null, 'certain refused']);
    const unknown = device([by, LID[0]!, open('lid'), tie, lift('lid'), ...CAMERA]);
    expect([told(unknown, PLUG, LID_OPEN), told(unknown, PLUG, LID_OFF)]).toEqual([
      'certain refused',
      'likely refused',
    ]);
    const display = {
      ...unknown,
      parts: unknown.parts.map((each) => (each.id === 'lid' ? { ...each, kind: 'display' as const } : each)),
    };
    expect([told(display, PLUG, LID_OPEN), told(display, PLUG, LID_OFF)]).toEqual(['certain refused', null]);
    // it stood open on the photograph before, and the thing was not to be seen there
    const sight = device(
      [LID[0]!, open('lid'), tie, lift('lid'), ...CAMERA],
      photographed([0, 2, 4], { 'joint camera-plug': 4 }),
    );
    expect(told(sight, PLUG, LID_OFF)).toBe('certain sight');
  });

  it('has the screws of a part before its glue', () => {
    const glue = {
      kind: 'release',
      joint: 'glue',
      type: 'bond',
      style: 'pad',
      holds: ['lid'],
      to: 'frame',
      face: 'front',
      points: [{ x: 25, y: 39 }],
    } as Line;
    expect(told(device([LID[0]!, glue, LID[1]!, ...CAMERA]), { joint: 'glue' }, { joint: 'lid-screws' })).toBe(
      'likely same-part',
    );
  });

  it('takes an answer as certain, and what was offered beside it as none', () => {
    const answered = device([...LID, lift('other'), ...CAMERA], {
      answers: [
        {
          joint: 'camera-plug',
          options: [LID_OFF, { part: 'other', until: 'off' }],
          by: [{ part: 'other', until: 'off' }],
        },
      ],
    });
    expect(told(answered, PLUG, { part: 'other', until: 'off' })).toBe('certain answer');
    expect(told(answered, PLUG, LID_OFF)).toBeNull();
    expect(inferMap(answered).questions.some(({ joint }) => joint === 'camera-plug')).toBe(false);
  });
});

describe('hosts that were not told', () => {
  const board = (id: string, box: Part['box'], layer = 5) => part(id, layer, box, { kind: 'board' });
  const untold = (line: Line) => ({ ...line, to: undefined }) as unknown as Line;
  const hostOf = (given: Teardown, joint: string) => inferMap(given).hosts.find((each) => each.joint === joint);

  it('are the smallest board beneath a plug, else the deepest part, the base last', () => {
    const given = device([...LID, untold(CAMERA[0]!), CAMERA[1]!]);
    expect(hostOf(given, 'camera-plug')).toEqual({ joint: 'camera-plug', to: 'frame', certainty: 'likely' });
    expect(hostOf(given, 'lid-screws')).toEqual({ joint: 'lid-screws', to: 'frame', certainty: 'certain' });
    const boards = [board('small', { x: 25, y: 25, w: 20, h: 20 }), board('large', { x: 5, y: 5, w: 60, h: 100 }, 7)];
    const parts = [...given.parts, ...boards];
    expect(hostOf({ ...given, parts }, 'camera-plug')!.to).toBe('small');
  });

  it('go to the part that they keep from its lift, where what they hold left with it', () => {
    const given = device([
      LID[0]!,
      { kind: 'lift', part: 'lid' },
      untold({ ...screws('shield-screws', 'shield', 30, 20), on: 'lid' } as Line),
      { kind: 'lift', part: 'shield', on: 'lid' },
    ]);
    const parts = [...given.parts, part('shield', 2, { x: 25, y: 15, w: 10, h: 10 })];
    expect(hostOf({ ...given, parts }, 'shield-screws')!.to).toBe('lid');
  });

  it('are seats for what no joint holds', () => {
    expect(inferMap(device([...LID, lift('other')])).map.joints).toContainEqual(
      expect.objectContaining({ type: 'seat', holds: ['other'], to: 'frame' }),
    );
  });
});

describe('later repairs', () => {
  it('add what refused, and gainsay for good what did not hold', () => {
    const first = device([...LID, lift('other'), ...CAMERA], photographed([0, 3], { 'joint camera-plug': 3 }));
    expect(told(first, PLUG, LID_OFF)).toBe('likely sight');
    const without = { ...first, repairs: [[{ kind: 'release', joint: 'camera-plug' }] as Line[]] };
    expect(told(without, PLUG, LID_OFF)).toBeNull();
    expect(inferMap(without).refuted).toContainEqual({ joint: 'camera-plug', entry: LID_OFF });
    const refused: Line[] = [
      { kind: 'refused', joint: 'camera-plug', by: { part: 'other' } },
      lift('other'),
      { kind: 'release', joint: 'camera-plug' },
    ];
    expect(told({ ...first, repairs: [refused] }, PLUG, { part: 'other', until: 'off' })).toBe('certain refused');
  });
});

describe('what can not be', () => {
  it.each([
    ['a part that is not there', device([lift('roof')]), 'record[0].part'],
    ['a joint without a kind', device([{ kind: 'release', joint: 'j' }]), 'record[0].type'],
    [
      'a photograph that is not there',
      device([...LID], { seen: [{ joint: 'lid-screws', photo: 'f9' }] }),
      'seen[0].photo',
    ],
    [
      'an answer by what is not there',
      device([...LID], { answers: [{ part: 'other', options: [], by: [{ joint: 'none' }] }] }),
      'answers[0].by[0].joint',
    ],
    ['no base', { ...device([...LID]), parts: [part('lid', 1, WHOLE)] }, 'parts'],
    ['a screw of no kind', device([screws('a', 'lid', 1, 1, { fastener: 'none' })]), 'map.joints[0].fastener'],
  ])('is refused with its path: %s', (_, given, path) => {
    expect(() => inferMap(given)).toThrow(expect.objectContaining({ path }));
  });

  it('has a shape that says where it is wrong', () => {
    const wrongAt = (change: object) =>
      teardownSchema.validate({ ...device([...LID]), ...change }).error?.details[0]?.path.join('.');
    expect(wrongAt({})).toBeUndefined();
    expect(wrongAt({ record: [{ kind: 'lift', joint: 'x' }] })).toMatch(/^record\.0/);
    expect(wrongAt({ record: [{ kind: 'refused' }] })).toBe('record.0');
    expect(wrongAt({ parts: [{ id: 'a', face: 'front', layer: -1 }] })).toBe('parts.0.layer');
    expect(wrongAt({ photos: [{ id: 'a', after: 0.5 }] })).toBe('photos.0.after');
  });
});
