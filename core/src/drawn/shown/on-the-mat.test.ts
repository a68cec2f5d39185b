import { readFileSync } from 'node:fs';
import type { DeviceMap } from '../../model/device-map/index.ts';
import { mechanismOf } from '../../planner/holds/index.ts';
import { planAhead } from '../../bench/in-hand/index.ts';
import { type BenchEvent } from '../../job/events/index.ts';
import { newJob } from '../../job/state/index.ts';
import { withEvent } from '../../job/fold/index.ts';
import { describe, expect, it } from 'vitest';
import { onTheMat } from './on-the-mat.ts';

const map = JSON.parse(
  readFileSync(new URL('../../../../demo/device-maps/tern-5.json', import.meta.url), 'utf8'),
) as DeviceMap;
const mechanism = mechanismOf(map);
const job = {
  id: 'j',
  map: map.id,
  revision: 1,
  targets: [{ replace: 'display' }],
  policy: {},
  title: '',
  createdAt: '',
};

/** The plan of a display, from where all that comes off is off. */
function atTheMat() {
  let state = newJob(mechanism, job as never);
  const budget = { now: () => performance.now(), limitMs: 500 };
  const ahead = () => planAhead(mechanism, state, budget);
  for (const { kind, joint, part, id } of ahead().plan.strip) {
    if (kind === 'procedure') continue;
    const steps = [{ id, kind, ...(joint ? { joint } : { part: part! }) }];
    const event = { id, type: 'did', at: '2026-11-24T08:00:00Z', by: 'Ines', data: { steps, anyway: 'test' } };
    const outcome = withEvent(mechanism, state, event as unknown as BenchEvent);
    if ('state' in outcome) state = outcome.state;
  }
  return { state, ops: ahead().ops };
}

describe('work on a part that is off the device', () => {
  const { state, ops } = atTheMat();
  const seen = (id: string) =>
    onTheMat(
      mechanism,
      state,
      ops.find((op) => op.id === id),
    );

  it('is drawn on that part lying on the mat, old and new told apart', () => {
    const off = seen('release:bezel-clips')!;
    expect(off.label).toBe('On the mat: the old Display');
    expect(off.side).toBe('back');
    // its glue is warmed on the old one
    expect(seen('heat:earpiece-glue')!.label).toBe('On the mat: the old Display');
    expect(seen('fit:bezel')!.label).toBe('On the mat: the new Display');
    const display = map.parts.find(({ id }) => id === 'display')!;
    expect(off.map.outline).toMatchObject({ width: display.box.w, height: display.box.h });
    expect(off.map.parts.map(({ id }) => id)).toEqual(expect.arrayContaining(['display', 'bezel', 'earpiece']));
    expect(off.map.parts.map(({ id }) => id)).not.toContain('cell');
  });

  it('counts places from its corner', () => {
    const display = map.parts.find(({ id }) => id === 'display')!;
    const piece = map.parts.find(({ id }) => id === 'earpiece')!;
    const drawn = seen('release:bezel-clips')!.map.parts.find(({ id }) => id === 'earpiece')!;
    expect(drawn.box).toEqual({ ...piece.box, x: piece.box.x - display.box.x, y: piece.box.y - display.box.y });
  });

  it('is nothing for what is done to the device itself', () => {
    const onDevice = ops.find(({ kind, stage }) => kind === 'make' && stage === 'rebuild')!;
    expect(onTheMat(mechanism, state, onDevice)).toBeNull();
    expect(onTheMat(mechanism, state, undefined)).toBeNull();
  });
});
