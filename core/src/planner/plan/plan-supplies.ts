import { type DeviceMap, fastenerAt, type Joint, jointById, partById } from '../../model/device-map/index.ts';
import { length_mm, renewalFor, type Op } from '../drafts/index.ts';
import type { Policy } from '../../model/policy/index.ts';

export interface ScrewLine {
  readonly fastener: string;
  readonly count: number;
  /** those of them that come out while pieces move over */
  readonly moved: number;
}

export interface Consumable {
  readonly what:
    | 'precut-seal'
    | 'tape'
    | 'clear-tape'
    | 'liquid-adhesive'
    | 'single-use-part'
    | 'single-use-screw'
    | 'thread-locker'
    | 'spare';
  readonly joint?: string;
  readonly part?: string;
  readonly fastener?: string;
  readonly count?: number;
  readonly length_mm?: number;
  /** used only where the old one no longer sticks */
  readonly maybe?: true;
  readonly text: string;
}

/** Screws that come out, by kind; captive ones stay in their part and are not among them. */
export function screwLines(map: DeviceMap, strip: readonly Op[], rebuild: readonly Op[]): ScrewLine[] {
  const counts = new Map<string, { count: number; moved: number }>();
  const note = (op: Op, moved: boolean) => {
    if (op.kind !== 'release') return;
    for (const fastener of looseScrews(map, op.joint!)) {
      const line = counts.get(fastener) ?? { count: 0, moved: 0 };
      counts.set(fastener, { count: line.count + 1, moved: line.moved + Number(moved) });
    }
  };
  strip.forEach((op) => note(op, false));
  rebuild.forEach((op) => note(op, true));
  return map.fasteners.flatMap(({ id }) => {
    const line = counts.get(id);
    return line ? [{ fastener: id, ...line }] : [];
  });
}

/** The fastener of each screw of a joint that comes out of its part. */
function looseScrews(map: DeviceMap, jointId: string): string[] {
  const joint = jointById(map, jointId);
  if (joint?.type !== 'screw') return [];
  const captive = new Set(map.fasteners.filter((each) => each.captive).map((each) => each.id));
  return joint.points.map((point) => fastenerAt(joint, point)).filter((id) => !captive.has(id));
}

export function leftOver(map: DeviceMap, lacking: readonly string[]): { fastener: string; count: number }[] {
  const all = lacking.flatMap((joint) => looseScrews(map, joint));
  return map.fasteners.flatMap(({ id }) => {
    const count = all.filter((each) => each === id).length;
    return count > 0 ? [{ fastener: id, count }] : [];
  });
}

export function toolsOf(ops: readonly Op[]): string[] {
  return [...new Set(ops.flatMap((op) => (op.tool === null ? [] : [op.tool])))];
}

/** What is used up, each with the part or joint it belongs to. */
export function consumablesOf(
  map: DeviceMap,
  strip: readonly Op[],
  rebuild: readonly Op[],
  closing: Policy['closing'] = null,
): Consumable[] {
  const found: Consumable[] = [];
  const byId = new Map(map.joints.map((each) => [each.id, each]));
  for (const op of rebuild) {
    if (op.name === 'tack') found.push({ ...adhesiveFor(byId.get(op.joint!)!, closing), maybe: true });
    if (op.name === 'lay') found.push(adhesiveFor(byId.get(op.joint!)!, closing));
    if (op.name === 'tape') found.push(clearTapeFor(map, op.part!));
    if (op.name === 'renew') found.push({ what: 'single-use-part', part: op.part!, text: 'new, single use' });
    const part = op.part === undefined ? undefined : partById(map, op.part);
    if (op.kind === 'fit' && part?.reuse === 'single-use') {
      found.push({ what: 'single-use-part', part: part.id, text: 'new, single use' });
    }
    if (op.kind === 'make') found.push(...screwSupplies(map, byId.get(op.joint!)!));
  }
  for (const op of strip) {
    const part = op.kind === 'lift' ? partById(map, op.part) : undefined;
    if (part?.reuse === 'often-breaks')
      found.push({ what: 'spare', part: part.id, text: 'a spare is advised, it often breaks' });
  }
  return found;
}

/** Clear tape as it is usually sold, and how far one strip lies over the next (common practice). */
const CLEAR_TAPE_MM = 48;
const OVERLAP_MM = 10;

/** Strips side by side over a whole cracked face, overlapping. */
function clearTapeFor(map: DeviceMap, id: string): Consumable {
  const { w, h } = partById(map, id)!.box;
  const strips = Math.max(1, Math.ceil((w - OVERLAP_MM) / (CLEAR_TAPE_MM - OVERLAP_MM)));
  return { what: 'clear-tape', part: id, length_mm: Math.round(strips * h), text: 'clear tape over the cracks' };
}

function adhesiveFor(joint: Joint, closing: Policy['closing']): Consumable {
  if (joint.type !== 'bond') throw new RangeError(`"${joint.id}" is no bond.`);
  switch (renewalFor(joint, closing)) {
    case 'tape': {
      const length = Math.round(length_mm(joint));
      return { what: 'tape', joint: joint.id, ...(length > 0 ? { length_mm: length } : {}), text: 'cut tape' };
    }
    case 'liquid':
      return {
        what: 'liquid-adhesive',
        joint: joint.id,
        text: joint.style === 'thermal' ? 'thermal material' : 'liquid adhesive',
      };
    case 'precut':
    case 'with-part':
    case 'reuse':
      return { what: 'precut-seal', joint: joint.id, text: 'precut seal' };
  }
}

function screwSupplies(map: DeviceMap, joint: Joint): Consumable[] {
  if (joint.type !== 'screw') return [];
  return map.fasteners.flatMap((fastener): Consumable[] => {
    const count = joint.points.filter((point) => fastenerAt(joint, point) === fastener.id).length;
    if (count === 0) return [];
    const common = { joint: joint.id, fastener: fastener.id, count };
    return [
      ...(fastener.singleUse ? [{ ...common, what: 'single-use-screw' as const, text: 'new screws, single use' }] : []),
      ...(fastener.locker ? [{ ...common, what: 'thread-locker' as const, text: 'thread locker' }] : []),
    ];
  });
}
