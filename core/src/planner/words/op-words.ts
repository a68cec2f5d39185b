import { type DeviceMap, isOuter, type Joint, type Part, renewalOf } from '../../model/device-map/index.ts';
import { type Op, TEST_AFTER, thingOf } from '../drafts/index.ts';
import { jointWords, plugWords } from './joint-words.ts';
import { toKnow } from './to-know.ts';
import { capital, plural } from './english.ts';
import { seenEdge, seenWay } from './seen.ts';
import { jointKind, partName } from './thing-names.ts';

/** What to do, in the largest type, and what it is about. */
export interface OpWords {
  readonly title: string;
  readonly thing: string;
  readonly hint?: string;
}

export function opWords(map: DeviceMap, op: Op): OpWords {
  const joint = map.joints.find((each) => each.id === op.joint);
  if (op.kind === 'procedure') return procedureWords(map, op, joint);
  if (joint) return withHint(map, op, joint);
  const part = map.parts.find((each) => each.id === op.part)!;
  const name = partName(map, part.id);
  const onto = op.onto ? `, onto ${partName(map, op.onto)}` : '';
  switch (op.kind) {
    case 'open':
      return { title: 'Open it', thing: name, hint: joined(openingWords(op, part), ...toKnow(map, op)) };
    case 'lift':
      return {
        title: op.isOld ? 'Lift the old one off' : 'Lift it off',
        thing: name,
        hint: joined(...toKnow(map, op)),
      };
    case 'close':
      return {
        title: isOuter(part) ? 'Close it' : 'Push it home',
        thing: name,
        hint: joined(...closingWords(map, op, part), ...toKnow(map, op), op.posture && part.hint?.fit),
      };
    default: {
      const which = op.isNew ? 'the new one' : 'it';
      const title =
        op.posture === 'stands'
          ? `Stand ${which} up`
          : op.posture === 'waits'
            ? `Lay ${which} in place`
            : `Fit ${which}`;
      return { title, thing: name + onto, hint: joined(...toKnow(map, op), fittingWords(op, part)) };
    }
  }
}

function joined(...hints: readonly (string | undefined)[]): string | undefined {
  return hints.filter(Boolean).join(' ') || undefined;
}

/** The side that stays down, and how far. */
function openingWords({ posture }: Op, { opens, face }: Part): string {
  if (!opens) return '';
  const gap = opens.gap ? `, ${opens.gap} mm at most while it is tethered` : '';
  const stands = posture === 'stands' && opens.angle ? `; then it may stand at ${opens.angle}°, against a block` : '';
  return `The ${seenEdge(opens.edge, face)} edge stays down: open it toward there${gap}${stands}.`;
}

/** What stays open is not lowered yet: how it closes is said when it closes. */
function fittingWords({ posture }: Op, { opens, face, hint }: Part): string | undefined {
  if (posture === 'stands' && opens) {
    const angle = opens.angle ? `, ${opens.angle}°` : '';
    return `On its ${seenEdge(opens.edge, face)} edge${angle}, against a block; do not lower it.`;
  }
  return posture === 'waits' ? 'It is plugged in and lies loose: do not press it down yet.' : hint?.fit;
}

/** The edge that stayed down goes down first. */
function closingWords(map: DeviceMap, { posture }: Op, part: Part): string[] {
  const { id, opens, face } = part;
  const hooked = map.joints.some((each) => each.type === 'clip' && each.slide && each.holds.includes(id));
  return [
    // what the ledger counts as standing on a block
    ...(posture === 'stands' ? ['Block away.'] : []),
    ...(opens && hooked ? [`Its ${seenEdge(opens.edge, face)} edge down first, then lower the rest.`] : []),
    ...(isOuter(part) ? ['If it resists: a bent clip, a flex beneath, a screw left. Lift it again.'] : []),
  ];
}

function withHint(map: DeviceMap, op: Op, joint: Joint): OpWords {
  const isOff = op.kind === 'release';
  const { off, on } = jointWords(map, joint.id);
  const own = isOff ? joint.hint?.release : joint.hint?.make;
  const hint = joined(slideHint(joint, isOff), ...toKnow(map, op), own ?? (isOff ? joint.needs?.join(' ') : undefined));
  return { ...(isOff ? off : on), ...(hint ? { hint } : {}) };
}

/** Out of its hooks, and back into them the other way. */
function slideHint(joint: Joint, isOff: boolean): string {
  if (joint.type !== 'clip' || !joint.slide) return '';
  const { dx, dy } = seenWay(joint.slide, joint.face);
  return isOff ? `${capital(slideWords({ dx, dy }))}, then lift.` : `Slide it ${slideWords({ dx: -dx, dy: -dy })}.`;
}

/** *4 mm to the right* */
export function slideWords({ dx, dy }: { readonly dx: number; readonly dy: number }): string {
  const ways = [
    ...(dx === 0 ? [] : [`${Math.abs(dx)} mm ${dx > 0 ? 'to the right' : 'to the left'}`]),
    ...(dy === 0 ? [] : [`${Math.abs(dy)} mm ${dy > 0 ? 'down' : 'up'}`]),
  ];
  return ways.join(' and ');
}

function procedureWords(map: DeviceMap, op: Op, joint: Joint | undefined): OpWords {
  const part = op.part ? partName(map, op.part) : '';
  const which = joint ? jointWords(map, joint.id).which : '';
  const bond = joint
    ? `${joint.holds.map((id) => partName(map, id)).join(' and ')}, ${jointKind(joint)}${which ? `, ${which}` : ''}`
    : '';
  // a plug as people tell it from its neighbour
  const plugged = joint?.type === 'connector' ? capital(plugWords(map, joint)) : bond;
  switch (op.name) {
    case 'power-off':
      return { title: 'Switch it off', thing: 'All the way, not to sleep', hint: map.procedures?.powerOff };
    case 'film':
      return part
        ? { title: 'Cover it with film', thing: part, hint: 'It stays covered while it is bare.' }
        : { title: 'Lay film over the glass', thing: 'Screen, windows and lenses' };
    case 'film-off':
      return part
        ? { title: 'Take the film off', thing: part, hint: 'Wipe it and look through it.' }
        : { title: 'Take the film off the glass', thing: 'Screen, windows and lenses' };
    case 'heat':
      return { title: 'Heat it', thing: bond, hint: op.tool ? `With the ${op.tool}.` : undefined };
    case 'soak':
      return {
        title: 'Let solvent soak in',
        thing: bond,
        hint: 'A few drops of high-strength alcohol along the bond.',
      };
    case 'vent':
      return { title: 'Air the bench', thing: 'Before any heat comes near it again' };
    case 'clean':
      return joint?.type === 'bond' && joint.style === 'thermal'
        ? { title: 'Clean off the old paste', thing: bond, hint: 'No metal: it scores the faces.' }
        : { title: 'Scrape off the old adhesive', thing: bond };
    case 'wipe':
      if (part)
        return { title: 'Wipe it and look through it', thing: part, hint: 'Once it is covered, dust stays in.' };
      return { title: 'Wipe it clean', thing: bond, hint: 'Alcohol on a lint-free cloth.' };
    case 'dry':
      return { title: 'Let it dry', thing: bond };
    case 'lay':
      return { ...layingWords(joint), thing: bond };
    case 'liner-off':
      return {
        title: 'Liner off',
        thing: bond,
        hint: joined(
          op.posture === 'waits' ? 'It lies on its liner: up once more for it, and down again.' : undefined,
          'Fingers off the adhesive; close it straight after.',
        ),
      };
    case 'tack':
      return {
        title: 'See whether it still sticks',
        thing: bond,
        hint: 'If it does, it stays. If not: scrape, wipe, stick on new tape.',
      };
    case 'press':
      return {
        title: 'Keep it pressed',
        thing: bond,
        hint: joined(
          ...toKnow(map, op),
          joint?.type === 'bond' && joint.style === 'perimeter' ? 'Flush all round.' : 'Straight down and evenly.',
        ),
      };
    case 'cure':
      return { title: 'Let it cure', thing: bond };
    case 'count':
      return {
        title: 'Count',
        thing: countedBefore(map, op),
        hint: 'What belongs below here is in; what still lies on the mat belongs above. A look for metal at magnets.',
      };
    case 'renew':
      return {
        title: 'Put a new piece on',
        thing: part,
        hint: 'It is for one use: the old one stays on the old part.',
      };
    case 'power-on':
      return { title: 'Start it', thing: 'The first time', hint: map.procedures?.firstStart };
    case 'read-battery':
      return {
        title: 'Read the battery report',
        thing: part,
        hint: 'Capacity or health, and charge: as a new one has them. A message about its origin only as it was foretold.',
      };
    case 'charge':
      return { title: 'Charge it for the reset', thing: cellsOf(map), hint: 'On its charger until it shows enough.' };
    case 'reset':
      return {
        title: 'Reset it and set it up',
        thing: part,
        hint: 'No account of anybody else is left on it, and no lock.',
      };
    case 'agree':
      return { title: 'Tell the owner', thing: 'And let the owner agree, before it is opened' };
    case 'run-down':
      return { title: 'Run the battery down', thing: 'Before a bond near the cell is cut' };
    case 'charge-up':
      return { title: 'Charge the battery', thing: 'Enough to try the result' };
    case 'prepare':
      return { title: 'Prepare the bench', thing: 'Kit, cautions, new parts' };
    case 'tape':
      return {
        title: 'Tape the cracks',
        thing: part,
        hint: 'Clear tape over the whole face, each strip over the last. It holds the splinters and gives a cup a surface.',
      };
    case 'tape-off':
      return { title: 'Take the tape off', thing: part, hint: 'Slowly, flat along the glass.' };
    case 'brush':
      return {
        title: 'Brush the crumbs out',
        thing: `The frame under ${part}`,
        hint: 'Glass crumbs out of every corner and off the rim, eyes covered. Lenses, pins and contacts are not touched.',
      };
    case 'true':
      return {
        title: 'Look at the rim, and true it',
        thing: `Where ${part} lies`,
        hint: 'A straight edge along each side; bend it back a little at a time. The panel has to drop in by itself.',
      };
    case 'look':
      return { title: 'Look before going on', thing: bond, hint: 'A lamp and a glass: cuts, dents, torn traces.' };
    case 'inspect':
      return { title: 'Look at it closely', thing: part, hint: inspectHint(map, op) };
    case 'compare':
      return {
        title: 'Compare old and new again',
        thing: part,
        hint: 'Side by side: nothing is left on the old one, no hole and no screw is without its like.',
      };
    case 'take-up':
      return {
        title: 'Take the new one up',
        thing: part,
        hint: 'Old and new side by side: every hole, boss and thread has its like. What came on the new one is counted.',
      };
    case 'press-home':
      return {
        title: 'Unplug it and press it home again',
        thing: plugged,
        hint: 'Look at both halves, then straight down until it clicks.',
      };
    case 'bend-aside':
      return {
        title: 'Bend its flex aside',
        thing: plugged,
        hint: 'It must not be able to touch its socket: look at it.',
      };
    case 'take-off':
      return { title: 'Take it off', thing: op.named!, hint: 'The map does not have it: lay it aside by itself.' };
    case 'put-back':
      return { title: 'Put it back', thing: op.named!, hint: 'The map does not have it.' };
    case 'wash':
      return {
        title: 'Wash out the liquid',
        thing: 'Contact cleaner or high-strength alcohol',
        hint: 'Brush it out from under shields. Mark where corrosion is seen: it goes into the record.',
      };
    case 'air-dry':
      return {
        title: 'Let it dry',
        thing: 'In warm moving air',
        hint: 'Not on a plate and not by hot air: a cell was wet too.',
      };
    case 'try':
      return { title: 'Try it', thing: 'With a battery known to be good', hint: 'Then decide about the board.' };
    case 'transplant':
      return {
        title: 'Replace the cell inside',
        thing: part,
        hint: 'Only as the lead has allowed. Its checks are recorded here.',
      };
    default:
      return testWords(map, op);
  }
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
  const failed = map.parts.find(({ id }) => id === op.part)?.ifFailed?.replace ?? op.part!;
  const renewed = failed === op.part ? 'it is renewed' : `${partName(map, failed)} is renewed`;
  return `Cracks, dents, torn or corroded places, what is not as it should be. Failed: ${renewed}.`;
}

function layingWords(joint: Joint | undefined): Pick<OpWords, 'title' | 'hint'> {
  const renewal = joint?.type === 'bond' ? renewalOf(joint) : 'precut';
  if (joint?.type === 'bond' && joint.style === 'thermal' && renewal === 'liquid') {
    return { title: 'New paste on', hint: 'Thin and even; nothing where it was not.' };
  }
  if (renewal === 'liquid') return { title: 'Lay the new adhesive', hint: 'Thin and even; nothing where it was not.' };
  const what = joint?.type === 'bond' && joint.style === 'perimeter' ? 'seal' : 'adhesive';
  return { title: `Stick on the new ${what}, liner stays`, hint: 'As the old one ran, gaps where they were.' };
}

/** *Before Cell goes in*, *Before it is powered* */
function countedBefore(map: DeviceMap, { id }: Op): string {
  const before = thingOf(id);
  const what =
    before === 'dead' ? 'it is powered' : before === 'close' ? 'it is closed' : `${partName(map, before)} goes in`;
  return `Screws, films, picks: before ${what}`;
}

const GATES: readonly string[] = ['agree', 'run-down', 'charge-up', 'prepare'];

/** Is it settled in the preparation, before the device is touched? */
export function isGate(op: Op): boolean {
  return GATES.includes(op.name ?? '');
}

/** One line for lists: *Take out 4 screws · Connector lid* */
export function opLine(map: DeviceMap, op: Op): string {
  const { title, thing } = opWords(map, op);
  return `${title} · ${thing}`;
}
