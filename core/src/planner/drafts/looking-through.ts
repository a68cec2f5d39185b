import { type DeviceMap, isOuter, type Part } from '../../model/device-map/index.ts';
import type { Mechanism } from '../holds/index.ts';
import type { Precedence } from '../search/index.ts';
import { afterBy, type Draft, procedureDraft } from './draft.ts';
import { TIMES } from './estimates.ts';
import { downOf, opId, TEST_BEFORE, thingOf } from './op-id.ts';
import { PartialOrder } from './partial-order.ts';
import type { WayUp } from './way-up.ts';

/**
 * A camera, lens or window that lay bare is wiped and looked through before it is covered again: straight before what it
 * looks out through goes down on it, else before it goes in itself. One with a film of its own is wiped when that comes
 * off.
 * @param path everything that was undone at any time in this job
 * @param turn where each operation stands on the way back, as far as the map leaves it open
 */
export function withLookingThrough(
  { map, part, joint }: Mechanism,
  path: Precedence,
  drafts: readonly Draft[],
  way: WayUp,
  turn: ReadonlyMap<string, number>,
): Draft[] {
  const ids = new Set<string>(drafts.map(({ op }) => op.id));
  const moved = new Set(path.ops.flatMap((op) => (op.kind === 'release' ? [] : [op.part])));
  const bare = map.parts.filter((each) => isLooking(each) && !ids.has(opId('film-off', each.id)));
  if (bare.length === 0) return [...drafts];
  const known = new PartialOrder(drafts);
  const looks = bare.flatMap((lens): Look[] => {
    const own = opId('fit', lens.id);
    const covers = map.parts.filter((each) => moved.has(part.get(each.id)!) && looksOutThrough(map, lens, each));
    // what goes down before the lens itself does not cover it
    const isFirst = (id: string) =>
      known.comesBefore(id, own) || (!known.comesBefore(own, id) && (turn.get(id) ?? 0) < (turn.get(own) ?? 0));
    const down = covers.flatMap((each) => downOf(ids, each.id)).filter((id) => !ids.has(own) || !isFirst(id));
    if (down.length > 0) return [{ draft: wipe(lens, down, ids.has(own) ? [own] : [], way), until: down }];
    return ids.has(own) ? [{ draft: wipe(lens, [own], [], way), until: [own] }] : [];
  });
  const order = new PartialOrder([...drafts, ...looks.map(({ draft }) => draft)]);
  for (const { draft, until } of looks) {
    for (const each of until) order.put(draft.op.id, each, 'film');
    for (const each of linersUnder(until)) order.put(draft.op.id, each, 'seal');
  }
  return order.drafts();

  /** A liner is the last thing that comes off before its part goes down. */
  function linersUnder(down: readonly string[]): string[] {
    const parts = new Set(down.map(thingOf));
    return drafts.flatMap(({ op }) =>
      op.name === 'liner-off' && map.joints[joint.get(op.joint!)!]!.holds.some((id) => parts.has(id)) ? [op.id] : [],
    );
  }
}

interface Look {
  readonly draft: Draft;
  /** with what it is covered */
  readonly until: readonly string[];
}

function isLooking({ kind }: Part): boolean {
  return kind === 'camera' || kind === 'lens';
}

function wipe({ id }: Part, until: readonly string[], after: readonly string[], { outerClosings }: WayUp): Draft {
  const draft = procedureDraft({
    name: 'wipe',
    of: `through:${id}`,
    part: id,
    seconds: TIMES.lookThrough,
    stage: 'rebuild',
    after,
  });
  return until.every((each) => outerClosings.has(each)) ? afterBy(draft, 'test', [TEST_BEFORE]) : draft;
}

/** Does a part lie over a lens on the side to which that looks out? */
function looksOutThrough(map: DeviceMap, lens: Part, cover: Part): boolean {
  if (cover.id === lens.id || !(isOuter(cover) || cover.kind === 'lens')) return false;
  const isFarther = looksForward(map, lens) ? cover.z.top <= lens.z.top : cover.z.bottom >= lens.z.bottom;
  if (!isFarther) return false;
  return lies(cover, lens) || (lens.under?.some((each) => 'part' in each && each.part === cover.id) ?? false);
}

function lies(over: Part, lens: Part): boolean {
  const { box } = over;
  const [x, y] = [lens.box.x + lens.box.w / 2, lens.box.y + lens.box.h / 2];
  return over.id !== lens.id && x >= box.x && x <= box.x + box.w && y >= box.y && y <= box.y + box.h;
}

/**
 * Maps say where a camera is reached and not where it looks: out through the window that lies over it; where only others
 * have one, the other way; else to the nearer face (guesses).
 */
function looksForward({ outline, parts }: DeviceMap, camera: Part): boolean {
  const windows = parts.filter(({ kind }) => kind === 'lens');
  const behind = (each: Part) => windows.some((window) => lies(window, each) && window.z.bottom >= each.z.bottom);
  if (windows.some((window) => lies(window, camera) && window.z.top <= camera.z.top)) return true;
  if (behind(camera)) return false;
  if (camera.kind === 'camera' && parts.some((each) => each.kind === 'camera' && behind(each))) return true;
  return (camera.z.top + camera.z.bottom) / 2 < outline.thickness / 2;
}
