import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { changed, tern5 } from '../../../test/maps.ts';
import type { OpId } from '../../planner/drafts/index.ts';
import type { EventData } from '../events/events.ts';
import type { BondClosing } from '../events/deviation-events.ts';
import { leftOpen } from './left-open.ts';
import { UNKNOWN } from '../state/surroundings.ts';

const atDisplay = () => new TestBench(tern5(), [{ replace: 'display' }]).prepare();
const ids = (bench: TestBench): OpId[] => bench.ahead().map(({ id }) => id);
const about = (bench: TestBench, part: string) =>
  bench.ahead().filter((op) => op.part === part || (op.joint && jointsOf(part).includes(op.joint)));
const jointsOf = (part: string) => tern5().joints.flatMap(({ id, holds }) => (holds.join() === part ? [id] : []));
const notMapped = (what: EventData['not-mapped']['what'], more: object) =>
  ['not-mapped', { what, text: '', ...more }] as const;

describe('a part that is not there', () => {
  it('is absent, its joints are released, and the rest is done to the end without it', () => {
    const bench = atDisplay().until('release:connector-lid-screws');
    expect(about(bench, 'connector-lid').length).toBeGreaterThan(2);
    bench.send(...notMapped('missing', { part: 'connector-lid' }));
    expect(bench.problem).toBeNull();
    expect(about(bench, 'connector-lid')).toEqual([]);
    expect(bench.state.corrections.at(-1)).toMatchObject({ path: expect.stringMatching(/^parts\[\d+\]$/), to: null });
    bench.until();
    expect(leftOpen(bench.mechanism, bench.state, UNKNOWN)).toEqual([]);
    expect(bench.send('finish', {}).problem).toBeNull();
  });

  it('leaves the clamp of two parts to the other one', () => {
    const bench = new TestBench(tern5(), [{ remove: 'sensor-lid' }]).prepare();
    bench.send(...notMapped('missing', { part: 'connector-lid' })).until('make:lids-shared');
    expect(bench.do(bench.ahead()[0]!).problem).toBeNull();
    expect(bench.until().send('finish', {}).problem).toBeNull();
  });

  it('is fitted all the same where it is to be replaced', () => {
    const bench = new TestBench(tern5(), [{ replace: 'connector-lid' }]).prepare();
    bench.send(...notMapped('missing', { part: 'connector-lid' }));
    expect(ids(bench)).not.toContain('lift:connector-lid');
    expect(ids(bench)).toContain('fit:connector-lid');
    const again = { id: 'lift:connector-lid', kind: 'lift', part: 'connector-lid' } as const;
    const after = ids(bench)[ids(bench).indexOf('fit:connector-lid') + 1]!;
    bench.until(after).send('did', { steps: [again], anyway: 'it slipped' });
    // what was fitted is no longer missing, also where it comes off again
    expect(leftOpen(bench.mechanism, bench.state, UNKNOWN).map(({ what }) => what)).toContain('part:connector-lid');
    expect(ids(bench)).toContain('fit:connector-lid');
    expect(bench.until().send('finish', {}).problem).toBeNull();
  });

  it('is never what makes the device dead, what carries all else, or what was there a moment ago', () => {
    const bench = atDisplay();
    const refused = (part: string) => bench.send(...notMapped('missing', { part })).problem;
    expect(refused('cell')).toContain('makes the device dead');
    expect(refused('frame')).toContain('carries everything');
    expect(refused('nothing')).toContain('There is no part');
    bench.until('release:connector-lid-screws').release('connector-lid-screws').release('lids-shared');
    bench.send('did', { steps: [{ id: 'lift:connector-lid', kind: 'lift', part: 'connector-lid' }] });
    expect(refused('connector-lid')).toContain('was there');
  });

  it('opens no device that is not prepared', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]);
    bench.send(...notMapped('missing', { part: 'earpiece-mesh' }));
    expect(bench.problem).toBeNull();
    expect(bench.release('edge-screws').problem).not.toBeNull();
  });

  it('comes back with an undo', () => {
    const bench = atDisplay();
    const before = ids(bench);
    bench.send(...notMapped('missing', { part: 'connector-lid' }));
    bench.send('undo', { event: bench.state.inForce.at(-1)!.id });
    expect(ids(bench)).toEqual(before);
    expect(bench.state.corrections).toEqual([]);
  });
});

describe('a part that is another one', () => {
  it('is looked at where it comes off, or at once where it stays', () => {
    const bench = atDisplay().send(...notMapped('different', { part: 'connector-lid' }));
    const at = ids(bench).indexOf('inspect:connector-lid');
    expect(ids(bench)[at - 1]).toBe('lift:connector-lid');
    const stays = atDisplay().send(...notMapped('different', { part: 'vibrator' }));
    expect(ids(stays)[0]).toBe('inspect:vibrator');
  });
});

describe('a part that is one more', () => {
  it('comes off before what it lies over and goes back after it, by its name', () => {
    const extra = { name: 'Foil', over: { part: 'connector-lid' } };
    const bench = atDisplay().send(...notMapped('extra', extra));
    const steps = ids(bench);
    const [off, back] = ['take-off', 'put-back'].map((name) => steps.findIndex((id) => id.startsWith(name)));
    expect(steps[off! + 1]).toBe('lift:connector-lid');
    expect(steps[back! - 1]).toBe('fit:connector-lid');
    expect(bench.ahead()[off!]!.named).toBe('Foil');
    bench.until(steps[back!]);
    expect(leftOpen(bench.mechanism, bench.state, UNKNOWN).map(({ text }) => text)).toContain(
      'Foil is not back in its place',
    );
    expect(bench.until().send('finish', {}).problem).toBeNull();
  });

  it('names what it lies over, of this map', () => {
    expect(atDisplay().send(...notMapped('extra', { name: 'Foil', over: { part: 'moon' } })).problem).toContain('over');
  });
});

describe('a part that is to be looked at', () => {
  const map = changed(tern5(), (copy) => {
    const lid = copy.parts.find(({ id }) => id === 'connector-lid')!;
    lid.reuse = 'inspect';
    lid.ifFailed = { replace: 'sensor-lid' };
  });
  const atLook = () => new TestBench(map, [{ replace: 'display' }]).prepare().until('inspect:connector-lid');

  it('goes back where it is good', () => {
    const bench = atLook().send('inspected', { part: 'connector-lid', result: 'good', text: '' });
    expect(ids(bench)).not.toContain('inspect:connector-lid');
    expect(bench.state.targets).toEqual([{ replace: 'display' }]);
    expect(bench.until().send('finish', {}).problem).toBeNull();
  });

  it('turns the job into what the map says of a failed look, else into its own renewal', () => {
    const bench = atLook().send('inspected', { part: 'connector-lid', result: 'failed', text: 'torn' });
    expect(bench.state.targets).toEqual([{ replace: 'display' }, { replace: 'sensor-lid' }]);
    const own = new TestBench(tern5(), [{ remove: 'port-module' }]).prepare();
    own.send('inspected', { part: 'port-gasket', result: 'failed', text: '' });
    expect(own.state.targets).toEqual([{ remove: 'port-module' }, { replace: 'port-gasket' }]);
  });
});

describe('a bond decided on sight', () => {
  const closing = (way: BondClosing, joint = 'front-seal') => ['closing', { joint, way, text: '' }] as const;
  const named = (bench: TestBench, name: string, joint = 'front-seal') =>
    bench.ahead().some((op) => op.name === name && (op.joint === joint || op.joints?.includes(joint)));

  it('is closed as it was decided: what still sticks is kept, glue is laid after the test', () => {
    const bench = atDisplay();
    expect(named(bench, 'clean')).toBe(true);
    expect(named(bench.send(...closing('reuse')), 'clean')).toBe(false);
    bench.send(...closing('glue'));
    const steps = ids(bench);
    expect(steps.indexOf('lay:front-seal')).toBeGreaterThan(steps.indexOf('test:before'));
    expect(named(bench, 'liner-off')).toBe(false);
    expect(named(bench.send(...closing('renew')), 'liner-off')).toBe(true);
    // a pad that is looked at is no longer asked about
    expect(named(bench, 'tack', 'light-sensor-glue')).toBe(named(atDisplay(), 'tack', 'light-sensor-glue'));
  });

  it('is a bond that is still open', () => {
    expect(atDisplay().send(...closing('glue', 'cell-plug')).problem).toContain('no bond');
    const bench = atDisplay().until('test:after');
    expect(bench.send(...closing('glue')).problem).toContain('closed already');
  });
});

describe('a screw without a place', () => {
  it('is left over, its hole is not waited for, and the rest is finished', () => {
    const screw = { joint: 'connector-lid-screws', point: 'lid-1' };
    const bench = atDisplay().until('make:connector-lid-screws');
    const points = bench.state.ledger.onMat.filter(({ joint }) => joint === screw.joint).map(({ point }) => point);
    const noPlace = { kind: 'no-place', text: '', joint: screw.joint, point: points[0]! } as const;
    expect(atDisplay().send('trouble', noPlace).problem).toContain('not on the mat');
    expect(bench.send('trouble', noPlace).problem).toBeNull();
    expect(bench.state.ledger.leftOut.map(({ point }) => point)).toEqual([points[0]]);
    expect(bench.state.corrections.at(-1)!.text).toContain('no place');
    expect(bench.until().send('finish', {}).problem).toBeNull();
  });
});
