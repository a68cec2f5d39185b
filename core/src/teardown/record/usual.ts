import type { DeviceFunction, DeviceMap, Hazard, PartKind } from '../../model/device-map/index.ts';

/** What is usual of a kind of part, as long as nobody told otherwise (common practice). */
export interface Usual {
  /** what a technician calls it */
  readonly name: string;
  /** functions of `USUAL_FUNCTIONS` that it serves */
  readonly functions: readonly string[];
  readonly hazards: readonly Hazard[];
  /** it reaches over the whole device */
  readonly isWhole?: true;
  /** width and height as shares of the device's: how it is drawn while nobody said where it lies */
  readonly share: readonly [number, number];
}

export const USUAL: Readonly<Record<PartKind, Usual>> = {
  frame: { name: 'Frame', functions: [], hazards: [], isWhole: true, share: [1, 1] },
  display: { name: 'Display', functions: ['picture', 'touch'], hazards: ['glass'], isWhole: true, share: [1, 1] },
  cover: { name: 'Back cover', functions: [], hazards: [], isWhole: true, share: [1, 1] },
  shell: { name: 'Shell', functions: [], hazards: [], isWhole: true, share: [1, 1] },
  plate: { name: 'Plate', functions: [], hazards: [], share: [0.6, 0.4] },
  bracket: { name: 'Lid', functions: [], hazards: [], share: [0.4, 0.15] },
  shield: { name: 'Shield', functions: [], hazards: [], share: [0.4, 0.2] },
  board: { name: 'Board', functions: [], hazards: ['static'], share: [0.7, 0.3] },
  battery: { name: 'Battery', functions: ['charging'], hazards: ['lithium'], share: [0.5, 0.5] },
  camera: { name: 'Camera', functions: ['camera'], hazards: ['no-touch'], share: [0.2, 0.1] },
  speaker: { name: 'Speaker', functions: ['sound'], hazards: [], share: [0.3, 0.1] },
  earpiece: { name: 'Earpiece', functions: ['earpiece'], hazards: [], share: [0.2, 0.05] },
  microphone: { name: 'Microphone', functions: ['microphone'], hazards: [], share: [0.1, 0.05] },
  button: { name: 'Button', functions: ['keys'], hazards: [], share: [0.05, 0.12] },
  sensor: { name: 'Sensor', functions: ['sensors'], hazards: [], share: [0.12, 0.05] },
  vibrator: { name: 'Vibration motor', functions: ['vibration'], hazards: [], share: [0.15, 0.08] },
  antenna: { name: 'Antenna', functions: ['network'], hazards: [], share: [0.5, 0.06] },
  flex: { name: 'Flex', functions: [], hazards: ['fragile-flex'], share: [0.15, 0.4] },
  lead: { name: 'Lead', functions: [], hazards: [], share: [0.05, 0.4] },
  port: { name: 'Charging port', functions: ['charging'], hazards: [], share: [0.3, 0.1] },
  tray: { name: 'Tray', functions: ['network'], hazards: [], share: [0.2, 0.1] },
  gasket: { name: 'Gasket', functions: [], hazards: [], share: [0.8, 0.1] },
  mesh: { name: 'Mesh', functions: [], hazards: [], share: [0.2, 0.04] },
  lens: { name: 'Lens', functions: ['camera'], hazards: ['glass'], share: [0.15, 0.08] },
  thermal: { name: 'Thermal pad', functions: [], hazards: [], share: [0.3, 0.15] },
  indicator: { name: 'Liquid indicator', functions: [], hazards: [], share: [0.06, 0.04] },
  label: { name: 'Label', functions: [], hazards: [], share: [0.3, 0.1] },
  other: { name: 'Part', functions: [], hazards: [], share: [0.2, 0.1] },
};

/** What is tried of a device that nobody knows: whatever it turns out not to have is passed over as not tried. */
const USUAL_FUNCTIONS: readonly DeviceFunction[] = [
  { id: 'picture', name: 'Picture', how: 'Look for lines, dark spots and flicker' },
  { id: 'touch', name: 'Touch', how: 'Draw over the whole face, into the corners' },
  { id: 'camera', name: 'Cameras', how: 'Take a picture with each, near and far' },
  { id: 'sound', name: 'Loudspeaker', how: 'Play something loud' },
  { id: 'earpiece', name: 'Earpiece', how: 'Listen at the ear' },
  { id: 'microphone', name: 'Microphone', how: 'Record a sentence and play it' },
  { id: 'keys', name: 'Keys', how: 'Press each, twice' },
  { id: 'vibration', name: 'Vibration', how: 'Let it buzz' },
  { id: 'sensors', name: 'Sensors', how: 'Turn it, cover the front, watch the screen' },
  { id: 'network', name: 'Network', how: 'Bars, and a call or data' },
  { id: 'charging', name: 'Charging', how: 'Plug the charger in and watch it count' },
];

/** A tablet has seldom these. */
const PHONE_ONLY: ReadonlySet<string> = new Set(['earpiece', 'vibration', 'network']);

export function usualFunctions(kind: DeviceMap['kind']): readonly DeviceFunction[] {
  if (kind === 'other') return [];
  return kind === 'tablet' ? USUAL_FUNCTIONS.filter(({ id }) => !PHONE_ONLY.has(id)) : USUAL_FUNCTIONS;
}

/** How large and how thick a device of a kind is while nobody has measured it, mm. */
export const USUAL_OUTLINE: Readonly<Record<DeviceMap['kind'], DeviceMap['outline']>> = {
  phone: { width: 72, height: 150, thickness: 8.5, corner: 9 },
  tablet: { width: 170, height: 245, thickness: 7.5, corner: 10 },
  'keypad-phone': { width: 56, height: 120, thickness: 16, corner: 8 },
  other: { width: 100, height: 100, thickness: 15, corner: 5 },
};

/** A pack is taken to have so much until its label was read. */
export const USUAL_CELL = { capacity_mAh: 4000, nominal_V: 3.85 };
/** What the face of a cell bears, °C (common practice). */
export const USUAL_CELL_LIMIT_C = 60;
/** A screw is drawn so long and wide while nobody measured it, mm. */
export const USUAL_SCREW = { thread: 'M1.4', length: 3, head: 2.4 };
/** Glue of an unknown device is taken to soften at so much, °C (common practice). */
export const USUAL_SOFTEN_C = 65;
