import { plural } from '../../planner/words/index.ts';
import { type Entry, entryKey, type Thing, thingOf } from '../../teardown/record/index.ts';
import {
  asChoices,
  type Gives,
  type Keyless,
  NOTHING_ASKED,
  type Question,
  saying,
  type Telling,
  withKeys,
} from '../question/index.ts';
import { type TakingApart, tell } from './telling.ts';
import { jointLabel, partLabel } from './told-words.ts';

/** So many are asked at most: two of them remove most of what is not known. */
const MOST = 20;

type WhatHeld = Extract<Telling, { at: 'what-held' }>;

/** While the device lies open: what held what, the most telling first, until it is put together. */
export function whatHeldAsked(now: TakingApart, telling: WhatHeld): Question {
  const { so, open } = now;
  const together: Keyless = {
    id: 'together',
    key: 'p',
    label: 'Put it together',
    weight: 'plain',
    gives: saying('put-together', {}),
  };
  const left = open?.filter(({ id }) => !telling.unknown.includes(id)) ?? [];
  const [asked] = so.answers.length + telling.unknown.length < MOST ? left : [];
  if (!asked) {
    return {
      ...NOTHING_ASKED,
      id: open === null ? 'what-held finding' : 'what-held none',
      place: 'It lies open',
      title: open === null ? 'Finding out what is not known' : 'That is all that was asked',
      hint: 'It goes back in the reverse of how it came off.',
      answers: withKeys([{ ...together, key: ' ', weight: 'main' }]),
    };
  }
  const pressed = asked.options.filter((entry) => telling.pressed.includes(entryKey(entry)));
  const thing = thingOf(asked);
  const next: Telling = { at: 'what-held', pressed: [], unknown: telling.unknown };
  const answered = (by: readonly Entry[]): Gives => ({
    kind: 'say',
    events: [{ type: 'what-held', data: { ...thing, options: asked.options, by } }],
    next,
  });
  return {
    ...NOTHING_ASKED,
    id: `what-held ${asked.id} ${telling.pressed.join()}`,
    place: `It lies open · ${plural(Math.min(left.length, MOST - so.answers.length), 'question')} left`,
    title: 'What held it?',
    detail: nameOf(so, thing),
    hint: 'Press each thing that was in its way: without that off, it would not have moved.',
    why: `${plural(asked.plans, 'repair')} of one part would go by it.`,
    choices: asChoices(
      asked.options.map((entry) => {
        const key = entryKey(entry);
        const isPressed = telling.pressed.includes(key);
        return {
          id: key,
          label: `${isPressed ? '✓ ' : ''}${entryLabel(so, entry)}`,
          gives: tell({
            ...telling,
            pressed: isPressed ? telling.pressed.filter((each) => each !== key) : [...telling.pressed, key],
          }),
        };
      }),
    ),
    answers: withKeys([
      pressed.length > 0
        ? { id: 'these', label: 'These held it', weight: 'main', gives: answered(pressed) }
        : { id: 'none', label: 'None of these', weight: 'main', gives: answered([]) },
      {
        id: 'unknown',
        key: '0',
        label: 'I do not know',
        weight: 'plain',
        gives: tell({ at: 'what-held', pressed: [], unknown: [...telling.unknown, asked.id] }),
      },
      together,
    ]),
  };
}

function nameOf(so: TakingApart['so'], { joint, part }: Thing): string {
  return joint === undefined ? partLabel(so, part) : jointLabel(so, joint);
}

/** *Lid*, *Display, until it was off*, *4 screws A of Lid* */
function entryLabel(so: TakingApart['so'], entry: Entry): string {
  if (entry.joint !== undefined) return jointLabel(so, entry.joint);
  const isOpenable = so.steps.some((step) => step.kind === 'open' && step.part === entry.part);
  const until = isOpenable ? (entry.until === 'off' ? ', until it was off' : ', until it was open') : '';
  return `${partLabel(so, entry.part)}${until}`;
}
