import { TROUBLE_KINDS, type TroubleKind } from '../../job/events/index.ts';
import type { JobState } from '../../job/state/index.ts';
import { type DeviceMap, jointById } from '../../model/device-map/index.ts';
import { justClosed } from '../../bench/in-hand/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { type Gives, type Keyless, NOTHING_ASKED, type Question, saying, withKeys } from '../question/index.ts';
import { LOOKS } from './always.ts';

/** Troubles as one technician tells them to another. */
export const TROUBLES: Readonly<Record<TroubleKind, string>> = {
  'screw-stripped': 'A screw is stripped',
  'will-not-lift': 'It will not lift',
  'grabbed-again': 'Glue has re-set',
  drags: 'It drags',
  'cup-slips': 'The cup will not hold',
  'cut-too-deep': 'Cut too deep',
  'clip-broken': 'A clip broke',
  'tab-snapped': 'A pull tab snapped',
  'part-cracked': 'A part cracked',
  'connector-damaged': 'A connector is damaged',
  'screw-lost': 'A screw is lost',
  'screw-never-there': 'A screw was never there',
  'one-screw-more': 'There is one screw more',
  'another-length': 'A screw has another length',
  'no-place': 'No place for this screw',
  other: 'Something else went wrong',
};

/** What goes wrong with what is in hand, the likeliest first (common practice). */
const USUAL = {
  screw: ['screw-stripped', 'screw-lost', 'another-length', 'screw-never-there'],
  bond: ['will-not-lift', 'grabbed-again', 'cup-slips', 'cut-too-deep'],
  clip: ['clip-broken', 'will-not-lift', 'part-cracked'],
  connector: ['connector-damaged', 'part-cracked'],
  other: ['part-cracked', 'screw-lost', 'clip-broken'],
} as const satisfies Readonly<Record<string, readonly TroubleKind[]>>;

/**
 * *What is wrong?*: what went wrong with the step in hand, then all that can be said, asked or changed beside it. Letters do
 * the same without it being asked.
 */
export function whatIsWrong(mechanism: Mechanism, state: JobState, op: Op | undefined): Question {
  const isHeld = state.stopped !== null || state.ended !== null;
  const felt = justClosed(mechanism, state) === null ? [] : [FLUSH];
  const answers = [...troubles(mechanism.map, op), ...WITH_THE_STEP, ...felt, ...WITH_THE_JOB, pause(state), ...LOOKS];
  return {
    ...NOTHING_ASKED,
    id: 'wrong',
    title: 'What is wrong?',
    answers: withKeys(
      answers.map((each) => (isHeld && !WHILE_HELD.has(each.id) ? { ...each, notNow: 'It is stopped' } : each)),
    ),
  };
}

/** What may be said, asked and looked at while it is stopped. */
const WHILE_HELD: ReadonlySet<string> = new Set([
  'held',
  'note',
  'intake',
  'person',
  'record',
  'screws',
  'leaving',
  'keys',
  'picture',
  'mat-picture',
  ...LOOKS.map(({ id }) => id),
]);

/** The same while a device is taken apart without a map: what is said of a plan or a map has no place in it. */
export function whatIsWrongApart(mechanism: Mechanism, state: JobState): Question {
  const asked = whatIsWrong(mechanism, state, undefined);
  return { ...asked, answers: asked.answers.filter(({ id }) => !OF_A_PLAN.has(id)) };
}

const OF_A_PLAN: ReadonlySet<string> = new Set([
  'held',
  'not-mapped',
  'other',
  'trial',
  'target',
  'flush',
  'picture',
  'look-back',
  'look-ahead',
]);

function troubles(map: DeviceMap, op: Op | undefined): readonly Keyless[] {
  const type = jointById(map, op?.joint)?.type;
  const kind = type === 'screw' || type === 'bond' || type === 'clip' || type === 'connector' ? type : 'other';
  const usual: readonly TroubleKind[] = USUAL[kind];
  return [...usual, 'other' as const].map((trouble) => ({
    id: `trouble:${trouble}`,
    label: trouble === 'other' ? 'Another trouble' : TROUBLES[trouble],
    weight: 'plain',
    gives: { kind: 'ask', about: 'trouble', trouble: trouble === 'other' ? firstBut(usual) : trouble },
  }));
}

/** Another trouble begins at the first that is not offered by itself. */
function firstBut(usual: readonly TroubleKind[]): TroubleKind {
  return TROUBLE_KINDS.find((kind) => !usual.includes(kind))!;
}

const ask = (about: Extract<Gives, { kind: 'ask' }>['about']): Gives => ({ kind: 'ask', about });

const WITH_THE_STEP: readonly Keyless[] = [
  { id: 'held', key: 'q', label: 'It will not come out: what still holds it', weight: 'plain', gives: ask('held') },
  { id: 'not-mapped', key: 'o', label: 'Not as mapped', weight: 'plain', gives: ask('not-mapped') },
  { id: 'other', key: 'e', label: 'Something else was done', weight: 'plain', gives: ask('other') },
  { id: 'missing', key: 'm', label: 'A screw is missing', weight: 'plain', gives: ask('missing') },
  {
    id: 'screws',
    key: 's',
    label: 'Screws spilled, mixed up or in doubt',
    weight: 'plain',
    gives: { kind: 'go', to: 'screws' },
  },
  { id: 'trial', key: 'j', label: 'Try it now', weight: 'plain', gives: ask('trial') },
];

const FLUSH: Keyless = { id: 'flush', key: '6', label: 'Flush all round?', weight: 'plain', gives: ask('flush') };

const WITH_THE_JOB: readonly Keyless[] = [
  { id: 'target', key: 'g', also: 'c', label: 'Change the job, or close it up', weight: 'quiet', gives: ask('target') },
  { id: 'note', key: 'n', label: 'Note', weight: 'quiet', gives: ask('note') },
  { id: 'leaving', key: 'z', label: 'May it be left now', weight: 'quiet', gives: ask('leaving') },
  { id: 'picture', key: 'v', label: 'Picture of this step', weight: 'quiet', gives: { kind: 'picture', of: 'step' } },
  { id: 'mat-picture', key: 'y', label: 'Picture of the mat', weight: 'quiet', gives: { kind: 'picture', of: 'mat' } },
  { id: 'intake', key: 'a', label: 'As it came in', weight: 'quiet', gives: { kind: 'go', to: 'intake' } },
  { id: 'record', key: 'r', label: 'Record', weight: 'quiet', gives: { kind: 'go', to: 'record' } },
  { id: 'person', key: 'i', label: 'Who is at the bench', weight: 'quiet', gives: ask('person') },
  { id: 'keys', key: '?', label: 'Keys, sounds and speech', weight: 'quiet', gives: ask('keys') },
];

function pause({ paused }: JobState): Keyless {
  const gives = saying(paused ? 'resume' : 'pause', {});
  return { id: 'pause', key: 'p', label: paused ? 'Go on' : 'Pause', weight: 'quiet', gives };
}
