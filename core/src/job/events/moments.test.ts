import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { tern5 } from '../../../test/maps.ts';
import { usualSetting } from '../../physics/heat/index.ts';
import { curing } from '../state/curing.ts';
import { foldJob } from '../fold/fold.ts';
import { handOverPoints } from '../state/handing-over.ts';
import { lateBy_s, toldBy } from './moments.ts';

const joint = 'front-seal';
const plate = { joint, setting: usualSetting('plate'), heat_s: 120 };
const drops = { joint: 'cell-straps', drops: 8, away: true };
const display = () => new TestBench(tern5(), [{ replace: 'display' }]);
const atHeat = () => display().until('heat:front-seal');
const DAY_s = 86_400;

describe('what is dated back', () => {
  it('shortens no airing: vapour counts from when it was received', () => {
    const bench = atHeat().wait(7200);
    expect(bench.tell('solvent', drops, { ago_s: 3600 }).problem).toBeNull();
    expect(bench.send('heat-on', plate).problem).toContain('drops');
    expect(bench.send('aired', { step: 'vent:bench' }).problem).toContain('Air it for');
    // nor does an airing that is dated ahead
    expect(bench.tell('aired', { step: 'vent:bench' }, { ago_s: -59 }).problem).toContain('Air it for');
    expect(bench.wait(1200).send('aired', { step: 'vent:bench' }).problem).toBeNull();
    expect(bench.send('heat-on', plate).problem).toBeNull();
  });

  it('cools no bond: a source that came off an hour ago came off when it was said', () => {
    const bench = atHeat().wait(7200).send('heat-on', plate).wait(120);
    bench.tell('heat-off', { joint, seconds: 120 }, { ago_s: 3600 });
    expect(bench.problem).toBeNull();
    expect(bench.send('solvent', drops).problem).toContain('below 40 °C');
    expect(bench.wait(2400).send('solvent', drops).problem).toBeNull();
  });

  it('is nothing of a repair that did not exist yet, save what was written or photographed then', () => {
    const bench = display().wait(3600);
    expect(bench.tell('charge', { charge: 0.2, source: 'typed' }, { ago_s: 2 * 3600 }).problem).toContain(
      'before this repair was taken in',
    );
    expect(bench.tell('note', { text: 'said on the telephone' }, { ago_s: DAY_s }).problem).toBeNull();
    expect(bench.tell('charge', { charge: 0.2, source: 'typed' }, { ago_s: 3000 }).problem).toBeNull();
  });

  it('cures as it was told, and the hand-over shows how late that was', () => {
    const bench = display()
      .until('press:front-seal')
      .wait(6 * 3600);
    const [press] = bench.ahead();
    bench.tell('did', { steps: [{ id: press!.id, kind: 'procedure', name: 'press', joint }] }, { ago_s: 2 * 3600 });
    const late = curing(bench.mechanism, bench.state).find((each) => each.joint === joint)!;
    expect(Math.round(late.late_s / 60)).toBe(120);
    expect(Date.parse(late.readyAt) - Date.parse(late.pressedAt)).toBeGreaterThan(0);
    const said = handOverPoints(bench.mechanism, bench.state, bench.now).find(({ what }) => what === `late:${joint}`);
    expect(said).toMatchObject({ isDone: false, text: expect.stringContaining('2 h 0 min after it was pressed') });
    const prompt = display().until();
    expect(curing(prompt.mechanism, prompt.state).every(({ late_s }) => late_s === 0)).toBe(true);
  });
});

describe('a clock that was wrong', () => {
  it('of the server, for a moment, keeps nobody waiting for longer than a whole airing', () => {
    const bench = atHeat();
    // the server's clock was 400 days ahead as the drops came in, and is right again
    bench
      .wait(400 * DAY_s)
      .send('solvent', drops)
      .wait(-400 * DAY_s);
    expect(bench.send('heat-on', plate).problem).toMatch(/Air the bench for \d{2,4} s more/);
    bench.send('note', { text: 'the clock is right again' });
    expect(bench.wait(1200).send('aired', { step: 'vent:bench' }).problem).toBeNull();
    expect(bench.send('heat-on', plate).problem).toBeNull();
    expect(foldJob(bench.mechanism, bench.job, bench.state.events)).toEqual(bench.state);
  });

  it('dates no cure, and no repair, into the future for good', () => {
    const moment = (at: string, receivedAt = at) => ({ at, receivedAt });
    const told = toldBy([moment('2028-01-01T00:00:00Z'), moment('2026-11-24T08:00:00Z')]);
    expect(told[0]).toBeLessThanOrEqual(Date.parse('2026-11-24T08:01:00Z'));
    expect(lateBy_s(moment('2026-11-24T08:00:00Z', '2026-11-24T08:09:00Z'))).toBe(0);
    expect(lateBy_s(moment('2026-11-24T08:00:00Z', '2026-11-24T08:11:00Z'))).toBe(660);
    // taken in while the clock was ahead: it was taken in by now
    const bench = display();
    const early = { ...bench.job, createdAt: '2028-01-01T00:00:00Z' };
    bench.state = { ...bench.state, job: early };
    expect(bench.send('charge', { charge: 0.2, source: 'typed' }).problem).toBeNull();
  });

  it('or a bench that is wet for another reason, is cleared by a lead with the reason', () => {
    const bench = atHeat().send('solvent', drops);
    const aired = { step: 'vent:bench', anyway: 'the window was open all night' };
    expect([bench.send('aired', aired).problem, bench.needs]).toEqual([expect.stringContaining('for a lead'), 'lead']);
    bench.isConfirmed = false;
    expect([bench.send('aired', aired, 'Maren').problem, bench.needs]).toEqual([
      expect.stringContaining('a secret of their own'),
      'secret',
    ]);
    bench.isConfirmed = true;
    expect(bench.send('aired', aired, 'Maren').problem).toBeNull();
    expect(bench.send('heat-on', plate).problem).toBeNull();
  });
});

describe('an event that is damaged on the disk', () => {
  it('changes nothing, stops the repair by name, and the rest stands', () => {
    const bench = atHeat().send('solvent', drops);
    const events = bench.state.events.map((each) =>
      each.type === 'solvent' ? { ...each, data: {}, unreadable: true } : each,
    ) as unknown as typeof bench.state.events;
    const state = foldJob(bench.mechanism, bench.job, events);
    expect(state.done).toEqual(bench.state.done);
    expect(state.stopped).toMatchObject({ reason: 'other', text: expect.stringContaining('solvent, Ines') });
    bench.state = state;
    expect(bench.send('heat-on', plate).problem).toContain('Stopped');
    expect(bench.send('clear', { text: 'aired, looked at' }, 'Maren').problem).toBeNull();
    expect(bench.send('heat-on', plate).problem).toBeNull();
  });
});
