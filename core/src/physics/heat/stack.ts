import { materialNamed } from './materials.ts';
import type { LayerRequest, Probe } from './heat-request.ts';

/** A stack cut into cells, from the heated face on. SI units, one square metre. */
export interface Stack {
  /** heat capacity of each cell, J/m²K */
  readonly capacity: Float64Array;
  /** half a cell's resistance, from its middle to its side, m²K/W */
  readonly half: Float64Array;
  /** the layer that each cell belongs to, and where its middle is in it, 0 to 1 */
  readonly layerOf: Int32Array;
  readonly middle: Float64Array;
}

/** Cells of all layers together, and of one at the least; fine towards both sides of a layer, where it bends most. */
const CELLS = 160;
const FEWEST = 20;
const MOST = 160;

export function stackOf(layers: readonly LayerRequest[]): Stack {
  const count = Math.min(MOST, Math.max(FEWEST, 2 * Math.round(CELLS / layers.length / 2)));
  const shares = sharesOf(count);
  const size = count * layers.length;
  const stack = {
    capacity: new Float64Array(size),
    half: new Float64Array(size),
    layerOf: new Int32Array(size),
    middle: new Float64Array(size),
  };
  layers.forEach((layer, number) => {
    const { k, rho, cp } = 'material' in layer ? materialNamed(layer.material)! : layer;
    const thickness_m = layer.thickness_mm / 1000;
    let from = 0;
    shares.forEach((share, index) => {
      const cell = number * count + index;
      const width_m = share * thickness_m;
      stack.capacity[cell] = rho * cp * width_m;
      stack.half[cell] = width_m / 2 / k;
      stack.layerOf[cell] = number;
      stack.middle[cell] = from + share / 2;
      from += share;
    });
  });
  return stack;
}

/** Shares of a thickness that grow from both sides towards the middle. */
function sharesOf(count: number): number[] {
  const growth = 1 + 6 / count;
  const side = Array.from({ length: count / 2 }, (_, index) => growth ** index);
  const sum = 2 * side.reduce((total, each) => total + each, 0);
  return [...side, ...side.toReversed()].map((each) => each / sum);
}

/** Weights by which a probe reads the temperatures of cells: `[cell, weight]`, the faces being −1 and `size`. */
export type ProbeWeights = readonly (readonly [number, number])[];

/**
 * Between the middles of two cells a temperature lies on the straight lines that the heat flow through both has; at a
 * face between the cell and the face itself.
 */
export function probeWeights(stack: Stack, probe: Probe): ProbeWeights {
  const { layerOf, middle, half } = stack;
  const size = layerOf.length;
  const at = layerOf.findIndex((layer, cell) => layer === probe.layer && middle[cell]! >= probe.fraction);
  const last = layerOf.lastIndexOf(probe.layer);
  const right = at < 0 ? last + 1 : at;
  const left = right - 1;
  // resistance from the left middle to the probe, and from there to the right one
  const inLayer = (cell: number) => layerOf[cell] === probe.layer;
  const perShare = half[last]! / (1 - middle[last]!);
  if (left < 0) {
    const share = probe.fraction / middle[0]!;
    return [
      [-1, 1 - share],
      [0, share],
    ];
  }
  if (right >= size) {
    const share = (probe.fraction - middle[left]!) / (1 - middle[left]!);
    return [
      [left, 1 - share],
      [size, share],
    ];
  }
  const toLeft = inLayer(left) ? (probe.fraction - middle[left]!) * perShare : half[left]! + probe.fraction * perShare;
  const toRight = inLayer(right)
    ? (middle[right]! - probe.fraction) * perShare
    : half[right]! + (1 - probe.fraction) * perShare;
  const share = toLeft / (toLeft + toRight);
  return [
    [left, 1 - share],
    [right, share],
  ];
}
