import { type Gives, NOTHING_ASKED, type Question, withKeys } from '../question/index.ts';

const ask = (about: Extract<Gives, { kind: 'ask' }>['about']): Gives => ({ kind: 'ask', about });

/** What can be said, changed and looked at beside the preparation. */
export const BESIDE_PREPARING: Question = {
  ...NOTHING_ASKED,
  id: 'wrong',
  title: 'What is wrong?',
  answers: withKeys([
    { id: 'target', key: 'g', label: 'Change the job, or close it up', weight: 'plain', gives: ask('target') },
    { id: 'schools', key: 's', label: 'Ways of working for this job', weight: 'plain', gives: ask('schools') },
    { id: 'while-open', key: 'o', label: 'What else while it is open', weight: 'plain', gives: ask('while-open') },
    { id: 'way', key: 'y', label: 'See the whole way once', weight: 'plain', gives: { kind: 'go', to: 'way' } },
    { id: 'note', key: 'n', label: 'Note', weight: 'quiet', gives: ask('note') },
    { id: 'person', key: 'i', label: 'Who is at the bench', weight: 'quiet', gives: ask('person') },
    { id: 'keys', key: '?', label: 'Keys, sounds and speech', weight: 'quiet', gives: ask('keys') },
    { id: 'to-bench', key: 'Enter', label: 'To the bench', weight: 'quiet', gives: { kind: 'go', to: 'bench' } },
  ]),
};
