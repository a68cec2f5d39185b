import { describe, expect, it } from 'vitest';
import { EFFORT } from '../../../test/effort.ts';
import { demoMaps } from '../../../test/maps.ts';
import { dice, isTrue, tornDown } from '../../../test/torn-down.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import {
  applied,
  assembled,
  changesNothing,
  isStripOp,
  liveJoints,
  mechanismOf,
  numberedOp,
  unmetFor,
} from '../../planner/holds/index.ts';
import { PlanError } from '../../planner/search/index.ts';
import { checkDeviceMap } from '../../planner/map-check/index.ts';
import { planRepair } from '../../planner/plan/index.ts';
import { type Answered, type Entry, entryKey, type Teardown, type Thing, thingKey, thingOf } from '../record/index.ts';
import { inferMap } from './index.ts';

// a device of each kind, taken apart in several orders by somebody who has no map
const TEARDOWNS = demoMaps().flatMap((map) => [1, 2].map((seed) => ({ id: `${map.id}, ${seed}`, map, seed })));

const keyOf = (thing: Thing, entry: Entry) => `${thingKey(thing)} < ${entryKey(entry)}`;

/** Entries of a map, of what has an operation. */
function entriesOf(map: DeviceMap): string[] {
  const { releasable, joint } = mechanismOf(map);
  return [
    ...map.joints.flatMap(({ id, under = [] }) =>
      releasable[joint.get(id)!] ? under.map((each) => keyOf({ joint: id }, each)) : [],
    ),
    ...map.parts.flatMap(({ id, under = [] }) => under.map((each) => keyOf({ part: id }, each))),
  ];
}

const budget = { now: () => performance.now(), limitMs: 20 };

function planned(map: DeviceMap, part: string) {
  try {
    return planRepair({ map, targets: [{ remove: part }] }, budget);
  } catch (error) {
    if (error instanceof PlanError) return null;
    throw error;
  }
}

/** Plans for every single part, made by a map and done on the device: how many of them meet no refusal. */
function legalPlans(device: DeviceMap, map: DeviceMap): { readonly legal: number; readonly all: number } {
  const mechanism = mechanismOf(device);
  const rules = { live: liveJoints(mechanism, assembled(mechanism)) };
  const outcomes = map.parts.flatMap(({ id, base }) => {
    const plan = base ? null : planned(map, id);
    // what never leaves this device, as a lid on its hinge, has no plan in any map
    if (!plan || !planned(device, id)) return [];
    let state = assembled(mechanism);
    return [
      plan.strip.every((op) => {
        const number = op.kind === 'procedure' ? null : numberedOp(mechanism, op as never);
        if (!number || !isStripOp(number) || changesNothing(state, number)) return true;
        const isLegal = unmetFor(mechanism, state, number, rules).length === 0;
        state = applied(mechanism, state, number);
        return isLegal;
      }),
    ];
  });
  return { legal: outcomes.filter(Boolean).length, all: outcomes.length };
}

/** Somebody who looks at the device when asked what held it. */
function answered(device: DeviceMap, told: Teardown, most: number): Teardown {
  const mechanism = mechanismOf(device);
  let now = told;
  for (let asked = 0; asked < most; asked++) {
    const [question] = inferMap(now).questions;
    if (!question) break;
    const thing = thingOf(question);
    const answer: Answered = {
      ...thing,
      options: question.options,
      by: question.options.filter((entry) => isTrue(mechanism, thing, entry)),
    };
    now = { ...now, answers: [...now.answers, answer] };
  }
  return now;
}

describe('a map from one teardown', () => {
  let [real, inMapOrOffered] = [0, 0];
  let [certain, certainReal] = [0, 0];

  it.each(TEARDOWNS)('of $id calls nothing certain that is false, and allows its own record', ({ map, seed }) => {
    const told = tornDown(map, seed);
    const { map: made, guesses, questions } = inferMap(told);
    const mechanism = mechanismOf(map);
    const sure = guesses.filter(({ certainty }) => certainty === 'certain');
    expect(sure.filter((each) => !isTrue(mechanism, thingOf(each), each.entry))).toEqual([]);
    // it is a map like any other
    expect(checkDeviceMap(made).errors).toEqual([]);
    let state = assembled(mechanismOf(made));
    const own = mechanismOf(made);
    for (const line of told.record) {
      if (line.kind === 'refused') continue;
      const op =
        line.kind === 'release'
          ? ({ kind: 'release', joint: own.joint.get(line.joint)! } as const)
          : ({ kind: line.kind, part: own.part.get(line.part)! } as const);
      expect(
        unmetFor(own, state, op, { live: new Set(), isolation: false }),
        `${line.kind} ${JSON.stringify(line)}`,
      ).toEqual([]);
      state = applied(own, state, op);
    }
    const have = new Set([
      ...guesses.filter((each) => each.in).map((each) => keyOf(thingOf(each), each.entry)),
      ...questions.flatMap((each) => each.options.map((entry) => keyOf(thingOf(each), entry))),
    ]);
    const entries = entriesOf(map);
    real += entries.length;
    inMapOrOffered += entries.filter((each) => have.has(each)).length;
    const sureKeys = new Set(sure.map((each) => keyOf(thingOf(each), each.entry)));
    certain += sure.length;
    certainReal += entries.filter((each) => sureKeys.has(each)).length;
  });

  it('has nine of ten true entries in it or offers them, and more than half of them for certain', () => {
    expect(certain).toBeGreaterThan(300);
    expect(inMapOrOffered / real).toBeGreaterThan(0.9);
    expect(certainReal / real).toBeGreaterThan(0.5);
  });

  it('has hardly anything for certain where nothing was photographed', () => {
    const [map] = demoMaps();
    const { guesses } = inferMap(tornDown(map!, 1, { photographed: false }));
    expect(guesses.filter(({ certainty }) => certainty === 'certain')).toEqual([]);
    expect(guesses.filter((each) => each.in).length).toBeGreaterThan(3);
  });

  it('does not depend on ids or on the order of lists, and is the same each time', () => {
    const [map] = demoMaps();
    const told = tornDown(map!, 3);
    const roll = dice(7);
    const shuffled = <T>(list: readonly T[]) =>
      list
        .map((each) => [roll(), each] as const)
        .toSorted(([a], [b]) => a - b)
        .map(([, each]) => each);
    const mixed = {
      ...told,
      parts: shuffled(told.parts),
      photos: shuffled(told.photos),
      seen: shuffled(told.seen),
      fasteners: shuffled(told.fasteners),
    };
    const saidOf = (given: Teardown) => {
      const { guesses, questions, hosts } = inferMap(given);
      return {
        guesses: guesses.map((each) => `${keyOf(thingOf(each), each.entry)} ${each.certainty} ${each.why}`).toSorted(),
        questions: questions.map(({ id, weight, plans }) => `${id} ${weight} ${plans}`).toSorted(),
        hosts: hosts.map(({ joint, to }) => `${joint} ${to}`).toSorted(),
      };
    };
    expect(saidOf(mixed)).toEqual(saidOf(told));
    expect(inferMap(told)).toEqual(inferMap(told));
  });

  it('makes four of five plans legal after at most 20 questions a device', () => {
    const each = demoMaps()
      .slice(0, EFFORT < 1 ? 1 : 6)
      .map((map) => legalPlans(map, inferMap(answered(map, tornDown(map, 1), 20)).map));
    const sum = (of: (plans: (typeof each)[number]) => number) => each.reduce((all, plans) => all + of(plans), 0);
    expect(sum(({ legal }) => legal) / sum(({ all }) => all)).toBeGreaterThanOrEqual(0.8);
  }, 240_000);
});
