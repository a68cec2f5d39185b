import { type BondJoint, isOuter } from '../device-map/index.ts';
import {
  applied,
  type DeviceState,
  groupOfJoint,
  isDead,
  isMarkedLive,
  type Mechanism,
  type StripOp,
} from '../holds/index.ts';
import { heatOf, isSoftened, TIMES } from './estimates.ts';
import { after, type Draft, physicalDraft, procedureDraft } from './draft.ts';
import type { Stage } from './op.ts';
import { opId, physicalId } from './op-id.ts';
import type { Policy } from '../policy/index.ts';
import type { Precedence } from '../search/index.ts';

/** The strip-down as drafts: the chosen operations, and the procedures that belong before them. */
export function stripDrafts(
  mechanism: Mechanism,
  start: DeviceState,
  precedence: Precedence,
  policy: Policy,
  live: ReadonlySet<number>,
): Draft[] {
  if (precedence.ops.length === 0) return [];
  const ids = precedence.ops.map((op) => physicalId(mechanism, op));
  const before = precedence.before.map((each) => [...each].map((index) => ids[index]!));
  const first = removedFirst(mechanism, precedence, ids, before);
  const opened = isOpenAlready(mechanism, start) ? -1 : openingIndex(mechanism, precedence, first, ids);
  const stageOf = (index: number): Stage => (first.has(ids[index]!) ? 'prepare' : index <= opened ? 'open' : 'strip');
  const work = workDrafts(mechanism, start, precedence, policy, live, stageOf);
  return withPreparation(mechanism, start, [...work, ...filmDrafts(mechanism, ids)], first);
}

/** Operations with their heat and solvent; also what comes off an old part on the mat is warmed and soaked. */
export function workDrafts(
  mechanism: Mechanism,
  start: DeviceState,
  precedence: Precedence,
  policy: Policy,
  live: ReadonlySet<number>,
  stageOf: (index: number) => Stage,
): Draft[] {
  const ids = precedence.ops.map((op) => physicalId(mechanism, op));
  const before = precedence.before.map((each) => [...each].map((index) => ids[index]!));
  const onMat = placesOnMat(mechanism, start, precedence.ops);
  const blocks = heatBlocks(mechanism, precedence, policy);
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
  const heats = blocks.map((block) => heatDraft(mechanism, block, precedence, ids, before, onMat, stageOf));
  const soaks = soakDrafts(mechanism, precedence, policy, before, onMat, stageOf);
  const liquid = soaks.filter(({ op }) => op.name === 'soak');
  return apart(withSoaks([...drafts, ...heats, ...soaks.filter(({ op }) => op.name === 'heat')], liquid), liquid);
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

/** One heating, and the cuts that follow it directly. */
interface HeatBlock {
  readonly id: string;
  readonly bond: BondJoint;
  readonly tool: string;
  readonly wait_s: number;
  readonly cuts: readonly number[];
}

function heatBlocks(mechanism: Mechanism, precedence: Precedence, policy: Policy): HeatBlock[] {
  const groups = new Map<string, number[][]>();
  precedence.ops.forEach((op, index) => {
    const bond = op.kind === 'release' ? mechanism.map.joints[op.joint]! : null;
    if (bond?.type !== 'bond' || !heatOf(mechanism.map, bond, policy)) return;
    const key = bond.heatGroup === undefined ? `joint ${bond.id}` : `group ${bond.heatGroup}`;
    const blocks = groups.get(key) ?? [];
    groups.set(key, blocks);
    const last = blocks.at(-1);
    // what has to be done between two cuts of a group lets the bond grow cold
    const interrupted = [...precedence.before[index]!].some(
      (between) => !last?.includes(between) && last?.some((cut) => precedence.before[between]!.has(cut)),
    );
    if (last && !interrupted) last.push(index);
    else blocks.push([index]);
  });
  return [...groups.values()].flat().map((cuts) => {
    const bond = bondAt(mechanism, precedence, cuts[0]!);
    const source = heatOf(mechanism.map, bond, policy)!;
    return { id: opId('heat', bond.id), bond, tool: source.tool, wait_s: source.wait_s, cuts };
  });
}

function bondAt(mechanism: Mechanism, { ops }: Precedence, index: number): BondJoint {
  return mechanism.map.joints[(ops[index] as { joint: number }).joint] as BondJoint;
}

function heatDraft(
  mechanism: Mechanism,
  block: HeatBlock,
  precedence: Precedence,
  ids: readonly string[],
  before: readonly (readonly string[])[],
  onMat: readonly boolean[],
  stageOf: (index: number) => Stage,
): Draft {
  const cuts = new Set(block.cuts.map((index) => ids[index]!));
  const earlier = block.cuts.flatMap((index) => before[index]!).filter((id) => !cuts.has(id));
  const zones = new Set((block.bond.segments ?? []).map((each) => each.zone).filter((zone) => zone !== undefined));
  const rounds = Math.max(1, zones.size);
  return procedureDraft({
    name: 'heat',
    joint: block.bond.id,
    seconds: TIMES.heat * rounds,
    wait_s: block.wait_s * rounds,
    tool: block.tool,
    face: onMat[block.cuts[0]!] ? null : (block.bond.heatFace ?? bondAt(mechanism, precedence, block.cuts[0]!).face),
    stage: stageOf(block.cuts[0]!),
    after: earlier,
    block: block.id,
    starts: true,
  });
}

/** Solvent is for bonds that are not heated in this plan: the two never meet. */
function soakDrafts(
  mechanism: Mechanism,
  precedence: Precedence,
  policy: Policy,
  before: readonly (readonly string[])[],
  onMat: readonly boolean[],
  stageOf: (index: number) => Stage,
): Draft[] {
  const cells = new Set(mechanism.isolation.cells.map((cell) => mechanism.map.parts[cell]!.id));
  return precedence.ops.flatMap((op, index): Draft[] => {
    const bond = op.kind === 'release' ? mechanism.map.joints[op.joint]! : null;
    if (bond?.type !== 'bond' || heatOf(mechanism.map, bond, policy)) return [];
    const softened = isSoftened(bond, cells, policy);
    if (!bond.solvent && !softened) return [];
    const common = { joint: bond.id, face: onMat[index] ? null : bond.face, stage: stageOf(index) } as const;
    const soak = procedureDraft({
      ...common,
      name: 'soak',
      seconds: TIMES.soak,
      wait_s: bond.solvent?.soak_s ?? TIMES.cellSoak,
      after: [...before[index]!, ...(softened ? [opId('heat', bond.id)] : [])],
    });
    if (!softened) return [soak];
    // warmed first, the source off and away, and only then solvent
    const warm = procedureDraft({
      ...common,
      name: 'heat',
      tool: 'warm pack',
      seconds: TIMES.heat,
      wait_s: TIMES.packWait,
      after: before[index]!,
    });
    return [warm, soak];
  });
}

/** A soak stands before its cut. */
function withSoaks(drafts: readonly Draft[], soaks: readonly Draft[]): Draft[] {
  return drafts.map((draft) => {
    const soak = soaks.find((each) => opId('release', each.op.joint) === draft.op.id);
    return soak ? after(draft, [soak.op.id]) : draft;
  });
}

/** Solvent only after the last heat; where heat has to follow it all the same, the bench is aired between them. */
function apart(drafts: readonly Draft[], soaks: readonly Draft[]): Draft[] {
  const heats = drafts.filter(({ op }) => op.name === 'heat');
  const followsSoak = (heat: Draft, soak: Draft) => heat.task.after.has(opId('release', soak.op.joint));
  const vents = heats.flatMap((heat) => {
    const soaked = soaks.filter((soak) => followsSoak(heat, soak));
    if (soaked.length === 0) return [];
    const vent = {
      id: opId('vent', heat.op.joint),
      name: 'vent',
      seconds: TIMES.vent,
      wait_s: TIMES.ventWait,
    } as const;
    return [procedureDraft({ ...vent, stage: 'strip', after: soaked.map(({ op }) => op.id) })];
  });
  const vented = drafts.map((draft) => {
    const vent = vents.find(({ op }) => draft.op.name === 'heat' && op.id === opId('vent', draft.op.joint));
    return vent ? after(draft, [vent.op.id]) : draft;
  });
  const cooled = soaks.map((soak) =>
    after(
      soak,
      heats.filter((heat) => !followsSoak(heat, soak)).map(({ op }) => op.id),
    ),
  );
  return [...vented, ...vents, ...cooled];
}

/** Parts that are covered with film while they are bare, once what lies over them is gone. */
function filmDrafts(mechanism: Mechanism, ids: readonly string[]): Draft[] {
  return mechanism.map.parts.flatMap((part): Draft[] => {
    if (!part.film) return [];
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
      }),
    ];
  });
}

/** Powered off before all else; film over the glass before anything is heated, cut or opened. */
function withPreparation(
  mechanism: Mechanism,
  start: DeviceState,
  drafts: readonly Draft[],
  first: ReadonlySet<string>,
): Draft[] {
  const preparation: Draft[] = [];
  // what a tray's own removal needs comes before the film, with the heat it takes
  const own = new Set([
    ...first,
    ...drafts.filter(({ op }) => first.has(op.id)).flatMap(({ task }) => [...task.after]),
  ]);
  let prepared = [...drafts];
  const atRisk = prepared.some(
    ({ op }) =>
      op.name === 'heat' ||
      ((op.kind === 'open' || op.kind === 'lift') &&
        mechanism.map.parts[mechanism.part.get(op.part!)!]!.hazards?.includes('glass')),
  );
  if (atRisk) {
    const film = procedureDraft({ name: 'film', seconds: TIMES.film, stage: 'prepare', after: own });
    preparation.push(film);
    prepared = prepared.map((draft) =>
      opensOrHeats(mechanism, draft) && !own.has(draft.op.id) ? after(draft, ['film']) : draft,
    );
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

function opensOrHeats(mechanism: Mechanism, { op }: Draft): boolean {
  if (op.name === 'heat' || op.kind === 'open' || op.kind === 'lift') return true;
  return op.kind === 'release' && mechanism.map.joints[mechanism.joint.get(op.joint!)!]!.type === 'bond';
}
