import { type BondJoint, type BondStack, type DeviceMap, type Part, partById } from '../../model/device-map/index.ts';
import { POUCH_CELL } from './materials.ts';

/** A cell's face must not get hotter, whatever a map allows (common practice). */
const CELL_C = 60;
/** Air between a stack and the cell beneath it, mm (guess). */
const GAP_MM = 0.3;

type Watch = BondStack['watch'][number];

/** What a lithium part bears: the lower of the map's limit and its chemistry's. */
export function cellLimit_C(map: DeviceMap): number {
  return Math.min(CELL_C, map.battery?.limit_C ?? CELL_C);
}

/** Lithium in, over or beneath what a bond holds, seen in plan; also the held part itself. */
export function cellsAt(map: DeviceMap, bond: BondJoint): Part[] {
  const held = map.parts.filter(({ id }) => bond.holds.includes(id));
  return map.parts.filter(
    (part) =>
      part.hazards?.includes('lithium') &&
      (part.id === bond.to || held.some((each) => each.id === part.id || overlaps(each, part))),
  );
}

/** Is this cell watched by what a stack says itself: by its name, or by a place in a layer that is a cell? */
export function isCellWatched(stack: BondStack, cell: Part): boolean {
  return stack.watch.some((each) => isWatchOfCell(stack, each, [cell]));
}

/** Does a place of a stack watch any of some cells? */
export function isWatchOfCell(
  { layers }: Pick<BondStack, 'layers' | 'watch'>,
  watch: Watch,
  cells: readonly Part[],
): boolean {
  return isOfCell(layers, watch) || cells.some(({ id, name }) => watch.what === name || watch.what === id);
}

/** A stack with every cell at it watched, none of them above its limit. */
export function withCellsWatched(map: DeviceMap, bond: BondJoint, stack: BondStack): BondStack {
  const cells = cellsAt(map, bond);
  if (cells.length === 0) return stack;
  const max_C = cellLimit_C(map);
  const names = new Set(cells.flatMap(({ id, name }) => [id, name]));
  const lowered: BondStack = {
    ...stack,
    watch: stack.watch.map((each) =>
      isOfCell(stack.layers, each) || names.has(each.what) ? { ...each, max_C: Math.min(each.max_C, max_C) } : each,
    ),
  };
  return cells.reduce(
    (each, cell) => (isCellWatched(each, cell) ? each : withCell(map, bond, each, cell, max_C)),
    lowered,
  );
}

/** Where the stack has a layer that is a cell, there; else before it at its heated face, or behind it with a gap. */
function withCell(map: DeviceMap, bond: BondJoint, stack: BondStack, cell: Part, max_C: number): BondStack {
  const { layers, watch } = stack;
  const watched = (layer: number, more: BondStack['layers'] = []): BondStack => ({
    ...stack,
    layers: [...layers, ...more],
    watch: [...watch, { layer, fraction: 0, what: cell.name, max_C }],
  });
  const own = layers.findIndex(({ material }) => material === POUCH_CELL);
  if (own >= 0) return watched(own);
  if (!liesBeneath(map, bond, cell)) return watched(0);
  const thickness = Math.max(1, cell.z.bottom - cell.z.top);
  return watched(layers.length + 1, [
    { material: 'still air gap', thickness: GAP_MM },
    { material: POUCH_CELL, thickness },
  ]);
}

function isOfCell(layers: BondStack['layers'], { layer }: Watch): boolean {
  return layers[layer]?.material === POUCH_CELL;
}

/** Is it farther from the source than what the bond holds? */
function liesBeneath(map: DeviceMap, bond: BondJoint, cell: Part): boolean {
  const held = partById(map, bond.holds[0]);
  if (!held || held.id === cell.id) return false;
  const fromBack = (bond.heatFace ?? bond.face) === 'back';
  const depth = ({ z }: Part) => (fromBack ? -1 : 1) * (z.top + z.bottom);
  return depth(cell) > depth(held);
}

function overlaps({ box: a }: Part, { box: b }: Part): boolean {
  return a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h;
}
