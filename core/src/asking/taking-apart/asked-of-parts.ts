import type { PartKind } from '../../model/device-map/index.ts';
import {
  COMES_NEXT,
  holdingNothing,
  partsOff,
  type ToldPart,
  type ToldSoFar,
  USUAL,
} from '../../teardown/record/index.ts';
import {
  type Gives,
  type Keyless,
  type Line,
  NOTHING_ASKED,
  type Question,
  saying,
  type Telling,
  withKeys,
} from '../question/index.ts';
import { cameOff, freeId, likelyKinds, newPart, PLUGGED, type TakingApart, tell } from './telling.ts';
import { jointLabel, partLabel } from './told-words.ts';

/** So many have a digit of their own; the others stand in the list. */
const ON_DIGITS = 8;

/** What is off, or swings open: what was named already and is still on, then kinds of parts, the likeliest first. */
export function offAsked(now: TakingApart, to: 'open' | 'off'): Question {
  const { so, face, places } = now;
  const off = partsOff(so);
  const open = new Set(so.steps.flatMap((step) => (step.kind === 'open' ? [step.part] : [])));
  const isLeft = ({ id }: ToldPart) =>
    id !== COMES_NEXT && !isBase(now, id) && !off.has(id) && (to === 'off' || !open.has(id)) && isNamed(so, id);
  const known = [...so.parts.values()].filter(isLeft);
  // what stands open, and what was unplugged or undone, comes off next
  const begun = known.toSorted((a, b) => Number(open.has(b.id)) - Number(open.has(a.id)));
  const gives = (part: ToldPart): Gives => cameOff(now, { part, to });
  const choices = [
    ...begun.map((part) => ({ id: part.id, label: partLabel(so, part.id), gives: gives(part) })),
    ...likelyKinds(so).map((kind) => {
      const part = newPart(so, kind, face);
      return { id: `new ${part.id}`, label: part.name ?? part.id, gives: gives(part) };
    }),
  ].filter(({ label }, at, all) => all.findIndex((each) => each.label === label) === at);
  return {
    ...NOTHING_ASKED,
    id: `${to} ${so.steps.length}`,
    place: to === 'off' ? 'It is off' : 'It swings open',
    title: to === 'off' ? 'What is off?' : 'What swings open?',
    detail: holdingNothing(so)
      .map((id) => jointLabel(so, id))
      .join(', '),
    hint: places.length === 1 ? 'One place is pressed: two opposite corners make its outline.' : '',
    cautions: begun.some(({ kind }) => kind === 'battery') ? [{ text: CELL, isKnown: false }] : [],
    ...chosenFrom(choices, begun.length > 0),
  };
}

const CELL =
  'A cell is never bent, pierced or levered under its middle: it burns. Swollen, dented or leaking: stop. Local rules for lithium apply.';

interface Choice {
  readonly id: string;
  readonly label: string;
  readonly gives: Gives;
}

/** The first on Space where it is known to be next, the next on digits, all others in the list. */
function chosenFrom(choices: readonly Choice[], hasMain: boolean): Pick<Question, 'list' | 'answers'> {
  const count = hasMain ? ON_DIGITS : ON_DIGITS;
  const answers = choices.slice(0, count).map(({ id, label, gives }, at): Keyless => ({
    id,
    label,
    weight: hasMain && at === 0 ? 'main' : 'plain',
    gives,
  }));
  const list = choices
    .slice(count)
    .map(({ id, label, gives }): Line => ({ id, text: label, more: '', at: null, isDone: false, gives }));
  return { list, answers: withKeys(answers) };
}

function isBase({ mechanism: { map } }: TakingApart, id: string): boolean {
  return map.parts.some((part) => part.base && part.id === id);
}

/** Has anybody said anything of it? The cell is taken to be there before that. */
function isNamed({ joints, steps }: ToldSoFar, id: string): boolean {
  return (
    [...joints.values()].some(({ holds }) => holds?.includes(id)) ||
    steps.some((step) => 'part' in step && step.part === id)
  );
}

/** What a plug belongs to: it is unplugged in the same press. */
export function plugAsked(now: TakingApart, { style }: Extract<Telling, { at: 'plug' }>): Question {
  const { so, face } = now;
  const off = partsOff(so);
  const undo = (holds: readonly string[] | null, part?: ToldPart): Gives =>
    cameOff(now, {
      joint: { id: freeId(so.joints, 'plug'), type: 'connector', style, ...(holds ? { holds } : {}) },
      ...(part && !so.parts.has(part.id) ? { parts: [part] } : {}),
    });
  const known = [...so.parts.values()].filter(
    ({ id }) => id !== COMES_NEXT && !isBase(now, id) && !off.has(id) && isNamed(so, id),
  );
  const kinds = PLUGGED.map((kind: PartKind) => newPart(so, kind, face));
  const choices: Choice[] = [...kinds, ...known]
    .map((part) => ({
      id: part.id,
      label: partLabel(
        { ...so, parts: new Map([...so.parts, [part.id, { ...so.parts.get(part.id), ...part }]]) },
        part.id,
      ),
      gives: undo([part.id], part),
    }))
    .filter(({ label }, at, all) => all.findIndex((each) => each.label === label) === at);
  const { list, answers } = chosenFrom(choices, false);
  return {
    ...NOTHING_ASKED,
    id: `plug ${style} ${so.steps.length}`,
    place: PLUGS[style],
    title: 'What is unplugged?',
    detail: '',
    hint: style === 'press' ? 'A press connector comes up at one edge, straight.' : HINTS[style],
    list: [
      ...(['press', 'zif-flip', 'coax'] as const)
        .filter((each) => each !== style)
        .map((each): Line => ({
          id: `as ${each}`,
          text: `It is a ${PLUGS[each].toLowerCase()}`,
          more: '',
          at: null,
          isDone: false,
          gives: tell({ at: 'plug', style: each }),
        })),
      ...list,
    ],
    answers: withKeys([
      { id: 'next', label: 'What comes off next', weight: 'main', gives: undo(null) },
      ...answers.map(({ key: _, ...rest }) => rest),
    ]),
  };
}

const PLUGS = { press: 'Press connector', 'zif-flip': 'Latch', coax: 'Coax snap' } as const;
const HINTS = {
  'zif-flip': 'The latch is flipped up before the flex is drawn out.',
  coax: 'A coax lead is snapped off straight up, at its head.',
} as const;

/** What a joint holds that was undone before anybody said it. */
export function heldAsked(now: TakingApart, joint: string): Question {
  const { so, face } = now;
  const hold = (part: ToldPart): Gives =>
    saying('described', {
      ...(so.parts.has(part.id) ? {} : { parts: [part] }),
      joints: [{ id: joint, holds: [part.id] }],
    });
  const known = [...so.parts.values()].filter(({ id }) => id !== COMES_NEXT && !isBase(now, id));
  const choices = [
    ...known.map((part) => ({ id: part.id, label: partLabel(so, part.id), gives: hold(part) })),
    ...likelyKinds(so)
      .map((kind) => newPart(so, kind, face))
      .filter(({ id }) => !so.parts.has(id))
      .map((part) => ({ id: part.id, label: part.name ?? USUAL[part.kind ?? 'other'].name, gives: hold(part) })),
  ];
  return {
    ...NOTHING_ASKED,
    id: `holds ${joint}`,
    place: 'Told before',
    title: `What ${so.joints.get(joint)?.type === 'connector' ? 'belongs to it' : 'do they hold'}?`,
    detail: jointLabel(so, joint),
    hint: 'Where nothing is said, what comes off next.',
    ...chosenFrom(choices, false),
  };
}
