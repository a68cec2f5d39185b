import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { tern5 } from '../../../test/maps.ts';
import { comparePieces, partVerdict, placesOn, returnBy } from '../../workshop/parts/index.ts';
import { heldParts } from './desk.ts';
import { type PartEventData, PART_EVENTS } from '../events/part-events.ts';

const part = '11111111-1111-4111-8111-111111111111';
const arrived = (mapPart: string): PartEventData['part-arrived'] => ({
  part,
  mapPart,
  source: 'Harbour Parts, used',
  arrived: '2026-11-03',
  window_days: 30,
});
const looked = (more: object = {}) =>
  ({ part, condition: 'good', includes: [], lacks: [], text: '', ...more }) as const;
const asked = (answer: PartEventData['part-asked']['answer']) => ({
  part,
  answer,
  where: 'stand-in',
  number: '260531793113837',
  at: '2026-11-24T08:00:00Z',
  simulated: true,
});
const prepared = { items: [], skipped: [] };
const desk = (mapPart: string) => new TestBench(tern5(), [{ replace: mapPart }]).send('part-arrived', arrived(mapPart));
const verdict = (bench: TestBench) => partVerdict(bench.mechanism.map, bench.state.parts[0]!).verdict;

describe('the parts desk', () => {
  it('knows what moves over and what the new part brings, and the plan follows', () => {
    const bench = desk('display').send('prepared', prepared);
    const before = bench.aheadWhole().plan.moveOver.toSorted();
    expect(before).toEqual(['bezel', 'earpiece', 'earpiece-mesh', 'light-sensor']);
    bench.send('part-looked', looked({ includes: ['earpiece-mesh', 'light-sensor'], lacks: ['front-hooks'] }));
    const pieces = comparePieces(bench.mechanism, 'display', ['earpiece-mesh', 'light-sensor']);
    expect(pieces.movesOver.map((each) => each.id)).toEqual(['bezel', 'earpiece']);
    expect(bench.aheadWhole().plan.moveOver).toEqual(['bezel', 'earpiece']);
    expect(bench.ahead().some((op) => op.id === 'make:front-hooks')).toBe(false);
    expect(placesOn(bench.mechanism, 'display').map((each) => each.id)).toContain('front-hooks');
    expect(bench.send('part-looked', looked({ includes: ['nothing'] })).problem).toContain('no “nothing”');
    bench.send('part-decided', { part, decision: 'accept', text: '' }).until();
    expect(bench.send('finish', {}).problem).toBeNull();
  }, 30_000);

  it('does not let a part in that was not accepted, save by a recorded decision', () => {
    // it comes once the device is open: what came before that is refused in the preparation
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('fit:display');
    bench.send('part-arrived', arrived('display'));
    const step = { id: 'fit:display', kind: 'fit', part: 'display', new: true } as const;
    expect(bench.send('did', { steps: [step] }).problem).toContain('Nobody has looked at it');
    expect(bench.send('part-decided', { part, decision: 'accept', text: '' }).problem).toContain('Not accepted');
    expect(bench.send('part-decided', { part, decision: 'accept-anyway', text: ' ' }).problem).toContain(
      'Record who did',
    );
    bench.send('part-decided', { part, decision: 'accept-anyway', text: 'Maren: it is the only one' });
    bench.until();
    expect(bench.send('finish', {}).problem).toBeNull();
  }, 30_000);

  it('judges a board by its numbers and the register', () => {
    const bench = desk('lower-board');
    expect(verdict(bench)).toBe('hold');
    bench.send('part-looked', looked());
    for (const place of ['label', 'screen']) bench.send('part-number', { part, place, value: '26053179 311383 7' });
    expect(verdict(bench)).toBe('hold');
    bench.send('part-asked', asked('not-reachable'));
    expect(verdict(bench)).toBe('hold');
    bench.send('part-asked', asked('clear'));
    expect(verdict(bench)).toBe('use');
    bench.send('part-number', { part, place: 'screen', value: '490154203237518' });
    expect(verdict(bench)).toBe('send-back');
    bench.send('part-number', { part, place: 'screen', value: '' });
    expect(bench.state.parts[0]!.numbers.map((each) => each.place)).toEqual(['label']);
    bench.send('part-asked', asked('barred'));
    expect(verdict(bench)).toBe('send-back');
    expect(bench.send('part-decided', { part, decision: 'accept', text: '' }).problem).toContain('barred');
  });

  it('sends back by the last day of the window, and then leaves it alone', () => {
    const bench = desk('display').send('part-looked', looked({ condition: 'damaged', text: 'a corner is dented' }));
    expect(verdict(bench)).toBe('send-back');
    expect(returnBy(bench.state.parts[0]!)).toBe('2026-12-03');
    bench.send('part-sent-back', { part, date: '2026-11-24', text: '' });
    expect(bench.send('part-looked', looked()).problem).toContain('sent back');
  });

  it('refuses what is not in the map, not at the desk, or there already', () => {
    const bench = desk('display');
    expect(bench.send('part-arrived', arrived('display')).problem).toContain('at the desk already');
    expect(bench.send('part-arrived', { ...arrived('x'), part: part.replace('1', '2') }).problem).toContain('no part');
    expect(bench.send('part-number', { part: 'other', place: 'label', value: '1' }).problem).toContain('no such part');
  });

  it('refuses a window of −3 days, a day that does not exist, and an answer no register gives', () => {
    const refused = (change: object) =>
      PART_EVENTS['part-arrived'].data.validate({ ...arrived('display'), ...change }).error?.message ?? '';
    expect(refused({})).toBe('');
    expect(refused({ window_days: -3 })).toContain('enter 0');
    expect(refused({ arrived: '2026-02-30' })).toContain('no day');
    expect(PART_EVENTS['part-asked'].data.validate({ ...asked('clear'), answer: 'fine' }).error).toBeDefined();
  });
});

describe('a new part that is held', () => {
  it('is refused in the preparation, and not after the strip-down', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]);
    const part = '00000000-0000-4000-8000-0000000000bb';
    bench.send('part-arrived', {
      part,
      mapPart: 'display',
      source: 'Harbour Parts',
      arrived: '2026-11-20',
      window_days: 30,
    });
    expect(bench.prepare().problem).toMatch(/^parts: .*not accepted.*parts desk, or close up without it/);
    expect(heldParts(bench.mechanism, bench.state)).toEqual(['display']);
    bench.send('part-decided', { part, decision: 'accept-anyway', text: 'the only one' });
    expect(bench.prepare().problem).toBeNull();
  });

  it('holds nothing once the repair goes on without it', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }, { remove: 'tray' }]);
    const part = '00000000-0000-4000-8000-0000000000cc';
    bench.send('part-arrived', { part, mapPart: 'display', source: 'x', arrived: '2026-11-20', window_days: 30 });
    bench.send('targets', { targets: [{ remove: 'tray' }] });
    expect(bench.prepare().problem).toBeNull();
  });
});
