import {
  bondInHand,
  bondToClose,
  bondWork,
  cutInHand,
  edgeInHand,
  justClosed,
  leadOf,
  lookAnswer,
  nextScrew,
  nextUntested,
  type NextPress,
  restWorks,
  testAnswer,
  waitLeft_s,
  zoneInHand,
} from '../../bench/in-hand/index.ts';
import { worthTrying } from '../../bench/trying/index.ts';
import type { JobState, Zone } from '../../job/state/index.ts';
import { type BondJoint, type DeviceMap, jointById } from '../../model/device-map/index.ts';
import { warmedAs } from '../../planner/cut/index.ts';
import { type Op, TEST_BEFORE } from '../../planner/drafts/index.ts';
import { edgeName, opWords, partName, whyNow } from '../../planner/words/index.ts';
import { type Keyless, NOTHING_ASKED, type Question, withKeys } from '../question/index.ts';
import type { BenchNow } from './bench-now.ts';
import { stepCautions } from './step-cautions.ts';
import { stepList } from './step-list.ts';
import { waitOf } from './wait-asked.ts';

const STAGES: Readonly<Record<Op['stage'], string>> = {
  prepare: 'Prepare',
  open: 'Getting in',
  strip: 'Strip',
  move: 'Transfer',
  rebuild: 'Rebuild',
  prove: 'Test',
  close: 'Close',
};

/** The step in hand: what one press does, and every other answer to it. */
export function askedOfStep(bench: BenchNow, op: Op, press: NextPress): Question {
  const { mechanism, state, ahead, now } = bench;
  const { map } = mechanism;
  const worth = worthTrying(map, bench.where, op);
  const left_s = waitLeft_s(state, op, now);
  const lead = leadOf(press.ops, left_s !== null && left_s <= 0);
  const wait = waitOf(bench, op, press);
  const isTried = op.name === 'test' && nextUntested(state, op) !== undefined;
  const serves = ahead!.ops.find((each) => each.id === lead.serves);
  return {
    ...NOTHING_ASKED,
    id: op.id,
    place: placeOf(state, op, ahead!.ops.length),
    ...titled(bench, op, lead),
    tool: bondWork(map, state, op, cutOf(bench, op)) === null ? toolOf(map, lead) : null,
    cautions: stepCautions(bench, op),
    why: worth ?? whyNow(map, lead, serves),
    list: stepList(map, press.ops),
    wait,
    answers: withKeys([
      ...(wait === null && press.label !== ''
        ? [
            {
              id: 'main',
              label: isTried ? 'Works' : press.label,
              weight: 'main',
              gives: press.does,
              ...(press.isAllowed ? {} : { notNow: press.label }),
            } as const,
          ]
        : []),
      ...others(bench, op, press),
    ]),
  };
}

/** With what, and whether it has a bit. */
export function toolOf(map: DeviceMap, { tool, joint }: Op): Question['tool'] {
  return tool === null ? null : { name: tool, isDriver: jointById(map, joint)?.type === 'screw' };
}

/** *Strip · 42 to go*, *Test before it is closed · 2 of 6* */
function placeOf(state: JobState, op: Op, toGo: number): string {
  const next = op.name === 'test' ? nextUntested(state, op) : undefined;
  if (next === undefined) {
    const live = op.live ? ' · live' : '';
    return `${STAGES[op.stage]} · ${toGo} to go${live}${op.onBoth ? ' · on the old part and the new one' : ''}`;
  }
  const at = op.functions!.indexOf(next) + 1;
  return `${op.id === TEST_BEFORE ? 'Test before it is closed' : 'Test'} · ${at} of ${op.functions!.length}`;
}

function cutOf({ mechanism: { map }, state, atHand }: BenchNow, op: Op) {
  const bond = bondInHand(map, op);
  return bond && cutInHand(map, state, bond, atHand.warm ?? null);
}

/** What to do in the largest type, what it is about, and how. */
function titled(bench: BenchNow, op: Op, lead: Op): Pick<Question, 'title' | 'detail' | 'hint'> {
  const { mechanism, state, atHand } = bench;
  const { map } = mechanism;
  const { title, thing, hint = '' } = opWords(map, lead);
  const next = op.name === 'test' ? map.functions.find(({ id }) => id === nextUntested(state, op)) : undefined;
  if (next) return { title: next.name, detail: next.how, hint: '' };
  const bond = bondInHand(map, op);
  const cut = cutOf(bench, op);
  const doing = bondWork(map, state, op, cut);
  if (!bond || doing === null) return { title, detail: thing, hint };
  const own = lead.kind === 'release' ? hint : '';
  const zone = zoneInHand(map, state, bond);
  switch (doing) {
    case 'heating':
      return {
        title: zone === undefined ? 'Heating' : `Heating, ${zoneWords(map, state, bond, zone)}`,
        detail: thing,
        hint: own,
      };
    case 'to-heat':
      return {
        title: zone === undefined ? title : `Heat it, ${zoneWords(map, state, bond, zone)}`,
        detail: thing,
        hint: own,
      };
    case 'cut': {
      const edge = edgeInHand(state, bond, cut!, atHand.warm ?? null)?.edge;
      return { title: edge ? `Cut: ${edgeName(bond, edge.segment)}` : title, detail: thing, hint: own };
    }
    case 'soak':
      return { title, detail: thing, hint: own };
  }
}

/** A zone by its edges, where it is no zone of the map with a name of its own. */
function zoneWords(map: DeviceMap, { policy }: JobState, bond: BondJoint, zone: Zone): string {
  const { segments = [] } = warmedAs(map, bond, policy.warm);
  const edges = segments.filter((each) => each.zone === zone).map(({ id }) => edgeName(bond, id));
  const isMapped = bond.segments?.some((each) => each.zone === zone) ?? false;
  return isMapped || edges.length === 0 ? String(zone) : `${zone}: ${edges.join(', ')}`;
}

/** What else can be said to it, in the order in which it is wanted. */
function others({ mechanism, state, where }: BenchNow, op: Op, press: NextPress): readonly Keyless[] {
  const { map } = mechanism;
  const say = (id: string, label: string, gives: Keyless['gives'], more: Partial<Keyless> = {}): Keyless => ({
    id,
    label,
    weight: 'plain',
    gives,
    ...more,
  });
  const answers: Keyless[] = [];
  const fails = testAnswer(map, state, op, 'fails');
  if (fails.length > 0) {
    const rest = restWorks(map, state, op);
    answers.push(
      say('fails', 'Fails', { kind: 'say', events: fails }, { weight: 'warning' }),
      say('not-tried', 'Not tried', { kind: 'say', events: testAnswer(map, state, op, 'not-tried') }),
      say('rest-works', 'The rest works', { kind: 'say', events: rest }, { key: '5' }),
    );
  }
  if (op.name === 'inspect') {
    answers.push(
      say('failed', 'It is not good', { kind: 'say', events: lookAnswer(op, 'failed') }, { weight: 'warning' }),
    );
  }
  if (press.notSure) answers.push(say('not-sure', 'Not sure that it clicked', press.notSure));
  if (press.allTheSame)
    answers.push(say('all-the-same', 'Heat on all the same', press.allTheSame, { weight: 'warning' }));
  if (press.heatAgain) answers.push(say('heat-again', 'Heat again', press.heatAgain, { also: 'h' }));
  if (press.drags) answers.push(say('drags', 'It drags', press.drags, { also: 'd' }));
  if (press.endsWait) {
    const isHeat = op.name === 'heat' || op.kind === 'release';
    const label = isHeat ? 'Heat off now, cut it as it is' : 'End the wait now';
    answers.push(say('end-wait', label, press.endsWait, { also: 'w' }));
  }
  if (press.ops.length > 1 && press.isAllowed && press.does.kind === 'say' && !press.notSure) {
    const [first] = stepList(map, press.ops);
    if (first?.gives) answers.push(say('one', 'One at a time', first.gives));
  }
  const screw = nextScrew(mechanism, state, op);
  if (screw)
    answers.push(say('lay-one', 'One on the mat', { kind: 'say', events: [screw] }, { also: 'l', weight: 'quiet' }));
  if (bondToClose(map, op)) {
    answers.push(say('closing', 'Keep it, renew it or glue it', { kind: 'ask', about: 'closing' }, { also: 'k' }));
  }
  if (worthTrying(map, where, op) !== null) answers.push(say('try', 'Try it here', { kind: 'ask', about: 'trial' }));
  const closed = justClosed(mechanism, state);
  // felt once, and again while it stands off
  if (closed && state.flush.get(closed.id) !== null) {
    const label = `${partName(map, closed.id)}: flush all round?`;
    answers.push(say('flush', label, { kind: 'ask', about: 'flush' }, { key: '6' }));
  }
  return answers;
}
