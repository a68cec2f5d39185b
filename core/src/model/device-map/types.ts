import type { MapOrigin } from './origin.ts';

/** The device map, version 1, as docs/device-map.md specifies it. Lengths in mm, torque in N·cm, temperatures in °C. */

export type Edge = 'top' | 'bottom' | 'left' | 'right';
export type Face = 'front' | 'back' | 'edge';

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** What has to be out of the way first: a part open or off, or a joint released. */
export type UnderEntry =
  | { readonly part: string; readonly until: 'open' | 'off'; readonly note?: string }
  | { readonly joint: string; readonly note?: string };

export interface Fastener {
  readonly id: string;
  readonly drive: string;
  readonly thread: string;
  readonly length: number;
  readonly head: number;
  readonly colour?: string;
  readonly alsoDrives?: readonly string[];
  readonly captive?: boolean;
  readonly magnetic?: boolean;
  readonly singleUse?: boolean;
  readonly locker?: { readonly activator?: string; readonly cure_s: number };
  readonly torque?: { readonly min: number; readonly max: number };
}

export const PART_KINDS = [
  'frame',
  'display',
  'cover',
  'shell',
  'plate',
  'bracket',
  'shield',
  'board',
  'battery',
  'camera',
  'speaker',
  'earpiece',
  'microphone',
  'button',
  'sensor',
  'vibrator',
  'antenna',
  'flex',
  'lead',
  'port',
  'tray',
  'gasket',
  'mesh',
  'lens',
  'thermal',
  'indicator',
  'label',
  'other',
] as const;
export type PartKind = (typeof PART_KINDS)[number];

export const HAZARDS = [
  'lithium',
  'glass',
  'sharp',
  'heat-sensitive',
  'static',
  'magnet',
  'spring',
  'fragile-flex',
  'no-touch',
  'overlooked',
] as const;
export type Hazard = (typeof HAZARDS)[number];

export interface ReplaceEffect {
  readonly effect: 'lost' | 'data' | 'warning' | 'recalibrate' | 'later';
  readonly function?: string;
  readonly note: string;
}

export interface Part {
  readonly id: string;
  readonly name: string;
  readonly kind: PartKind;
  readonly face: Face;
  readonly box: { readonly x: number; readonly y: number; readonly w: number; readonly h: number };
  readonly outline?: readonly (readonly [number, number])[];
  readonly z: { readonly top: number; readonly bottom: number };
  readonly base?: boolean;
  readonly functions?: readonly string[];
  readonly hazards?: readonly Hazard[];
  readonly reuse?: 'reusable' | 'often-breaks' | 'inspect' | 'single-use';
  readonly under?: readonly UnderEntry[];
  readonly staysWith?: string;
  readonly onReplace?: readonly ReplaceEffect[];
  readonly removeFirst?: boolean;
  readonly opens?: { readonly edge: Edge; readonly gap?: number; readonly angle?: number };
  readonly liftFrom?: Point;
  readonly motion?: { readonly angle?: number; readonly turn?: number; readonly firstEdge?: Edge };
  /** lines along which a flex is folded as it goes in, mm, one after the other */
  readonly folds?: readonly { readonly from: Point; readonly to: Point }[];
  readonly through?: readonly { readonly part: string; readonly x: number; readonly y: number }[];
  readonly ifFailed?: { readonly replace: string };
  readonly mixUpWith?: readonly string[];
  readonly film?: boolean;
  readonly mark?: string;
  readonly hint?: { readonly remove?: string; readonly fit?: string };
}

/** Does the part close the device from outside: a display, a cover or a shell? */
export function isOuter({ kind }: Pick<Part, 'kind'>): boolean {
  return kind === 'display' || kind === 'cover' || kind === 'shell';
}

interface JointCommon {
  readonly id: string;
  readonly holds: readonly string[];
  readonly to: string;
  readonly face: Face;
  readonly at?: Point;
  readonly under?: readonly UnderEntry[];
  readonly tool?: string;
  readonly needs?: readonly string[];
  readonly seconds?: number;
  readonly mark?: string;
  readonly hint?: { readonly release?: string; readonly make?: string };
}

export interface ScrewPoint extends Point {
  readonly id: string;
  readonly fastener?: string;
  readonly order?: number;
  readonly outOrder?: number;
  readonly depth: number;
  readonly below: 'board' | 'battery' | 'display' | 'plastic' | 'metal';
}

export interface ScrewJoint extends JointCommon {
  readonly type: 'screw';
  readonly fastener: string;
  readonly points: readonly ScrewPoint[];
}

export interface ConnectorJoint extends JointCommon {
  readonly type: 'connector';
  readonly style: 'press' | 'zif-flip' | 'zif-slide' | 'coax' | 'plug' | 'spring' | 'blind';
  readonly functions?: readonly string[];
  readonly lever?: Point;
  readonly isolates?: true | 'alone' | false;
}

export interface BondSegment {
  readonly id: string;
  readonly from: Point;
  readonly to: Point;
  readonly depth?: number;
  readonly near?: string;
  readonly order?: number;
  readonly zone?: string | number;
}

export type Renewal = 'precut' | 'tape' | 'liquid' | 'with-part' | 'reuse';

/** What lies under a bond's heated face: layers counted from `heatFace`, thickness in mm. */
export interface BondStack {
  readonly layers: readonly { readonly material: string; readonly thickness: number }[];
  /** the layer that is to be softened */
  readonly bondLayer: number;
  /** what must not get too hot: where in which layer, 0 at its heated side */
  readonly watch: readonly {
    readonly layer: number;
    readonly fraction: number;
    readonly what: string;
    readonly max_C: number;
  }[];
}

export interface BondJoint extends JointCommon {
  readonly type: 'bond';
  readonly style: 'perimeter' | 'pad' | 'tabs' | 'strap' | 'tape' | 'thermal' | 'gasket';
  readonly seam?: { readonly between: readonly [string, string]; readonly not?: string };
  readonly heat?: boolean;
  readonly soften_C?: number;
  readonly recipe?: {
    readonly source: string;
    readonly temp_C: number;
    readonly seconds: number;
    readonly distance_mm?: number;
  };
  readonly heatGroup?: string;
  readonly solvent?: { readonly soak_s: number };
  /** an open seam is cut on down to this temperature; below it is stiff */
  readonly dragBelow_C?: number;
  readonly width?: number;
  readonly heatFace?: Face;
  readonly stack?: BondStack;
  readonly segments?: readonly BondSegment[];
  readonly endangers?: readonly string[];
  readonly renew?: Renewal;
  readonly close?: {
    readonly dry_s?: number;
    readonly press_s?: number;
    readonly mass_kg?: number;
    readonly cure_s?: number;
  };
}

export interface ClipJoint extends JointCommon {
  readonly type: 'clip';
  readonly points?: readonly (Point & { readonly id: string; readonly order?: number })[];
  readonly slide?: { readonly dx: number; readonly dy: number };
  readonly tilt?: Edge;
  readonly eject?: boolean;
}

export interface SolderJoint extends JointCommon {
  readonly type: 'solder';
  readonly points?: readonly (Point & { readonly id: string; readonly wire?: string })[];
  readonly functions?: readonly string[];
}

export interface HingeJoint extends JointCommon {
  readonly type: 'hinge';
  readonly edge: Edge;
}

export interface SeatJoint extends JointCommon {
  readonly type: 'seat';
  readonly tilt?: Edge;
}

export type Joint = ScrewJoint | ConnectorJoint | BondJoint | ClipJoint | SolderJoint | HingeJoint | SeatJoint;

export interface DeviceFunction {
  readonly id: string;
  readonly name: string;
  readonly how: string;
  /** how long it takes to try */
  readonly seconds?: number;
  readonly needs?: readonly string[];
}

export interface BatteryPack {
  readonly part: string;
  readonly cells: readonly { readonly capacity_mAh: number; readonly nominal_V: number }[];
  readonly wiring: 'series' | 'parallel';
  readonly limit_C: number;
}

/** A hole in the rim that a tray pin could be put into. */
export interface PinHole extends Point {
  readonly id: string;
  readonly kind: 'tray' | 'microphone';
  /** the tray or microphone behind it */
  readonly part?: string;
  /** how the channel behind it runs */
  readonly channel?: 'straight' | 'angled';
}

export interface DeviceMap {
  readonly format: 'nibrel.device-map';
  readonly version: 1;
  readonly id: string;
  readonly name: string;
  readonly kind: 'phone' | 'tablet' | 'keypad-phone' | 'other';
  readonly outline: {
    readonly width: number;
    readonly height: number;
    readonly thickness: number;
    readonly corner: number;
  };
  readonly battery: BatteryPack | null;
  readonly fasteners: readonly Fastener[];
  readonly parts: readonly Part[];
  readonly joints: readonly Joint[];
  readonly functions: readonly DeviceFunction[];
  readonly procedures?: { readonly powerOff?: string; readonly firstStart?: string };
  readonly cautions?: readonly string[];
  readonly pinHoles?: readonly PinHole[];
  /** of a map that was made by taking the device apart */
  readonly origin?: MapOrigin;
}

/** Joints that part by themselves when their two sides are separated: they have no operation. */
export function isSelfParting(joint: Joint): boolean {
  switch (joint.type) {
    case 'seat':
      return true;
    case 'connector':
      return joint.style === 'spring' || joint.style === 'blind';
    case 'bond':
      return joint.style === 'thermal' || joint.style === 'gasket';
    default:
      return false;
  }
}

/** Connectors, solder joints and hinges tether; screws, bonds, clips and seats hold mechanically. */
export function isTether(joint: Joint): boolean {
  return joint.type === 'connector' || joint.type === 'solder' || joint.type === 'hinge';
}

/** The cell that a joint is soldered or welded to, if any: an iron there is for a lead to allow. */
export function cellSolderedAt({ parts }: Pick<DeviceMap, 'parts'>, joint: Joint): Part | undefined {
  if (joint.type !== 'solder') return undefined;
  return parts.find(({ id, hazards }) => hazards?.includes('lithium') && (joint.to === id || joint.holds.includes(id)));
}

/** The fastener of one hole: the point's own, else the joint's. */
export function fastenerAt(joint: ScrewJoint, point: ScrewPoint): string {
  return point.fastener ?? joint.fastener;
}

/** How a bond is closed again when the map does not say (docs/device-map.md, bonds). */
export function renewalOf(bond: BondJoint): Renewal {
  if (bond.renew) return bond.renew;
  switch (bond.style) {
    case 'perimeter':
    case 'tabs':
    case 'strap':
      return 'precut';
    case 'pad':
    case 'tape':
      return 'tape';
    case 'thermal':
      return 'liquid';
    case 'gasket':
      return 'reuse';
  }
}

/** A pad or tape that the map leaves to its default is looked at: it is kept where it still sticks. */
export function isDecidedOnSight(bond: BondJoint): boolean {
  return bond.renew === undefined && (bond.style === 'pad' || bond.style === 'tape');
}

/** The tabs or straps of a bond, in the printed order, where its map tells them apart: each is pulled by itself. */
export function tabsOf({ style, segments = [] }: BondJoint): readonly BondSegment[] {
  if ((style !== 'tabs' && style !== 'strap') || segments.some(({ depth }) => depth !== undefined)) return [];
  return segments.toSorted((a, b) => (a.order ?? Infinity) - (b.order ?? Infinity));
}

/** Is its cell taken out by hand: nothing is cut or pried beside it, and no plug is pulled? */
export function hasLiftOutCell({ battery, joints, origin }: Pick<DeviceMap, 'battery' | 'joints' | 'origin'>): boolean {
  if (!battery) return false;
  // of a cell that nobody has seen yet nothing is said
  if (origin?.unplaced.includes(battery.part)) return false;
  const holds = joints.filter((each) => each.holds.includes(battery.part));
  return !holds.some((each) => each.type === 'bond' || (each.type === 'connector' && !isSelfParting(each)));
}
