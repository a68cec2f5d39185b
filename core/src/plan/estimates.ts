import type { BondJoint, Joint } from '../device-map/index.ts';
import type { PhysicalOp } from '../holds/index.ts';
import type { Policy } from './policy.ts';

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
  cutPerMm: 0.4,
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
  /** by source, where the map's recipe is for another one; common practice */
  heatWait: { plate: 300, pad: 360, air: 240, pack: 90 } as Readonly<Record<string, number>>,
  soak: 12,
  vent: 5,
  ventWait: 120,
  clean: 60,
  dryWait: 30,
  lay: 40,
  press: 8,
  pressWait: 10,
  cure: 5,
  count: 15,
  powerOn: 30,
  testLeast: 20,
  testEach: 10,
  inspect: 10,
  renewPiece: 20,
} as const;

/** Hands-on seconds of a physical operation: the map's own figure for a joint, else the table. */
export function secondsOf(op: PhysicalOp, joint: Joint | null): number {
  if (op.kind === 'open' || op.kind === 'close' || op.kind === 'lift' || op.kind === 'fit') return TIMES[op.kind];
  if (joint!.seconds !== undefined) return joint!.seconds;
  return op.kind === 'release' ? secondsToRelease(joint!) : secondsToMake(joint!);
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
    default:
      return 0;
  }
}

function secondsToCut(bond: BondJoint): number {
  const length_mm = cutLength_mm(bond);
  return length_mm > 0 ? Math.max(TIMES.cutLeast, Math.round(TIMES.cutPerMm * length_mm)) : TIMES.bondOff[bond.style];
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
    default:
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
    default:
      return null;
  }
}

function connectorTool(style: string, policy: Policy): string {
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
    default:
      return null;
  }
}

const SOURCES: Readonly<Record<string, string>> = {
  plate: 'warming plate',
  pad: 'heat pad',
  air: 'hot air',
  pack: 'warm pack',
};

/** The heat source of a bond: the policy's, else its recipe's, else the plate; null where it is not to be heated. */
export function heatOf(bond: BondJoint, policy: Policy): { tool: string; wait_s: number } | null {
  const source = policy.heat ?? bond.recipe?.source ?? 'plate';
  if (!bond.heat || source === 'none') return null;
  const own = bond.recipe?.source === source ? bond.recipe.seconds : undefined;
  return { tool: SOURCES[source] ?? source, wait_s: own ?? TIMES.heatWait[source] ?? TIMES.heatWait['plate']! };
}
