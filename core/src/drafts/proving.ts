import { isOuter } from '../device-map/index.ts';
import type { DeviceState, Mechanism, StripOp } from '../holds/index.ts';
import { withAllPredecessors } from './task.ts';
import { TIMES } from './estimates.ts';
import { after, type Draft, procedureDraft } from './draft.ts';
import type { Stage } from './op.ts';
import { opId, TEST_AFTER, thingOf } from './op-id.ts';
import type { Policy } from '../policy/index.ts';
import type { Precedence } from '../search/index.ts';

/**
 * Counts, tests, films and the first start, set among the drafts of a rebuild.
 *
 * What closes the device is everything that the path to it had to undo before the device could be made dead: its outer
 * bonds, and covers and displays closed. The test before sealing stands after all else and before that.
 */
export function withProving(
  mechanism: Mechanism,
  state: DeviceState,
  drafts: readonly Draft[],
  path: Precedence,
  replaced: ReadonlySet<number>,
  policy: Policy,
): Draft[] {
  if (drafts.length === 0 && path.ops.length === 0) return [];
  const closing = closingIds(mechanism, path, drafts);
  const ordered = new Map(withAllPredecessors(drafts.map(({ task }) => task)).map((task) => [task.id, task.after]));
  const afterClosing = (id: string) => closing.has(id) || [...closing].some((each) => ordered.get(id)!.has(each));
  const untilClosed = drafts.filter(
    ({ op }) => !afterClosing(op.id) && !(op.joint && closing.has(opId('lay', op.joint))),
  );
  const functions = touchedFunctions(mechanism, path.ops, replaced);
  const seconds = testSeconds(functions);

  const films = filmsOff(mechanism, state, drafts, replaced);
  const proofs: Draft[] = [];
  let waiting: string[] = [];
  const stand = (draft: Draft) => {
    proofs.push(draft);
    waiting = [draft.op.id];
  };
  const earlier = () => [...untilClosed.map(({ op }) => op.id), ...waiting];
  const mark = (name: 'count' | 'power-on' | 'test', of: string | undefined, duration: number, stage: Stage) =>
    procedureDraft({ name, of, seconds: duration, stage, after: earlier(), ...(name === 'test' ? { functions } : {}) });

  if (closing.size > 0) {
    stand(mark('count', 'close', TIMES.count, 'close'));
    if (policy.test === 'before-and-after') {
      if (mechanism.map.procedures?.firstStart) stand(mark('power-on', undefined, TIMES.powerOn, 'prove'));
      stand(mark('test', 'before', seconds, 'prove'));
    }
  }
  const cells = batteryCounts(mechanism, drafts, ordered);
  const body = drafts.map((draft) => {
    const own = [
      ...(closing.has(draft.op.id) ? waiting : []),
      ...films.filter((film) => film.until.includes(draft.op.id)).map((film) => film.draft.op.id),
      ...cells.filter((cell) => cell.until === draft.op.id).map((cell) => cell.draft.op.id),
    ];
    const staged = afterClosing(draft.op.id) ? { ...draft, op: { ...draft.op, stage: 'close' as const } } : draft;
    return own.length > 0 ? after(staged, own) : staged;
  });
  const all = [...body, ...proofs, ...films.map((film) => film.draft), ...cells.map((cell) => cell.draft)];
  const last = closing.size > 0 ? [] : [lastCount(all)];
  const everything = [...all, ...last].map(({ op }) => op.id);
  const final = procedureDraft({
    name: 'test',
    of: thingOf(TEST_AFTER),
    seconds,
    functions,
    stage: 'prove',
    after: everything,
  });
  return [...all, ...last, final];
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

/** The operations that seal the device, none where nothing isolates it on the way. */
function closingIds(mechanism: Mechanism, path: Precedence, drafts: readonly Draft[]): Set<string> {
  const ids = new Set<string>(drafts.map(({ op }) => op.id));
  const { alone, together, battery } = mechanism.isolation;
  const isolates = (op: StripOp) =>
    op.kind === 'release'
      ? alone.includes(op.joint) || together.includes(op.joint)
      : alone.length + together.length === 0 && op.kind === 'lift' && op.part === battery;
  const before = path.ops.flatMap((op, index) => (isolates(op) ? [...path.before[index]!] : []));
  const closing = before.flatMap((index): string[] => {
    const op = path.ops[index]!;
    if (op.kind === 'release') {
      const joint = mechanism.map.joints[op.joint]!;
      return joint.type === 'bond' && joint.style !== 'tape' ? [opId('lay', joint.id), opId('make', joint.id)] : [];
    }
    const part = mechanism.map.parts[op.part]!;
    if (!isOuter(part)) return [];
    return ids.has(opId('close', part.id)) ? [opId('close', part.id)] : [opId('fit', part.id)];
  });
  return new Set(closing.filter((id) => ids.has(id)));
}

/** The functions that work as it was done, or is planned, could have touched: these are tried. */
export function testedFunctions(
  mechanism: Mechanism,
  done: readonly { readonly kind: string; readonly joint?: string; readonly part?: string; readonly new?: boolean }[],
): string[] {
  const { part, joint } = mechanism;
  const ops = done.flatMap((op): StripOp[] => {
    if (op.kind === 'release' && joint.has(op.joint ?? '')) return [{ kind: 'release', joint: joint.get(op.joint!)! }];
    if ((op.kind === 'open' || op.kind === 'lift') && part.has(op.part ?? ''))
      return [{ kind: op.kind, part: part.get(op.part!)! }];
    return [];
  });
  const replaced = done.flatMap((op) =>
    op.kind === 'fit' && op.new && part.has(op.part!) ? [part.get(op.part!)!] : [],
  );
  return touchedFunctions(mechanism, ops, new Set(replaced));
}

/** Hands-on seconds of a test of so many functions. */
export function testSeconds(functions: readonly string[]): number {
  return Math.max(TIMES.testLeast, TIMES.testEach * functions.length);
}

/** Every function that could have been touched: by what was moved, unplugged, or parted by itself. */
function touchedFunctions(mechanism: Mechanism, ops: readonly StripOp[], replaced: ReadonlySet<number>): string[] {
  const { map } = mechanism;
  const parts = new Set(ops.flatMap((op) => (op.kind === 'release' ? [] : [op.part])));
  replaced.forEach((part) => parts.add(part));
  const joints = new Set(ops.flatMap((op) => (op.kind === 'release' ? [op.joint] : [])));
  map.joints.forEach((_, joint) => {
    const parted = mechanism.selfParting[joint] && mechanism.held[joint]!.some((part) => parts.has(part));
    if (parted) joints.add(joint);
  });
  const touched = new Set([
    ...[...parts].flatMap((part) => map.parts[part]!.functions ?? []),
    ...[...joints].flatMap((joint) => {
      const each = map.joints[joint]!;
      return 'functions' in each ? (each.functions ?? []) : [];
    }),
  ]);
  return map.functions.filter((each) => touched.has(each.id)).map((each) => each.id);
}

interface Before {
  readonly draft: Draft;
  readonly until: readonly string[];
}

/** Films off what was covered while bare, and off new faces, before something lies over them. */
function filmsOff(
  mechanism: Mechanism,
  state: DeviceState,
  drafts: readonly Draft[],
  replaced: ReadonlySet<number>,
): Before[] {
  const ids = new Set<string>(drafts.map(({ op }) => op.id));
  return mechanism.map.parts.flatMap((part, number): Before[] => {
    const fresh = replaced.has(number) && (part.film || part.kind === 'display' || part.kind === 'cover');
    const over = (part.under ?? []).flatMap((entry) => ('part' in entry ? [entry.part] : []));
    const covered = over.some((id) => state.status[mechanism.part.get(id)!] !== 0);
    if (!fresh && !(part.film && covered)) return [];
    const until = over.length > 0 ? over.flatMap((id) => downOf(ids, id)) : downOf(ids, part.id);
    const draft = procedureDraft({
      name: 'film-off',
      part: part.id,
      seconds: TIMES.filmPart,
      stage: 'rebuild',
      after: [],
    });
    return [{ draft, until }];
  });
}

function downOf(ids: ReadonlySet<string>, part: string): string[] {
  return [opId('close', part), opId('fit', part)].filter((id) => ids.has(id)).slice(0, 1);
}

/** All screws are accounted for before a cell goes in. */
function batteryCounts(
  mechanism: Mechanism,
  drafts: readonly Draft[],
  ordered: ReadonlyMap<string, ReadonlySet<string>>,
): { draft: Draft; until: string }[] {
  return mechanism.isolation.cells.flatMap((cell) => {
    const { id } = mechanism.map.parts[cell]!;
    const until = opId('fit', id);
    if (!drafts.some(({ op }) => op.id === until)) return [];
    const draft = procedureDraft({
      name: 'count',
      of: id,
      seconds: TIMES.count,
      stage: 'rebuild',
      after: ordered.get(until)!,
    });
    return [{ draft, until }];
  });
}
