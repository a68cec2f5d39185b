import { describe, expect, it } from 'vitest';
import { dunlinOpen, gannetWorks, knotKeys, tern5 } from '../../../test/maps.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import type { Op } from '../drafts/index.ts';
import { planRepair } from '../plan/index.ts';
import { cautionFor } from './cautions.ts';
import { opLine, opWords, slideWords } from './op-words.ts';
import { whyNow } from './why.ts';

const budget = { now: () => performance.now(), limitMs: 500 };
const allOps = (map: DeviceMap): Op[] => {
  const { strip, rebuild } = planRepair({ map, targets: [{ full: true }] }, budget);
  return [...strip, ...rebuild];
};
const tern = tern5();
const find = (ops: readonly Op[], id: string) => ops.find((op) => op.id === id)!;

describe('a part on a hinge', () => {
  it('swings at its edge, as that is seen', () => {
    expect(opWords(knotKeys(), find(allOps(knotKeys()), 'open:lid-frame')).hint).toContain(
      'its hinge at the bottom edge',
    );
  });
});

describe('a procedure that this version does not know', () => {
  it('is called by its name, and not by that of another', () => {
    const { title } = opWords(tern, { ...find(allOps(tern), 'power-off'), name: 'polish-lens' as Op['name'] });
    expect(title).toBe('Polish lens');
  });
});

describe('paste', () => {
  it('is cleaned off for the heat, and without metal', () => {
    const cleaned = (map: DeviceMap, joint: string) => {
      const clean = find(allOps(map), `clean:${joint}`);
      return [clean.tool, whyNow(map, clean, undefined)];
    };
    expect(cleaned(gannetWorks(), 'paste-bond')).toEqual([
      'plastic spudger',
      'Old paste beneath the new keeps the heat in.',
    ]);
    expect(cleaned(tern, 'front-seal')).toEqual(['scraper', 'Old adhesive keeps the new from sticking.']);
  });
});

describe('words of an operation', () => {
  it('has a title and a thing for everything that a full strip of each demo device asks for', () => {
    for (const map of [tern, dunlinOpen()]) {
      for (const op of allOps(map)) {
        const { title, thing } = opWords(map, op);
        expect(title.length, op.id).toBeGreaterThan(2);
        expect(thing.length, op.id).toBeGreaterThan(2);
        expect(`${title}${thing}`, op.id).not.toMatch(/undefined|NaN|\bnull\b/);
      }
    }
  });

  it('counts screws, and says where they are captive', () => {
    const ops = allOps(tern);
    expect(opLine(tern, find(ops, 'release:connector-lid-screws'))).toBe('Take out 4 screws · Connector lid');
    expect(opWords(tern, find(ops, 'release:port-screws')).title).toBe('Loosen 2 screws, captive');
    expect(opWords(tern, find(ops, 'make:lids-shared'))).toMatchObject({
      title: 'Put in 1 screw',
      thing: 'Connector lid and Sensor lid',
    });
  });

  it('says which side stays down, how far it opens, and how hooks are slid out', () => {
    const ops = allOps(tern);
    expect(opWords(tern, find(ops, 'open:display')).hint).toMatch(
      /^The right edge stays down: open it toward there, \d+ mm at most while it is tethered/,
    );
    const hooks = ops.find((op) => {
      const joint = tern.joints.find((each) => each.id === op.joint);
      return op.kind === 'release' && joint?.type === 'clip' && joint.slide !== undefined;
    })!;
    expect(opWords(tern, hooks)).toMatchObject({ title: 'Slide it out of its hooks' });
    expect(opWords(tern, hooks).hint).toContain('4 mm to the left, then lift.');
    expect(slideWords({ dx: -3, dy: 2 })).toBe('3 mm to the left and 2 mm down');
    expect(slideWords({ dx: 0, dy: -5 })).toBe('5 mm up');
    const look = { ...hooks, kind: 'procedure', name: 'look', joint: 'front-seal' } as const;
    expect(opLine(tern, look)).toBe('Look before going on · Display, seal');
  });

  it('puts a caution that names the harm before heat, glass and lithium', () => {
    const ops = allOps(tern);
    expect(cautionFor(tern, find(ops, 'heat:front-seal'), false)).toContain('60 °C');
    expect(cautionFor(tern, find(ops, 'release:front-seal'), false)).toContain('Glass can break');
    expect(cautionFor(tern, find(ops, 'lift:cell'), true)).toContain('do not bend');
    expect(cautionFor(tern, find(ops, 'release:connector-lid-screws'), false)).toContain('still connected');
    expect(cautionFor(tern, find(ops, 'release:connector-lid-screws'), true)).not.toContain('still connected');
    expect(cautionFor(tern, find(ops, 'fit:tray'), true)).toBeNull();
  });
});
