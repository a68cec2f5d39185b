import { readFileSync } from 'node:fs';
import { foldJob } from '@nibrel/core/job';
import { planAhead } from '@nibrel/core/in-hand';
import type { DeviceMap } from '@nibrel/core/device-map';
import { mechanismOf } from '@nibrel/core/holds';
import { cautionFor } from '@nibrel/core/words';
import type { Op } from '@nibrel/core/drafts';
import { planRepair } from '@nibrel/core/plan';
import { describe, expect, it } from 'vitest';
import { opLine, opWords, slideWords } from './op-words.ts';
import { shownOf } from './shown.ts';
import { comingStretches, pastStretches, secondsOf } from './stretches.ts';

const demo = (name: string) =>
  JSON.parse(readFileSync(new URL(`../../../demo/device-maps/${name}.json`, import.meta.url), 'utf8')) as DeviceMap;
const budget = { now: () => performance.now(), limitMs: 500 };
const allOps = (map: DeviceMap): Op[] => {
  const { strip, rebuild } = planRepair({ map, targets: [{ full: true }] }, budget);
  return [...strip, ...rebuild];
};
const tern = demo('tern-5');
const find = (ops: readonly Op[], id: string) => ops.find((op) => op.id === id)!;

describe('words of an operation', () => {
  it('has a title and a thing for everything that a full strip of each demo device asks for', () => {
    for (const map of [tern, demo('dunlin-open')]) {
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
    expect(opWords(tern, hooks).hint).toContain('4 mm to the right, then lift.');
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

describe('the time band', () => {
  const at = (second: number, type = 'did') =>
    ({ id: `${second}`, type, at: new Date(second * 1000).toISOString(), by: 'x', data: {} }) as never;

  it('runs work and waiting together, and leaves out what lay over night', () => {
    const past = pastStretches([at(0), at(10), at(30, 'timer'), at(90), at(95), at(50_000), at(50_010)]);
    expect(past.map(({ kind, seconds }) => [kind, seconds])).toEqual([
      ['work', 30],
      ['wait', 60],
      ['work', 15],
    ]);
    expect(pastStretches([])).toEqual([]);
  });

  it('is as long as the plan, hands-on and waiting apart; the first is now', () => {
    const ops = allOps(tern);
    const coming = comingStretches(tern, ops);
    expect(secondsOf(coming, 'wait')).toBe(ops.reduce((sum, op) => sum + (op.wait_s ?? 0), 0));
    expect(secondsOf(coming, 'work')).toBe(ops.reduce((sum, op) => sum + op.seconds, 0));
    expect(coming.filter(({ when }) => when === 'now')[0]?.id).toBe(ops[0]!.id);
  });
});

describe('what the drawing shows', () => {
  it('draws a standing display beside the device, with what still tethers it, and what is off as gone', () => {
    const mechanism = mechanismOf(tern);
    const job = {
      id: 'j',
      map: tern.id,
      revision: 1,
      targets: [{ replace: 'display' }],
      policy: {},
      title: '',
      createdAt: '',
    };
    const start = foldJob(mechanism, job, []);
    const steps = planAhead(mechanism, start, budget).ops;
    const until = steps.findIndex((op) => op.id === 'release:display-plug');
    const event = {
      id: 'e',
      type: 'did',
      at: '2026-11-24T10:00:00Z',
      by: 'x',
      data: { steps: steps.slice(0, until) },
    } as never;
    const state = foldJob(mechanism, job, [event]);
    const shown = shownOf(mechanism, state, steps[until]);
    expect(shown.standing).toEqual([{ part: 'display', tethers: expect.arrayContaining(['display-plug']) }]);
    expect([...shown.gone!]).toEqual(expect.arrayContaining(['tray', 'connector-lid', 'earpiece']));
    expect([...shown.now!]).toEqual(expect.arrayContaining(['display-plug', 'display']));
  });
});
