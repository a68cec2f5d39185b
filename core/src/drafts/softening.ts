import { type BondJoint } from '../device-map/index.ts';
import { type Mechanism } from '../holds/index.ts';
import { heatOf, isSoftened, TIMES } from './estimates.ts';
import { after, type Draft, procedureDraft } from './draft.ts';
import type { Stage } from './op.ts';
import { opId } from './op-id.ts';
import type { Policy } from '../policy/index.ts';
import type { Precedence } from '../search/index.ts';

/** One heating, and the cuts that follow it directly. */
interface HeatBlock {
  readonly id: string;
  readonly bond: BondJoint;
  readonly tool: string;
  readonly wait_s: number;
  readonly cuts: readonly number[];
}

export function heatBlocks(mechanism: Mechanism, precedence: Precedence, policy: Policy): HeatBlock[] {
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

export function heatDraft(
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
export function withSoaks(drafts: readonly Draft[], soaks: readonly Draft[]): Draft[] {
  return drafts.map((draft) => {
    const soak = soaks.find((each) => opId('release', each.op.joint) === draft.op.id);
    return soak ? after(draft, [soak.op.id]) : draft;
  });
}

/** Solvent only after the last heat; where heat has to follow it all the same, the bench is aired between them. */
export function apart(drafts: readonly Draft[], soaks: readonly Draft[]): Draft[] {
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
