import { expect, it } from 'vitest';
import { aloud } from './aloud.ts';
import { saying } from './question.ts';
import { withKeys } from './with-keys.ts';

const gives = saying('pause', {});

it('says what is asked, what else one press does, and all answers where one of them says that something is wrong', () => {
  const answers = withKeys([
    { id: 'main', label: 'Works', weight: 'main', gives },
    { id: 'fails', label: 'Fails', weight: 'warning', gives },
    { id: 'later', label: 'Later', weight: 'plain', gives, notNow: 'not yet' },
  ]);
  expect(aloud({ title: 'Touch', detail: 'Draw over the whole face.', list: [], answers })).toBe(
    'Touch. Draw over the whole face. Works, or Fails?',
  );
  const line = { id: 'a', text: 'Take out 2 screws', more: '', at: null, isDone: false, gives };
  const list = [line, { ...line, id: 'b', text: 'Lift it off', more: 'Card tray. Draw it out.' }];
  const plain = withKeys([{ id: 'main', label: 'Done', weight: 'main', gives }]);
  expect(aloud({ title: 'Take out 2 screws', detail: 'Card tray', list, answers: plain })).toBe(
    'Take out 2 screws. Card tray. Then: Lift it off: Card tray.',
  );
});
