import { MOST_ALIKE, type ToldScrew } from '../../teardown/record/index.ts';
import {
  asChoices,
  type Keyless,
  type Line,
  NOTHING_ASKED,
  type Question,
  type Telling,
  withKeys,
} from '../question/index.ts';
import { cameOff, freeId, type TakingApart, tell } from './telling.ts';

/** So many are pressed as a digit; more are typed. */
const PRESSED = [1, 2, 3, 4, 5, 6, 7, 8, 9] as const;

/** How many screws of which kind: a batch, without a place. Places that were pressed count themselves. */
export function screwsAsked(now: TakingApart, { letter }: Extract<Telling, { at: 'screws' }>): Question {
  const { so, places } = now;
  const kinds = [...so.screws.values()];
  if (letter === null) return driveAsked(now);
  const batch = (count: number): Keyless['gives'] =>
    cameOff(now, { joint: { id: freeId(so.joints, 'screws'), type: 'screw', screw: letter, count } });
  const pressed = places.length;
  return {
    ...NOTHING_ASKED,
    id: `screws ${letter}`,
    place: 'Screws',
    title: 'How many?',
    detail: `${letter}, ${driveOf(so.screws.get(letter))}`,
    hint: 'All alike. Tell another kind by itself.',
    list: [
      ...kinds.map((kind): Line => ({
        id: kind.id,
        text: `${kind.id} · ${driveOf(kind)}`,
        more: kind.length === undefined ? 'not measured' : `${kind.length} mm`,
        at: null,
        isDone: kind.id === letter,
        gives: tell({ at: 'screws', letter: kind.id }),
      })),
      {
        id: 'another',
        text: 'Another kind',
        more: 'Another drive, head or length',
        at: null,
        isDone: false,
        gives: tell({ at: 'drive' }),
      },
    ],
    field:
      pressed > 0
        ? null
        : {
            label: 'Or how many',
            kind: 'figure',
            least: 1,
            most: MOST_ALIKE,
            isWhole: true,
            cure: `Give a whole number, 1 to ${MOST_ALIKE}: more are another batch.`,
          },
    choices:
      pressed > 0
        ? []
        : asChoices(PRESSED.map((count) => ({ id: String(count), label: String(count), gives: batch(count) }))),
    answers: withKeys(
      pressed > 0
        ? [{ id: 'pressed', label: `${pressed}, as pressed`, weight: 'main', gives: batch(pressed) }]
        : [
            {
              id: 'typed',
              key: 'Enter',
              label: 'So many',
              weight: 'plain',
              gives: batch(1),
              takes: { name: 'joints.0.count' },
            },
          ],
    ),
  };
}

function driveOf(kind: ToldScrew | undefined): string {
  return kind?.drive ?? 'drive not told';
}

const DRIVES = ['PH000', 'PH00', 'T2', 'T3', 'T4', 'T5', 'P2', 'Slot 1.5'];

/** Which driver fits a kind that is told for the first time: its letter is the next that is free. */
export function driveAsked(now: TakingApart): Question {
  const { so } = now;
  const letter = freeLetter(so.screws);
  const chosen = (drive: string | null): Keyless['gives'] => ({
    kind: 'say',
    events: [{ type: 'described', data: { screws: [{ id: letter, ...(drive === null ? {} : { drive }) }] } }],
    next: { at: 'screws', letter },
  });
  return {
    ...NOTHING_ASKED,
    id: `drive ${letter}`,
    place: 'Screws',
    title: 'Which driver?',
    detail: `A new kind: ${letter}`,
    hint: 'The letter stands for it on the mat and on the drawing.',
    choices: asChoices(DRIVES.map((drive) => ({ id: drive, label: drive, gives: chosen(drive) }))),
    field: { label: 'Another driver', kind: 'text', cure: 'Give its name, as it stands on the bit.' },
    answers: withKeys([
      {
        id: 'typed',
        key: 'Enter',
        label: 'This one',
        weight: 'plain',
        gives: chosen(''),
        takes: { name: 'screws.0.drive' },
      },
      { id: 'not-known', key: '0', label: 'Not known', weight: 'quiet', gives: chosen(null) },
    ]),
  };
}

/** *A*, *B* … *Z*, *A2* */
function freeLetter(taken: ReadonlyMap<string, unknown>): string {
  for (let n = 0; ; n++) {
    const round = Math.floor(n / LETTERS.length);
    const letter = `${LETTERS[n % LETTERS.length]}${round === 0 ? '' : round + 1}`;
    if (!taken.has(letter)) return letter;
  }
}

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';
