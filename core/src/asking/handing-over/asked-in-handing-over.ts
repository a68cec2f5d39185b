import { type HandOverPoint, handOverPoints, type JobState, mayGoFrom } from '../../job/state/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { plural } from '../../planner/words/index.ts';
import { type Gives, NOTHING_ASKED, type Turn, type Turns, withKeys } from '../question/index.ts';

/** A finished device before it goes, and what was said of it on the page. */
export interface HandingOver {
  readonly mechanism: Mechanism;
  readonly state: JobState;
  /** milliseconds */
  readonly now: number;
  /** points that were gone through with the owner */
  readonly said: ReadonlySet<string>;
  /** why it goes before its time; null while nobody says so */
  readonly early: string | null;
  /** how a moment is written here */
  clock(at: string): string;
}

/** What is gone through with the owner, whether it waits, and to whom it goes. */
export function askedInHandingOver(handing: HandingOver): Turns {
  const { mechanism, state, now, said } = handing;
  if (state.handedOver) return [gone(handing)];
  if (!state.finished) return [NOT_FINISHED];
  const points = handOverPoints(mechanism, state, now);
  const open = points.filter(({ isDone, from, what }) => !isDone && from === undefined && !said.has(what));
  const goes = mayGoFrom(mechanism, state);
  const from = goes !== null && Date.parse(goes) > now ? goes : null;
  return [
    ...(points.length > 0 ? [pointsAsked(handing, points, open)] : []),
    ...(from === null ? [] : [earlyAsked(handing, from)]),
    goesTo(handing, open.length > 0 || (from !== null && handing.early === null)),
  ];
}

function pointsAsked(
  { said, clock }: HandingOver,
  points: readonly HandOverPoint[],
  open: readonly HandOverPoint[],
): Turn {
  const mark = (items: readonly HandOverPoint[]): Gives => ({
    kind: 'mark',
    mark: 'done',
    items: items.map(({ what }) => what),
  });
  return {
    name: 'Gone through',
    said: open.length > 0 ? `${plural(open.length, 'thing')} to say` : 'all of it',
    isDone: open.length === 0,
    question: {
      ...NOTHING_ASKED,
      id: 'points',
      title: open.length > 0 ? 'Go through this with the owner' : 'All of it is gone through',
      list: points.map((point) => ({
        id: point.what,
        text: point.text,
        more: !point.isDone && point.from !== undefined ? `from ${clock(point.from)}` : '',
        at: null,
        isDone: point.isDone || said.has(point.what),
        gives: point.isDone || point.from !== undefined ? null : mark([point]),
      })),
      answers:
        open.length > 0
          ? withKeys([{ id: 'all', label: 'All of this was said', weight: 'main', gives: mark(open) }])
          : [],
    },
  };
}

function earlyAsked({ early, clock }: HandingOver, from: string): Turn {
  return {
    name: 'It still cures',
    said: early === null ? `may go from ${clock(from)}` : `early: ${early}`,
    isDone: early !== null,
    question: {
      ...NOTHING_ASKED,
      id: 'early',
      title: `It may go from ${clock(from)}`,
      hint: 'Its adhesive gains strength by itself until then.',
      field: {
        label: 'It goes before its time, since',
        kind: 'text',
        ...(early === null ? {} : { start: early }),
        cure: 'Say why it goes early: it is recorded.',
      },
      answers: withKeys([
        {
          id: 'early',
          label: 'It goes early',
          weight: 'warning',
          gives: { kind: 'mark', mark: 'without', items: ['early'] },
          takes: { name: 'reason' },
        },
      ]),
    },
  };
}

function goesTo({ state, said, early }: HandingOver, waits: boolean): Turn {
  const data = { to: '', points: [...said], ...(early === null ? {} : { early }) };
  return {
    name: 'To whom',
    said: state.job.owner ?? '',
    isDone: false,
    question: {
      ...NOTHING_ASKED,
      id: 'to',
      title: 'To whom does it go?',
      field: {
        label: 'Handed over to',
        kind: 'text',
        start: state.job.owner ?? 'the owner',
        cure: 'Say to whom it goes.',
      },
      answers: withKeys([
        {
          id: 'hand-over',
          label: early === null ? 'Hand it over' : 'Hand it over early',
          weight: 'main',
          gives: { kind: 'say', events: [{ type: 'handed-over', data }] },
          takes: { name: 'to' },
          ...(waits ? { notNow: 'First what is open above' } : {}),
        },
      ]),
    },
  };
}

function gone({ state, clock }: HandingOver): Turn {
  const { to, at, by, early } = state.handedOver!;
  return {
    name: 'Handed over',
    said: to,
    isDone: true,
    question: {
      ...NOTHING_ASKED,
      id: 'gone',
      title: 'Handed over',
      detail: `To ${to}, ${clock(at)}, by ${by}`,
      hint: early ? `Early: ${early}` : '',
      answers: withKeys([
        { id: 'record', label: 'To the record', weight: 'main', gives: { kind: 'go', to: 'record' } },
      ]),
    },
  };
}

const NOT_FINISHED: Turn = {
  name: 'Not finished yet',
  said: '',
  isDone: false,
  question: {
    ...NOTHING_ASKED,
    id: 'not-finished',
    title: 'Not finished yet',
    hint: 'What is not finished is not handed over.',
    answers: withKeys([{ id: 'bench', label: 'To the bench', weight: 'main', gives: { kind: 'go', to: 'bench' } }]),
  },
};
