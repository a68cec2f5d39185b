import { isOuter, isSelfParting, type Joint, type Part, renewalOf } from '../device-map/index.ts';
import { type Mechanism } from '../holds/index.ts';
import type { Policy } from '../policy/index.ts';
import type { Precedence } from '../search/index.ts';
import { after, afterBy, type Draft, procedureDraft } from './draft.ts';
import { TIMES } from './estimates.ts';
import type { Op } from './op.ts';
import { withLookingThrough } from './looking-through.ts';
import { downOf, GLASS_FILM_OFF, opId, TEST_AFTER, TEST_BEFORE, thingOf } from './op-id.ts';
import { batteryProof, setUpDrafts } from './set-up.ts';
import { showable } from './showable.ts';
import { testSeconds, touchedFunctions, triedAtTheEnd } from './touched.ts';
import { withAllPredecessors, withRules } from './task.ts';
import type { WayUp } from './way-up.ts';

/**
 * Counts, tests, films and the first start, set among the drafts of a rebuild: the screws are counted before a cell goes
 * in and before the device comes alive, and it is tested before anything closes it from outside.
 * @param path everything that was undone at any time in this job
 * @param renewed parts that went in as new ones before this plan was made
 * @param isFilmed this plan lays film over the glass
 * @param turn where each operation stands on the way back, as far as the map leaves it open
 */
export function withProving(
  mechanism: Mechanism,
  drafts: readonly Draft[],
  path: Precedence,
  way: WayUp,
  { replaced, renewed }: { readonly replaced: ReadonlySet<number>; readonly renewed: ReadonlySet<number> },
  policy: Policy,
  isFilmed: boolean,
  turn: ReadonlyMap<string, number>,
): Draft[] {
  if (drafts.length === 0 && path.ops.length === 0) return [];
  const functions = touchedFunctions(mechanism, path.ops, replaced);
  const counted = withCounts(mechanism, drafts, way);
  const filmed = withFilmsOff(mechanism, path, counted, replaced);
  const seen = withLookingThrough(mechanism, path, filmed, way, turn);
  const isNew = ({ id }: Part) => {
    const part = mechanism.part.get(id)!;
    return replaced.has(part) || renewed.has(part);
  };
  const setUp = [...batteryProof(mechanism.map, isNew), ...setUpDrafts(mechanism.map, isNew)];
  const { drafts: closed, shown, last } = withTestBefore(mechanism, seen, path, way, functions, policy, setUp);
  const bare = isFilmed ? [glassFilmOff(closed)] : [];
  const tested = [...closed, ...bare];
  const ids = tested.map(({ op }) => op.id);
  const left = triedAtTheEnd(mechanism, functions, shown, last);
  const final = procedureDraft({
    name: 'test',
    of: thingOf(TEST_AFTER),
    seconds: testSeconds(mechanism, left),
    functions: left,
    ...(left.length < functions.length ? { isRest: true } : {}),
    stage: 'prove',
    after: ids,
  });
  return [...tested, final];
}

/** The film that was laid over the glass at the start comes off at the end. */
function glassFilmOff(drafts: readonly Draft[]): Draft {
  return procedureDraft({
    name: 'film-off',
    of: thingOf(GLASS_FILM_OFF),
    seconds: TIMES.filmPart,
    stage: 'prove',
    after: drafts.map(({ op }) => op.id),
  });
}

interface Closed {
  readonly drafts: Draft[];
  /** functions that are tried before it is closed */
  readonly shown: readonly string[];
  /** what is done after that */
  readonly last: readonly Op[];
}

/**
 * All that is not an outer closing, nor goes in late, comes before the test; and every outer closing after it. What is
 * set up, with the first start, is set up before it is tried.
 */
function withTestBefore(
  mechanism: Mechanism,
  drafts: readonly Draft[],
  path: Precedence,
  way: WayUp,
  functions: readonly string[],
  policy: Policy,
  setUp: readonly Draft[],
): Closed {
  const ordered = orderOf(drafts);
  const pressed = pressedDown(mechanism, drafts, path, way, ordered);
  const triedFirst = new Set(pressed.flatMap(({ down, isTried }) => (isTried ? down : [])));
  const isClosing = ({ op }: Draft) => way.outerClosings.has(op.id) || triedFirst.has(op.id);
  const atTheEnd = (all: readonly Draft[]): Closed => ({
    drafts: [
      ...all,
      ...inTurn(
        setUp,
        all.map(({ op }) => op.id),
      ),
    ],
    shown: [],
    last: [],
  });
  if (!drafts.some(isClosing)) return atTheEnd(drafts);
  const closings = new Set<string>(drafts.filter(isClosing).map(({ op }) => op.id));
  const isLater = ({ op, task }: Draft) =>
    way.late.has(op.id) || task.ruled?.has(TEST_BEFORE) || [...closings].some((id) => ordered.get(op.id)!.has(id));
  const isLast = (draft: Draft) => isClosing(draft) || isLater(draft);
  const first = drafts.filter((draft) => !isLast(draft)).map(({ op }) => op.id);
  const staged = drafts.map((draft): Draft =>
    isLast(draft) ? { ...draft, op: { ...draft.op, stage: 'close' } } : draft,
  );
  if (policy.test !== 'before-and-after') return atTheEnd(staged);
  const start = [...firstStart(mechanism, way), ...setUp];
  const started = inTurn(start, []).map((draft) => afterBy(draft, 'test', first));
  const last = drafts.filter(isLast).map(({ op }) => op);
  const shown = showable(mechanism, functions, last);
  const untried = pressed.flatMap(({ part, isTried }) => (isTried ? [] : [part]));
  const test = procedureDraft({
    name: 'test',
    of: thingOf(TEST_BEFORE),
    seconds: testSeconds(mechanism, shown),
    functions: shown,
    stage: 'prove',
    after: started.map(({ op }) => op.id),
    ...(untried.length > 0 ? { untried } : {}),
    ...(last.some((op) => isGlued(mechanism, op)) ? {} : { isUnsealed: true }),
  });
  const body = staged.map((draft) => (isClosing(draft) ? afterBy(draft, 'test', [test.op.id]) : draft));
  return { drafts: [...body, ...started, afterBy(test, 'test', first)], shown, last };
}

/** Is a bond made with it that is glued anew? */
function isGlued({ map, joint }: Mechanism, { kind, joint: id }: Op): boolean {
  return kind === 'make' && isGluedAnew(map.joints[joint.get(id!)!]!);
}

/** A device that was dead is started as its map says; one that never slept needs no first start. */
function firstStart({ map }: Mechanism, { endsOfDead }: WayUp): Draft[] {
  if (!map.procedures?.firstStart || endsOfDead.size === 0) return [];
  return [procedureDraft({ name: 'power-on', seconds: TIMES.powerOn, stage: 'prove', after: [] })];
}

/** One after the other, all after what comes before them. */
function inTurn(drafts: readonly Draft[], before: readonly string[]): Draft[] {
  return drafts.map((draft, at) => after(draft, [...before, ...drafts.slice(0, at).map(({ op }) => op.id)]));
}

function isGluedAnew(joint: Joint): boolean {
  return joint.type === 'bond' && !isSelfParting(joint) && renewalOf(joint) !== 'reuse' && joint.style !== 'tape';
}

interface PressedDown {
  readonly part: string;
  /** the operations that bring it down for good */
  readonly down: readonly string[];
  /** can it be tried before that? */
  readonly isTried: boolean;
}

/**
 * What is glued shut before the last closings. It is tried before that, unless its own plugs, or what brings the device to
 * life, come only after.
 */
function pressedDown(
  { map, touching, tether, joint: numberOfJoint, part: numberOf }: Mechanism,
  drafts: readonly Draft[],
  path: Precedence,
  way: WayUp,
  ordered: ReadonlyMap<string, ReadonlySet<string>>,
): PressedDown[] {
  const ids = new Set<string>(drafts.map(({ op }) => op.id));
  const undone = new Set(path.ops.flatMap((op) => (op.kind === 'release' ? [op.joint] : [])));
  return map.parts.filter(isOuter).flatMap(({ id }) => {
    const bonds = map.joints.filter(
      (each) => undone.has(numberOfJoint.get(each.id)!) && isGluedAnew(each) && each.holds.includes(id),
    );
    const made = bonds.map((each) => opId('make', each.id));
    if (made.every((each) => way.outerClosings.has(each))) return [];
    const peeled = bonds.map((each) => opId('liner-off', each.id));
    const down = [...peeled, opId('close', id), ...made].filter((each) => ids.has(each));
    const plugs = touching[numberOf.get(id)!]!.filter((joint) => tether[joint]);
    const waits = [...way.endsOfDead, ...plugs.map((joint) => opId('make', map.joints[joint]!.id))];
    const isLate = down.length === 0 || waits.some((each) => down.some((closing) => ordered.get(each)?.has(closing)));
    return [{ part: id, down, isTried: !isLate }];
  });
}

function orderOf(drafts: readonly Draft[]): ReadonlyMap<string, ReadonlySet<string>> {
  return new Map(withAllPredecessors(withRules(drafts.map(({ task }) => task))).map((task) => [task.id, task.after]));
}

/** The screws are counted before a cell goes in and before the device comes alive, else before it is closed. */
function withCounts(mechanism: Mechanism, drafts: readonly Draft[], way: WayUp): Draft[] {
  const ordered = orderOf(drafts);
  const ids = new Set<string>(drafts.map(({ op }) => op.id));
  const cells = mechanism.isolation.cells.flatMap((cell) => {
    const { id } = mechanism.map.parts[cell]!;
    return ids.has(opId('fit', id)) ? [{ of: id, until: [opId('fit', id) as string] }] : [];
  });
  const inOrder = (kinds: ReadonlySet<string>) =>
    drafts.flatMap(({ op }) => (kinds.has(op.id) ? [op.id as string] : []));
  const ends = inOrder(way.endsOfDead).filter((id) => !cells.some(({ until }) => until.includes(id)));
  const closings = inOrder(way.outerClosings);
  const alive = ends.length > 0 ? [{ of: 'dead', until: ends }] : [];
  const physical = new Set(drafts.flatMap(({ op, task }) => (task.physical ? [op.id as string] : [])));
  // in all of this job, also where it was done already
  const isCounted =
    way.endsOfDead.size > 0 ||
    mechanism.isolation.cells.some((cell) => way.follows.has(opId('fit', mechanism.map.parts[cell]!.id)));
  const closed = !isCounted && closings.length > 0 ? [{ of: 'close', until: closings }] : [];
  const counts = [...cells, ...alive, ...closed].map(({ of, until }) => {
    const draft = procedureDraft({ name: 'count', of, seconds: TIMES.count, stage: 'rebuild', after: [] });
    const below = inCommon(until.map((id) => ordered.get(id)!)).filter((id) => physical.has(id));
    return { until, draft: afterBy(draft, 'count', below) };
  });
  const body = drafts.map((draft) =>
    counts
      .filter(({ until }) => until.includes(draft.op.id))
      .reduce((each, count) => afterBy(each, 'count', [count.draft.op.id]), draft),
  );
  const all = [...body, ...counts.map(({ draft }) => draft)];
  return isCounted || way.outerClosings.size > 0 ? all : [...all, lastCount(all)];
}

function inCommon(sets: readonly ReadonlySet<string>[]): string[] {
  const [first, ...others] = sets;
  return [...(first ?? [])].filter((each) => others.every((other) => other.has(each)));
}

function lastCount(drafts: readonly Draft[]): Draft {
  return procedureDraft({
    name: 'count',
    of: 'close',
    seconds: TIMES.count,
    stage: 'close',
    after: drafts.map(({ op }) => op.id),
  });
}

/** A count is made once where no screw went in since the last one. */
export function withoutIdleCounts(mechanism: Mechanism, ops: readonly Op[]): Op[] {
  const { map, joint } = mechanism;
  let isNew = true;
  const idle = new Set<string>();
  for (const op of ops) {
    if (op.kind === 'make' && map.joints[joint.get(op.joint!)!]!.type === 'screw') isNew = true;
    if (op.name !== 'count') continue;
    if (!isNew) idle.add(op.id);
    isNew = false;
  }
  if (idle.size === 0) return [...ops];
  return ops
    .filter((op) => !idle.has(op.id))
    .map((op) => ({ ...op, notBefore: op.notBefore.filter((id) => !idle.has(id)) }));
}

/** Films off what was covered while bare, and off new parts before the first piece goes on them. */
function withFilmsOff(
  mechanism: Mechanism,
  path: Precedence,
  drafts: readonly Draft[],
  replaced: ReadonlySet<number>,
): Draft[] {
  const moved = new Set(path.ops.flatMap((op) => (op.kind === 'release' ? [] : [op.part])));
  const lifted = new Set(path.ops.flatMap((op) => (op.kind === 'lift' ? [op.part] : [])));
  const ids = new Set<string>(drafts.map(({ op }) => op.id));
  const films = mechanism.map.parts.flatMap((part, number): { draft: Draft; until: string[] }[] => {
    const fresh = replaced.has(number) && (part.film || isOuter(part));
    const over = (part.under ?? []).flatMap((entry) => ('part' in entry ? [entry.part] : []));
    const bare = over.length > 0 ? over.some((id) => moved.has(mechanism.part.get(id)!)) : lifted.has(number);
    if (!fresh && !(part.film && bare)) return [];
    const down = over.length > 0 ? over.flatMap((id) => downOf(ids, id)) : downOf(ids, part.id);
    if (!fresh && down.length === 0) return [];
    const until = fresh ? [...down, ...opsOnto(drafts, number), opId('fit', part.id)] : down;
    const draft = procedureDraft({
      name: 'film-off',
      part: part.id,
      seconds: TIMES.filmPart,
      stage: 'rebuild',
      after: [],
    });
    return [{ draft, until }];
  });
  const body = drafts.map((draft) =>
    afterBy(
      draft,
      'film',
      films.flatMap((film) => (film.until.includes(draft.op.id) ? [film.draft.op.id] : [])),
    ),
  );
  return [...body, ...films.map(({ draft }) => draft)];
}

/** What is put on a part while it lies on the mat. */
function opsOnto(drafts: readonly Draft[], part: number): string[] {
  return drafts.flatMap(({ op, task }) =>
    task.physical?.kind === 'fit' && task.physical.onto === part ? [op.id as string] : [],
  );
}
