import { heldParts, isDrying, isPrepared } from '../../job/rules/index.ts';
import type { JobState } from '../../job/state/index.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import { partName } from '../../planner/words/index.ts';
import { chosenPart, type DeskPart, isAccepted, isBoard, partVerdict } from '../../workshop/parts/index.ts';
import {
  type Gives,
  type Keyless,
  NEW_PART,
  NOTHING_ASKED,
  type Question,
  saying,
  type Turn,
  withKeys,
} from '../question/index.ts';
import type { Preparing } from './preparing.ts';

/** Each part that is replaced: has its new one come, and is it the right one? Looked at and accepted in one answer. */
export function partsAsked(preparing: Preparing): readonly Turn[] {
  const { state } = preparing;
  // a wet device has its battery taken off before anybody knows what it needs
  if (isDrying(state)) return [];
  return state.targets.flatMap((each) => ('replace' in each ? [partAsked(preparing, each.replace)] : []));
}

function partAsked(preparing: Preparing, mapPart: string): Turn {
  const { mechanism, state, draft } = preparing;
  const { map } = mechanism;
  const part = chosenPart(state.parts, mapPart);
  const name = partName(map, mapPart);
  const isHeld = heldParts(mechanism, state).includes(mapPart);
  const isPassed = draft.passed.has(mapPart) || isPrepared(mechanism, state);
  const said = part
    ? isAccepted(part)
      ? 'accepted'
      : partVerdict(map, part).reasons.join(' ')
    : isPassed
      ? 'not here yet'
      : 'has it arrived?';
  return {
    name: `New ${name}`,
    said,
    isDone: part ? isAccepted(part) : isPassed && !isHeld,
    question: part ? atTheDesk(preparing, part, name) : notHere(preparing, mapPart, name),
  };
}

/** None has arrived, by what the desk knows. */
function notHere(preparing: Preparing, mapPart: string, name: string): Question {
  const { mechanism, state, desk, usualSource } = preparing;
  const { map } = mechanism;
  const isHeld = heldParts(mechanism, state).includes(mapPart);
  const arrived = {
    part: NEW_PART,
    mapPart,
    source: '',
    arrived: desk?.today ?? '',
    window_days: desk?.window_days ?? 0,
  };
  const right: Gives = {
    kind: 'say',
    events: [
      { type: 'part-arrived', data: arrived as never },
      looked(NEW_PART, 'good'),
      ...(isBoard(map, { mapPart }) ? [] : [decided(NEW_PART, 'accept')]),
    ],
  };
  const wrong: Gives = {
    kind: 'then',
    question: whatIsWrong(name, { type: 'part-arrived', data: arrived as never }, NEW_PART, usualSource),
  };
  return {
    ...NOTHING_ASKED,
    id: `part:${mapPart}`,
    title: `New ${name}`,
    detail: isHeld ? 'The last one went back' : 'Has it arrived?',
    hint: lookAt(map, mapPart),
    field: {
      label: 'From, and as what',
      kind: 'text',
      ...(usualSource ? { start: usualSource } : {}),
      cure: 'Needed: supplier, as in Harbour Parts, new.',
    },
    answers: withKeys([
      { id: 'right', label: 'Arrived and looks right', weight: 'main', gives: right, takes: { name: 'source' } },
      { id: 'wrong', label: 'Something is wrong with it', weight: 'warning', gives: wrong },
      {
        id: 'not-here',
        label: 'Not here yet',
        weight: 'plain',
        gives: { kind: 'mark', mark: 'passed', items: [mapPart] },
      },
    ]),
  };
}

/** What to look at before it is called right. */
function lookAt(map: DeviceMap, mapPart: string): string {
  const hazards = map.parts.find(({ id }) => id === mapPart)?.hazards ?? [];
  const cell = hazards.includes('lithium') ? ' No dent, no swelling, its wrap whole: else it lies apart.' : '';
  return `Old and new side by side: the same variant, plugs and brackets.${cell}`;
}

/** It is here, and looked at or not; a board also has numbers to be read, which is done at the desk. */
function atTheDesk({ mechanism, state }: Preparing, part: DeskPart, name: string): Question {
  const { verdict, reasons } = partVerdict(mechanism.map, part);
  const isRight = isAccepted(part);
  const mayBeAccepted = verdict === 'use' || (!part.looked && !isBoard(mechanism.map, part));
  const isOffered = !isRight && (!part.looked || mayBeAccepted);
  const right: Keyless = {
    id: 'right',
    label: mayBeAccepted ? 'Looks right: accept it' : 'Looks right',
    weight: 'main',
    gives: {
      kind: 'say',
      events: [
        ...(part.looked ? [] : [looked(part.id, 'good')]),
        ...(mayBeAccepted ? [decided(part.id, 'accept')] : []),
      ],
    },
  };
  const wrong: Keyless = {
    id: 'wrong',
    label: 'Something is wrong with it',
    weight: 'warning',
    gives: { kind: 'then', question: whatIsWrong(name, null, part.id, '') },
  };
  const desk: Keyless = {
    id: 'desk',
    label: 'Parts desk',
    weight: isOffered || isRight ? 'plain' : 'main',
    gives: { kind: 'desk', part: part.id },
  };
  const answers = isRight
    ? [desk]
    : [...(isOffered ? [right, wrong, desk] : [desk, wrong]), closeWithout(state, part.mapPart)];
  return {
    ...NOTHING_ASKED,
    id: `part:${part.mapPart}`,
    title: `New ${name}`,
    detail: isRight ? 'Accepted' : reasons.join(' '),
    hint: isRight ? part.source : lookAt(mechanism.map, part.mapPart),
    answers: withKeys(answers),
  };
}

/** A part that is not used: it goes back. */
function whatIsWrong(name: string, arrived: Arrived | null, id: string, usualSource: string): Question {
  const back = (condition: 'damaged' | 'wrong'): Gives => ({
    kind: 'say',
    events: [...(arrived ? [arrived] : []), looked(id, condition), decided(id, 'send-back')],
  });
  const takes = arrived ? { takes: { name: 'source' } } : {};
  return {
    ...NOTHING_ASKED,
    id: `part-wrong:${id}`,
    title: `What is wrong with the new ${name}?`,
    hint: 'It goes back, and nothing is opened for it before another one is accepted.',
    field: arrived
      ? {
          label: 'From, and as what',
          kind: 'text',
          ...(usualSource ? { start: usualSource } : {}),
          cure: 'Needed: supplier.',
        }
      : null,
    answers: withKeys([
      { id: 'damaged', label: 'It is damaged', weight: 'warning', gives: back('damaged'), ...takes },
      { id: 'variant', label: 'Wrong variant or colour', weight: 'warning', gives: back('wrong'), ...takes },
    ]),
  };
}

type Said = Extract<Gives, { kind: 'say' }>['events'][number];
type Arrived = Said & { type: 'part-arrived' };

function looked(part: string, condition: 'good' | 'damaged' | 'wrong'): Said {
  return { type: 'part-looked', data: { part, condition, includes: [], lacks: [], text: '' } };
}

function decided(part: string, decision: 'accept' | 'send-back'): Said {
  return { type: 'part-decided', data: { part, decision, text: '' } };
}

/** It is no longer replaced in this repair. */
export function closeWithout({ targets }: JobState, mapPart: string): Keyless {
  const left = targets.filter((each) => !('replace' in each && each.replace === mapPart));
  return { id: 'close-up', label: 'Close up without it', weight: 'plain', gives: saying('targets', { targets: left }) };
}
