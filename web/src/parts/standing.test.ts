import { describe, expect, it } from 'vitest';
import type { PartLine } from '../app/client.ts';
import { amount } from '../kit/amount.ts';
import { decimal } from '../app/format.ts';
import { byUrgency, standingOf } from './standing.ts';

const part = (more: Partial<PartLine>): PartLine => ({
  id: 'p',
  mapPart: 'display',
  source: 'Harbour Parts',
  arrived: '2026-11-03',
  window_days: 30,
  looked: null,
  numbers: [],
  asked: [],
  decision: null,
  sentBack: null,
  verdict: 'hold',
  reasons: [],
  job: 'j',
  jobTitle: 'Galley 4',
  map: 'tern-5',
  mapName: 'Tern 5',
  mapRevision: 1,
  name: 'Display',
  accepted: false,
  returnBy: '2026-12-03',
  daysLeft: 9,
  simulated: false,
  ...more,
});

describe('where a part stands', () => {
  it('says send back by a date, and hold for the lead once the window is over', () => {
    expect(standingOf(part({ verdict: 'send-back' }))).toEqual({
      word: 'Send back',
      more: 'by 3 December 2026, 9 days left',
      isUrgent: true,
    });
    const over = standingOf(part({ verdict: 'send-back', daysLeft: -2 }));
    expect(over.word).toBe('Hold');
    expect(over.more).toContain('2 days over');
  });

  it('is pressing when its last days run, however it is judged', () => {
    expect(standingOf(part({ daysLeft: 9 })).isUrgent).toBe(false);
    expect(standingOf(part({ daysLeft: 3 })).isUrgent).toBe(true);
    expect(standingOf(part({ accepted: true, daysLeft: 0 })).isUrgent).toBe(false);
  });

  it('puts what has to go back first, and what is gone last', () => {
    const parts = [
      part({ id: 'gone', sentBack: { date: '2026-11-24', text: '' }, verdict: 'send-back' }),
      part({ id: 'in', accepted: true }),
      part({ id: 'held' }),
      part({ id: 'late', verdict: 'send-back', daysLeft: 20 }),
      part({ id: 'soon', verdict: 'send-back', daysLeft: 1 }),
    ];
    expect(parts.toSorted(byUrgency).map((each) => each.id)).toEqual(['soon', 'late', 'held', 'in', 'gone']);
  });
});

describe('numbers as people type them', () => {
  it('have a comma or a point, and nothing else', () => {
    expect([decimal('8,4'), decimal(' 8.4 '), decimal('-3'), decimal('0')]).toEqual([8.4, 8.4, -3, 0]);
    expect(['', '8mm', '1.2.3', '1e9', 'NaN'].map(decimal)).toEqual([null, null, null, null, null]);
  });

  it('are amounts in pieces, drops and lengths', () => {
    expect([amount(1, 'piece'), amount(420, 'mm'), amount(9400, 'mm'), amount(6, 'drop')]).toEqual([
      '1 piece',
      '420 mm',
      '9.4 m',
      '6 drops',
    ]);
  });
});
