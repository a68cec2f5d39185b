import type { PartKind } from '../../model/device-map/index.ts';
import { holdingNothing, partsOff, type ToldPart, type ToldSoFar, USUAL } from '../../teardown/record/index.ts';
import {
  type Answer,
  asChoices,
  type Gives,
  type Line,
  NOTHING_ASKED,
  type Question,
  saying,
  type Telling,
  withKeys,
} from '../question/index.ts';
import {
  cameOff,
  type Choice,
  freeId,
  likelyKinds,
  newPart,
  PLUGGED,
  type TakingApart,
  tell,
  toldParts,
} from './telling.ts';
import { jointLabel, partLabel } from './told-words.ts';

/** What is off, or swings open: what stands open or was named already, then kinds of parts, the likeliest first. */
export function offAsked(now: TakingApart, to: 'open' | 'off'): Question {
  const { so, face, places } = now;
  const open = new Set(so.steps.flatMap((step) => (step.kind === 'open' ? [step.part] : [])));
  const named = stillOn(now).filter(({ id }) => to === 'off' || !open.has(id));
  const known = named.toSorted((a, b) => Number(open.has(b.id)) - Number(open.has(a.id)));
  const gives = (part: ToldPart): Gives => cameOff(now, { part, to });
  return {
    ...NOTHING_ASKED,
    id: `${to} ${so.steps.length}`,
    place: to === 'off' ? 'It is off' : 'It swings open',
    title: to === 'off' ? 'What is off?' : 'What swings open?',
    detail: holdingNothing(so)
      .map((id) => jointLabel(so, id))
      .join(', '),
    hint: places.length === 1 ? 'One place is pressed: two opposite corners make its outline.' : '',
    cautions: known.some(({ kind }) => kind === 'battery') ? [{ text: CELL, isKnown: false }] : [],
    choices: namedOnce([
      ...known.map((part) => ({ id: part.id, label: partLabel(so, part.id), gives: gives(part) })),
      ...anothersLast(likelyKinds(so), known).map((kind) => {
        const part = newPart(so, kind, face);
        return { id: `new ${part.id}`, label: part.name ?? part.id, gives: gives(part) };
      }),
    ]),
  };
}

/** A kind of which one is still on: that one comes off before another of it. */
function anothersLast(kinds: readonly PartKind[], on: readonly ToldPart[]): readonly PartKind[] {
  const isOn = (kind: PartKind) => on.some((part) => part.kind === kind);
  return [...kinds.filter((kind) => !isOn(kind)), ...kinds.filter(isOn)];
}

/** What was told of and is still on. */
function stillOn(now: TakingApart): readonly ToldPart[] {
  const { so } = now;
  const off = partsOff(so);
  return toldParts(now).filter(({ id }) => !off.has(id) && isNamed(so, id));
}

const CELL =
  'A cell is never bent, pierced or levered under its middle: it burns. Swollen, dented or leaking: stop. Local rules for lithium apply.';

/** Each name once, the first that has it. */
function namedOnce(choices: readonly Choice[]): readonly Answer[] {
  return asChoices(choices.filter(({ label }, at) => choices.findIndex((each) => each.label === label) === at));
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
  const undo = (holds: readonly string[] | null, part?: ToldPart): Gives =>
    cameOff(now, {
      joint: { id: freeId(so.joints, 'plug'), type: 'connector', style, ...(holds ? { holds } : {}) },
      ...(part && !so.parts.has(part.id) ? { parts: [part] } : {}),
    });
  const plugged = new Set(
    [...so.joints.values()].flatMap(({ type, holds = [] }) => (type === 'connector' ? holds : [])),
  );
  const on = stillOn(now);
  const known = on.filter(({ id }) => !plugged.has(id));
  // a kind that was told of and is not unplugged yet is that one, not another of it
  const kinds = anothersLast(
    PLUGGED.filter((kind) => !known.some((each) => each.kind === kind)),
    on,
  ).map((kind) => newPart(so, kind, face));
  const again = on.filter(({ id }) => plugged.has(id));
  const choice = (part: ToldPart): Choice => ({
    id: part.id,
    label: part.name ?? partLabel(so, part.id),
    gives: undo([part.id], part),
  });
  return {
    ...NOTHING_ASKED,
    id: `plug ${style} ${so.steps.length}`,
    place: PLUGS[style],
    title: 'What is unplugged?',
    hint: style === 'press' ? 'A press connector comes up at one edge, straight.' : HINTS[style],
    list: (['press', 'zif-flip', 'coax'] as const)
      .filter((each) => each !== style)
      .map((each): Line => ({
        id: `as ${each}`,
        text: `It is a ${PLUGS[each].toLowerCase()}`,
        more: '',
        at: null,
        isDone: false,
        gives: tell({ at: 'plug', style: each }),
      })),
    choices: namedOnce([...known, ...kinds, ...again].map(choice)),
    answers: withKeys([{ id: 'next', label: 'What comes off next', weight: 'main', gives: undo(null) }]),
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
  const known = toldParts(now);
  const choices: readonly Choice[] = [
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
    choices: namedOnce(choices),
  };
}
