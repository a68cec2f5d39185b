import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { tern5 } from '../../../test/maps.ts';
import { doneStep, nextPress, restWorks } from '../../bench/in-hand/index.ts';
import { failedTests, suspectsOf } from './index.ts';

/** A new display is in, the device is alive, and touch does not work. */
function atTheTest(): TestBench {
  const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('test:before');
  for (const id of bench.ahead()[0]!.functions!) {
    bench.send('test', { function: id, result: id === 'touch' ? 'fails' : 'works', stage: 'before' });
  }
  expect(bench.problem).toBeNull();
  return bench;
}

const close = { steps: [{ id: 'close:display', kind: 'close', part: 'display' }] } as const;
const seal = { steps: [{ id: 'make:front-seal', kind: 'make', joint: 'front-seal' }] } as const;

describe('a test that fails before the seal', () => {
  it('is not passed by Space, nor over the interface, with “anyway” or without', () => {
    const bench = atTheTest();
    expect(failedTests(bench.mechanism.map, bench.state)).toEqual(['touch']);
    const press = nextPress(bench.mechanism, bench.state, bench.aheadWhole(), bench.now);
    expect(press).toMatchObject({ isAllowed: false, does: { kind: 'nothing' } });
    expect(press.label).toContain('fails');
    for (const steps of [close, seal]) {
      expect(bench.send('did', steps).problem).toContain('failed');
      expect(bench.send('did', { ...steps, anyway: 'it must go' }).problem).toContain('failed');
    }
    // ticking the test as a step does not help
    bench.send('did', { steps: [doneStep(bench.ahead()[0]!)] });
    expect(bench.send('did', { ...close, anyway: 'x' }).problem).toContain('failed');
    // nor does one call that does several things
    const both = { steps: [...close.steps, ...seal.steps], anyway: 'x' };
    expect(bench.send('did', both).problem).toContain('failed');
  });

  it('is not lifted by saying that it was not tried, nor by a decision about something else', () => {
    const bench = atTheTest();
    bench.send('test', { function: 'touch', result: 'not-tried', stage: 'before' });
    bench.send('test', { function: 'touch', result: 'not-tried', stage: 'after' });
    bench.send('decision', { about: 'other', text: 'go on' });
    expect(bench.send('decision', { about: 'failed-test', function: 'picture', text: 'x' }).problem).toContain(
      'stands',
    );
    expect(failedTests(bench.mechanism.map, bench.state)).toEqual(['touch']);
    expect(bench.send('did', { ...close, anyway: 'x' }).problem).toContain('failed');
  });

  it('is lifted by working, and by a decision with its reason; failing again it stands again', () => {
    const bench = atTheTest();
    bench.send('test', { function: 'touch', result: 'works', stage: 'before' });
    expect(failedTests(bench.mechanism.map, bench.state)).toEqual([]);
    bench.send('test', { function: 'touch', result: 'fails', stage: 'before' });
    bench.send('decision', { about: 'failed-test', function: 'touch', text: 'the owner wants it back as it is' });
    expect(bench.problem).toBeNull();
    expect(failedTests(bench.mechanism.map, bench.state)).toEqual([]);
    bench.send('test', { function: 'touch', result: 'fails', stage: 'before' });
    expect(failedTests(bench.mechanism.map, bench.state)).toEqual(['touch']);
    bench.send('test', { function: 'touch', result: 'works', stage: 'before' }).until();
    expect(bench.send('finish', {}).problem).toBeNull();
  });

  it('leaves plugs to be undone and pressed again, and inner things to be closed', () => {
    const bench = atTheTest();
    const { joint } = suspectsOf(bench.mechanism, bench.state, 'touch')[0]!;
    for (const id of ['lids-shared', 'connector-lid-screws']) bench.release(id);
    expect(bench.problem).toBeNull();
    bench.send('did', { steps: [{ id: 'lift:connector-lid', kind: 'lift', part: 'connector-lid' }] });
    expect(bench.release('cell-plug').problem).toBeNull();
    expect(bench.release(joint!).problem).toBeNull();
    const again = { steps: [{ id: `make:${joint}`, kind: 'make', joint }] } as const;
    expect(bench.send('did', again as never).problem).toBeNull();
  });

  it('names what serves it and was touched, with what it costs now and once it is closed', () => {
    const bench = atTheTest();
    const [failed] = bench.aheadWhole().failed;
    expect(failed).toMatchObject({ function: 'touch' });
    expect(failed!.suspects[0]).toMatchObject({ joint: 'touch-plug', seals: 1 });
    expect(failed!.suspects[0]!.now_s!).toBeLessThan(failed!.suspects[0]!.afterSealing_s!);
  });

  it('leads to the plug and has it pressed home again, as often as it is asked for', () => {
    const bench = atTheTest();
    const reach = { reach: 'touch-plug' };
    const again = () =>
      bench
        .send('targets', { targets: [{ replace: 'display' }, reach] })
        .ahead()
        .map(({ id }) => id);
    const ids = again();
    expect(ids.slice(0, ids.indexOf('press-home:touch-plug'))).toEqual(
      expect.arrayContaining(['release:connector-lid-screws', 'lift:connector-lid', 'release:cell-plug']),
    );
    expect(ids.indexOf('make:cell-plug')).toBeGreaterThan(ids.indexOf('press-home:touch-plug'));
    bench.until('test:before');
    expect(bench.state.steps.has('press-home:touch-plug')).toBe(true);
    expect(again()).toContain('press-home:touch-plug 2');
    // a plug that this job never pressed is only reached
    bench.send('targets', { targets: [{ replace: 'display' }, { reach: 'port-plug' }] });
    expect(bench.ahead().some(({ name }) => name === 'press-home')).toBe(false);
  });

  it('suspects the plug first of which nobody was sure that it clicked, until it is pressed again', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('make:touch-plug');
    const press = bench.ahead()[0]!;
    bench.do(press).send('click', { joint: 'touch-plug', heard: 'not-sure' });
    const first = () => suspectsOf(bench.mechanism, bench.state, 'touch')[0]!;
    expect(first()).toMatchObject({ joint: 'touch-plug', unsure: true });
    bench.send('click', { joint: 'touch-plug', heard: 'clicked' });
    expect(first().unsure).toBe(false);
    bench.send('click', { joint: 'touch-plug', heard: 'not-sure' }).release('touch-plug');
    expect(bench.problem).toBeNull();
    expect(bench.state.unsure.size).toBe(0);
    expect(bench.send('click', { joint: 'front-seal', heard: 'not-sure' }).problem).toContain('no plug');
  });

  it('does not hold what failed when it came in', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]);
    bench.send('test', { function: 'touch', result: 'fails', stage: 'intake' }).until('test:before');
    bench.send('test', { function: 'touch', result: 'fails', stage: 'before' });
    expect(failedTests(bench.mechanism.map, bench.state)).toEqual([]);
  });

  it('is not excused by an intake that is told once it has failed', () => {
    const bench = atTheTest().send('test', { function: 'touch', result: 'fails', stage: 'intake' });
    expect(failedTests(bench.mechanism.map, bench.state)).toEqual(['touch']);
    expect(bench.send('did', { ...close, anyway: 'x' }).problem).toContain('failed');
  });

  it('does not hold what this repair is known to lose, and the rest does not say that it works', () => {
    const bench = new TestBench(tern5(), [{ replace: 'side-key' }]).until('test:before');
    const op = bench.ahead()[0]!;
    const { map } = bench.mechanism;
    const said = restWorks(map, bench.state, op).flatMap((each) => (each.type === 'test' ? [each.data] : []));
    expect(said.find((each) => each.function === 'side-key')).toMatchObject({ result: 'not-tried' });
    expect(said.filter(({ result }) => result === 'works')).toHaveLength(said.length - 1);
    bench.send('test', { function: 'side-key', result: 'fails', stage: 'before' });
    expect(failedTests(map, bench.state)).toEqual([]);
  });

  it('after closing keeps it from being finished, and opens it again by a plan', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('test:after');
    bench.send('test', { function: 'touch', result: 'fails', stage: 'after' });
    expect(bench.send('finish', {}).problem).toContain('failed');
    bench.send('targets', { targets: [...bench.state.targets, { reach: 'touch-plug' }] });
    expect(bench.ahead().map(({ id }) => id)).toContain('release:front-seal');
  });
});
