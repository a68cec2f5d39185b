import { TEARDOWN_DATA, type TeardownEventData } from '../../teardown/record/index.ts';
import { type EventRows, SEEN, WORK } from './event-row.ts';

/** What came off was told: the map of the device becomes another by it. */
const TOLD = { ...WORK, tellsMap: true } as const;

/** What is true of everything that is told while a device is taken apart without a map. */
export const TEARDOWN_EVENTS: EventRows<TeardownEventData> = {
  'take-apart': {
    tells: 'From here on it is told what comes off: the device has no map, or it is not as its map has it',
    ...TOLD,
    data: TEARDOWN_DATA['take-apart'],
  },
  'came-off': {
    tells: 'A joint is undone, or a part is open or off; what it is, as far as that is known',
    ...TOLD,
    data: TEARDOWN_DATA['came-off'],
  },
  stuck: {
    tells: 'A joint or part would not move, and what held it, where that is known',
    ...TOLD,
    data: TEARDOWN_DATA.stuck,
  },
  'what-held': {
    tells: 'The answer when it was asked what held something: what was pressed of what was offered',
    ...TOLD,
    data: TEARDOWN_DATA['what-held'],
  },
  described: {
    tells: 'What was seen of parts and joints, once more: names, kinds, places, marks, functions, lengths',
    ...TOLD,
    data: TEARDOWN_DATA.described,
  },
  layer: {
    tells: 'A photograph shows the device as it lies: which face, and where its four corners are',
    ...SEEN,
    tellsMap: true,
    // it goes with its photograph, which an undo takes back
    undo: 'passes-over',
    data: TEARDOWN_DATA.layer,
  },
  'first-seen': {
    tells: 'Something came into sight with a photograph: on the one before it was not to be seen',
    ...SEEN,
    tellsMap: true,
    data: TEARDOWN_DATA['first-seen'],
  },
  'put-together': {
    tells: 'Nothing more comes off: it is put together by the plan of the map that was told',
    ...TOLD,
    data: TEARDOWN_DATA['put-together'],
  },
};
