import { type Face, isOuter, type Part } from '../../model/device-map/index.ts';
import {
  applied,
  type DeviceState,
  groupOfJoint,
  isDead,
  isMarkedLive,
  type Mechanism,
  type StripOp,
} from '../holds/index.ts';
import { TIMES } from './estimates.ts';
import { after, type Draft, physicalDraft, procedureDraft } from './draft.ts';
import type { Stage } from './op.ts';
import { opId, physicalId } from './op-id.ts';
import type { Policy } from '../../model/policy/index.ts';
import type { Precedence } from '../search/index.ts';
import { type HeatBlock, heatDraft, soakDrafts, withSoaks } from './softening.ts';

/** The strip-down as drafts: the chosen operations, and the procedures that belong before them. */
export function stripDrafts(
  mechanism: Mechanism,
  start: DeviceState,
  precedence: Precedence,
  policy: Policy,
  live: ReadonlySet<number>,
  blocks: readonly HeatBlock[],
  replaced: ReadonlySet<number>,
): Draft[] {
  if (precedence.ops.length === 0) return [];
  const ids = precedence.ops.map((op) => physicalId(mechanism, op));
  const before = precedence.before.map((each) => [...each].map((index) => ids[index]!));
  const first = removedFirst(mechanism, precedence, ids, before);
  const opened = isOpenAlready(mechanism, start) ? -1 : openingIndex(mechanism, precedence, first, ids);
  const stageOf = (index: number): Stage => (first.has(ids[index]!) ? 'prepare' : index <= opened ? 'open' : 'strip');
  const work = workDrafts(mechanism, start, precedence, policy, live, blocks, stageOf);
  return withPreparation(mechanism, start, [...work, ...filmDrafts(mechanism, ids, replaced)], first, replaced);
}

/** Operations with their heat and solvent; also what comes off an old part on the mat is warmed and soaked. */
export function workDrafts(
  mechanism: Mechanism,
  start: DeviceState,
  precedence: Precedence,
  policy: Policy,
  live: ReadonlySet<number>,
  blocks: readonly HeatBlock[],
  stageOf: (index: number) => Stage,
): Draft[] {
  const ids = precedence.ops.map((op) => physicalId(mechanism, op));
  const before = precedence.before.map((each) => [...each].map((index) => ids[index]!));
  const onMat = placesOnMat(mechanism, start, precedence.ops);
  const drafts = precedence.ops.map((op, index) => {
    const block = blocks.find((each) => each.cuts.includes(index));
    return physicalDraft(mechanism, {
      physical: op,
      after: [...before[index]!, ...(block ? [block.id] : [])],
      onMat: onMat[index]!,
      policy,
      stage: stageOf(index),
      live: op.kind === 'release' && isMarkedLive(mechanism, live, op.joint),
      block: block?.id,
    });
  });
  const heats = blocks.map((block) =>
    heatDraft(mechanism, block, precedence, ids, before, onMat, stageOf, policy.warm),
  );
  const soaks = soakDrafts(mechanism, precedence, policy, before, onMat, stageOf);
  const liquid = soaks.filter(({ op }) => op.name === 'soak');
  return [...withSoaks([...drafts, ...heats, ...soaks.filter(({ op }) => op.name === 'heat')], liquid), ...liquid];
}

function removedFirst(
  mechanism: Mechanism,
  { ops }: Precedence,
  ids: readonly string[],
  before: readonly (readonly string[])[],
): Set<string> {
  const first = new Set<string>();
  ops.forEach((op, index) => {
    if (op.kind !== 'lift' || !mechanism.map.parts[op.part]!.removeFirst) return;
    first.add(ids[index]!);
    before[index]!.forEach((id) => first.add(id));
  });
  return first;
}

/** Per operation: is it work on the mat, on something that was lifted away from the base before? */
export function placesOnMat(mechanism: Mechanism, start: DeviceState, ops: readonly StripOp[]): boolean[] {
  let state = start;
  return ops.map((op) => {
    const place = op.kind === 'release' ? groupOfJoint(mechanism, state, op.joint) : state.group[op.part]!;
    state = applied(mechanism, state, op);
    return place !== mechanism.base;
  });
}

function isOpenAlready(mechanism: Mechanism, start: DeviceState): boolean {
  return mechanism.map.parts.some((part, number) => isOuter(part) && start.status[number] !== 0);
}

function openingIndex(
  mechanism: Mechanism,
  { ops }: Precedence,
  first: ReadonlySet<string>,
  ids: readonly string[],
): number {
  return ops.findIndex(
    (op, index) => op.kind !== 'release' && !first.has(ids[index]!) && isOuter(mechanism.map.parts[op.part]!),
  );
}

/** Parts that are covered with film while they are bare, once what lies over them is gone; those that go back in. */
function filmDrafts(mechanism: Mechanism, ids: readonly string[], replaced: ReadonlySet<number>): Draft[] {
  return mechanism.map.parts.flatMap((part, number): Draft[] => {
    if (!part.film || replaced.has(number)) return [];
    const over = (part.under ?? []).flatMap((entry) =>
      'part' in entry ? [opId('open', entry.part), opId('lift', entry.part)].filter((id) => ids.includes(id)) : [],
    );
    const baredBy = over.length > 0 ? over : ids.filter((id) => id === opId('lift', part.id));
    if (baredBy.length === 0) return [];
    return [
      procedureDraft({
        name: 'film',
        part: part.id,
        seconds: TIMES.filmPart,
        stage: 'strip',
        after: baredBy.slice(0, 1),
        early: true,
      }),
    ];
  });
}

const OTHER_FACE: Readonly<Record<Face, Face | undefined>> = { front: 'back', back: 'front', edge: undefined };

/** Powered off before all else; film over the glass before the first screw, where it is opened, heated or lies face down. */
function withPreparation(
  mechanism: Mechanism,
  start: DeviceState,
  drafts: readonly Draft[],
  first: ReadonlySet<string>,
  replaced: ReadonlySet<number>,
): Draft[] {
  const preparation: Draft[] = [];
  // what a tray's own removal needs comes before the film, with the heat it takes
  const own = new Set([
    ...first,
    ...drafts.filter(({ op }) => first.has(op.id)).flatMap(({ task }) => [...task.after]),
  ]);
  let prepared = [...drafts];
  const isGlass = (part: Part) => part.hazards?.includes('glass') === true;
  // a broken pane that is replaced needs no film
  const stays = mechanism.map.parts.some((part, number) => isOuter(part) && isGlass(part) && !replaced.has(number));
  const atRisk = prepared.some(
    ({ op }) =>
      op.name === 'heat' ||
      ((op.kind === 'open' || op.kind === 'lift') && isGlass(mechanism.map.parts[mechanism.part.get(op.part!)!]!)),
  );
  // turned over it lies on its glass
  const liesOn = mechanism.map.parts.some(
    (part, number) =>
      isOuter(part) &&
      isGlass(part) &&
      !replaced.has(number) &&
      prepared.some(({ op }) => !own.has(op.id) && op.face === OTHER_FACE[part.face]),
  );
  if ((atRisk || liesOn) && stays) {
    const film = procedureDraft({ name: 'film', seconds: TIMES.film, stage: 'prepare', after: own });
    preparation.push(film);
    prepared = prepared.map((draft) => (own.has(draft.op.id) ? draft : after(draft, ['film'])));
  }
  if (mechanism.map.battery && !isDead(mechanism, start)) {
    const off = procedureDraft({
      name: 'power-off',
      seconds: TIMES.powerOff,
      stage: 'prepare',
      after: [],
    });
    return [off, ...[...preparation, ...prepared].map((draft) => after(draft, ['power-off']))];
  }
  return [...preparation, ...prepared];
}
