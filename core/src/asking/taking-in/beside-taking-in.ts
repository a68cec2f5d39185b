import { NOTHING_ASKED, type Question, withKeys } from '../question/index.ts';

/** What can be said beside taking in: what stops it at once, above all. */
export const BESIDE_TAKING_IN: Question = {
  ...NOTHING_ASKED,
  id: 'wrong',
  title: 'What is wrong?',
  answers: withKeys([
    {
      id: 'stop',
      label: 'Swollen, leaking, burnt: stop',
      weight: 'warning',
      gives: { kind: 'ask', about: 'stop' },
    },
    { id: 'wet', key: 'w', label: 'It was wet', weight: 'plain', gives: { kind: 'ask', about: 'wet' } },
    { id: 'target', key: 'g', label: 'Change the job', weight: 'plain', gives: { kind: 'ask', about: 'target' } },
    { id: 'note', key: 'n', label: 'Note', weight: 'quiet', gives: { kind: 'ask', about: 'note' } },
    { id: 'person', key: 'i', label: 'Who is at the bench', weight: 'quiet', gives: { kind: 'ask', about: 'person' } },
    { id: 'keys', key: '?', label: 'Keys, sounds and speech', weight: 'quiet', gives: { kind: 'ask', about: 'keys' } },
    {
      id: 'prepare',
      key: 'Enter',
      label: 'Taken in: prepare it',
      weight: 'quiet',
      gives: { kind: 'go', to: 'prepare' },
    },
  ]),
};
