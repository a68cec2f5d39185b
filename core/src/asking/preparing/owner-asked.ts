import type { EventData } from '../../job/events/index.ts';
import { plural } from '../../planner/words/index.ts';
import type { OwnerItem } from '../../workshop/prepare/index.ts';
import { type Gives, NOTHING_ASKED, type Question, saying, type Turns, withKeys } from '../question/index.ts';
import type { Preparing } from './preparing.ts';

const SIGNS: Readonly<Record<OwnerItem['kind'], string>> = {
  loss: 'Lost',
  warning: 'Warning',
  seal: 'Seal',
  data: 'Data',
  origin: 'Origin',
  fault: 'Old fault',
};

/** Without the owner's word nothing is opened: another job, or none. */
const DISAGREES: Question = {
  ...NOTHING_ASKED,
  id: 'disagrees',
  title: 'The owner does not agree',
  hint: 'Nothing is opened as it is planned.',
  field: { label: 'What the owner says', kind: 'text', cure: 'Say why it ends: it is recorded.' },
  answers: withKeys([
    { id: 'target', label: 'Change the job', weight: 'plain', gives: { kind: 'ask', about: 'target' } },
    {
      id: 'end',
      label: 'End this repair',
      weight: 'warning',
      gives: saying('end', { text: '' }),
      takes: { name: 'text' },
    },
  ]),
};

/** What the owner must know, agreed before anything is opened; nothing where there is nothing to tell. */
export function ownerAsked({ state, ahead }: Preparing): Turns {
  const { untold, owner, ops } = ahead;
  const asks = ops.some(({ name }) => name === 'agree');
  if (owner.length === 0) return [];
  const who = state.job.owner ?? 'the owner';
  const items = [...new Set([...(state.agreed?.items ?? []), ...untold.map(({ text }) => text)])];
  const told = (how: EventData['told']['how']): Gives => saying('told', { items, who, how });
  const shown = asks ? untold : owner;
  return [
    {
      name: 'The owner must know',
      said: asks ? `${plural(untold.length, 'thing')} to tell` : `${state.agreed?.who ?? who} agreed`,
      isDone: !asks,
      question: {
        ...NOTHING_ASKED,
        id: 'owner',
        title: asks ? 'Tell the owner' : 'The owner agreed',
        detail: state.job.owner ?? '',
        list: shown.map(({ kind, text }) => ({
          id: text,
          text,
          more: SIGNS[kind],
          at: null,
          isDone: !asks,
          gives: null,
        })),
        answers: asks
          ? withKeys([
              { id: 'here', label: 'Agrees here', weight: 'main', gives: told('here') },
              { id: 'by-phone', label: 'By phone', weight: 'plain', gives: told('by-phone') },
              { id: 'in-writing', label: 'In writing', weight: 'plain', gives: told('in-writing') },
              { id: 'not', label: 'Does not agree', weight: 'warning', gives: { kind: 'then', question: DISAGREES } },
            ])
          : [],
      },
    },
  ];
}
