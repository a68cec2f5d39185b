import { jointById } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import { assembled, carried, type Mechanism, OFF } from '../../planner/holds/index.ts';
import type { JobState } from '../../job/state/index.ts';
import { chosenPart, placesOn } from '../../workshop/parts/index.ts';
import type { Said } from './said.ts';

/** Where a piece is while old and new part lie side by side. */
export type PieceAt = 'old' | 'mat' | 'new' | 'came' | 'renewed';

/** An old part and its new one on the mat: what is on which, and what has no counterpart. */
export interface SideBySide {
  readonly part: string;
  readonly pieces: readonly { readonly part: string; readonly at: PieceAt }[];
  /** joints of the old part that the new one has no place for, as it was found */
  readonly lacks: readonly string[];
  /** joints that it may turn out to have no place for */
  readonly places: readonly string[];
}

/**
 * Old and new side by side at this operation; null where nothing is moved over or compared.
 * @param ahead what is still to be done: pieces stand in its order, those that are over before them
 */
export function sideBySide(
  mechanism: Mechanism,
  state: JobState,
  op: Op | undefined,
  ahead: readonly Op[] = [],
): SideBySide | null {
  const part = op && hostOf(mechanism, state, op);
  const target = part && state.targets.find((each) => 'replace' in each && each.replace === part);
  if (!part || !target || !('replace' in target)) return null;
  const { map } = mechanism;
  const host = mechanism.part.get(part)!;
  const looked = chosenPart(state.parts, part)?.looked;
  const came = new Set(looked?.includes ?? target.newIncludes ?? []);
  const pieces = [...carried(mechanism, assembled(mechanism), host)].filter((each) => each !== host);
  const isLifted = (id: string) => state.done.some((each) => each.kind === 'lift' && each.part === id);
  const isOnNew = (id: string) =>
    state.done.some((each) => each.kind === 'fit' && each.part === id && each.onto === part);
  const at = (number: number): PieceAt => {
    const { id, reuse } = map.parts[number]!;
    if (came.has(id)) return 'came';
    if (isOnNew(id)) return 'new';
    if (reuse === 'single-use') return 'renewed';
    return isLifted(id) ? 'mat' : 'old';
  };
  const turn = (number: number) =>
    ahead.findIndex(({ kind, part: own }) => kind === 'fit' && own === map.parts[number]!.id);
  const lacks = looked?.lacks ?? target.newLacks ?? [];
  return {
    part,
    pieces: pieces
      .toSorted((a, b) => turn(a) - turn(b))
      .map((number) => ({ part: map.parts[number]!.id, at: at(number) })),
    lacks,
    places: placesOn(mechanism, part).flatMap(({ id }) => (lacks.includes(id) ? [] : [id])),
  };
}

/** The part that is replaced, lies on the mat, and is worked on or compared. */
function hostOf({ map, part }: Mechanism, { device }: JobState, { name, kind, part: own, joint, onto }: Op) {
  // a base that is replaced lies by itself beside the new one
  if (name === 'take-up') return own;
  const to = jointById(map, joint)?.to;
  // what goes in with nothing named that it goes onto goes into the device
  const about = name === 'compare' ? own : (onto ?? to ?? (kind === 'fit' ? undefined : own));
  const number = about === undefined ? undefined : part.get(about);
  if (number === undefined) return undefined;
  const host = device.group[number]!;
  return device.status[host] === OFF ? map.parts[host]!.id : undefined;
}

/**
 * A hole or socket has no counterpart on the new part: decided and recorded with its reason, at the desk where the part was looked at
 * there, else with the job. Its screws are left over, and it is not made again.
 */
export function noPlaceFor({ parts, targets }: JobState, part: string, joint: string, text: string): Said {
  const own = chosenPart(parts, part);
  if (own?.looked) {
    const { looked } = own;
    return { type: 'part-looked', data: { part: own.id, ...looked, lacks: [...looked.lacks, joint], text } };
  }
  const changed = targets.map((each) =>
    'replace' in each && each.replace === part ? { ...each, newLacks: [...(each.newLacks ?? []), joint] } : each,
  );
  return { type: 'targets', data: { targets: changed, text } };
}
