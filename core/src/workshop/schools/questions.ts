import { sourceNamed, WARM_SOURCES } from '../../model/sources/index.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import type { Policy } from '../../model/policy/index.ts';

/** A question on which practitioners disagree with its options in words. */
export interface Question {
  readonly key: keyof Policy;
  readonly label: string;
  readonly options: readonly { readonly value: string; readonly label: string }[];
  /** asked last, and out of the way until wanted */
  readonly minor?: boolean;
}

/** `map` stands for no wish: what the map says, else the usual. */
export const QUESTIONS: readonly Question[] = [
  {
    key: 'display',
    label: 'Display',
    options: [
      { value: 'auto', label: 'automatic' },
      { value: 'taken-off', label: 'taken off' },
      { value: 'on-flexes', label: 'left plugged in, propped' },
    ],
  },
  {
    key: 'batteryBefore',
    label: 'Battery',
    options: [
      { value: 'run-down', label: 'run down' },
      { value: 'charged', label: 'arrive charged' },
    ],
  },
  {
    key: 'heat',
    label: 'Heat',
    options: [
      { value: 'map', label: 'as the device asks' },
      ...WARM_SOURCES.map((value) => ({ value, label: sourceNamed(value).label })),
      { value: 'none', label: 'none' },
    ],
  },
  {
    key: 'warm',
    label: 'Warmed at once',
    options: [
      { value: 'as-mapped', label: 'as the device asks' },
      { value: 'all-round', label: 'all round' },
      { value: 'halves', label: 'in two halves' },
      { value: 'start-edge', label: 'only the starting edge' },
    ],
  },
  {
    key: 'batteryWhilePrying',
    label: 'Battery while prying',
    options: [
      { value: 'in', label: 'left in' },
      { value: 'out', label: 'taken out first' },
    ],
  },
  {
    key: 'test',
    label: 'Test',
    options: [
      { value: 'before-and-after', label: 'before sealing and after' },
      { value: 'after', label: 'only after' },
    ],
  },
  {
    key: 'newBattery',
    label: 'New battery',
    options: [
      { value: 'whole-pack', label: 'whole pack' },
      { value: 'cell-transplant', label: 'cell transplant' },
    ],
  },
  {
    key: 'firstGap',
    minor: true,
    label: 'First gap',
    options: [
      { value: 'one-cup', label: 'one cup' },
      { value: 'two-cup', label: 'two-cup clamp' },
      { value: 'edgeless-blade', label: 'edgeless blade' },
      { value: 'thin-film', label: 'thin film' },
      { value: 'bench-cutter', label: 'bench cutter' },
      { value: 'by-hand', label: 'by hand' },
    ],
  },
  {
    key: 'order',
    minor: true,
    label: 'Order of work',
    options: [
      { value: 'part-by-part', label: 'one part, then the next' },
      { value: 'fewest-changes', label: 'fewest tool changes' },
    ],
  },
  {
    key: 'sealLaid',
    minor: true,
    label: 'Seal laid',
    options: [
      { value: 'bare-frame', label: 'on the bare frame, liner on' },
      { value: 'after-test', label: 'after the test' },
    ],
  },
  {
    key: 'batteryBond',
    minor: true,
    label: 'Battery bond',
    options: [
      { value: 'tabs-then-solvent', label: 'pull, then solvent' },
      { value: 'solvent-and-heat', label: 'solvent and heat' },
    ],
  },
  {
    key: 'screws',
    minor: true,
    label: 'Screws',
    options: [
      { value: 'map-mat', label: 'map mat' },
      { value: 'containers-per-stage', label: 'containers per stage' },
      { value: 'containers-apart', label: 'look-alikes apart' },
    ],
  },
  {
    key: 'tools',
    minor: true,
    label: 'After isolation',
    options: [
      { value: 'plastic', label: 'plastic only' },
      { value: 'fine-metal', label: 'fine metal allowed' },
    ],
  },
  {
    key: 'closing',
    minor: true,
    label: 'Closing bond',
    options: [
      { value: 'map', label: 'as the device asks' },
      { value: 'precut', label: 'precut seal' },
      { value: 'tape', label: 'cut tape' },
      { value: 'liquid', label: 'liquid glue' },
    ],
  },
  {
    key: 'tightening',
    minor: true,
    label: 'Tightening',
    options: [
      { value: 'torque', label: 'measured' },
      { value: 'snug', label: 'snug' },
    ],
  },
];

/** The questions that mean something on this device, for these parts to be replaced. */
export function questionsFor(map: DeviceMap, replaced: readonly string[]): Question[] {
  const bonds = map.joints.filter((each) => each.type === 'bond');
  const cell = map.battery?.part;
  const asks: Partial<Record<keyof Policy, boolean>> = {
    display: map.parts.some((each) => each.kind === 'display' && each.opens),
    batteryBefore: map.battery !== null,
    heat: bonds.some((each) => each.heat),
    warm: bonds.some((each) => each.heat),
    sealLaid: bonds.some((each) => each.style === 'perimeter'),
    batteryWhilePrying: bonds.some((each) => each.endangers?.length),
    newBattery: cell !== undefined && replaced.includes(cell),
    firstGap: bonds.some((each) => each.style === 'perimeter'),
    batteryBond: bonds.some((each) => cell !== undefined && each.holds.includes(cell)),
    screws: map.fasteners.length > 1,
    closing: bonds.some((each) => each.style === 'perimeter'),
    tightening: map.fasteners.some((each) => each.torque),
  };
  return QUESTIONS.filter(({ key }) => asks[key] ?? true);
}
