import { temperature, type TemperatureUnit } from '../../model/units/index.ts';
import { isWarmSource, sourceNamed, WARM_SOURCES } from '../../model/sources/index.ts';
import { packOf } from '../../model/battery/index.ts';
import { warmingsOf } from '../../planner/cut/index.ts';
import { type BondJoint, type DeviceMap, fastenerAt, jointById, partById } from '../../model/device-map/index.ts';
import { foreseeBond, type Foresight, kindFor, nearestLimit, settingFor } from '../../physics/heat/index.ts';
import { opTitle } from '../../planner/words/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import type { Limits } from '../../model/limits/index.ts';
import { keepings } from '../../screws/mix-ups/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import type { Plan } from '../../planner/plan/index.ts';
import { cutsNearCell } from '../prepare/index.ts';
import { minutes } from './words.ts';

/** One answer to a question of the schools, on a device, with the plan that it gives. */
export interface Option {
  readonly map: DeviceMap;
  /** the question and the answer, as a policy names them */
  readonly key: keyof Policy;
  readonly value: string;
  readonly plan: Plan;
  readonly limits: Limits;
  /** of the pack, 0 to 1; null while nobody has read it */
  readonly charge: number | null;
  /** what the bench reads temperatures in */
  readonly unit: TemperatureUnit;
}

/** What the risk of an option is on this device, in figures of its own plan. */
export function riskOf({ map, key, value, plan, limits, charge, unit }: Option): string {
  switch (key) {
    case 'display':
      return displayRisk(map, plan);
    case 'batteryBefore':
      return chargeRisk(map, value, plan, limits, charge);
    case 'heat':
      return heatRisk(map, value, plan, unit);
    case 'warm':
      return warmRisk(map, value, plan, limits);
    case 'order':
      return `${count(plan.toolChanges, 'tool change')}, ${count(plan.flips, 'turn of the device', 'turns of the device')}`;
    case 'sealLaid':
      return sealRisk(value, plan);
    case 'batteryWhilePrying':
      return pryingRisk(map, plan);
    case 'test':
      return testRisk(map, value, plan);
    case 'newBattery':
      return newBatteryRisk(map, value);
    case 'firstGap':
      return firstGapRisk(map, value, plan);
    case 'batteryBond':
      return bondRisk(map, value, plan);
    case 'screws':
      return screwRisk(map, value, plan, limits);
    case 'tools':
      return toolRisk(map, value, plan);
    case 'closing':
      return closingRisk(map, plan);
    case 'tightening':
      return tighteningRisk(map, value, plan);
  }
}

const allOps = (plan: Plan) => [...plan.strip, ...plan.rebuild];
const count = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;
const seconds = (ops: readonly Op[]) => ops.reduce((sum, op) => sum + op.seconds + (op.wait_s ?? 0), 0);

function bondsCut(map: DeviceMap, plan: Plan): BondJoint[] {
  const cut = new Set(plan.strip.flatMap((op) => (op.kind === 'release' ? [op.joint!] : [])));
  return map.joints.filter((each): each is BondJoint => each.type === 'bond' && cut.has(each.id));
}

function length_mm({ from, to }: { from: { x: number; y: number }; to: { x: number; y: number } }): number {
  return Math.hypot(to.x - from.x, to.y - from.y);
}

function sealRisk(value: string, plan: Plan): string {
  const liners = plan.rebuild.filter((op) => op.name === 'liner-off' && op.stage === 'close').length;
  if (liners === 0) return 'no seal with a liner here';
  return value === 'bare-frame'
    ? `${count(liners, 'liner')} to take off beneath the standing part`
    : `scraped and laid beneath what stands, on a live device: ${count(liners, 'seal')}`;
}

function displayRisk(map: DeviceMap, plan: Plan): string {
  const displays = map.parts.filter((each) => each.kind === 'display').map((each) => each.id);
  const isPlug = (op: Op, kind: 'release' | 'make') => {
    const joint = map.joints.find((each) => op.kind === kind && each.id === op.joint);
    return joint?.type === 'connector' && joint.holds.some((id) => displays.includes(id));
  };
  const plugged = plan.rebuild.filter((op) => isPlug(op, 'make')).length;
  const opened = plan.strip.findIndex((op) => op.kind === 'open' && displays.includes(op.part!));
  const display = plan.strip[opened]?.part;
  if (display === undefined || plan.strip.some((op) => op.kind === 'lift' && op.part === display)) {
    return plugged > 0 ? `${count(plugged, 'connector')} of it reconnected once more` : '';
  }
  const closed = plan.rebuild.findIndex((op) => op.kind === 'close' && op.part === display);
  const standing = seconds([...plan.strip.slice(opened + 1), ...plan.rebuild.slice(0, Math.max(0, closed))]);
  const released = new Set(plan.strip.flatMap((op) => (op.kind === 'release' ? [op.joint] : [])));
  const flexes = map.joints.filter(
    (each) => each.type === 'connector' && each.holds.includes(display) && !released.has(each.id),
  );
  return `${count(flexes.length, 'flex', 'flexes')} under strain for ${minutes(standing)}`;
}

function chargeRisk(map: DeviceMap, value: string, plan: Plan, { runDownTo }: Limits, charge: number | null): string {
  const { cells, wiring } = map.battery!;
  const { energy_Wh } = packOf(cells, wiring);
  if (!cutsNearCell(map, plan.strip)) return 'no bond is cut near the cell';
  const held = value === 'run-down' ? Math.min(runDownTo, charge ?? runDownTo) : (charge ?? 1);
  return `${(held * energy_Wh).toFixed(1)} Wh in the cell while the pick passes it`;
}

function heatRisk(map: DeviceMap, value: string, plan: Plan, unit: TemperatureUnit): string {
  const heats = allOps(plan).filter((op) => op.name === 'heat');
  const bonds = bondsCut(map, plan);
  if (heats.length === 0) {
    const cold = bonds.filter((each) => each.heat);
    return cold.length > 0 ? `${count(cold.length, 'bond')} cut cold: more force, glass breaks` : 'nothing is heated';
  }
  const foreseen = bonds
    .filter((each) => each.heat)
    .flatMap((bond): Foreseen[] => {
      const kind = kindFor(bond, isWarmSource(value) ? value : null);
      const foresight = foreseeBond(map, bond, kind);
      return foresight ? [{ temp_C: settingFor(bond, kind).temp_C, foresight }] : [];
    });
  const hottest = Math.max(...foreseen.map((each) => each.temp_C));
  const limit = limitWords(foreseen, unit);
  const uneven = value === 'air' ? ', one half at a time' : value === 'pack' ? ', cooling as it works' : '';
  return `${minutes(heats.reduce((sum, op) => sum + (op.wait_s ?? 0), 0))} at ${temperature(hottest, unit)}${uneven}${limit}`;
}

/** How often the bonds of this plan are warmed for their cut, and what is cut without heat of its own. */
function warmRisk(map: DeviceMap, value: string, plan: Plan, { cutSpeed_mm_s: speed_mm_s }: Limits): string {
  const heated = new Map(plan.strip.flatMap((op) => (op.name === 'heat' ? [[op.joint, op.tool] as const] : [])));
  const often = bondsCut(map, plan).flatMap((bond) => {
    const source = WARM_SOURCES.find((each) => sourceNamed(each).name === heated.get(bond.id));
    const warmings = source && warmingsOf(map, bond, source, { speed_mm_s, warm: value as Policy['warm'] });
    return warmings ? [warmings] : [];
  });
  if (often.length === 0) return '';
  const most = count(Math.max(...often), 'warming');
  return value === 'start-edge'
    ? `${most}, the other edges pulled open without heat of their own: slow, never by force`
    : most;
}

interface Foreseen {
  readonly temp_C: number;
  readonly foresight: Foresight;
}

/** What comes nearest to its limit, by the fast end; and whether the bonds are soft by the slow end at all. */
function limitWords(foreseen: readonly Foreseen[], unit: TemperatureUnit): string {
  const nearest = foreseen
    .map(({ foresight }) => nearestLimit(foresight))
    .filter((each) => each !== null)
    .toSorted((a, b) => a.max_C - a.peak_C - (b.max_C - b.peak_C))[0];
  const reached = nearest
    ? `, ${nearest.what} up to ${temperature(nearest.peak_C, unit)} of ${temperature(nearest.max_C, unit)}`
    : '';
  const stiff = foreseen.some(({ foresight }) => foresight.ready.likely === null)
    ? ', a bond stays stiff'
    : foreseen.some(({ foresight }) => foresight.ready.late === null)
      ? ', perhaps not soft in that time'
      : '';
  return reached + stiff;
}

function pryingRisk(map: DeviceMap, plan: Plan): string {
  const cell = map.battery?.part ?? '';
  const out = plan.strip.findIndex((op) => op.kind === 'lift' && op.part === cell);
  const before = out < 0 ? plan.strip : plan.strip.slice(0, out);
  const passing = bondsCut(map, { ...plan, strip: before }).filter((each) => each.endangers?.length);
  const mm = passing.flatMap((each) => (each.segments ?? []).filter(({ depth }) => depth !== undefined).map(length_mm));
  const handled = allOps(plan).filter((op) => op.part === cell && (op.kind === 'lift' || op.kind === 'fit')).length;
  const past = `the pick runs ${Math.round(mm.reduce((sum, each) => sum + each, 0))} mm past a cell`;
  return passing.length > 0 ? past : handled > 0 ? `the cell is handled ${count(handled, 'time')}` : '';
}

function testRisk(map: DeviceMap, value: string, plan: Plan): string {
  if (value !== 'after') {
    const live = plan.rebuild.filter((op) => op.id === 'test:before');
    return live.length > 0 ? `the battery is live with the lid off for ${minutes(seconds(live))}` : '';
  }
  const seals = bondsCut(map, plan).filter((each) => each.style === 'perimeter').length;
  const opening = plan.strip.filter((op) => op.stage === 'open');
  const closing = plan.rebuild.filter((op) => op.stage === 'close');
  const again = minutes(seconds(opening) + seconds(closing));
  return `a fault found then costs ${seals > 0 ? `${count(seals, 'seal')} and ` : ''}${again} more`;
}

function newBatteryRisk(map: DeviceMap, value: string): string {
  const { part, cells, wiring } = map.battery!;
  const warnings = partById(map, part)?.onReplace ?? [];
  if (value === 'whole-pack') {
    const told = warnings.map((each) => each.note).join(' ');
    return warnings.length > 0 ? `${count(warnings.length, 'warning')} to disclose: ${told}` : 'no warning is mapped';
  }
  const { energy_Wh } = packOf(cells, wiring);
  return `a pack of ${energy_Wh.toFixed(1)} Wh is opened: fire; only where the lead and local rules allow it, always disclosed`;
}

function firstGapRisk(map: DeviceMap, value: string, plan: Plan): string {
  const segments = bondsCut(map, plan)
    .filter((each) => each.style === 'perimeter')
    .flatMap((each) => each.segments ?? [])
    .filter(({ depth }) => depth !== undefined);
  if (segments.length === 0) return '';
  const rim = Math.round(Math.max(...segments.map(length_mm)));
  const shallow = Math.min(...segments.map(({ depth }) => depth!));
  const risks: Readonly<Record<Policy['firstGap'], string>> = {
    'one-cup': `all the pull on one place of a ${rim} mm edge; a cup does not hold on bare cracks`,
    'two-cup': 'pulls on the other face as well; cups do not hold on bare cracks',
    'edgeless-blade': `metal on the ${rim} mm rim: it can scar`,
    'thin-film': 'slow, and it folds in a stiff bond',
    'bench-cutter': `one fixed depth for every edge: not over the shallowest, ${shallow} mm`,
    'by-hand': `a nail finds no hold in a stiff bond of ${rim} mm`,
  };
  return risks[value as Policy['firstGap']];
}

function bondRisk(map: DeviceMap, value: string, plan: Plan): string {
  const cell = map.battery?.part ?? '';
  const bonds = bondsCut(map, plan).filter((each) => each.holds.includes(cell));
  if (bonds.length === 0) return "the cell's bond is not touched";
  if (value === 'tabs-then-solvent') return `${count(bonds.length, 'bond')} to pull: a tab that snaps costs a soak`;
  const wait = plan.strip.filter((op) => bonds.some((each) => each.id === op.joint) && op.kind === 'procedure');
  return `heat and solvent at the cell for ${minutes(seconds(wait))}, one after the other and never at once`;
}

/** What is to be expected of screws taken for others, with the containers that stand here. */
function screwRisk(map: DeviceMap, value: string, plan: Plan, limits: Limits): string {
  const total = plan.screws.reduce((sum, each) => sum + each.count, 0);
  if (total === 0) return 'no screw comes out';
  const keeping = keepings(map, plan.strip, limits).find(({ school }) => school === value);
  if (!keeping) return '';
  const places = count(keeping.kept.length, value === 'map-mat' ? 'place' : 'container');
  const risk =
    keeping.risk_min < 0.1 ? 'next to no mix-up' : `${keeping.risk_min.toFixed(1)} min of mix-ups to be expected`;
  return value === 'map-mat' ? `${risk}, ${places}; a knock mixes ${count(total, 'screw')}` : `${risk}, ${places}`;
}

function toolRisk(map: DeviceMap, value: string, plan: Plan): string {
  const snaps = plan.strip.filter((op) => {
    const joint = jointById(map, op.joint);
    return op.kind === 'release' && joint?.type === 'connector' && joint.style === 'coax';
  });
  if (snaps.length === 0) return 'no snap is worked with tweezers';
  const first = opTitle(map, snaps[0]!);
  return value === 'plastic'
    ? `${count(snaps.length, 'snap')} with soft tips, which slip`
    : `${count(snaps.length, 'snap')} with metal beside a board, first: ${first}`;
}

function closingRisk(map: DeviceMap, plan: Plan): string {
  const seals = bondsCut(map, plan).filter((each) => each.style === 'perimeter');
  const cure = plan.rebuild.filter((op) => op.name === 'cure').reduce((sum, op) => sum + (op.wait_s ?? 0), 0);
  const corners = seals.reduce((sum, each) => sum + Math.max(0, (each.segments?.length ?? 0) - 1), 0);
  const used = plan.consumables.filter((each) => seals.some(({ id }) => id === each.joint)).map((each) => each.what);
  if (used.includes('tape')) return `${count(corners, 'joint')} between strips can leak`;
  if (used.includes('liquid-adhesive')) return `can run inside; cures ${minutes(cure)}`;
  return seals.length > 0 ? `${count(seals.length, 'seal')} of this device has to be in stock` : 'no seal is opened';
}

function tighteningRisk(map: DeviceMap, value: string, plan: Plan): string {
  const made = plan.rebuild.flatMap((op) => {
    const joint = map.joints.find((each) => op.kind === 'make' && each.id === op.joint);
    return joint?.type === 'screw' ? joint.points.map((point) => ({ point, kind: fastenerAt(joint, point) })) : [];
  });
  const rated = made.filter(({ kind }) => map.fasteners.find((each) => each.id === kind)?.torque);
  if (value === 'torque') return `${rated.length} of ${count(made.length, 'screw')} have a torque in the map`;
  const delicate = made.filter(({ point }) => point.below === 'board' || point.below === 'plastic');
  return `${count(made.length, 'screw')} by feel, ${delicate.length} of them over a board or in plastic`;
}
