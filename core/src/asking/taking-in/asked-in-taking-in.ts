import type { JobState } from '../../job/state/index.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import { plural } from '../../planner/words/index.ts';
import {
  CHARGE_FIELD,
  CHARGE_READ,
  type Gives,
  type Keyless,
  NOTHING_ASKED,
  type Question,
  saying,
  type Turns,
  type Turn,
  withKeys,
} from '../question/index.ts';
import { functionsAsked } from './functions-asked.ts';

/** A device that is taken in, and what was passed over on the page. */
export interface TakingIn {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly passed: ReadonlySet<string>;
}

/**
 * What is asked of a device as it comes in. Liquid comes first: a wet device is not switched on to be tried (common
 * practice).
 */
export function askedInTakingIn(taking: TakingIn): Turns {
  return [
    ...(taking.map.battery ? [liquidAsked(taking)] : []),
    ...(taking.map.functions.length > 0 ? [functionsAsked(taking.map, taking.state)] : []),
    damageAsked(taking),
    ...(taking.map.battery ? [chargeAsked(taking)] : []),
    wordsAsked(taking),
  ];
}

const pass = (item: string): Gives => ({ kind: 'mark', mark: 'passed', items: [item] });

function liquidAsked({ state, passed }: TakingIn): Turn {
  const { wet } = state;
  // who tried it knows that it was dry
  const isTried = state.tests.some(({ stage }) => stage === 'intake');
  // a wet device has nothing else asked of it before its battery is off
  const isDone = wet === null && (passed.has('liquid') || isTried);
  const answers: readonly Keyless[] = wet
    ? [{ id: 'prepare', label: 'Battery off first: prepare it', weight: 'main', gives: { kind: 'go', to: 'prepare' } }]
    : [
        { id: 'dry', label: 'No sign of it', weight: 'main', gives: pass('liquid') },
        { id: 'wet', label: 'It was wet', weight: 'warning', gives: { kind: 'ask', about: 'wet' } },
      ];
  return {
    name: 'Liquid',
    said: wet ? 'it was wet' : isDone ? 'no sign of it' : '',
    isDone,
    question: {
      ...NOTHING_ASKED,
      id: 'liquid',
      title: wet ? 'It was wet' : 'Has liquid got in?',
      hint: wet
        ? 'It stays off: its battery comes off at once, then it is washed, dried and tried.'
        : 'Look at the indicator and into the ports before it is switched on.',
      answers: withKeys(answers),
    },
  };
}

function damageAsked({ state, passed }: TakingIn): Turn {
  const marks = state.damage.length;
  return {
    name: 'Damage',
    said: marks > 0 ? plural(marks, 'mark') : passed.has('damage') ? 'none' : '',
    isDone: passed.has('damage'),
    question: {
      ...NOTHING_ASKED,
      id: 'damage',
      title: marks > 0 ? 'More damage?' : 'Any damage?',
      hint: 'Say what it is, then press where it is on the drawing.',
      answers: withKeys([
        { id: 'none', label: marks > 0 ? 'No more' : 'No damage', weight: 'main', gives: pass('damage') },
        { id: 'face', also: 'f', label: 'The other side', weight: 'plain', gives: { kind: 'look', at: 'other-face' } },
      ]),
    },
  };
}

function chargeAsked({ state, passed }: TakingIn): Turn {
  const last = state.charges.at(-1);
  const said = last ? `${Math.round(last.charge * 100)} %` : passed.has('charge') ? 'not read' : '';
  return {
    name: 'Battery charge',
    said,
    isDone: last !== undefined || passed.has('charge'),
    question: {
      ...NOTHING_ASKED,
      id: 'charge',
      title: 'Battery charge',
      detail: last ? `${said} when it was read` : 'As the device shows it',
      field: CHARGE_FIELD,
      answers: withKeys([
        CHARGE_READ,
        { id: 'not-read', label: 'It can not be read', weight: 'plain', gives: pass('charge') },
      ]),
    },
  };
}

/** The last question of taking in: from it the way leads to the preparation. */
function wordsAsked({ state }: TakingIn): Turn {
  const question: Question = {
    ...NOTHING_ASKED,
    id: 'words',
    title: 'What does the owner say?',
    hint: 'In the owner’s own words; pictures of what is damaged.',
    field: {
      label: 'The owner says',
      kind: 'text',
      ...(state.words ? { start: state.words } : {}),
      cure: 'Write what the owner says, or go on.',
    },
    answers: withKeys([
      { id: 'prepare', label: 'Taken in: prepare it', weight: 'main', gives: { kind: 'go', to: 'prepare' } },
      { id: 'note', label: 'Note it', weight: 'plain', gives: saying('words', { text: '' }), takes: { name: 'text' } },
    ]),
  };
  return { name: 'The owner says', said: state.words || '', isDone: false, question };
}
