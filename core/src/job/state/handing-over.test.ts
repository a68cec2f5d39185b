import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { changed, tern5 } from '../../../test/maps.ts';
import type { Target } from '../../planner/search/index.ts';
import { curing, handOverPoints } from './index.ts';

const finished = (targets: readonly Target[] = [{ replace: 'display' }], map = tern5()) =>
  new TestBench(map, targets).until().send('finish', {});
const points = (bench: TestBench) => handOverPoints(bench.mechanism, bench.state, bench.now);
const open = (bench: TestBench) => points(bench).flatMap(({ what, isDone }) => (isDone ? [] : [what]));
const hand = (bench: TestBench, more: object = {}) =>
  bench.send('handed-over', { to: 'Aldis', points: open(bench), ...more }).problem;

describe('handing over', () => {
  it('waits until the adhesive has the strength that is asked for: half of it 20 min after the press', () => {
    const bench = finished();
    const [seal] = curing(bench.mechanism, bench.state);
    expect(seal).toMatchObject({ joint: 'front-seal', by: 'tape' });
    expect(Date.parse(seal!.readyAt) - Date.parse(seal!.pressedAt)).toBe(1200_000);
    expect(hand(bench)).toContain('has the strength that is asked for: from 2026');
    expect(bench.wait(1200).send('note', { text: '' }).state.handedOver).toBeNull();
    expect(hand(bench)).toBeNull();
    expect(bench.state.handedOver).toMatchObject({ to: 'Aldis', by: 'Ines' });
    expect(hand(bench)).toContain('to Aldis already');
  });

  it('is no nearer by a clock that was set back', () => {
    const bench = finished();
    const pressed = bench.state.inForce.findLastIndex(
      ({ type, data }) => type === 'did' && JSON.stringify(data).includes('press:front-seal'),
    );
    const [seal] = curing(bench.mechanism, bench.state);
    const inForce = bench.state.inForce.with(pressed, {
      ...bench.state.inForce[pressed]!,
      at: '2026-11-01T00:00:00Z',
    });
    const [later] = curing(bench.mechanism, { ...bench.state, inForce });
    expect(Date.parse(seal!.readyAt) - Date.parse(later!.readyAt)).toBeLessThan(10_000);
  });

  it('goes early with a reason only, and never before it is finished or gone through', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until();
    expect(hand(bench)).toContain('Finish the repair first');
    bench.send('finish', {});
    expect(bench.send('handed-over', { to: 'x', points: [], early: 'the ferry leaves' }).problem).toContain(
      'Not handed',
    );
    expect(bench.send('handed-over', { to: 'x', points: ['water', '__proto__'] }).problem).toContain(
      'water resistance',
    );
    expect(hand(bench, { early: 'the ferry leaves' })).toBeNull();
  });

  it('asks for the time that a map gives its bond, and for none where the old seal was kept', () => {
    const slow = changed(tern5(), (map) => {
      const seal = map.joints.find(({ id }) => id === 'front-seal')!;
      Object.assign(seal, { close: { cure_s: 7200 } });
    });
    const bench = finished([{ replace: 'display' }], slow);
    const [seal] = curing(bench.mechanism, bench.state);
    expect(Date.parse(seal!.readyAt) - Date.parse(seal!.pressedAt)).toBe(7200_000);
    const kept = new TestBench(tern5(), [{ replace: 'display' }]).prepare();
    kept.send('closing', { joint: 'front-seal', way: 'reuse', text: '' }).until().send('finish', {});
    expect(curing(kept.mechanism, kept.state)).toEqual([]);
    expect(points(kept).some(({ text }) => text.startsWith('Old seal kept'))).toBe(true);
  });

  it('waits for thread locker too, by the time of its kind', () => {
    const locked = changed(tern5(), (map) => {
      Object.assign(
        map.fasteners.find(({ id }) => id === 'lid-short')!,
        { locker: { cure_s: 5400 } },
      );
    });
    const bench = finished([{ replace: 'display' }], locked);
    const screws = curing(bench.mechanism, bench.state).filter(({ by }) => by === 'locker');
    expect(screws.map(({ joint }) => joint)).toContain('connector-lid-screws');
    expect(Date.parse(screws[0]!.readyAt) - Date.parse(screws[0]!.pressedAt)).toBe(5400_000);
    expect(hand(bench.wait(1200))).toContain('Thread locker of');
  });

  it('of a new board asks whether it is reset and whose it is, and names losses, old faults and decisions', () => {
    const bench = new TestBench(tern5(), [{ replace: 'upper-board' }]);
    bench.send('test', { function: 'distance', result: 'fails', stage: 'intake' });
    bench.until('test:before');
    bench.send('test', { function: 'call', result: 'fails', stage: 'before' });
    bench
      .send('decision', { about: 'failed-test', function: 'call', text: 'no card at hand' })
      .until()
      .send('finish', {});
    const all = points(bench);
    const of = (what: string) => all.find((each) => each.what === what);
    expect(of('reset:upper-board')).toMatchObject({ isDone: true });
    expect(of('locks:upper-board')).toMatchObject({ isDone: false });
    expect(of('decided:1')?.text).toContain('no card at hand');
    expect(all.filter(({ what }) => what.startsWith('told:')).every(({ isDone }) => isDone)).toBe(true);
    expect(open(finished([{ replace: 'cell' }]))).toContain('old-cell');
  });

  it('is asked for nothing that nobody can say, and takes pictures of this repair only', () => {
    const bench = finished();
    expect(bench.send('photos-chosen', { photos: ['0'.repeat(64)] }).problem).toContain('no picture');
    expect(bench.send('photos-chosen', { photos: [] }).state.chosenPhotos).toEqual([]);
  });
});

describe('a part that does not lie flush', () => {
  const tilted = [
    { x: 1, y: 1, step_mm: 0 },
    { x: 1, y: 147, step_mm: 0 },
    { x: 70, y: 1, step_mm: 0.4 },
    { x: 70, y: 147, step_mm: 0.4 },
  ];
  it('keeps the repair open until it is lifted and felt again, or decided', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until();
    expect(bench.send('flush', { part: 'nothing', points: [] }).problem).toContain('no part');
    bench.send('flush', { part: 'display', points: tilted });
    expect(bench.state.flush.get('display')).toMatchObject({ kind: 'tilt', most_mm: 0.4 });
    expect(bench.send('finish', {}).problem).toContain('Display is tilted');
    expect(bench.send('flush', { part: 'display', points: [] }).state.flush.get('display')).toBeNull();
    expect(bench.send('finish', {}).problem).toBeNull();
  });
  it('has to be felt anew once it was lifted', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('test:before');
    bench.send('flush', { part: 'display', points: tilted });
    bench.send('did', { steps: [{ id: 'lift:display', kind: 'lift', part: 'display' }], anyway: 'x' });
    expect(bench.state.flush.has('display')).toBe(false);
  });
});

describe('what the owner was not told', () => {
  it('keeps the repair open: it is told, or decided about by name', () => {
    const bench = new TestBench(tern5(), [{ replace: 'side-key' }]).until();
    const steps = new Map([...bench.state.steps].filter(([id]) => id !== 'agree'));
    bench.state = { ...bench.state, agreed: null, prepared: null, steps };
    expect(bench.send('finish', {}).problem).toContain('The owner was not told');
    const [note] = bench.mechanism.map.parts.find(({ id }) => id === 'side-key')!.onReplace!;
    bench.send('told', { items: [note!.note], who: 'Aldis', how: 'here' });
    expect(bench.send('finish', {}).problem).toBeNull();
  });
});
