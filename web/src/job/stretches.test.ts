import { duration } from '@nibrel/core/planner/words';
import { readFileSync } from 'node:fs';
import { foldJob } from '@nibrel/core/job/fold';
import { planAhead, together } from '@nibrel/core/bench/in-hand';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { mechanismOf } from '@nibrel/core/planner/holds';
import type { Op } from '@nibrel/core/planner/drafts';
import { planRepair, setUpBefore } from '@nibrel/core/planner/plan';
import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { WayStrip } from '../way/way-strip.tsx';
import { faceOf, shownOf } from '@nibrel/core/drawn/shown';
import { comingStretches, pastStretches, secondsOf } from './stretches.ts';

const demo = (name: string) =>
  JSON.parse(readFileSync(new URL(`../../../demo/device-maps/${name}.json`, import.meta.url), 'utf8')) as DeviceMap;
const budget = { now: () => performance.now(), limitMs: 500 };
const allOps = (map: DeviceMap): Op[] => {
  const { strip, rebuild } = planRepair({ map, targets: [{ full: true }] }, budget);
  return [...strip, ...rebuild];
};
const tern = demo('tern-5');

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
    const setUp_s = setUpBefore(ops).reduce((sum, each) => sum + each, 0);
    expect(secondsOf(coming, 'work')).toBe(ops.reduce((sum, op) => sum + op.seconds, setUp_s));
    // the whole way says the same
    const way = renderToStaticMarkup(createElement(WayStrip, { map: tern, ops, at: 0, onGo: () => undefined }));
    expect(way).toContain(`${duration(secondsOf(coming))} in all`);
    expect(coming.filter(({ when }) => when === 'now')[0]?.id).toBe(ops[0]!.id);
  });
});

describe('what the drawing shows', () => {
  it('has the face up that is worked on, also while a bond dries and a lens is wiped', () => {
    const petrel = demo('petrel-glass');
    const { rebuild } = planRepair({ map: petrel, targets: [{ replace: 'display' }] }, budget);
    const face = (id: string) =>
      faceOf(
        petrel,
        rebuild.find((op) => op.id === id)!,
      );
    const seal = petrel.joints.find(({ type, holds }) => type === 'bond' && holds.includes('display'))!.id;
    expect([face(`dry:${seal}`), face(`press:${seal}`), face('wipe:through:front-camera')]).toEqual([
      'front',
      'front',
      'front',
    ]);
    expect([face('press:back-bond'), face('wipe:through:rear-camera'), face('test:before')]).toEqual([
      'back',
      'back',
      null,
    ]);
  });

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
    // what the same press takes is marked as well
    const joined = together(mechanism, state.device, steps.slice(until));
    expect([...shownOf(mechanism, state, steps[until], joined).marked!].toSorted()).toEqual(
      joined.flatMap(({ joint }) => joint ?? []).toSorted(),
    );
    expect([...shown.now!]).toEqual(expect.arrayContaining(['display-plug', 'display']));
  });
});
