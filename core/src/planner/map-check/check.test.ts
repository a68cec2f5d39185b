import { problemText } from '../../model/refusal/index.ts';
import { describe, expect, it } from 'vitest';
import { changed, dunlinOpen, sample, tern5 } from '../../../test/maps.ts';
import { checkDeviceMap } from './index.ts';

type Copy = Parameters<Parameters<typeof changed>[1]>[0];

const refused = (change: (copy: Copy) => void) => checkDeviceMap(changed(sample(), change)).errors;
const warned = (change: (copy: Copy) => void) => {
  const { errors, warnings } = checkDeviceMap(changed(sample(), change));
  expect(errors).toEqual([]);
  return warnings;
};
const joint = (copy: Copy, id: string) =>
  copy.joints.find((each) => each.id === id)! as Copy['joints'][number] & Record<string, unknown>;
const part = (copy: Copy, id: string) => copy.parts.find((each) => each.id === id)!;

describe('checkDeviceMap', () => {
  it('has nothing to say against the example and the demo maps', () => {
    for (const map of [sample(), tern5(), dunlinOpen()])
      expect(checkDeviceMap(map)).toMatchObject({ errors: [], warnings: [] });
  });

  it('refuses what is no map at all, without throwing', () => {
    for (const json of [
      null,
      3,
      'map',
      [],
      {},
      { parts: 7 },
      { format: 'nibrel.device-map', parts: [null], joints: [[]] },
    ]) {
      expect(checkDeviceMap(json).errors.length).toBeGreaterThan(0);
    }
  });

  it.each([
    [
      'an unknown part',
      (copy: Copy) => Object.assign(joint(copy, 'seal'), { to: 'nowhere' }),
      'joints[1].to',
      'nowhere',
    ],
    [
      'an unknown joint',
      (copy: Copy) => Object.assign(joint(copy, 'seal'), { under: [{ joint: 'x' }] }),
      'joints[1].under[0].joint',
      'x',
    ],
    [
      'an unknown fastener',
      (copy: Copy) => Object.assign(joint(copy, 'lid-screws'), { fastener: 'x' }),
      'joints[2].fastener',
      'x',
    ],
    [
      'an unknown function',
      (copy: Copy) => Object.assign(part(copy, 'screen'), { functions: ['x'] }),
      'parts[1].functions[0]',
      'x',
    ],
    ['an unknown battery', (copy: Copy) => Object.assign(copy.battery!, { part: 'x' }), 'battery.part', 'x'],
    [
      'a torque window upside down',
      (copy: Copy) => Object.assign(copy.fasteners[0]!, { torque: { min: 9, max: 5 } }),
      'fasteners[0].torque.max',
      'min',
    ],
    ['a part twice', (copy: Copy) => copy.parts.push({ ...part(copy, 'lid') }), 'parts[4].id', 'twice'],
    ['a joint twice', (copy: Copy) => copy.joints.push({ ...joint(copy, 'seal') } as never), 'joints[6].id', 'twice'],
    ['no base', (copy: Copy) => delete part(copy, 'frame').base, 'parts', 'base'],
    ['two bases', (copy: Copy) => Object.assign(part(copy, 'lid'), { base: true }), 'parts[2].base', 'second base'],
    [
      'a part held by nothing',
      (copy: Copy) => Object.assign(joint(copy, 'lid-screws'), { holds: ['screen'] }),
      'parts[2]',
      'held by nothing',
    ],
    [
      'points of different drives',
      (copy: Copy) =>
        ((joint(copy, 'edge-screws')['points'] as { fastener?: string; depth: number }[])[1]!.fastener = 'short'),
      'joints[0].points[1].fastener',
      'different drives',
    ],
    [
      'a screw longer than its hole',
      (copy: Copy) => ((joint(copy, 'lid-screws')['points'] as { depth: number }[])[0]!.depth = 1),
      'joints[2].points[0].depth',
      '1.6 mm',
    ],
    [
      'a negative length',
      (copy: Copy) => Object.assign(copy.outline, { width: -3 }),
      'outline.width',
      'greater than 0',
    ],
    [
      'an absurd length',
      (copy: Copy) => Object.assign(copy.fasteners[0]!, { length: 5000 }),
      'fasteners[0].length',
      'less than',
    ],
    [
      'an unknown joint type',
      (copy: Copy) => Object.assign(joint(copy, 'seal'), { type: 'magic' }),
      'joints[1].type',
      'one of',
    ],
    [
      'waiting for what parts by itself',
      (copy: Copy) => {
        copy.joints.push({
          id: 'pins',
          type: 'connector',
          style: 'spring',
          holds: ['cell'],
          to: 'frame',
          face: 'front',
        } as never);
        Object.assign(joint(copy, 'cell-tabs'), { under: [{ joint: 'pins' }] });
      },
      'joints[5].under[0].joint',
      'parts by itself',
    ],
    [
      'a self-parting joint that waits',
      (copy: Copy) =>
        copy.joints.push({
          id: 'pins',
          type: 'seat',
          holds: ['cell'],
          to: 'frame',
          face: 'front',
          under: [{ part: 'screen', until: 'off' }],
        } as never),
      'joints[6].under',
      'parts by itself',
    ],
  ])('refuses %s and names its place', (_, change, path, words) => {
    const errors = refused(change as (copy: Copy) => void);
    expect(errors[0]!.path).toBe(path);
    expect(problemText(errors[0]!)).toContain(words);
  });

  it('lists a shortest ring of what can never come apart', () => {
    const errors = refused((copy) => {
      Object.assign(joint(copy, 'edge-screws'), { under: [{ part: 'lid', until: 'off' }] });
    });
    expect(errors).toHaveLength(1);
    expect(errors[0]!.message).toMatch(/waits for/);
    expect(errors[0]!.message).toContain('"lid"');
    expect(refused((copy) => Object.assign(joint(copy, 'seal'), { under: [{ joint: 'seal' }] }))[0]!.message).toContain(
      'joint "seal" waits for itself',
    );
  });

  it('refuses what waits for a hinged part to be off', () => {
    const errors = refused((copy) => {
      copy.joints.push({
        id: 'hinge',
        type: 'hinge',
        edge: 'left',
        holds: ['lid'],
        to: 'frame',
        face: 'front',
      } as never);
    });
    expect(errors[0]!.message).toContain('waits for part "lid", which never comes off');
  });

  it('refuses more parts and joints than it can hold', () => {
    expect(
      refused((copy) =>
        copy.parts.push(...Array.from({ length: 500 }, (_, n) => ({ ...part(copy, 'lid'), id: `p${n}` }))),
      )[0]!.path,
    ).toBe('parts');
    expect(
      refused((copy) =>
        copy.joints.push(
          ...(Array.from({ length: 2000 }, (_, n) => ({ ...joint(copy, 'seal'), id: `j${n}` })) as never[]),
        ),
      )[0]!.path,
    ).toBe('joints');
  });

  it('keeps unknown fields, and says so', () => {
    const { warnings, map } = checkDeviceMap({
      ...sample(),
      mood: 'good',
      parts: sample().parts.map((each) => ({ ...each, smell: 1 })),
    });
    expect(warnings.map(({ path }) => path)).toEqual(expect.arrayContaining(['mood', 'parts[0].smell']));
    expect(map).toMatchObject({ mood: 'good' });
  });

  it.each([
    [
      'a part drawn beneath another',
      (copy: Copy) =>
        copy.parts.push({ ...part(copy, 'lid'), id: 'chip', z: { top: 4, bottom: 5 }, under: [] } as never) &&
        copy.joints.push({ id: 'c', type: 'clip', holds: ['chip'], to: 'frame', face: 'front', under: [] } as never),
      'parts[4]',
      'beneath',
    ],
    [
      'a joint drawn beneath another part',
      (copy: Copy) => delete joint(copy, 'lid-screws')['under'],
      'joints[2]',
      'beneath',
    ],
    [
      'a part on two hosts that nothing ranks',
      (copy: Copy) => {
        copy.parts.push({ ...part(copy, 'lid'), id: 'extra', under: [{ joint: 'edge-screws' }] } as never);
        const clip = (id: string, to: string) => ({ id, type: 'clip', holds: ['extra'], to, face: 'edge' }) as never;
        copy.joints.push(clip('odd', 'cell'), clip('odd-2', 'frame'));
      },
      'parts[4]',
      'which comes away first',
    ],
    [
      'lithium that nothing isolates',
      (copy: Copy) => delete joint(copy, 'cell-plug')['isolates'],
      'parts[3]',
      'lithium',
    ],
    [
      'a function that nothing serves',
      (copy: Copy) => copy.functions.push({ id: 'song', name: 'Song', how: 'Sing' }),
      'functions[1]',
      'song',
    ],
    [
      'isolation without a battery',
      (copy: Copy) => Object.assign(copy, { battery: null }),
      'joints[3].isolates',
      'no battery',
    ],
  ])('warns about %s', (_, change, path, words) => {
    const found = warned(change as (copy: Copy) => void);
    expect(found.map((each) => [each.path, problemText(each)])).toContainEqual([path, expect.stringContaining(words)]);
  });

  it('takes names with markup and from right to left as they are', () => {
    const name = '<img src=x onerror=alert(1)> שעון';
    expect(checkDeviceMap(changed(sample(), (copy) => Object.assign(copy, { name }))).map?.name).toBe(name);
  });
});
