import { describe, expect, it } from 'vitest';
import { given } from './given.ts';
import { type Answer, type AskedField, NEW_PART, saying } from './question.ts';
import { withKeys } from './with-keys.ts';

const field: AskedField = { label: 'Charge', kind: 'figure', least: 0, most: 100, cure: 'A percentage.' };
const reads: Answer = {
  id: 'read',
  key: ' ',
  label: 'That is it',
  weight: 'main',
  gives: saying('charge', { charge: 0, source: 'typed' }),
  takes: { name: 'charge', factor: 0.01 },
};
const give = (typed: string) => given(reads, field, typed, () => 'an-id');

describe('an answer with what was typed', () => {
  it('puts a figure where it belongs; a comma is a decimal point', () => {
    expect(give('62,5')).toEqual({ gives: saying('charge', { charge: 0.625, source: 'typed' }) });
    expect(give(' 100 ')).toEqual({ gives: saying('charge', { charge: 1, source: 'typed' }) });
  });

  it.each(['', 'sixty', '101', '-1', 'NaN', 'Infinity', '1e999'])(
    'says the cure for “%s”, and gives nothing',
    (typed) => {
      expect(give(typed)).toEqual({ path: '', message: 'A percentage.', cure: '' });
    },
  );

  it('gives a part that arrives one id, in all that is said of it', () => {
    const gives = {
      kind: 'say',
      events: [
        { type: 'part-decided', data: { part: NEW_PART, decision: 'accept', text: '' } },
        { type: 'part-looked', data: { part: NEW_PART, condition: 'good', includes: [], lacks: [], text: '' } },
        { type: 'part-number', data: { part: 'another', place: 'x', value: '' } },
      ],
    } as const;
    const found = given({ ...reads, gives }, null, '', () => 'an-id') as { gives: typeof gives };
    expect(found.gives.events.map(({ data }) => data.part)).toEqual(['an-id', 'an-id', 'another']);
  });

  it('takes the reason of what is gone on without', () => {
    const gives = { kind: 'mark', mark: 'without', items: ['T3'] } as const;
    const why = { label: 'Because', kind: 'text', cure: 'Say why.' } as const;
    const found = given({ ...reads, gives, takes: { name: 'reason' } }, why, 'lost', () => '');
    expect(found).toEqual({ gives: { ...gives, reason: 'lost' } });
  });
});

describe('keys', () => {
  const answer = (id: string, more: object = {}) =>
    ({ id, label: id, weight: 'plain', gives: { kind: 'nothing' }, ...more }) as const;
  const keys = (...answers: ReturnType<typeof answer>[]) => withKeys(answers).map(({ key }) => key);

  it('are Space for the main answer and digits for the others in their order', () => {
    expect(keys(answer('a', { weight: 'main' }), answer('b'), answer('c'))).toEqual([' ', '2', '3']);
    expect(keys(answer('a'), answer('b'))).toEqual(['1', '2']);
  });

  it('are never given twice', () => {
    expect(keys(answer('a'), answer('b', { key: '2' }), answer('c'))).toEqual(['1', '2', '3']);
  });
});
