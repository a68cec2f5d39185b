import { type BondJoint } from '../../model/device-map/index.ts';
import { type Mechanism } from '../holds/index.ts';
import { heatOf, isSoftened, TIMES } from './estimates.ts';
import { after, type Draft, procedureDraft } from './draft.ts';
import { type Op, procedureOp, type Stage } from './op.ts';
import { opId } from './op-id.ts';
import type { Policy } from '../../model/policy/index.ts';
import type { Precedence } from '../search/index.ts';

/** One heating, and the cuts that follow it directly. */
export interface HeatBlock {
  readonly id: string;
  readonly bond: BondJoint;
  readonly tool: string;
  readonly wait_s: number;
  readonly cuts: readonly number[];
}

/** @param phaseOf bonds of a heat group that belong to several phases are warmed once in each */
export function heatBlocks(
  mechanism: Mechanism,
  precedence: Precedence,
  policy: Policy,
  phaseOf: (index: number) => string = () => '',
): HeatBlock[] {
  const groups = new Map<string, number[][]>();
  precedence.ops.forEach((op, index) => {
    const bond = op.kind === 'release' ? mechanism.map.joints[op.joint]! : null;
    if (bond?.type !== 'bond' || !heatOf(mechanism.map, bond, policy)) return;
    const key = bond.heatGroup === undefined ? `joint ${bond.id}` : `group ${phaseOf(index)} ${bond.heatGroup}`;
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

/** The same precedence, with every cut of a block after all that any cut of it waits for. */
export function withBlocks(precedence: Precedence, blocks: readonly HeatBlock[]): Precedence {
  const shared = blocks.filter(({ cuts }) => cuts.length > 1);
  if (shared.length === 0) return precedence;
  const before = precedence.before.map((each) => new Set(each));
  for (let size = -1, now = 0; size !== now;) {
    size = now;
    for (const { cuts } of shared) {
      const waited = new Set(cuts.flatMap((cut) => [...before[cut]!]).filter((each) => !cuts.includes(each)));
      for (const cut of cuts) waited.forEach((each) => before[cut]!.add(each));
    }
    for (const each of before) for (const earlier of each) before[earlier]!.forEach((one) => each.add(one));
    now = before.reduce((sum, each) => sum + each.size, 0);
  }
  return { ...precedence, before };
}

export function heatDraft(
  mechanism: Mechanism,
  block: HeatBlock,
  precedence: Precedence,
  ids: readonly string[],
  before: readonly (readonly string[])[],
  onMat: readonly boolean[],
  stageOf: (index: number) => Stage,
  warm: Policy['warm'],
): Draft {
  const cuts = new Set(block.cuts.map((index) => ids[index]!));
  const earlier = block.cuts.flatMap((index) => before[index]!).filter((id) => !cuts.has(id));
  const rounds = warmings(block.bond, warm);
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

/** Pulled dry first; soaked only once one has snapped. */
const PULLED: ReadonlySet<BondJoint['style']> = new Set(['tabs', 'strap']);

/** How often a bond is warmed for its cut: by its zones as they are mapped, in two halves, or once. */
function warmings(bond: BondJoint, warm: Policy['warm']): number {
  if (warm === 'halves') return 2;
  if (warm !== 'as-mapped') return 1;
  return Math.max(1, new Set((bond.segments ?? []).flatMap(({ zone }) => (zone === undefined ? [] : [zone]))).size);
}

/** Solvent is for bonds that are not heated in this plan: the two never meet. */
export function soakDrafts(
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
    if (!softened && (!bond.solvent || PULLED.has(bond.style))) return [];
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
export function withSoaks(drafts: readonly Draft[], soaks: readonly Draft[]): Draft[] {
  return drafts.map((draft) => {
    const soak = soaks.find((each) => opId('release', each.op.joint) === draft.op.id);
    return soak ? after(draft, [soak.op.id]) : draft;
  });
}

/** Solvent only after the last heat that can come before it. */
export function solventLast(drafts: readonly Draft[]): Draft[] {
  const heats = drafts.filter(({ op }) => op.name === 'heat');
  return drafts.map((draft) => {
    if (draft.op.name !== 'soak') return draft;
    const earlier = heats.filter((heat) => !heat.task.after.has(opId('release', draft.op.joint)));
    return after(
      draft,
      earlier.map(({ op }) => op.id),
    );
  });
}

/** Where heat follows solvent all the same, the bench is aired between them. */
export function withVents(ops: readonly Op[]): Op[] {
  let wet = false;
  return ops.flatMap((op) => {
    if (op.name === 'soak') wet = true;
    if (op.name !== 'heat' || !wet) return [op];
    wet = false;
    const vent = procedureOp({
      name: 'vent',
      of: op.joint,
      seconds: TIMES.vent,
      wait_s: TIMES.ventWait,
      stage: op.stage,
      why: 'Vapour of solvent can catch fire at the heat source.',
      whyNotEarlier: 'After the last solvent.',
    });
    return [vent, op];
  });
}
