import { type Thing, thingOf } from '../../teardown/record/index.ts';
import { NOTHING_ASKED, type Question, saying, type Telling, withKeys } from '../question/index.ts';
import { ROOT, type TakingApart, tell } from './telling.ts';
import { jointLabel, partLabel } from './told-words.ts';

/** Of what was pressed on a photograph for the first time: the one before it is shown. */
export function seenAsked({ so }: TakingApart, telling: Extract<Telling, { at: 'seen' }>): Question {
  const thing = thingOf(telling) as Thing;
  return {
    ...NOTHING_ASKED,
    id: `seen ${telling.joint ?? telling.part}`,
    place: 'The photograph before',
    title: 'Was it in sight here?',
    detail: thing.joint === undefined ? partLabel(so, thing.part) : jointLabel(so, thing.joint),
    hint: 'What came into sight lay beneath what was moved in between.',
    answers: withKeys([
      {
        id: 'hidden',
        label: 'No, it was hidden',
        weight: 'main',
        gives: saying('first-seen', { ...thing, photo: telling.photo }),
      },
      { id: 'in-sight', label: 'Yes', weight: 'plain', gives: tell(ROOT) },
      { id: 'unknown', key: '0', label: 'I do not know', weight: 'plain', gives: tell(ROOT) },
    ]),
  };
}

/** Where its corners are, so that it lies straight over the outline. */
export function cornersAsked({ face, corners }: TakingApart, { photo }: Extract<Telling, { at: 'corners' }>): Question {
  return {
    ...NOTHING_ASKED,
    id: `corners ${photo}`,
    place: 'Photograph',
    title: 'Where are its corners?',
    hint: 'Drag each to a corner of the device: 1 is the upper left. They set the photograph straight.',
    answers: withKeys([
      {
        id: 'corners',
        label: 'These are its corners',
        weight: 'main',
        gives: { kind: 'say', events: [{ type: 'layer', data: { photo, face, corners } }], next: ROOT },
      },
    ]),
  };
}
