import {
  type BondJoint,
  isDecidedOnSight,
  isOuter,
  isSelfParting,
  renewalOf,
  type Renewal,
} from '../../model/device-map/index.ts';
import { type DeviceState, type Mechanism, OFF, SEATED } from '../holds/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import { after, afterBy, type Draft, procedureDraft } from './draft.ts';
import { renewalFor, secondsToLay, secondsToScrape, TIMES } from './estimates.ts';
import { opId, TEST_BEFORE, thingOf } from './op-id.ts';
import type { WayUp } from './way-up.ts';

/** What the bonds of a way back are closed with, and where the device stands. */
export interface BondContext {
  readonly mechanism: Mechanism;
  /** where the rebuild starts, once what moves over is off the old part */
  readonly state: DeviceState;
  readonly way: WayUp;
  readonly replaced: ReadonlySet<number>;
  /** bonds that were made again already: they may still want pressing and curing */
  readonly remade: ReadonlySet<number>;
  readonly policy: Policy;
}

/** A bond to be made, and the operation with which its part goes down on it. */
interface Closing {
  readonly number: number;
  readonly bond: BondJoint;
  readonly renewal: Renewal;
  /** the new part brings its own adhesive */
  readonly comesWithPart: boolean;
  readonly down: readonly string[];
  readonly make: string;
  readonly isOuter: boolean;
}

/**
 * Bonds are scraped, wiped, dried and laid before their part goes down, and pressed after. Those that close the device
 * are laid on the bare frame with their liner left on, which comes off after the test (rule *seal*).
 */
export function withBonds(context: BondContext, drafts: readonly Draft[]): Draft[] {
  const ids = new Set<string>(drafts.map(({ op }) => op.id));
  const closings = closingsOf(context, ids);
  const laid = ofOnePart(closings).map((group) => layingOf(context, group, ids));
  const body = laid.reduce((all, { binds }) => all.map(binds), [...drafts]);
  return [...body, ...laid.flatMap((each) => each.procedures), ...pressings(context, closings, ids)];
}

function closingsOf({ mechanism, way, replaced, policy }: BondContext, ids: ReadonlySet<string>): Closing[] {
  return mechanism.map.joints.flatMap((bond, number): Closing[] => {
    if (bond.type !== 'bond') return [];
    const make = opId('make', bond.id);
    const down = goingDown(mechanism, bond, ids);
    if (isSelfParting(bond) ? down.length === 0 : !ids.has(make)) return [];
    const isFresh = (part: number) => replaced.has(part) || mechanism.map.parts[part]!.reuse === 'single-use';
    const comesWithPart = renewalOf(bond) === 'with-part' && mechanism.held[number]!.some(isFresh);
    const given = { number, bond, comesWithPart, renewal: renewalFor(bond, policy.closing), make };
    const isOuter = way.outerClosings.has(make) || down.some((id) => way.outerClosings.has(id) && isSelfParting(bond));
    return [{ ...given, down: down.length > 0 ? down : [make], isOuter }];
  });
}

/** The movements that bring the parts of a bond down on it: the closing of what swings open, else the fitting. */
function goingDown(mechanism: Mechanism, bond: BondJoint, ids: ReadonlySet<string>): string[] {
  const moves = bond.holds.flatMap((id) => [opId('close', id), opId('fit', id)]).filter((id) => ids.has(id));
  return moves.filter((id) =>
    swingsOpen(mechanism, id)
      ? id.startsWith('close:') || !ids.has(id.replace('fit:', 'close:'))
      : !ids.has(id.replace('close:', 'fit:')) || id.startsWith('fit:'),
  );
}

function swingsOpen(mechanism: Mechanism, id: string): boolean {
  const part = mechanism.map.parts[mechanism.part.get(thingOf(id))!]!;
  return part.opens !== undefined || isOuter(part);
}

function ofOnePart(closings: readonly Closing[]): Closing[][] {
  const groups = new Map<string, Closing[]>();
  for (const each of closings) {
    const key = `${each.isOuter} ${each.down.join()}`;
    groups.set(key, [...(groups.get(key) ?? []), each]);
  }
  return [...groups.values()];
}

interface Laying {
  readonly procedures: readonly Draft[];
  /** puts the procedures before the operations that need them */
  readonly binds: (draft: Draft) => Draft;
}

/** The bonds of one part are worked together: scrape all, wipe all, dry once, lay all. */
function layingOf(context: BondContext, group: readonly Closing[], ids: ReadonlySet<string>): Laying {
  const { way, policy } = context;
  const down = group[0]!.down;
  const isOuter = group[0]!.isOuter;
  const renewed = group.filter(({ renewal, bond }) => renewal !== 'reuse' && !isDecidedOnSight(bond));
  const seen = group.filter(({ bond, renewal }) => renewal !== 'reuse' && isDecidedOnSight(bond));
  const isDry = renewed.filter(({ renewal, comesWithPart }) => !comesWithPart && renewal !== 'liquid');
  const liquid = renewed.filter(({ renewal }) => renewal === 'liquid');
  const lined = renewed.filter(({ comesWithPart, renewal }) => comesWithPart || renewal !== 'liquid');

  const scraped = renewed.map((each) => scrape(each));
  const wiped = renewed.map((each) => wipe(each, scraped));
  const dried = renewed.length > 0 ? [dry(renewed, wiped)] : [];
  const laid = isDry.map((each) => lay(each, dried, policy));
  const poured = liquid.map((each) => lay(each, [...dried, ...laid], policy));
  const peeled = lined.map((each) => peel(each, [...dried, ...laid], isOuter));
  const looked = seen.map((each) => look(each));

  const onFrame = [...scraped, ...wiped, ...dried, ...laid];
  const last = [...poured, ...peeled, ...looked];
  // what goes down before the test is laid before it, whatever the school
  const isBare = policy.sealLaid === 'bare-frame' || !down.every((id) => way.outerClosings.has(id));
  const afterTest = (draft: Draft) => (isOuter ? afterBy(draft, 'seal', [TEST_BEFORE]) : draft);
  const stands = standsAlready(context, group, ids);
  const frame = isBare ? onFrame.map((each) => (isOuter && stands ? early(each) : each)) : onFrame.map(afterTest);
  const names = (drafts: readonly Draft[]) => drafts.map(({ op }) => op.id);
  const frameIds = names(onFrame);
  const lastIds = names(last);
  const isAfterDead = [...way.endsOfDead].some((end) =>
    down.some((id) => way.follows.get(end)?.has(id) || way.late.has(id)),
  );
  const above = overIt(context, group, ids);
  // what swings down on it later stands over it from its fitting on
  const isOver = (id: string) => above.includes(id) && (isOuter || !down.includes(id));

  const binds = (draft: Draft): Draft => {
    const { id } = draft.op;
    const isMade = group.some(({ make }) => make === id);
    const isDown = down.includes(id);
    const laidFirst = isMade || isDown ? after(draft, frameIds) : draft;
    // a part that goes down before the test lies on the liner until its bond is made
    const isLast = isMade || (isDown && (!isOuter || way.outerClosings.has(id)));
    const served = isLast ? after(laidFirst, lastIds) : laidFirst;
    const beforeIt =
      isOuter && isBare
        ? isOver(id) || way.endsOfDead.has(id) || (way.endsOfDead.size === 0 && id === TEST_BEFORE)
        : !isOuter && (isOver(id) || (isAfterDead && way.endsOfDead.has(id)));
    return beforeIt ? afterBy(served, 'seal', frameIds) : served;
  };
  const closing = down.find((id) => way.outerClosings.has(id)) ?? group[0]!.make;
  const beforeClosing = [...way.follows].flatMap(([id, later]) => (ids.has(id) && later.has(closing) ? [id] : []));
  // bare adhesive waits for nothing but its own closing
  const atLast = (draft: Draft) => (isOuter ? afterBy(draft, 'seal', beforeClosing) : draft);
  return { procedures: [...frame, ...last.map(afterTest).map(atLast)], binds };
}

/** Fittings after which what the bonds hold stands over them. */
function overIt({ way }: BondContext, group: readonly Closing[], ids: ReadonlySet<string>): string[] {
  return group
    .flatMap(({ bond }) => bond.holds.map((id) => opId('fit', id)))
    .filter((id) => ids.has(id) && !way.outerClosings.has(id));
}

function standsAlready(
  { mechanism, state }: BondContext,
  group: readonly Closing[],
  ids: ReadonlySet<string>,
): boolean {
  return group.some(({ number, bond }) =>
    mechanism.held[number]!.some((part, index) => {
      const status = state.status[part]!;
      return status !== OFF && status !== SEATED && !ids.has(opId('fit', bond.holds[index]));
    }),
  );
}

function early(draft: Draft): Draft {
  return { ...draft, task: { ...draft.task, early: true } };
}

const at = ({ bond }: Closing) => ({ joint: bond.id, face: bond.face, stage: 'rebuild' }) as const;
const idsOf = (drafts: readonly Draft[]) => drafts.map(({ op }) => op.id);

function scrape(closing: Closing): Draft {
  return procedureDraft({
    ...at(closing),
    name: 'clean',
    seconds: secondsToScrape(closing.bond),
    tool: closing.bond.style === 'thermal' ? 'plastic spudger' : 'scraper',
    after: [],
  });
}

function wipe(closing: Closing, scraped: readonly Draft[]): Draft {
  return procedureDraft({ ...at(closing), name: 'wipe', seconds: TIMES.wipe, after: idsOf(scraped) });
}

/** One wait for all bonds of a part; it has the name of the one that takes longest. */
function dry(renewed: readonly Closing[], wiped: readonly Draft[]): Draft {
  const wait = ({ bond }: Closing) => Math.max(TIMES.dryWait, bond.close?.dry_s ?? 0);
  const longest = renewed.reduce((a, b) => (wait(b) > wait(a) ? b : a));
  return procedureDraft({
    ...at(longest),
    name: 'dry',
    seconds: 0,
    face: null,
    wait_s: wait(longest),
    after: idsOf(wiped),
    ...(renewed.length > 1 ? { joints: renewed.map(({ bond }) => bond.id) } : {}),
  });
}

function lay(closing: Closing, before: readonly Draft[], policy: Policy): Draft {
  const { lay: seconds } = secondsToLay(closing.bond, policy.closing);
  return procedureDraft({ ...at(closing), name: 'lay', seconds, after: idsOf(before) });
}

/** The liner comes off straight before the part goes down: off the seal, or off the new part's own adhesive. */
function peel(closing: Closing, before: readonly Draft[], isOuter: boolean): Draft {
  return procedureDraft({
    ...at(closing),
    name: 'liner-off',
    seconds: TIMES.liner,
    stage: isOuter ? 'close' : 'rebuild',
    after: idsOf(before),
  });
}

/** A pad or tape that the map leaves to its default is kept where it still sticks. */
function look(closing: Closing): Draft {
  return procedureDraft({ ...at(closing), name: 'tack', seconds: TIMES.tack, after: [] });
}

function pressings(
  { mechanism, remade, policy }: BondContext,
  closings: readonly Closing[],
  ids: ReadonlySet<string>,
): Draft[] {
  const now = closings.flatMap(({ bond, down }) =>
    isSelfParting(bond)
      ? bond.close?.press_s
        ? pressing(bond, down[0]!, policy)
        : []
      : pressing(bond, opId('make', bond.id), policy),
  );
  const before = [...remade].flatMap((number) => {
    const bond = mechanism.map.joints[number]!;
    if (bond.type !== 'bond' || isSelfParting(bond) || ids.has(opId('make', bond.id))) return [];
    return pressing(bond, opId('make', bond.id), policy);
  });
  return [...now, ...before];
}

function pressing(bond: BondJoint, made: string, policy: Policy): Draft[] {
  if (renewalFor(bond, policy.closing) === 'reuse' && !bond.close?.press_s) return [];
  const press = procedureDraft({
    name: 'press',
    joint: bond.id,
    seconds: TIMES.press,
    wait_s: bond.close?.press_s ?? (bond.style === 'perimeter' ? TIMES.pressRound : TIMES.pressWait),
    stage: 'rebuild',
    after: [made],
    early: true,
  });
  const { cure: cure_s } = secondsToLay(bond, policy.closing);
  if (!cure_s) return [press];
  const cure = procedureDraft({
    name: 'cure',
    joint: bond.id,
    seconds: TIMES.cure,
    wait_s: cure_s,
    stage: 'close',
    after: [press.op.id],
    early: true,
  });
  return [press, cure];
}
