import { isPrepared } from '../../job/rules/index.ts';
import { heldBy, holdingNothing, partsOff, type ToldSoFar } from '../../teardown/record/index.ts';
import { plural } from '../../planner/words/index.ts';
import {
  asChoices,
  type Keyless,
  type Line,
  NOTHING_ASKED,
  type Question,
  type Telling,
  withKeys,
} from '../question/index.ts';
import { chargeFirst, glueAsked, solderGives } from './asked-of-glue.ts';
import { heldAsked, offAsked, plugAsked } from './asked-of-parts.ts';
import { driveAsked, screwsAsked } from './asked-of-screws.ts';
import { stuckAsked, stuckByAsked } from './asked-of-stuck.ts';
import { earlierAsked, lookAsked, lookedAtAsked, measureAsked, moreAsked } from './asked-once-more.ts';
import { cornersAsked, seenAsked } from './asked-of-photos.ts';
import { whatHeldAsked } from './asked-what-held.ts';
import { cameOff, freeId, ROOT, type TakingApart, tell } from './telling.ts';
import { jointLabel, stepLabel, stepWords } from './told-words.ts';

/** What is asked while a device is taken apart without a map: what came off, again and again. */
export function askedWhileTakenApart(now: TakingApart): Question {
  const { telling, mechanism, state } = now;
  if (!isPrepared(mechanism, state)) return FIRST_PREPARE;
  const asked = ofTelling(now, telling);
  if (telling.at === 'root') return asked;
  return { ...asked, answers: withKeys([...asked.answers, BACK]) };
}

/** Nothing of a closed device is undone before the bench is prepared. */
const FIRST_PREPARE: Question = {
  ...NOTHING_ASKED,
  id: 'first-prepare',
  place: 'Prepare',
  title: 'First the bench',
  detail: 'Nothing comes off before it is prepared',
  answers: withKeys([{ id: 'prepare', label: 'Prepare it', weight: 'main', gives: { kind: 'go', to: 'prepare' } }]),
};

const BACK: Keyless = { id: 'back', key: 'Escape', label: 'Back', weight: 'quiet', gives: tell(ROOT) };

function ofTelling(now: TakingApart, telling: Telling): Question {
  switch (telling.at) {
    case 'root':
      return rootAsked(now);
    case 'screws':
      return screwsAsked(now, telling);
    case 'drive':
      return driveAsked(now);
    case 'plug':
      return plugAsked(now, telling);
    case 'glue':
      return chargeFirst(now) ?? glueAsked(now);
    case 'off':
      return offAsked(now, telling.to);
    case 'holds':
      return heldAsked(now, telling.joint);
    case 'stuck':
      return stuckAsked(now);
    case 'stuck-by':
      return stuckByAsked(now, telling);
    case 'what-held':
      return whatHeldAsked(now, telling);
    case 'seen':
      return seenAsked(now, telling);
    case 'corners':
      return cornersAsked(now, telling);
    case 'more':
      return moreAsked(now);
    case 'earlier':
      return earlierAsked(now);
    case 'look':
      return lookAsked(now);
    case 'look-at':
      return lookedAtAsked(now, telling.part);
    case 'measure':
      return measureAsked(now, telling.screw);
  }
}

function rootAsked(now: TakingApart): Question {
  const { so, face, before, places } = now;
  const pending = holdingNothing(so);
  const side = `${face} up`;
  return {
    ...NOTHING_ASKED,
    id: before === null ? 'came-off' : `came-off before ${before}`,
    place: before === null ? `${plural(partsOff(so).size, 'part')} off · ${side}` : `Inserted earlier · ${side}`,
    title: 'What came off?',
    detail:
      before === null
        ? ''
        : `Before: ${stepLabel(
            so,
            so.steps.find(({ event }) => event === before)!,
          )}`,
    hint: places.length === 0 ? 'Say it, or press where it was and then say it.' : pressedWords(places.length),
    cautions: [
      {
        text: isDead(now)
          ? 'Nobody has opened this device here before: no force, look for what still holds.'
          : 'It is live until the battery is unplugged: plastic tools, and no other plug before that one.',
        isKnown: so.steps.length > 0,
      },
    ],
    list: [...pending.map((id) => pendingLine(now, id)), ...(pending.length === 0 ? lastSteps(so) : [])],
    choices: asChoices([
      { id: 'screws', label: 'Screws', gives: tell({ at: 'screws', letter: lastLetter(so) }) },
      { id: 'plug', label: 'Plug', gives: tell({ at: 'plug', style: 'press' }) },
      {
        id: 'clips',
        label: 'Clips',
        gives: cameOff(now, { joint: { id: freeId(so.joints, 'clips'), type: 'clip' } }),
      },
      { id: 'glue', label: 'Glue, tape, paste', gives: tell({ at: 'glue' }) },
      { id: 'open', label: 'It swings open', gives: tell({ at: 'off', to: 'open' }) },
      { id: 'solder', label: 'Solder', gives: solderGives(now) },
    ]),
    answers: withKeys([
      { id: 'off', label: 'It is off', weight: 'main', gives: tell({ at: 'off', to: 'off' }) },
      { id: 'stuck', key: '7', label: 'It would not move', weight: 'plain', gives: tell({ at: 'stuck' }) },
      { id: 'photo', key: 'v', label: 'Photograph', weight: 'plain', gives: { kind: 'picture', of: 'step' } },
      { id: 'more', key: 'm', label: 'More', weight: 'plain', gives: tell({ at: 'more' }) },
    ]),
  };
}

function pressedWords(count: number): string {
  return `${plural(count, 'place')} pressed: they go with what you say next. Two are the corners of a part.`;
}

/** Is the battery unplugged, or out? */
function isDead({ so }: TakingApart): boolean {
  return so.steps.some((step) => {
    if (step.kind === 'lift') return so.parts.get(step.part)?.kind === 'battery';
    if (step.kind !== 'release') return false;
    const joint = so.joints.get(step.joint);
    if (joint?.type !== 'connector') return false;
    return joint.isolates ?? (heldBy(so, step.joint) ?? []).some((id) => so.parts.get(id)?.kind === 'battery');
  });
}

function lastLetter({ steps, joints, screws }: ToldSoFar): string | null {
  const last = steps.findLast((step) => step.kind === 'release' && joints.get(step.joint)?.screw !== undefined);
  const letter = last?.kind === 'release' ? joints.get(last.joint)?.screw : undefined;
  return letter ?? [...screws.keys()][0] ?? null;
}

function pendingLine({ so }: TakingApart, id: string): Line {
  return {
    id,
    text: jointLabel(so, id),
    more: 'Holds what comes off next',
    at: null,
    isDone: false,
    gives: tell({ at: 'holds', joint: id }),
  };
}

/** What was told last, the newest first. */
function lastSteps(so: ToldSoFar): readonly Line[] {
  return so.steps
    .slice(-SHOWN)
    .toReversed()
    .map((step) => ({
      id: step.event,
      ...stepWords(so, step),
      at: null,
      isDone: true,
      gives: null,
    }));
}

const SHOWN = 3;
