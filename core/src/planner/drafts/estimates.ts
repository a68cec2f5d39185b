import { cutPace } from './pace.ts';
import { isWarmSource, sourceNamed } from '../../model/sources/index.ts';
import {
  type BondJoint,
  type ConnectorJoint,
  type DeviceMap,
  type Joint,
  renewalOf,
  type Renewal,
} from '../../model/device-map/index.ts';
import { warmingTime_s } from '../../physics/heat/index.ts';
import type { PhysicalOp } from '../holds/index.ts';
import type { Policy } from '../../model/policy/index.ts';

/**
 * The table of operation times, hands-on seconds unless it says waiting. Origin of every figure: guess, until the
 * shop's own times replace it.
 */
export const TIMES = {
  origin: 'guess',
  screwOut: 4,
  screwIn: 6,
  screwSet: 2,
  connectorOff: { press: 5, 'zif-flip': 7, 'zif-slide': 8, coax: 5, plug: 6, spring: 0, blind: 0 },
  connectorOn: { press: 6, 'zif-flip': 10, 'zif-slide': 12, coax: 8, plug: 6, spring: 0, blind: 0 },
  /** at the usual speed of a pick, 4 mm/s, along a thin bond */
  cutPerMm: 0.25,
  cutLeast: 25,
  bondOff: { perimeter: 90, pad: 25, tabs: 40, strap: 20, tape: 8, thermal: 0, gasket: 0 },
  bondOn: { perimeter: 30, pad: 10, tabs: 15, strap: 15, tape: 5, thermal: 0, gasket: 0 },
  clipOff: 5,
  clipOn: 3,
  eject: 5,
  solderOff: 25,
  solderOn: 40,
  open: 10,
  close: 6,
  lift: 4,
  fit: 7,
  powerOff: 12,
  film: 20,
  filmPart: 8,
  heat: 15,
  /** a plate beneath a bond whose map has no recipe (common practice) */
  heatWait: 300,
  /** a pack on a cell's bond before solvent; common practice */
  packWait: 90,
  soak: 12,
  vent: 5,
  ventWait: 120,
  /** old adhesive scraped off: a start, and so much for each millimetre of it */
  scrape: 15,
  scrapePerMm: 0.12,
  wipe: 15,
  /** a lens or window wiped and looked through */
  lookThrough: 10,
  dryWait: 30,
  lay: 12,
  layPerMm: 0.07,
  liner: 10,
  tack: 10,
  press: 8,
  /** a mesh or small piece; a seal that runs round a face (common practice) */
  pressWait: 10,
  pressRound: 120,
  cure: 5,
  count: 15,
  powerOn: 30,
  testLeast: 20,
  testEach: 10,
  inspect: 10,
  bendAside: 3,
  compare: 15,
  takeUp: 40,
  readBattery: 30,
  pressHome: 12,
  /** plugged in, and its charge read; told to reset, and the first questions answered */
  charge: 10,
  reset: 90,
  renewPiece: 20,
  /** more than with one cup, on a bond that runs round a face */
  firstGap: { 'one-cup': 0, 'two-cup': 20, 'edgeless-blade': 5, 'thin-film': 25, 'bench-cutter': 45, 'by-hand': 10 },
  /** cutting strips to length and laying them corner by corner */
  layTapePerMm: 0.2,
  layLiquid: 25,
  /** clips or bands, and time */
  liquidCure: 1800,
  /** a cell's bond where the map says nothing of solvent */
  cellSoak: 240,
  transplant: 1500,
} as const;

/** Hands-on seconds of a physical operation: the map's own figure for a joint, else the table. */
export function secondsOf(op: PhysicalOp, joint: Joint | null, policy: Policy): number {
  if (op.kind === 'open' || op.kind === 'close' || op.kind === 'lift' || op.kind === 'fit') return TIMES[op.kind];
  const seconds = joint!.seconds ?? (op.kind === 'release' ? secondsToRelease(joint!) : secondsToMake(joint!));
  const firstGap = op.kind === 'release' && runsRound(joint!) ? TIMES.firstGap[policy.firstGap] : 0;
  return seconds + firstGap;
}

/** The same without a map's own figure: what is usual for an operation of this kind on such a joint; null where nothing is. */
export function usualSeconds(kind: PhysicalOp['kind'], joint: Joint | undefined): number | null {
  if (kind === 'open' || kind === 'close' || kind === 'lift' || kind === 'fit') return TIMES[kind];
  if (!joint) return null;
  return kind === 'release' ? secondsToRelease(joint) : secondsToMake(joint);
}

function runsRound(joint: Joint): boolean {
  return joint.type === 'bond' && joint.style === 'perimeter';
}

/** How a bond is closed again: as the school says where it runs round a face, else as the map does. */
export function renewalFor(bond: BondJoint, closing: Policy['closing']): Renewal {
  const own = renewalOf(bond);
  return closing !== null && runsRound(bond) && own !== 'reuse' && own !== 'with-part' ? closing : own;
}

/** Seconds to lay a new bond, which grow with its length, and to let it cure where the map does not say. */
export function secondsToLay(bond: BondJoint, closing: Policy['closing']): { lay: number; cure: number } {
  const cure = bond.close?.cure_s ?? 0;
  const lay = Math.round(TIMES.lay + TIMES.layPerMm * workedLength_mm(bond));
  if (!runsRound(bond)) return { lay, cure };
  switch (renewalFor(bond, closing)) {
    case 'tape':
      return { lay: Math.round(lay + TIMES.layTapePerMm * length_mm(bond)), cure };
    case 'liquid':
      return { lay: lay + TIMES.layLiquid, cure: cure || TIMES.liquidCure };
    case 'precut':
    case 'with-part':
    case 'reuse':
      return { lay, cure };
  }
}

/** Seconds to scrape off what is left of a bond. */
export function secondsToScrape(bond: BondJoint): number {
  return Math.round(TIMES.scrape + TIMES.scrapePerMm * workedLength_mm(bond));
}

/** Where a map draws no segments, as much as is usual for the style (guess). */
const USUAL_MM = { perimeter: 400, pad: 60, tabs: 120, strap: 100, tape: 40, thermal: 30, gasket: 60 } as const;

function workedLength_mm(bond: BondJoint): number {
  return length_mm(bond) || USUAL_MM[bond.style];
}

/** A cell's bond that is softened with heat and solvent, where that is the school, rather than pulled out. */
export function isSoftened(bond: BondJoint, cells: ReadonlySet<string>, policy: Policy): boolean {
  const holdsCell = bond.holds.some((id) => cells.has(id));
  return policy.batteryBond === 'solvent-and-heat' && holdsCell && ['tabs', 'strap', 'pad'].includes(bond.style);
}

/** Length of a bond as it is mapped. */
export function length_mm(bond: BondJoint): number {
  return (bond.segments ?? []).reduce((sum, { from, to }) => sum + Math.hypot(to.x - from.x, to.y - from.y), 0);
}

function secondsToRelease(joint: Joint): number {
  switch (joint.type) {
    case 'screw':
      return TIMES.screwSet + TIMES.screwOut * joint.points.length;
    case 'connector':
      return TIMES.connectorOff[joint.style];
    case 'bond':
      return secondsToCut(joint);
    case 'clip':
      return joint.eject ? TIMES.eject : TIMES.clipOff * Math.max(1, joint.points?.length ?? 1);
    case 'solder':
      return TIMES.solderOff * Math.max(1, joint.points?.length ?? 1);
    case 'hinge':
    case 'seat':
      return 0;
  }
}

function secondsToCut(bond: BondJoint): number {
  const length_mm = cutLength_mm(bond);
  const seconds = Math.round(TIMES.cutPerMm * length_mm * cutPace(bond));
  return length_mm > 0 ? Math.max(TIMES.cutLeast, seconds) : TIMES.bondOff[bond.style];
}

/** Length of the segments that are cut. */
function cutLength_mm(bond: BondJoint): number {
  return (bond.segments ?? [])
    .filter((each) => each.depth !== undefined)
    .reduce((sum, { from, to }) => sum + Math.hypot(to.x - from.x, to.y - from.y), 0);
}

function secondsToMake(joint: Joint): number {
  switch (joint.type) {
    case 'screw':
      return TIMES.screwSet + TIMES.screwIn * joint.points.length;
    case 'connector':
      return TIMES.connectorOn[joint.style];
    case 'bond':
      return TIMES.bondOn[joint.style];
    case 'clip':
      return TIMES.clipOn * Math.max(1, joint.points?.length ?? 1);
    case 'solder':
      return TIMES.solderOn * Math.max(1, joint.points?.length ?? 1);
    case 'hinge':
    case 'seat':
      return 0;
  }
}

/** The tool of a joint's operation; null is by hand. `drive` is the drive of its screws. */
export function toolOf(kind: 'release' | 'make', joint: Joint, drive: string | null, policy: Policy): string | null {
  if (joint.tool && kind === 'release') return joint.tool;
  switch (joint.type) {
    case 'screw':
      return drive;
    case 'connector':
      return kind === 'release' ? connectorTool(joint.style, policy) : null;
    case 'bond':
      return kind === 'release' ? bondTool(joint) : null;
    case 'clip':
      if (kind === 'make') return null;
      return joint.eject ? 'tray pin' : 'pick';
    case 'solder':
      return 'soldering iron';
    case 'hinge':
    case 'seat':
      return null;
  }
}

function connectorTool(style: ConnectorJoint['style'], policy: Policy): string {
  if (style === 'coax') return policy.tools === 'fine-metal' ? 'fine tweezers' : 'plastic tweezers';
  return 'plastic spudger';
}

function bondTool(bond: BondJoint): string | null {
  switch (bond.style) {
    case 'perimeter':
    case 'pad':
      return 'pick';
    case 'tape':
      return 'plastic tweezers';
    case 'tabs':
    case 'strap':
    case 'thermal':
    case 'gasket':
      return null;
  }
}

/**
 * The heat source of a bond: the policy's, else its recipe's, else the plate; null where it is not to be heated. How long
 * is the recipe's own figure, or what the bond's layers ask for with another source.
 */
export function heatOf(map: DeviceMap, bond: BondJoint, policy: Policy): { tool: string; wait_s: number } | null {
  const source = policy.heat ?? bond.recipe?.source ?? 'plate';
  if (!bond.heat || source === 'none') return null;
  if (isWarmSource(source)) return { tool: sourceNamed(source).name, wait_s: warmingTime_s(map, bond, source) };
  return { tool: source, wait_s: bond.recipe!.seconds };
}
