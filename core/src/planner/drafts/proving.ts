import type { Part } from '../../model/device-map/index.ts';
import type { Mechanism } from '../holds/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import type { Precedence } from '../search/index.ts';
import { withCounts } from './counts.ts';
import { after, afterBy, type Draft, orderOf, procedureDraft } from './draft.ts';
import { TIMES } from './estimates.ts';
import { withFilmsOff } from './films-off.ts';
import { withLookingThrough } from './looking-through.ts';
import type { Op } from './op.ts';
import { GLASS_FILM_OFF, TEST_AFTER, TEST_BEFORE, thingOf } from './op-id.ts';
import { isGluedAnew, pressedDown } from './pressed-down.ts';
import { batteryProof, setUpDrafts } from './set-up.ts';
import { showable } from './showable.ts';
import { testSeconds, touchedFunctions, triedAtTheEnd } from './touched.ts';
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
  const pressed = pressedDown(mechanism, drafts, path, way);
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
