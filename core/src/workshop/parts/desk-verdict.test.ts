import { describe, expect, it } from 'vitest';
import { tern5 } from '../../../test/maps.ts';
import type { DeskPart } from './desk-part.ts';
import { byUrgency, deskVerdict } from './desk-verdict.ts';

const looked = { condition: 'good', includes: [], lacks: [], text: '' } as const;
const accept = { decision: 'accept', text: '', by: 'Ines', at: '2026-11-24T08:00:00Z' } as const;
const part = (more: Partial<DeskPart>): DeskPart => ({
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
  ...more,
});
const damaged = { ...looked, condition: 'damaged' } as const;
const standing = (more: Partial<DeskPart>, today = '2026-11-24') => deskVerdict(tern5(), part(more), today);

describe('where a part stands', () => {
  it('goes back by its last day, and is for the lead once that is over', () => {
    expect(standing({ looked: damaged })).toMatchObject({
      standing: 'send-back',
      returnBy: '2026-12-03',
      daysLeft: 9,
      isUrgent: true,
    });
    expect(standing({ looked: damaged }, '2026-12-03')).toMatchObject({ standing: 'send-back', daysLeft: 0 });
    expect(standing({ looked: damaged }, '2026-12-05')).toMatchObject({ standing: 'too-late', daysLeft: -2 });
  });

  it('is pressing when its last days run and nobody has decided', () => {
    expect(standing({}).isUrgent).toBe(false);
    expect(standing({}, '2026-11-30').isUrgent).toBe(true);
    expect(standing({ looked, decision: accept }, '2026-12-03')).toMatchObject({
      standing: 'accepted',
      isUrgent: false,
    });
  });

  it('puts what has to go back first, and what is gone last', () => {
    const all = Object.entries({
      gone: { looked: damaged, sentBack: { date: '2026-11-24', text: '' } },
      in: { looked, decision: accept },
      good: { looked },
      held: {},
      late: { looked: damaged, window_days: 50 },
      soon: { looked: damaged, window_days: 22 },
    }).map(([id, more]) => ({ id, ...standing(more) }));
    expect(all.toSorted(byUrgency).map(({ id }) => id)).toEqual(['soon', 'late', 'held', 'good', 'in', 'gone']);
  });
});
