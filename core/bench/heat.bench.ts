import { readFileSync } from 'node:fs';
import type { BondJoint, DeviceMap } from '../src/model/device-map/index.ts';
import {
  fieldOfDevice,
  fitTransfer,
  foresee,
  heatField,
  type HeatRequest,
  heatThrough,
  materialNamed,
  settingFor,
  stackOfBond,
} from '../src/physics/heat/index.ts';
import { FRONT_ON_PLATE } from '../test/phone-stack.ts';
import { median, noise, timed } from './measure.ts';

const round = (value: number) => Number(value.toPrecision(3));

/** Six layers, ten minutes. */
const phone: HeatRequest = {
  ...FRONT_ON_PLATE,
  total_s: 600,
  probes: [{ id: 'bond', layer: 1, fraction: 0.5 }],
};

/** The reference: a straightforward explicit scheme, few cells a layer, its step as long as it stays stable. */
function explicit(cellsPerLayer: number): number {
  const cells = phone.layers.flatMap((layer) => {
    const { k, rho, cp } = materialNamed((layer as { material: string }).material)!;
    const width = layer.thickness_mm / 1000 / cellsPerLayer;
    return Array.from({ length: cellsPerLayer }, () => ({ capacity: rho * cp * width, half: width / 2 / k }));
  });
  const size = cells.length;
  const between = Float64Array.from({ length: size - 1 }, (_, n) => 1 / (cells[n]!.half + cells[n + 1]!.half));
  const plate = 1 / (1 / 300 + cells[0]!.half);
  const front = 1 / (1 / 12 + cells[0]!.half);
  const back = 1 / (1 / 8 + cells[size - 1]!.half);
  const capacity = Float64Array.from(cells, (each) => each.capacity);
  const stable_s = Math.min(
    ...cells.map((each, n) => each.capacity / ((between[n - 1] ?? plate) + (between[n] ?? back))),
  );
  const steps = Math.ceil(600 / (0.9 * stable_s));
  const dt = 600 / steps;
  const temps = new Float64Array(size).fill(22);
  for (let step = 0; step < steps; step++) {
    const heated = step * dt < 300;
    let flow = heated ? plate * (70 - temps[0]!) : front * (22 - temps[0]!);
    for (let cell = 0; cell < size; cell++) {
      const on = cell === size - 1 ? back * (temps[cell]! - 22) : between[cell]! * (temps[cell]! - temps[cell + 1]!);
      temps[cell] = temps[cell]! + (dt / capacity[cell]!) * (flow - on);
      flow = on;
    }
  }
  return temps[Math.floor(1.5 * cellsPerLayer)]!;
}

const own_ms = median(timed(40, () => heatThrough(phone)));
const cellsPerLayer = 3;
const start = performance.now();
const reference_C = explicit(cellsPerLayer);
const explicit_ms = performance.now() - start;
const bond_C = heatThrough(phone).probes['bond']!.at(-1)!;
if (Math.abs(bond_C - reference_C) > 1) throw new Error(`the schemes disagree: ${bond_C} and ${reference_C}`);

/** A tablet's plan at 60 × 120 × 8 cells over ten minutes, over cell and frame: wanted under 3 s in a worker. */
function field() {
  const [columns, rows] = [60, 120];
  const over = (last: string) => [
    { material: 'display stack' },
    { material: 'acrylic foam tape' },
    { material: 'aluminium alloy' },
    { material: last },
  ];
  const run = () =>
    heatField({
      width_mm: 75,
      height_mm: 150,
      columns,
      rows,
      levels: [
        { thickness_mm: 1.6, cells: 3 },
        { thickness_mm: 0.3 },
        { thickness_mm: 1 },
        { thickness_mm: 4.4, cells: 3 },
      ],
      regions: [over('pouch cell'), over('polycarbonate')],
      regionOf: Uint8Array.from({ length: columns * rows }, (_, place) => Number(place % columns > 30)),
      source: phone.source,
      after: phone.after,
      far: phone.far,
      rim: phone.after,
      initial_C: 22,
      heat_s: 300,
      total_s: 600,
      step_s: 4,
      watch: 1,
      every: 5,
    });
  return { wanted_ms: 3000, own_ms: round(median(timed(3, run))), energyError: run().energyError };
}

/** What a slider asks for, and what a thermometer does: a bond of the demonstration, three ends of a guess and a fit. */
function foreseen() {
  const map = JSON.parse(
    readFileSync(new URL('../../demo/device-maps/shearwater-11.json', import.meta.url), 'utf8'),
  ) as DeviceMap;
  const bond = map.joints.find((each) => each.id === 'front-bond') as BondJoint;
  const stack = stackOfBond(map, bond);
  const warming = { stack, soften_C: 58, setting: settingFor(bond, null), heat_s: 120 };
  const truth = foresee(warming).bands[0]!;
  const times = foresee(warming).times_s;
  const readings = times.flatMap((at_s, index) =>
    at_s > 0 && at_s <= 120 && index % 3 === 0 ? [{ at_s, temp_C: truth.high[index]!, spot: 'bond' as const }] : [],
  );
  const device = { map, bond, stack, setting: warming.setting, touch: 'all' as const, heat_s: 120, total_s: 600 };
  return {
    foresee_ms: round(median(timed(10, () => foresee(warming)))),
    fit: { readings: readings.length, own_ms: round(median(timed(3, () => fitTransfer(warming, readings)))) },
    tablet600s: { wanted_ms: 3000, own_ms: round(median(timed(3, () => heatField(fieldOfDevice(device))))) },
  };
}

console.log(
  JSON.stringify({
    noise: round(noise()),
    field60x120x8: field(),
    foreseen: foreseen(),
    sixLayers600s: {
      wanted_ms: 10,
      own_ms: round(own_ms),
      explicit_ms: round(explicit_ms),
      cellsPerLayer,
      ratio: round(explicit_ms / own_ms),
    },
  }),
);
