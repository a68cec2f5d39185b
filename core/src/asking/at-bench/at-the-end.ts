import type { NextPress } from '../../bench/in-hand/index.ts';
import type { LeftOpen } from '../../job/rules/index.ts';
import type { JobState } from '../../job/state/index.ts';
import { plural } from '../../planner/words/index.ts';
import { type Gives, type Keyless, NOTHING_ASKED, type Question, saying, withKeys } from '../question/index.ts';
import { heatOff } from './heat-off.ts';

/** No operation is left: it is finished, or a washed board is decided about. */
export function askedAtTheEnd(press: NextPress, title: string): Question {
  const main: Keyless = { id: 'end', label: press.label, weight: 'main', gives: press.does };
  return { ...NOTHING_ASKED, id: 'end', place: 'At the end', title, answers: withKeys([main]) };
}

/** What keeps it from being finished, one after the other: each is done, or decided about with a reason. */
export function stillOpen(state: JobState, open: readonly LeftOpen[], now: number): Question {
  const [first] = open;
  const { what, text, isFixed } = first!;
  const test = what.startsWith('test:') ? what.slice('test:'.length) : null;
  const tried = (result: 'works' | 'fails'): Gives => saying('test', { function: test!, result, stage: 'after' });
  const answers: Keyless[] = [
    ...(test === null
      ? []
      : ([
          { id: 'works', label: 'Works', weight: 'main', gives: tried('works') },
          { id: 'fails', label: 'Fails', weight: 'warning', gives: tried('fails') },
        ] as const)),
    ...(what === 'source' ? heatOff(state, now, 'main') : []),
    ...(what.startsWith('bench:')
      ? [
          {
            id: 'aired',
            label: 'The bench was aired',
            weight: 'main',
            gives: saying('aired', { step: 'vent:bench', bench: what.slice('bench:'.length) }),
          } as const,
        ]
      : []),
    ...(isFixed
      ? []
      : [
          {
            id: 'stays',
            label: 'It stays so',
            weight: 'plain',
            gives: saying('decision', { about: 'left-open', what, text: '' }),
            takes: { name: 'text' },
          } as const,
        ]),
  ];
  return {
    ...NOTHING_ASKED,
    id: `left-open:${what}`,
    place: `At the end · ${plural(open.length, 'thing')} open`,
    title: 'Not finished yet',
    detail: text,
    hint: isFixed ? 'Do what is left.' : 'Do what is left, or say why it stays so.',
    list: open.slice(1).map((each) => ({
      id: each.what,
      text: each.text,
      more: '',
      at: null,
      isDone: false,
      gives: null,
    })),
    field: isFixed ? null : { label: 'Why it stays so', kind: 'text', cure: 'Say why: it is recorded.' },
    answers: withKeys(answers),
  };
}

/** A repair in which nothing was done has nothing to finish. */
export function nothingDone(): Question {
  return {
    ...NOTHING_ASKED,
    id: 'nothing-done',
    place: 'At the end',
    title: 'Nothing is to be done',
    hint: 'Change the job, or end this repair with the reason.',
    field: { label: 'Why it ends', kind: 'text', cure: 'Say why: it is recorded.' },
    answers: withKeys([
      {
        id: 'end',
        label: 'End this repair',
        weight: 'plain',
        gives: saying('end', { text: '' }),
        takes: { name: 'text' },
      },
      { id: 'target', label: 'Change the job', weight: 'plain', gives: { kind: 'ask', about: 'target' } },
    ]),
  };
}
