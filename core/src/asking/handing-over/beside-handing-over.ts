import { NOTHING_ASKED, type Question, withKeys } from '../question/index.ts';

/** What can be said and looked at beside handing over. */
export const BESIDE_HANDING_OVER: Question = {
  ...NOTHING_ASKED,
  id: 'wrong',
  title: 'What is wrong?',
  answers: withKeys([
    { id: 'note', key: 'n', label: 'Note', weight: 'plain', gives: { kind: 'ask', about: 'note' } },
    { id: 'record', key: 'r', label: 'Record', weight: 'plain', gives: { kind: 'go', to: 'record' } },
    { id: 'intake', key: 'a', label: 'As it came in', weight: 'quiet', gives: { kind: 'go', to: 'intake' } },
    { id: 'person', key: 'i', label: 'Who is at the bench', weight: 'quiet', gives: { kind: 'ask', about: 'person' } },
    { id: 'keys', key: '?', label: 'Keys, sounds and speech', weight: 'quiet', gives: { kind: 'ask', about: 'keys' } },
  ]),
};
