import { type DeviceMap, fastenerAt, jointById, tabsOf } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { cellForALead, isDrying, tooWarmForAlcohol, wrongScrews } from '../../job/rules/index.ts';
import { type EventData } from '../../job/events/index.ts';
import { failedTests, type JobState } from '../../job/state/index.ts';
import { keyOf, looseScrewsOf } from '../../screws/screws/index.ts';
import { capital, functionName, isGate, tabName } from '../../planner/words/index.ts';
import type { Ahead } from './ahead.ts';
import { doneStep } from './done-step.ts';
import { type AtHand, type Does, type NextPress, NOTHING, pressing, say } from './one-press.ts';
import { pressOnBond } from './press-on-bond.ts';
import type { Said } from './said.ts';
import { nextUntested, testAnswer } from './testing.ts';
import { CLOCK_S, together } from './together.ts';
import { isAiring, waitLeft_s } from './waits.ts';

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
  if (isHeldByFault(mechanism.map, state, op)) {
    const label = `${functionName(mechanism.map, failedTests(mechanism.map, state)[0]!)} fails: try it again, or decide`;
    return { ...NOTHING, label, ops: op ? [op] : [] };
  }
  if (!op) return pressAtTheEnd(state);
  const press = pressOn(mechanism, state, ahead.ops, now, atHand);
  return press.ops.length > 0 ? press : { ...press, ops: [op] };
}

/** A test that is through, and all that closes the device over a fault, waits until it works or is decided. */
export function isHeldByFault(map: DeviceMap, state: JobState, op: Op | undefined): boolean {
  const closes = !op || op.stage === 'close' || (op.name === 'test' && nextUntested(state, op) === undefined);
  return closes && failedTests(map, state).length > 0;
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
  if (cellForALead(map, state, op)) return pressing('A lead allows it first', { kind: 'ask', about: 'transplant' });
  if (op.name === 'transplant') return pressing('Record its checks', { kind: 'ask', about: 'transplant' });
  if (op.name === 'inspect') return pressing('It is good', say(...lookAnswer(op, 'good')));
  const [test, ...then] = testAnswer(map, state, op, 'works');
  if (test) return pressing(`${functionName(map, test.data.function)} works`, say(test, ...then));
  const tab = nextTab(map, state, op);
  if (tab) return pressing(`${capital(tab.name)} is out`, say(tab.pulled));
  return pressOnBond(map, state, op, atHand, now) ?? pressOnStep(mechanism, state, ops, now, atHand);
}

/** The tab that is pulled next, each by itself; null where none is, or the map does not tell them apart. */
function nextTab(map: DeviceMap, state: JobState, op: Op): { name: string; pulled: Said } | null {
  const joint = jointById(map, op.joint);
  if (op.kind !== 'release' || joint?.type !== 'bond') return null;
  const out = state.opening.cut.get(joint.id);
  const tab = tabsOf(joint).find(({ id }) => !out?.has(id));
  return tab
    ? { name: tabName(joint, tab.id), pulled: { type: 'edge', data: { joint: joint.id, segment: tab.id } } }
    : null;
}

/** What was seen at a part that is looked at before it goes back; nothing at any other step. */
export function lookAnswer(op: Op | undefined, result: EventData['inspected']['result']): readonly Said[] {
  return op?.name === 'inspect' ? [{ type: 'inspected', data: { part: op.part!, result, text: '' } }] : [];
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
  const isTooWarm = ({ name, part, joint }: Op) =>
    name === 'wipe' && part === undefined && tooWarmForAlcohol(mechanism, state, joint!, now) !== null;
  if (isTooWarm(op)) return { ...NOTHING, label: 'Too warm for alcohol: let it cool' };
  const left_s = waitLeft_s(state, op, now);
  if (left_s === null && isClocked(op)) {
    const label = op.seconds > 0 ? 'Started, run the clock' : 'Run the clock';
    return pressing(label, say(clockOf(op)));
  }
  const isOver = left_s !== null && left_s <= 0;
  const joined = left_s === null || isOver ? together(mechanism, state.device, ops, isOver) : [op];
  const warm = joined.findIndex(isTooWarm);
  const group = warm < 0 ? joined : joined.slice(0, warm);
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
    const joint = jointById(map, op.joint);
    if (joint?.type !== 'screw' || op.kind !== 'release') return [];
    return joint.points.filter((each) => !captive.has(fastenerAt(joint, each)));
  });
  return loose.length > 0 ? `Done, ${loose.length} on the mat` : 'Done';
}

/** One screw of the joint in hand laid on the mat; null where none is to be laid. */
export function nextScrew({ map }: Mechanism, state: JobState, op: Op | undefined): Said | null {
  const joint = jointById(map, op?.joint);
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
    const joint = step.kind === 'make' ? jointById(mechanism.map, step.joint) : undefined;
    if (joint?.type !== 'screw') return step;
    const lost = state.ledger.lost.filter((screw) => screw.joint === joint.id);
    const fresh = [...lost, ...wrongScrews(mechanism, state, joint).map(({ screw }) => screw)];
    return fresh.length > 0 ? { ...step, freshScrews: fresh.map(({ point }) => point) } : step;
  });
}
