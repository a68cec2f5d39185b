import type { BondCut } from '../../planner/cut/index.ts';
import type { BondJoint, DeviceMap } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import { fitted } from '../../physics/heat/index.ts';
import { sourceNamed } from '../../model/sources/index.ts';
import { type JobState, lastWarmed } from '../../job/state/index.ts';
import { capital, edgeName } from '../../planner/words/index.ts';
import { bondInHand, bondWork, zoneInHand } from './bond-in-hand.ts';
import { cutInHand } from './cut-in-hand.ts';
import { type EdgeInHand, edgeInHand } from './edge-in-hand.ts';
import { type AtHand, type Does, type NextPress, NOTHING, pressing, say, tenths } from './one-press.ts';
import type { Said } from './said.ts';
import { pastUntilNow, putOnFor_s } from './to-warm.ts';
import { alarmOf, elapsed_s, type WarmBond } from './warm-bond.ts';

/** Fewer readings are no measurement that a workshop would keep (guess). */
const ENOUGH_READINGS = 8;

/** Where nobody says how many (common practice). */
const USUAL_DROPS = 4;
/** Where neither map nor plan says how long solvent soaks (common practice). */
const USUAL_SOAK_S = 240;

/** A bond that is warmed, cut edge by edge or soaked; null where it is done by one press. */
export function pressOnBond(map: DeviceMap, state: JobState, op: Op, atHand: AtHand, now: number): NextPress | null {
  const bond = bondInHand(map, op);
  if (!bond) return null;
  const cut = cutInHand(map, state, bond, atHand.warm ?? null);
  switch (bondWork(map, state, op, cut)) {
    case 'heating':
      return pressWhileOn(map, state, bond, atHand, now);
    case 'to-heat':
      return heatOn(map, state, bond, atHand);
    case 'cut':
      return pressOnEdge(map, state, bond, cut!, atHand);
    case 'soak':
      return pressToSoak(state, op, bond, atHand);
    default:
      return null;
  }
}

/** The chosen source; where it is foreseen not to do, the one that does, and the chosen one all the same. */
function heatOn(map: DeviceMap, state: JobState, bond: BondJoint, atHand: AtHand): NextPress {
  const own = sourceOn(map, state, bond, 'Heat on', atHand);
  if (!atHand.hopeless || !own.isAllowed) return own;
  const { instead } = atHand.hopeless;
  const other = instead
    ? sourceOn(map, state, bond, `Heat on, ${sourceNamed(instead.kind).name}`, { ...atHand, setting: instead })
    : NOTHING;
  return { ...other, allTheSame: own.does };
}

function sourceOn(map: DeviceMap, state: JobState, bond: BondJoint, label: string, atHand: AtHand): NextPress {
  const { setting, standIn, bench, warm = null } = atHand;
  if (!setting) return { ...NOTHING, label };
  const zone = zoneInHand(map, state, bond);
  const past = pastUntilNow(map, state, bond, warm);
  const data = {
    joint: bond.id,
    setting,
    heat_s: putOnFor_s(map, state, bond, setting, past),
    ...(zone === undefined ? {} : { zone }),
    ...standIn,
    ...(bench === undefined ? {} : { bench }),
  };
  return pressing(label, say({ type: 'heat-on', data }));
}

/** The source comes off once the bond is soft, a limit is near, or nothing can be foreseen and it is warmed by feel. */
function pressWhileOn(map: DeviceMap, state: JobState, bond: BondJoint, atHand: AtHand, now: number): NextPress {
  const { warm, hopeless } = atHand;
  const { heating } = state.opening;
  const on = warm?.on;
  if (!heating) return { ...NOTHING, label: 'Waiting for it to soften' };
  // nothing is foreseen: warmed by feel
  if (!on) {
    const seconds = tenths(Math.max(0, elapsed_s(heating, now)));
    return pressing('Heat off', say({ type: 'heat-off', data: { joint: heating.joint, seconds } }));
  }
  const fit = on.fit?.isSound ? on.fit : null;
  const off: Said = {
    type: 'heat-off',
    data: {
      joint: heating.joint,
      seconds: tenths(on.elapsed_s),
      ...(fit ? { setting: on.setting, residual_C: tenths(fit.residual_C) } : {}),
      ...(on.clock ? { bond_C: tenths(on.clock.bond_C.likely) } : {}),
    },
  };
  const source =
    fit && fit.readings >= ENOUGH_READINGS
      ? {
          setting: fitted(heating.setting, fit),
          residual_C: tenths(fit.residual_C),
          map: map.id,
          joint: bond.id,
          ...(heating.simulatedReadings ? { simulated: true } : {}),
        }
      : null;
  const does: Does = { kind: 'say', events: [off], ...(source ? { teaches: { type: 'source', data: source } } : {}) };
  // with what never softens it there is nothing to wait for
  const neverSoft = on.clock !== null && on.clock.toSoft_s === null && on.clock.toLikely_s === null;
  const mayComeOff = alarmOf(warm) !== null || warm.problem !== null || neverSoft;
  if (neverSoft && hopeless?.instead) {
    const { does: on } = sourceOn(map, state, bond, '', { ...atHand, setting: hopeless.instead });
    const events = on.kind === 'say' ? [off, ...on.events] : [off];
    return { ...pressing(`Change to the ${sourceNamed(hopeless.instead.kind).name}`, say(...events)), endsWait: does };
  }
  const label = mayComeOff ? 'Heat off' : 'Waiting for it to soften';
  return { ...pressing(label, does, mayComeOff), endsWait: does };
}

function pressOnEdge(map: DeviceMap, state: JobState, bond: BondJoint, cut: BondCut, atHand: AtHand): NextPress | null {
  const inHand = edgeInHand(state, bond, cut, atHand.warm ?? null);
  if (!inHand) return null;
  const press = pressing(`${capital(edgeName(bond, inHand.edge.segment))} is cut`, say(edgeCut(bond, inHand.edge)));
  const again = bond.heat === true ? sourceOn(map, state, bond, 'Heat again', atHand) : null;
  const drags = bond.heat === true || bond.solvent ? itDrags(map, state, bond, inHand, atHand.warm ?? null) : null;
  return { ...press, ...(again?.isAllowed ? { heatAgain: again.does } : {}), ...(drags ? { drags } : {}) };
}

/** Where a first gap will not open says nothing of an open seam; what it had is kept where it is foreseen. */
function itDrags(
  map: DeviceMap,
  { opening }: JobState,
  { id: joint }: BondJoint,
  { edge, isFirstGap }: EdgeInHand,
  warm: WarmBond | null,
): Does {
  const bond_C = warm?.bond_C ? tenths(warm.bond_C.likely) : null;
  const { segment } = edge;
  const data = { kind: 'drags', text: '', joint, segment, ...(bond_C === null ? {} : { bond_C }) } as const;
  const isSimulated = lastWarmed(opening, joint)?.simulated;
  const drag = { map: map.id, joint, temp_C: bond_C!, ...(isSimulated ? { simulated: true } : {}) };
  const isTaught = bond_C !== null && !isFirstGap;
  return {
    kind: 'say',
    events: [{ type: 'trouble', data }],
    ...(isTaught ? { teaches: { type: 'drag', data: drag } } : {}),
  };
}

export function edgeCut({ id }: BondJoint, { segment }: { readonly segment: string }): Said {
  return { type: 'edge', data: { joint: id, segment } };
}

/** Drops go on with the source off and away, and the clock of the soak runs. */
function pressToSoak(
  state: JobState,
  op: Op,
  bond: BondJoint,
  { warm, drops = USUAL_DROPS, bench }: AtHand,
): NextPress {
  const hottest_C = warm?.bond_C?.high;
  if (hottest_C !== undefined && hottest_C > state.limits.solventBelow_C) {
    const coolIn_s = warm?.off?.coolIn_s ?? null;
    const wait = coolIn_s === null ? 'let it cool' : `in about ${Math.max(1, Math.ceil(coolIn_s / 60))} min`;
    return { ...NOTHING, label: `Too warm for solvent: ${wait}` };
  }
  const solvent = {
    joint: bond.id,
    drops,
    away: true,
    ...(hottest_C === undefined ? {} : { bond_C: tenths(hottest_C) }),
    ...(bench === undefined ? {} : { bench }),
  };
  const seconds = op.wait_s ?? USUAL_SOAK_S;
  return pressing(
    'Heat off and away, solvent on',
    say({ type: 'solvent', data: solvent }, { type: 'timer', data: { step: op.id, seconds } }),
  );
}
