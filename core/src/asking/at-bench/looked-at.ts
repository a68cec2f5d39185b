import { isDead } from '../../planner/holds/index.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import { cautionFor, opWords, plural, whyNow } from '../../planner/words/index.ts';
import { type Line, NOTHING_ASKED, type Question, withKeys } from '../question/index.ts';
import type { BenchNow } from './bench-now.ts';
import { toolOf } from './step-asked.ts';

/** A step that is looked at before its turn: nothing of it is done, unless all is until there. */
export function askedAhead({ mechanism, state, ahead, unit }: BenchNow, op: Op, steps: number): Question {
  const { map } = mechanism;
  const { title, thing, hint = '' } = opWords(map, op);
  const caution = cautionFor(map, op, isDead(mechanism, state.device), unit);
  return {
    ...NOTHING_ASKED,
    id: `ahead:${op.id}`,
    place: `Looking ahead, ${plural(steps, 'step')} on`,
    title,
    detail: thing,
    hint,
    tool: toolOf(map, op),
    cautions: caution === null ? [] : [{ text: caution, isKnown: false }],
    list: tried(map, op),
    why: whyNow(
      map,
      op,
      ahead?.ops.find(({ id }) => id === op.serves),
    ),
    answers: withKeys([
      { id: 'here', label: 'Back to the step in hand', weight: 'main', gives: { kind: 'look', at: 'here' } },
      { id: 'until', key: 'Enter', label: 'All is done until here', weight: 'plain', gives: { kind: 'until' } },
    ]),
  };
}

/** What a test will try, and how. */
function tried(map: DeviceMap, { functions = [] }: Op): readonly Line[] {
  return map.functions
    .filter(({ id }) => functions.includes(id))
    .map(({ id, name, how }) => ({ id, text: name, more: how, at: null, isDone: false, gives: null }));
}

/** What was done, looked at from the newest on. */
export function askedBack(): Question {
  return {
    ...NOTHING_ASKED,
    id: 'back',
    title: 'Looking back',
    answers: withKeys([
      { id: 'here', label: 'Back to the step in hand', weight: 'main', gives: { kind: 'look', at: 'here' } },
    ]),
  };
}
