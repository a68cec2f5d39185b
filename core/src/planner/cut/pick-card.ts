import {
  type BondJoint,
  type BondSegment,
  type DeviceMap,
  type Edge,
  type Part,
  seenEdge,
} from '../../model/device-map/index.ts';
import { thingName } from '../words/index.ts';
import { cutOfBond } from './cut-of-bond.ts';

/** What is printed to scale so that picks can be marked and edges kept apart. Lengths in mm. */
export interface PickCard {
  readonly device: string;
  readonly part: string;
  readonly outline: DeviceMap['outline'];
  /** every depth of this bond once, the shallowest first, with the edges that are cut to it */
  readonly marks: readonly { readonly depth: number; readonly edges: readonly string[] }[];
  /** in the order of the cut; what is not cut comes last, with no depth */
  readonly edges: readonly {
    readonly id: string;
    readonly turn: number | null;
    readonly depth: number | null;
    readonly from: BondSegment['from'];
    readonly to: BondSegment['to'];
    /** what lies behind it */
    readonly near: string | null;
  }[];
  /** parts that a pick must not reach: what lies behind an edge, and what the bond endangers */
  readonly keepOuts: readonly { readonly name: string; readonly box: Part['box'] }[];
  /** the edge that stays down, as the card shows it */
  readonly toward: Edge | null;
  /** seen from the back, so drawn mirrored */
  readonly mirrored: boolean;
  readonly bar_mm: number;
}

/** A line to check the printer with. */
const BAR_mm = 50;

/** Null for a bond that is not cut. */
export function pickCard(map: DeviceMap, bond: BondJoint): PickCard | null {
  const cut = cutOfBond(map, bond, { speed_mm_s: 1 });
  if (!cut) return null;
  const segments = bond.segments!;
  const turnOf = (id: string) => cut.edges.findIndex((each) => each.segment === id);
  const edges = segments
    .map(({ id, depth, from, to, near }) => ({
      id,
      turn: depth === undefined ? null : turnOf(id) + 1,
      depth: depth ?? null,
      from,
      to,
      near: near === undefined ? null : thingName(map, near),
    }))
    .toSorted((a, b) => (a.turn ?? Infinity) - (b.turn ?? Infinity));
  const depths = [...new Set(cut.edges.map((each) => each.depth))].toSorted((a, b) => a - b);
  return {
    device: map.name,
    part: thingName(map, bond.holds[0]!),
    outline: map.outline,
    marks: depths.map((depth) => ({
      depth,
      edges: edges.filter((each) => each.depth === depth).map((each) => each.id),
    })),
    edges,
    keepOuts: keepOuts(map, bond).map(({ name, box }) => ({ name, box })),
    toward: cut.toward && seenEdge(cut.toward, bond.face),
    mirrored: bond.face === 'back',
    bar_mm: BAR_mm,
  };
}

function keepOuts(map: DeviceMap, bond: BondJoint): Part[] {
  const near = (bond.segments ?? []).flatMap((each) => (each.near === undefined ? [] : [each.near]));
  const named = new Set([...near, ...(bond.endangers ?? [])]);
  return map.parts.filter((part) => named.has(part.id) && !bond.holds.includes(part.id));
}
