import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { EVERY_EVENT, IN_A_STOP } from '../../../test/every-event.ts';
import { tern5 } from '../../../test/maps.ts';
import { usualSetting } from '../../physics/heat/index.ts';
import { type EventData, EVENTS, type EventType } from '../events/events.ts';

// What an end and a hand-over let be told, written down apart from the rows: nothing else may pass, whoever says it.
const FINISHED: readonly EventType[] = [
  'note',
  'photo',
  'stop',
  'clear',
  'retract',
  'undo',
  'photos-chosen',
  'handed-over',
  'end',
];
const HANDED_OVER: readonly EventType[] = ['note', 'photo', 'stop'];
const HANDED_OVER_BY_LEAD: readonly EventType[] = [...HANDED_OVER, 'clear', 'retract', 'undo', 'photos-chosen'];
const ENDED: readonly EventType[] = ['note', 'stop', 'clear'];
/** Nobody but a lead, in any state in which something was done or is stopped. */
const BY_A_LEAD: readonly EventType[] = ['clear', 'end', 'transplant-allowed'];

const TYPES = Object.keys(EVENTS) as EventType[];
const PEOPLE = ['somebody', 'Pip the learner', 'Maren'] as const;

/** Sends one event of a type; whether it was taken, and that nothing has changed where it was not. */
function isTaken(bench: TestBench, type: EventType, by: string, data: object = EVERY_EVENT[type]): boolean {
  const before = bench.state;
  bench.send(type, data as EventData[EventType], by);
  if (bench.problem !== null) expect(bench.state).toBe(before);
  return bench.problem === null;
}

const map = tern5();
const display = () => new TestBench(map, [{ replace: 'display' }]);
/** To play a repair for each type and person takes long: they begin from one that was played once. */
const from = (state: TestBench['state']) => {
  const bench = display();
  bench.state = state;
  // after everything that was told
  return bench.wait(3_000_000);
};
const warm = display().until('heat:front-seal').state;
const over = display().until().send('finish', {}).state;
const atHeat = () => from(warm);
const stopped = () => atHeat().send('stop', { reason: 'leak', text: '' });

describe('every type of event, whoever says it', () => {
  it('while a stop holds: only what a stop is for', () => {
    for (const type of TYPES) {
      for (const by of PEOPLE) {
        const taken = isTaken(stopped(), type, by);
        const isOf = IN_A_STOP.includes(type) && (!BY_A_LEAD.includes(type) || by === 'Maren');
        if (!isOf) expect([type, by, taken]).toEqual([type, by, false]);
        // a source, drops and damage have to be there before they are told to be over, and a teardown before more is told of it
        else if (!['heat-off', 'heat-reading', 'aired', 'spill', 'layer', 'first-seen'].includes(type)) {
          expect([type, by, taken]).toEqual([type, by, true]);
        }
      }
    }
    const hot = atHeat()
      .send('heat-on', { joint: 'front-seal', setting: usualSetting('plate'), heat_s: 60 })
      .send('stop', { reason: 'smell', text: '' });
    expect(isTaken(hot, 'heat-reading', 'somebody')).toBe(true);
    expect(isTaken(hot, 'heat-off', 'somebody')).toBe(true);
    const wet = atHeat().send('solvent', EVERY_EVENT.solvent).send('stop', { reason: 'smell', text: '' });
    expect(isTaken(wet.wait(3600), 'aired', 'somebody')).toBe(true);
    expect(isTaken(stopped(), 'spill', 'somebody')).toBe(true);
  });

  it('what was told for the stop may be taken back in it, work may not', () => {
    const bench = stopped();
    const work = bench.state.inForce.findLast(({ type }) => type === 'did')!;
    expect(isTaken(bench, 'undo', 'Maren', { event: work.id })).toBe(false);
    bench.send('damage', EVERY_EVENT.damage);
    const mark = bench.state.events.at(-1)!;
    expect(isTaken(bench, 'undo', 'somebody', { event: mark.id })).toBe(true);
    expect(isTaken(bench, 'undo', 'Maren', { event: work.id })).toBe(false);
    expect(bench.state.damage).toEqual([]);
  });

  it('after the finish: what adds to it, its hand-over and its undoing', () => {
    expect(over.finished).not.toBeNull();
    for (const type of TYPES) {
      for (const by of PEOPLE) {
        const data = type === 'undo' ? { event: over.inForce.at(-1)!.id } : EVERY_EVENT[type];
        const taken = isTaken(from(over), type, by, data);
        const mayBe = FINISHED.includes(type) && (!BY_A_LEAD.includes(type) || by === 'Maren');
        if (!mayBe) expect([type, by, taken]).toEqual([type, by, false]);
      }
    }
    expect(isTaken(from(over), 'end', 'Maren')).toBe(true);
    expect(isTaken(from(over), 'undo', 'somebody', { event: over.inForce.at(-1)!.id })).toBe(true);
  });

  it('after the hand-over: all add to it, and only a lead takes back', () => {
    const bench = from(over);
    const points = ['told', 'water', 'decided', 'fault', 'locks', 'reset', 'late'].flatMap((what) =>
      ['', ':1', ':2', ':3', ':display'].map((which) => what + which),
    );
    bench.send('handed-over', { to: 'Aldis', points, early: 'the ferry leaves' });
    expect(bench.problem).toBeNull();
    const gone = bench.state;
    for (const type of TYPES) {
      for (const by of PEOPLE) {
        const data = type === 'undo' ? { event: gone.inForce.at(-1)!.id } : EVERY_EVENT[type];
        const taken = isTaken(from(gone), type, by, data);
        const mayBe = (by === 'Maren' ? HANDED_OVER_BY_LEAD : HANDED_OVER).includes(type);
        if (!mayBe) expect([type, by, taken]).toEqual([type, by, false]);
      }
    }
    expect(isTaken(from(gone), 'undo', 'Maren', { event: gone.inForce.at(-1)!.id })).toBe(true);
    for (const type of HANDED_OVER) expect([type, isTaken(from(gone), type, 'somebody')]).toEqual([type, true]);
  });

  it('after it has ended: notes, and stops with their clearing', () => {
    for (const type of TYPES) {
      for (const by of PEOPLE) {
        const ended = atHeat().send('end', { text: 'scrapped' }, 'Maren');
        if (type === 'clear') ended.send('stop', EVERY_EVENT.stop);
        const taken = isTaken(ended, type, by);
        const mayBe = ENDED.includes(type) && (!BY_A_LEAD.includes(type) || by === 'Maren');
        expect([type, by, taken]).toEqual([type, by, mayBe]);
      }
    }
  });

  it('and what is for a lead is taken from one who has shown their secret', () => {
    const bench = stopped();
    bench.isConfirmed = false;
    expect([isTaken(bench, 'clear', 'Maren'), bench.needs]).toEqual([false, 'secret']);
    expect([isTaken(bench, 'end', 'Maren'), bench.needs]).toEqual([false, 'secret']);
    expect([isTaken(bench, 'clear', 'somebody'), bench.needs]).toEqual([false, 'lead']);
    bench.isConfirmed = true;
    expect(isTaken(bench, 'clear', 'Maren')).toBe(true);
  });
});

describe('a stop', () => {
  it('is always taken: whatever a clock says, however many hold', () => {
    const bench = atHeat();
    for (let n = 0; n < 120; n++) bench.send('stop', { reason: 'smoke', text: String(n) });
    expect(bench.state.stops).toHaveLength(120);
    for (const ago_s of [400 * 86_400, -400 * 86_400]) {
      expect(bench.tell('stop', { reason: 'smoke', text: '' }, { ago_s }).problem).toBeNull();
    }
    expect(bench.state.stops).toHaveLength(122);
    expect(bench.tell('note', { text: 'x' }, { ago_s: -3600 }).problem).toContain('60 s ahead');
  });
});
