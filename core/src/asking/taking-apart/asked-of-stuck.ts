import { partsOff, type Thing } from '../../teardown/record/index.ts';
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
import { type Choice, likelyKinds, newPart, type TakingApart, tell, toldParts } from './telling.ts';
import { jointLabel, partLabel } from './told-words.ts';

/** What would not move: it tells more than what did. */
export function stuckAsked(now: TakingApart): Question {
  const { so, face } = now;
  const off = partsOff(so);
  const known = toldParts(now).filter(({ id }) => !off.has(id));
  const kinds = likelyKinds(so)
    .map((kind) => newPart(so, kind, face))
    .filter(({ id }) => !so.parts.has(id));
  const choices: readonly Choice[] = [
    ...known.map(({ id }) => line(id, partLabel(so, id), tell({ at: 'stuck-by', part: id }))),
    ...kinds.map((part) => ({
      ...line(part.id, part.name ?? part.id, {
        kind: 'say' as const,
        events: [{ type: 'described' as const, data: { parts: [part] } }],
        next: { at: 'stuck-by' as const, part: part.id },
      }),
    })),
  ];
  return {
    ...NOTHING_ASKED,
    id: 'stuck',
    place: 'It would not move',
    title: 'What would not move?',
    hint: 'Not by force: something still holds it.',
    choices: asChoices(choices),
  };
}

function line(id: string, label: string, gives: Gives): Choice {
  return { id, label, gives };
}

/** What held it, where that is seen by now; it can be told later as well, by what comes off before it moves. */
export function stuckByAsked(now: TakingApart, { part }: Extract<Telling, { at: 'stuck-by' }>): Question {
  const { so, before } = now;
  const placed = before === null ? {} : { before };
  const off = partsOff(so);
  const say = (by: Thing | null): Gives => saying('stuck', { part, ...(by ? { by } : {}), ...placed });
  const others = toldParts(now).filter(({ id }) => id !== part && !off.has(id));
  const undone = new Set(so.steps.flatMap((step) => (step.kind === 'release' ? [step.joint] : [])));
  const joints = [...so.joints.keys()].filter((id) => !undone.has(id));
  const lines = [
    ...others.map(({ id }) => line(id, partLabel(so, id), say({ part: id }))),
    ...joints.map((id) => line(id, jointLabel(so, id), say({ joint: id }))),
  ];
  const main: Keyless = { id: 'not-known', label: 'Not known yet', weight: 'main', gives: say(null) };
  return {
    ...NOTHING_ASKED,
    id: `stuck-by ${part}`,
    place: 'It would not move',
    title: 'What held it?',
    detail: partLabel(so, part),
    hint: 'If you find it later, tell it as what comes off next.',
    choices: asChoices(lines),
    answers: withKeys([main]),
  };
}
