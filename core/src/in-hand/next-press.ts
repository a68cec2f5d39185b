import type { BondCut } from '../cut/index.ts';
import { type BondJoint, type DeviceMap, fastenerAt } from '../device-map/index.ts';
import type { Op } from '../drafts/index.ts';
import { fitted, type HeatSetting } from '../heat/index.ts';
import type { Mechanism } from '../holds/index.ts';
import { type EventData, failedTests, isDrying, type JobState, lastWarmed, wrongScrews } from '../job/index.ts';
import { keyOf, looseScrewsOf } from '../screws/index.ts';
import type { ShopEventData } from '../shop/index.ts';
import { capital, edgeName, isGate } from '../words/index.ts';
import { type Ahead, doneStep } from './ahead.ts';
import { bondInHand, bondWork, zoneInHand } from './bond-in-hand.ts';
import { type EdgeInHand, edgeInHand } from './edge-in-hand.ts';
import { cutInHand } from './cut-in-hand.ts';
import type { Said } from './said.ts';
import { nextUntested, testAnswer } from './testing.ts';
import { pastUntilNow, plannedTime_s } from './to-warm.ts';
import { CLOCK_S, together } from './together.ts';
import { isAiring, waitLeft_s } from './waits.ts';
import { alarmOf, elapsed_s, type WarmBond } from './warm-bond.ts';

/** What a workshop learns from a job and keeps. */
type Taught = {
  readonly [Type in 'source' | 'drag']: { readonly type: Type; readonly data: ShopEventData[Type] };
}['source' | 'drag'];

export type Does =
  /** said one after the other, each only where the one before it was taken */
  | {
      readonly kind: 'say';
      readonly events: readonly Said[];
      /** what it teaches the workshop: of a source by its readings, of a bond by how it cuts */
      readonly teaches?: Taught;
    }
  | { readonly kind: 'go'; readonly to: 'prepare' | 'record' }
  /** something has to be answered first */
  | { readonly kind: 'ask'; readonly about: 'transplant' | 'wet' }
  | { readonly kind: 'nothing' };

/** What Space, the pedal and the main button do. */
export interface NextPress {
  /** what stands on the button; empty where there is none */
  readonly label: string;
  /** false: nothing is done, and that is heard */
  readonly isAllowed: boolean;
  readonly does: Does;
  /** the operations that it does, the one in hand first */
  readonly ops: readonly Op[];
  /** what ends a wait before its time, where something is waited for */
  readonly endsWait: Does | null;
  /** one more warming of the bond that is cut: a key of its own, never what Space turns into */
  readonly heatAgain?: Does;
  /** the open seam drags: where is recorded, and heat, or solvent, is put before the rest */
  readonly drags?: Does;
  /** a plug is pressed home, and nobody is sure that it clicked: only this one is done */
  readonly notSure?: Does;
}

/** What the bench knows beside the job: what is foreseen, and what was chosen there. All of it may be left out. */
export interface AtHand {
  /** how warm the bond in hand is, as foreseen */
  readonly warm?: WarmBond | null;
  /** the chosen source as it is set up; none while nobody knows it */
  readonly setting?: HeatSetting | null;
  /** a source that only stands in for one */
  readonly standIn?: { readonly simulated: true; readonly pace: number };
  /** drops of solvent */
  readonly drops?: number;
  /** where heat and solvent are used, in a workshop with several benches */
  readonly bench?: string;
}

const NOTHING: NextPress = { label: '', isAllowed: false, does: { kind: 'nothing' }, ops: [], endsWait: null };

/** Fewer readings are no measurement that a workshop would keep (guess). */
const ENOUGH_READINGS = 8;

/** Where nobody says how many (common practice). */
const USUAL_DROPS = 4;
/** Where neither map nor plan says how long solvent soaks (common practice). */
const USUAL_SOAK_S = 240;

/**
 * What the next press does, what it is called and whether it may be made. Nothing is in hand while it is not known what
 * comes next, or while the job is stopped or ended.
 * @param ahead null while it is being planned
 * @param now milliseconds
 */
export function nextPress(
  mechanism: Mechanism,
  state: JobState,
  ahead: Ahead | null,
  now: number,
  atHand: AtHand = {},
): NextPress {
  if (state.stopped !== null || state.ended !== null || !ahead) return NOTHING;
  const op = ahead.ops[0];
  const failed = failedTests(mechanism.map, state);
  if (failed.length > 0 && (!op || isHeldByFault(state, op))) {
    const label = `${functionName(mechanism.map, failed[0]!)} fails: try it again, or decide`;
    return { ...NOTHING, label, ops: op ? [op] : [] };
  }
  if (!op) return pressAtTheEnd(state);
  const press = pressOn(mechanism, state, ahead.ops, now, atHand);
  return press.ops.length > 0 ? press : { ...press, ops: [op] };
}

/** A test that is through, and all that closes the device over a fault, waits until it works or is decided. */
function isHeldByFault(state: JobState, op: Op): boolean {
  return op.stage === 'close' || (op.name === 'test' && nextUntested(state, op) === undefined);
}

function pressAtTheEnd(state: JobState): NextPress {
  if (isDrying(state)) return pressing('Decide about the board', { kind: 'ask', about: 'wet' });
  if (state.finished) return pressing('To the record', { kind: 'go', to: 'record' });
  return pressing('Finish, to the record', say({ type: 'finish', data: {} }));
}

function pressOn(mechanism: Mechanism, state: JobState, ops: readonly Op[], now: number, atHand: AtHand): NextPress {
  const { map } = mechanism;
  const op = ops[0]!;
  if (isGate(op)) return pressing('To the preparation', { kind: 'go', to: 'prepare' });
  if (op.name === 'transplant') return pressing('Record its checks', { kind: 'ask', about: 'transplant' });
  if (op.name === 'inspect') return pressing('It is good', say(...lookAnswer(op, 'good')));
  const [test, ...then] = testAnswer(map, state, op, 'works');
  if (test) return pressing(`${functionName(map, test.data.function)} works`, say(test, ...then));
  return pressOnBond(map, state, op, atHand, now) ?? pressOnStep(mechanism, state, ops, now, atHand);
}

/** What was seen at a part that is looked at before it goes back; nothing at any other step. */
export function lookAnswer(op: Op | undefined, result: EventData['inspected']['result']): readonly Said[] {
  return op?.name === 'inspect' ? [{ type: 'inspected', data: { part: op.part!, result, text: '' } }] : [];
}

function functionName(map: DeviceMap, id: string): string {
  return map.functions.find((each) => each.id === id)?.name ?? id;
}

/** A step that is done by one press, with what belongs to it, or that a clock runs for. */
function pressOnStep(
  mechanism: Mechanism,
  state: JobState,
  ops: readonly Op[],
  now: number,
  { bench }: AtHand,
): NextPress {
  const op = ops[0]!;
  const left_s = waitLeft_s(state, op, now);
  if (left_s === null && isClocked(op)) {
    const label = op.seconds > 0 ? 'Started, run the clock' : 'Run the clock';
    return pressing(label, say(clockOf(op)));
  }
  const isOver = left_s !== null && left_s <= 0;
  const group = left_s === null || isOver ? together(mechanism, state.device, ops, isOver) : [op];
  const last = group.at(-1)!;
  const startsClock = last !== op && isClocked(last);
  const done = startsClock ? group.slice(0, -1) : group;
  const did: Said =
    op.name === 'vent'
      ? { type: 'aired', data: { step: op.id, ...(bench === undefined ? {} : { bench }) } }
      : { type: 'did', data: { steps: done.map(doneStep) } };
  const isDone = say(did, ...(startsClock ? [clockOf(last)] : []));
  const clock = startsClock ? ', run the clock' : '';
  if (left_s === null) {
    const press = { ...pressing(doneLabel(mechanism.map, done) + clock, isDone), ops: group };
    return clicks(mechanism.map, op) ? { ...press, notSure: notSure(op) } : press;
  }
  const isTimed = isAiring(state, op) || state.timers.some((each) => each.step === op.id);
  const label = !isOver ? 'Waiting' : group.length > 1 ? `Done${clock}` : 'Time is up, done';
  const endsNow = say(op.name === 'vent' ? did : { type: 'did', data: { steps: [doneStep(op)] } });
  return { ...pressing(label, isDone, isOver), ops: group, endsWait: isTimed ? endsNow : null };
}

function isClocked({ wait_s }: Op): boolean {
  return (wait_s ?? 0) >= CLOCK_S;
}

function clockOf({ id, wait_s }: Op): Said {
  return { type: 'timer', data: { step: id, seconds: wait_s! } };
}

/** Is it pressed home with a click that has to be listened for? */
export function clicks({ joints }: DeviceMap, op: Op | undefined): boolean {
  const isPressed = op?.kind === 'make' || op?.name === 'press-home';
  const joint = isPressed ? joints.find(({ id }) => id === op.joint) : undefined;
  return joint?.type === 'connector' && CLICKS.has(joint.style);
}

const CLICKS: ReadonlySet<string> = new Set(['press', 'coax']);

function notSure(op: Op): Does {
  return say(
    { type: 'did', data: { steps: [doneStep(op)] } },
    { type: 'click', data: { joint: op.joint!, heard: 'not-sure' } },
  );
}

function doneLabel(map: DeviceMap, ops: readonly Op[]): string {
  if (ops.some((op) => clicks(map, op))) return 'Done, it clicked';
  if (ops[0]!.name === 'test') return 'All tried';
  const captive = new Set(map.fasteners.filter((each) => each.captive).map((each) => each.id));
  const loose = ops.flatMap((op) => {
    const joint = map.joints.find((each) => each.id === op.joint);
    if (joint?.type !== 'screw' || op.kind !== 'release') return [];
    return joint.points.filter((each) => !captive.has(fastenerAt(joint, each)));
  });
  return loose.length > 0 ? `Done, ${loose.length} on the mat` : 'Done';
}

/** A bond that is warmed, cut edge by edge or soaked; null where it is done by one press. */
function pressOnBond(map: DeviceMap, state: JobState, op: Op, atHand: AtHand, now: number): NextPress | null {
  const bond = bondInHand(map, op);
  if (!bond) return null;
  const cut = cutInHand(map, state, bond, atHand.warm ?? null);
  switch (bondWork(map, state, op, cut)) {
    case 'heating':
      return pressWhileOn(map, state, bond, atHand, now);
    case 'to-heat':
      return sourceOn(map, state, bond, 'Heat on', atHand);
    case 'cut':
      return pressOnEdge(map, state, bond, cut!, atHand);
    case 'soak':
      return pressToSoak(state, op, bond, atHand);
    default:
      return null;
  }
}

function sourceOn(map: DeviceMap, state: JobState, bond: BondJoint, label: string, atHand: AtHand): NextPress {
  const { setting, standIn, bench, warm = null } = atHand;
  if (!setting) return { ...NOTHING, label };
  const zone = zoneInHand(map, state, bond);
  const past = pastUntilNow(map, state, bond, warm);
  const data = {
    joint: bond.id,
    setting,
    heat_s: plannedTime_s(map, bond, setting.kind, past),
    ...(zone === undefined ? {} : { zone }),
    ...standIn,
    ...(bench === undefined ? {} : { bench }),
  };
  return pressing(label, say({ type: 'heat-on', data }));
}

/** The source comes off once the bond is soft, a limit is near, or nothing can be foreseen and it is warmed by feel. */
function pressWhileOn(map: DeviceMap, state: JobState, bond: BondJoint, { warm }: AtHand, now: number): NextPress {
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

/** One screw of the joint in hand laid on the mat; null where none is to be laid. */
export function nextScrew({ map }: Mechanism, state: JobState, op: Op | undefined): Said | null {
  const joint = map.joints.find((each) => each.id === op?.joint);
  if (joint?.type !== 'screw' || op?.kind !== 'release') return null;
  const laid = new Set(state.ledger.onMat.map(keyOf));
  const next = looseScrewsOf(map, joint, state.ledger).find((each) => !laid.has(keyOf(each)));
  return next ? { type: 'screw', data: { joint: joint.id, point: next.point } } : null;
}

/** The same steps with a new screw in place of each that is lost, or would do harm in its hole. */
export function withNewScrews(
  mechanism: Mechanism,
  state: JobState,
  steps: EventData['did']['steps'],
): EventData['did']['steps'] {
  return steps.map((step) => {
    const joint = step.kind === 'make' ? mechanism.map.joints.find(({ id }) => id === step.joint) : undefined;
    if (joint?.type !== 'screw') return step;
    const lost = state.ledger.lost.filter((screw) => screw.joint === joint.id);
    const fresh = [...lost, ...wrongScrews(mechanism, state, joint).map(({ screw }) => screw)];
    return fresh.length > 0 ? { ...step, freshScrews: fresh.map(({ point }) => point) } : step;
  });
}

function pressing(label: string, does: Does, isAllowed = true): NextPress {
  return { label, isAllowed, does, ops: [], endsWait: null };
}

function say(...events: readonly Said[]): Does {
  return { kind: 'say', events };
}

function tenths(value: number): number {
  return Math.round(value * 10) / 10;
}
