import {
  type BondJoint,
  type DeviceMap,
  type Joint,
  jointById,
  partById,
  renewalOf,
} from '../../model/device-map/index.ts';
import { type Op, type ProcedureName, TEST_AFTER, thingOf } from '../drafts/index.ts';
import { capital, plural } from './english.ts';
import { jointWords, plugWords } from './joint-words.ts';
import { joined, type OpWords } from './sentences.ts';
import { jointKind, partName } from './thing-names.ts';
import { toKnow } from './to-know.ts';

/** What a procedure is done to, named. */
interface About {
  readonly map: DeviceMap;
  readonly op: Op;
  /** its part; empty where it has none */
  readonly part: string;
  /** its bond or plug, with what that holds; empty where it has none */
  readonly joint: string;
  /** its plug as people tell it from its neighbour, or its bond */
  readonly plug: string;
  readonly bond: BondJoint | undefined;
}

/** All that is said of a procedure. */
interface Row {
  /** in a list of reasons: *heat Display: seal* */
  readonly verb: string;
  /** why it is done, in one sentence */
  readonly why: string | ((about: About) => string);
  readonly words: OpWords | ((about: About) => OpWords);
}

const isPaste = ({ bond }: About) => bond?.style === 'thermal';

/** One row a procedure: without its own it does not compile. */
const PROCEDURES: Readonly<Record<ProcedureName, Row>> = {
  'power-off': {
    verb: 'power off',
    why: 'Nothing is opened while it runs.',
    words: ({ map }) => ({
      title: 'Switch it off',
      thing: 'All the way, not to sleep',
      hint: map.procedures?.powerOff,
    }),
  },
  film: {
    verb: 'lay film over',
    why: 'It keeps the glass whole and clean.',
    words: ({ part }) =>
      part
        ? { title: 'Cover it with film', thing: part, hint: 'It stays covered while it is bare.' }
        : { title: 'Lay film over the glass', thing: 'Screen, windows and lenses' },
  },
  'film-off': {
    verb: 'take the film off',
    why: ({ part }) => (part ? 'Left on, it would be sealed in.' : 'What was put on comes off.'),
    words: ({ part }) =>
      part
        ? { title: 'Take the film off', thing: part, hint: 'Wipe it and look through it.' }
        : { title: 'Take the film off the glass', thing: 'Screen, windows and lenses' },
  },
  heat: {
    verb: 'heat',
    why: 'Soft first: no force on glass.',
    words: ({ op, joint }) => ({ title: 'Heat it', thing: joint, hint: op.tool ? `With the ${op.tool}.` : undefined }),
  },
  soak: {
    verb: 'let solvent soak into',
    why: 'It lets go by itself, given time.',
    words: ({ joint }) => ({
      title: 'Let solvent soak in',
      thing: joint,
      hint: 'A few drops of high-strength alcohol along the bond.',
    }),
  },
  vent: {
    verb: 'air the bench',
    why: 'Vapour and heat never meet.',
    words: { title: 'Air the bench', thing: 'Before any heat comes near it again' },
  },
  clean: {
    verb: 'scrape',
    why: (about) =>
      isPaste(about) ? 'Old paste beneath the new keeps the heat in.' : 'Old adhesive keeps the new from sticking.',
    words: (about) =>
      isPaste(about)
        ? { title: 'Clean off the old paste', thing: about.joint, hint: 'No metal: it scores the faces.' }
        : { title: 'Scrape off the old adhesive', thing: about.joint },
  },
  wipe: {
    verb: 'wipe',
    why: (about) => {
      // a lens, not the face that a bond is laid on
      if (about.part) return 'It is covered next.';
      return isPaste(about) ? 'A clean face takes the heat over.' : 'A clean face sticks.';
    },
    words: ({ part, joint }) =>
      part
        ? { title: 'Wipe it and look through it', thing: part, hint: 'Once it is covered, dust stays in.' }
        : { title: 'Wipe it clean', thing: joint, hint: 'Alcohol on a lint-free cloth.' },
  },
  dry: {
    verb: 'dry',
    why: (about) => (isPaste(about) ? 'Alcohol thins the new paste.' : 'Wet, it does not stick.'),
    words: ({ joint }) => ({ title: 'Let it dry', thing: joint }),
  },
  lay: {
    verb: 'stick on the new bond, liner stays on, of',
    why: (about) =>
      isPaste(about) ? 'Without it the heat stays where it arises.' : 'It goes on while the frame is bare.',
    words: (about) => ({ ...layingWords(about), thing: about.joint }),
  },
  'liner-off': {
    verb: 'take the liner off',
    why: 'Straight before it goes down.',
    words: ({ op, joint }) => ({
      title: 'Liner off',
      thing: joint,
      hint: joined(
        op.posture === 'waits' ? 'It lies on its liner: up once more for it, and down again.' : undefined,
        'Fingers off the adhesive; close it straight after.',
      ),
    }),
  },
  tack: {
    verb: 'look whether it still sticks:',
    why: 'What still sticks is kept.',
    words: ({ joint }) => ({
      title: 'See whether it still sticks',
      thing: joint,
      hint: 'If it does, it stays. If not: scrape, wipe, stick on new tape.',
    }),
  },
  press: {
    verb: 'press',
    why: 'It bonds under pressure.',
    words: ({ map, op, joint, bond }) => ({
      title: 'Keep it pressed',
      thing: joint,
      hint: joined(...toKnow(map, op), bond?.style === 'perimeter' ? 'Flush all round.' : 'Straight down and evenly.'),
    }),
  },
  cure: {
    verb: 'cure',
    why: 'It bonds with time.',
    words: ({ joint }) => ({ title: 'Let it cure', thing: joint }),
  },
  count: {
    verb: 'count the screws',
    why: 'A screw that lies inside shorts it.',
    words: ({ map, op }) => ({
      title: 'Count',
      thing: countedBefore(map, op),
      hint: 'What belongs below here is in; what still lies on the mat belongs above. A look for metal at magnets.',
    }),
  },
  renew: {
    verb: 'renew',
    why: 'The old one is spent.',
    words: ({ part }) => ({
      title: 'Put a new piece on',
      thing: part,
      hint: 'It is for one use: the old one stays on the old part.',
    }),
  },
  'power-on': {
    verb: 'first start',
    why: 'The first start, while it can still be reached.',
    words: ({ map }) => ({ title: 'Start it', thing: 'The first time', hint: map.procedures?.firstStart }),
  },
  test: { verb: 'test', why: 'Before anybody else finds out.', words: ({ map, op }) => testWords(map, op) },
  'read-battery': {
    verb: 'read the report of',
    why: 'A cell that is not what it says is not sealed in.',
    words: ({ part }) => ({
      title: 'Read the battery report',
      thing: part,
      hint: 'Capacity or health, and charge: as a new one has them. A message about its origin only as it was foretold.',
    }),
  },
  charge: {
    verb: 'charge',
    why: 'A reset refuses to run on a cell that is nearly empty.',
    words: ({ map }) => ({
      title: 'Charge it for the reset',
      thing: cellsOf(map),
      hint: 'On its charger until it shows enough.',
    }),
  },
  reset: {
    verb: 'reset and set up',
    why: 'A board brings its own accounts and settings.',
    words: ({ part }) => ({
      title: 'Reset it and set it up',
      thing: part,
      hint: 'No account of anybody else is left on it, and no lock.',
    }),
  },
  agree: {
    verb: 'agree with the owner',
    why: 'Nothing is opened that the owner has not agreed to.',
    words: { title: 'Tell the owner', thing: 'And let the owner agree, before it is opened' },
  },
  'run-down': {
    verb: 'run the battery down',
    why: 'A cell that is nearly empty burns less.',
    words: { title: 'Run the battery down', thing: 'Before a bond near the cell is cut' },
  },
  'charge-up': {
    verb: 'charge the battery',
    why: 'A test needs power.',
    words: { title: 'Charge the battery', thing: 'Enough to try the result' },
  },
  prepare: {
    verb: 'prepare the bench',
    why: 'A tool that is missing half way costs the job.',
    words: { title: 'Prepare the bench', thing: 'Kit, cautions, new parts' },
  },
  tape: {
    verb: 'tape the cracks of',
    why: 'It holds the splinters.',
    words: ({ part }) => ({
      title: 'Tape the cracks',
      thing: part,
      hint: 'Clear tape over the whole face, each strip over the last. It holds the splinters and gives a cup a surface.',
    }),
  },
  'tape-off': {
    verb: 'take the tape off',
    why: 'What was put on comes off.',
    words: ({ part }) => ({ title: 'Take the tape off', thing: part, hint: 'Slowly, flat along the glass.' }),
  },
  brush: {
    verb: 'brush the crumbs out from beneath',
    why: 'Crumbs break the next panel.',
    words: ({ part }) => ({
      title: 'Brush the crumbs out',
      thing: `The frame under ${part}`,
      hint: 'Glass crumbs out of every corner and off the rim, eyes covered. Lenses, pins and contacts are not touched.',
    }),
  },
  true: {
    verb: 'look at the rim and true it for',
    why: 'A panel that is forced breaks a week later.',
    words: ({ part }) => ({
      title: 'Look at the rim, and true it',
      thing: `Where ${part} lies`,
      hint: 'A straight edge along each side; bend it back a little at a time. The panel has to drop in by itself.',
    }),
  },
  look: {
    verb: 'look behind the edge',
    why: 'What was cut too deep is seen now.',
    words: ({ joint }) => ({
      title: 'Look before going on',
      thing: joint,
      hint: 'A lamp and a glass: cuts, dents, torn traces.',
    }),
  },
  inspect: {
    verb: 'look closely at',
    why: 'What fails here is renewed, not sealed in.',
    words: ({ map, op, part }) => ({ title: 'Look at it closely', thing: part, hint: inspectHint(map, op) }),
  },
  compare: {
    verb: 'compare old and new',
    why: 'What stayed on the old part is missed when it is closed.',
    words: ({ part }) => ({
      title: 'Compare old and new again',
      thing: part,
      hint: 'Side by side: nothing is left on the old one, no hole and no screw is without its like.',
    }),
  },
  'take-up': {
    verb: 'take up the new',
    why: 'All that came off goes onto it.',
    words: ({ part }) => ({
      title: 'Take the new one up',
      thing: part,
      hint: 'Old and new side by side: every hole, boss and thread has its like. What came on the new one is counted.',
    }),
  },
  'press-home': {
    verb: 'press home again',
    why: 'A plug that is not seated explains it.',
    words: ({ plug }) => ({
      title: 'Unplug and reseat it',
      thing: plug,
      hint: 'Look at both halves, then straight down until it clicks.',
    }),
  },
  'bend-aside': {
    verb: 'bend the flex aside of',
    why: 'A flex that springs back makes it live again.',
    words: ({ plug }) => ({
      title: 'Bend its flex aside',
      thing: plug,
      hint: 'It must not be able to touch its socket: look at it.',
    }),
  },
  'take-off': {
    verb: 'take off what the map does not have',
    why: 'It lies over what comes next.',
    words: ({ op }) => ({
      title: 'Take it off',
      thing: op.named!,
      hint: 'The map does not have it: lay it aside by itself.',
    }),
  },
  'put-back': {
    verb: 'put back what the map does not have',
    why: 'It was there.',
    words: ({ op }) => ({ title: 'Put it back', thing: op.named!, hint: 'The map does not have it.' }),
  },
  wash: {
    verb: 'wash and brush out the liquid',
    why: 'Liquid goes on eating.',
    words: {
      title: 'Wash out the liquid',
      thing: 'Contact cleaner or high-strength alcohol',
      hint: 'Brush it out from under shields. Mark where corrosion is seen: it goes into the record.',
    },
  },
  'air-dry': {
    verb: 'dry',
    why: 'Wet, it shorts.',
    words: {
      title: 'Let it dry',
      thing: 'In warm moving air',
      hint: 'Not on a plate and not by hot air: a cell was wet too.',
    },
  },
  try: {
    verb: 'try it',
    why: 'Then it is decided.',
    words: { title: 'Try it', thing: 'With a battery known to be good', hint: 'Then decide about the board.' },
  },
  transplant: {
    verb: 'replace the cell inside',
    why: 'The pack keeps its own board.',
    words: ({ part }) => ({
      title: 'Replace the cell inside',
      thing: part,
      hint: 'Only as the lead has allowed. Its checks are recorded here.',
    }),
  },
};

export function procedureWords(map: DeviceMap, op: Op): OpWords {
  const row = rowOf(op);
  // a record may hold what another version did
  if (!row) return { title: capital((op.name ?? 'step').replaceAll('-', ' ')), thing: '' };
  return typeof row.words === 'function' ? row.words(about(map, op)) : row.words;
}

/** Why a procedure is done, in one short sentence. */
export function whyProcedure(map: DeviceMap, op: Op): string {
  const why = rowOf(op)?.why ?? '';
  return typeof why === 'function' ? why(about(map, op)) : why;
}

/** *heat*, as it stands before what it is done to. */
export function procedureVerb({ name }: Pick<Op, 'name'>): string {
  return rowOf({ name })?.verb ?? (name ?? 'step').replaceAll('-', ' ');
}

function rowOf({ name }: Pick<Op, 'name'>): Row | undefined {
  return name !== undefined && Object.hasOwn(PROCEDURES, name) ? PROCEDURES[name] : undefined;
}

function about(map: DeviceMap, op: Op): About {
  const joint = jointById(map, op.joint);
  const named = joint ? bondWords(map, joint) : '';
  return {
    map,
    op,
    part: op.part ? partName(map, op.part) : '',
    joint: named,
    plug: joint?.type === 'connector' ? capital(plugWords(map, joint)) : named,
    bond: joint?.type === 'bond' ? joint : undefined,
  };
}

function bondWords(map: DeviceMap, joint: Joint): string {
  const { which } = jointWords(map, joint.id);
  const parts = joint.holds.map((id) => partName(map, id)).join(' and ');
  return `${parts}, ${jointKind(joint)}${which ? `, ${which}` : ''}`;
}

function cellsOf({ parts }: DeviceMap): string {
  const cells = parts.filter(({ kind }) => kind === 'battery');
  return cells.length === 1 ? cells[0]!.name : 'All its cells';
}

function testWords(map: DeviceMap, { id, functions = [], untried = [], isRest, isUnsealed }: Op): OpWords {
  const thing = functions.length > 0 ? plural(functions.length, 'function') : 'It starts, nothing smells or grows warm';
  if (id === TEST_AFTER && isRest) {
    const hint = functions.length > 0 ? 'What closing can have changed; the rest was tried before.' : undefined;
    return { title: 'Try it closed', thing, ...(hint ? { hint } : {}) };
  }
  if (id === TEST_AFTER) return { title: 'Try everything', thing };
  if (untried.length === 0) return { title: isUnsealed ? 'Try it before closing' : 'Try it before sealing', thing };
  const down = untried.map((each) => partName(map, each)).join(' and ');
  return { title: 'Try it before closing', thing, hint: `${down} is down already: what fails in it takes a new seal.` };
}

/** What a failed look turns the job into. */
function inspectHint(map: DeviceMap, op: Op): string {
  const failed = partById(map, op.part)?.ifFailed?.replace ?? op.part!;
  const renewed = failed === op.part ? 'it is renewed' : `${partName(map, failed)} is renewed`;
  return `Cracks, dents, torn or corroded places, what is not as it should be. Failed: ${renewed}.`;
}

function layingWords({ bond }: About): Pick<OpWords, 'title' | 'hint'> {
  const renewal = bond ? renewalOf(bond) : 'precut';
  if (renewal === 'liquid') {
    const title = bond?.style === 'thermal' ? 'New paste on' : 'Lay the new adhesive';
    return { title, hint: 'Thin and even; nothing where it was not.' };
  }
  const what = bond?.style === 'perimeter' ? 'seal' : 'adhesive';
  return { title: `Stick on the new ${what}, liner stays`, hint: 'As the old one ran, gaps where they were.' };
}

/** *Before Cell goes in*, *Before it is powered* */
function countedBefore(map: DeviceMap, { id }: Op): string {
  const before = thingOf(id);
  const what =
    before === 'dead' ? 'it is powered' : before === 'close' ? 'it is closed' : `${partName(map, before)} goes in`;
  return `Screws, films, picks: before ${what}`;
}
